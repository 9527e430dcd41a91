"""What was: the saved states of a draft and what changed between them. Who is here: who else works on it now."""

from dataclasses import dataclass
from uuid import UUID

from codexa.core.form.comparing import Change, describe_changes
from codexa.core.form.form import Form
from codexa.core.form.upgrades import read_stored
from codexa.services.errors import NotFoundError
from codexa.store import forms
from codexa.store import history as store
from codexa.store.database import Connect, Connection
from codexa.store.history import Present, SavedState
from codexa.store.sessions import SignedIn

HEARD_SECONDS = 15
_PAGE = 200


@dataclass(frozen=True, kw_only=True, slots=True)
class Here:
    """Who else is here, and the revision that is saved now, so that a tab knows when somebody saved."""

    people: list[Present]
    revision: int


def list_states(connection: Connection, *, who: SignedIn, form: UUID, before: int) -> list[SavedState]:
    """Return a page of saved states below a revision, newest first. Raises NotFoundError."""
    states = store.list_states(connection, team=who.team_id, form=form, before=before, limit=_PAGE)
    if not states and forms.find_revision(connection, team=who.team_id, form=form) is None:
        raise NotFoundError
    return states


def find_state(connect: Connect, *, who: SignedIn, form: UUID, revision: int) -> Form:
    """Return the draft as it was saved once. Raises NotFoundError."""
    with connect() as connection:
        draft = store.find_state(connection, team=who.team_id, form=form, revision=revision)
    if draft is None:
        raise NotFoundError
    return read_stored(draft)


def compare(connect: Connect, *, who: SignedIn, form: UUID, before: int, after: int) -> list[Change]:
    """Return what changed between the draft as it stood at two revisions, in words. Raises NotFoundError."""
    with connect() as connection:
        drafts = [
            store.find_state_at(connection, team=who.team_id, form=form, revision=each) for each in (before, after)
        ]
    if None in drafts:
        raise NotFoundError
    old, new = (read_stored(draft) for draft in drafts)
    return describe_changes(old, new)


def here(connection: Connection, *, who: SignedIn, form: UUID, tab: str, area: str, part: str | None) -> Here:
    """Note that a tab shows the form, and return who else does. Raises NotFoundError."""
    noted = store.note_presence(
        connection, team=who.team_id, form=form, person=who.person_id, tab=tab, area=area, part=part
    )
    revision = forms.find_revision(connection, team=who.team_id, form=form) if noted else None
    if revision is None:
        raise NotFoundError
    people = store.list_present(connection, form=form, tab=tab, seconds=HEARD_SECONDS)
    return Here(people=people, revision=revision)


def leave(connection: Connection, *, who: SignedIn, form: UUID, tab: str) -> None:
    """Forget a tab that was closed. Raises NotFoundError."""
    if forms.find_revision(connection, team=who.team_id, form=form) is None:
        raise NotFoundError
    store.forget_presence(connection, form=form, tab=tab)
