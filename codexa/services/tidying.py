"""What nobody needs any more: answers kept beyond their time, files without a response, saves, pictures."""

from dataclasses import dataclass
from pathlib import Path

from codexa.services.brands import picture_path
from codexa.services.uploads import remove
from codexa.store import (
    accounts,
    brands,
    bulks,
    desk,
    errands,
    history,
    imports,
    kept_answers,
    ledgers,
    rates,
    record_files,
    rehearsals,
    responses,
    tables,
    team,
    uploads,
)
from codexa.store.database import Connection

UNCLAIMED_HOURS = 48  # an upload that no response names: a visitor may still be at the form
ERRANDS_KEPT_DAYS = 90
REHEARSALS_KEPT_DAYS = 7
# The bin, all saved states, and pictures that nothing names: a draft kept in a browser may still need them.
KEPT_DAYS = 30


@dataclass(frozen=True, kw_only=True, slots=True)
class Tidied:
    """How many were deleted: uploads, saved states, pictures."""

    uploads: int
    states: int
    pictures: int


def tidy(connection: Connection, folder: Path, *, hours: int = UNCLAIMED_HOURS, days: int = KEPT_DAYS) -> Tidied:
    """Delete what nobody needs any more, and return how much that was; may be run at any time, and again."""
    uploads.hold_tidying(connection)
    states = history.thin_states(connection, days=days)
    kept_answers.forget_over(connection)
    responses.forget_removed(connection, days=days)
    uploaded = uploads.delete_unclaimed(connection, hours=hours)
    uploaded += record_files.delete_left_over(connection, hours=hours)
    uploaded += desk.forget_deleted(connection, days=days)
    uploaded += rehearsals.delete_old(connection, days=REHEARSALS_KEPT_DAYS)
    pictures = brands.delete_unused_pictures(connection, days=days)
    # Files go after what names them: what is left behind by a crash between the two does no harm.
    rates.delete_ended(connection)
    ledgers.forget_due_of_none(connection)
    ledgers.drop_left_over(connection)
    bulks.forget_bulks(connection, days=days)
    imports.forget_imports(connection, days=days)
    tables.forget_deleted(connection, days=days)
    errands.forget_ended(connection, days=ERRANDS_KEPT_DAYS)
    accounts.forget_links(connection)
    team.forget_invitations(connection)
    connection.commit()
    for upload in uploaded:
        remove(folder, upload)
    for picture in pictures:
        picture_path(folder, picture).unlink(missing_ok=True)
    return Tidied(uploads=len(uploaded), states=states, pictures=len(pictures))
