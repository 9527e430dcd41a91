"""Publishing: an edition of a proven draft, and the websites that may show it."""

from collections.abc import Mapping
from datetime import UTC
from uuid import UUID

from codexa.core.errors import DefinitionError, Problem
from codexa.core.form.comparing import Change, describe_changes
from codexa.core.form.form import Form
from codexa.core.form.upgrades import read_stored
from codexa.core.formula.check import Severity
from codexa.core.look_ups import Tables
from codexa.core.program.compiling import compile_form
from codexa.core.program.program import Program
from codexa.core.program.trials import run_trials
from codexa.core.web_addresses import parts_of
from codexa.services import people
from codexa.services.audit import note_form
from codexa.services.bookings import booking
from codexa.services.editions import Editions
from codexa.services.errands.asking import ask
from codexa.services.errors import (
    ClashError,
    NotFoundError,
    NotProvenError,
    PublishedMeanwhileError,
    TrialsFailError,
)
from codexa.services.proving import findings_of
from codexa.services.tables.looking_up import tables_for
from codexa.services.tables.tables import HELD_AGAINST
from codexa.store import editions, forms, payments
from codexa.store.database import Connect, Connection
from codexa.store.editions import Locked
from codexa.store.sessions import SignedIn


def publish(
    connect: Connect,
    *,
    who: SignedIn,
    form: UUID,
    revision: int,
    live: int | None = None,
    note: str = "",
    despite_trials: bool = False,
) -> int:
    """Publish that revision of the draft and return the edition's number; once more gives the same edition.

    `live` is the edition that was live when the changes were looked at (None: whichever it is); `note` is for the team.
    Raises NotFoundError, ClashError where the draft has moved on, NotProvenError where the proof has errors,
    PublishedMeanwhileError where somebody else made another edition live since, TrialsFailError where trials fail,
    unless it shall be published `despite_trials`.
    """
    with connect() as connection:
        found = forms.find_form(connection, team=who.team_id, form=form)
    if found is None:
        raise NotFoundError
    if found.live_edition is not None and found.live_revision == found.revision == revision:
        return found.live_edition
    draft = read_stored(found.draft)
    prove(connect, form, draft, despite_trials=despite_trials)
    with connect() as connection:
        _require_account(connection, draft, form)
        return make_live(connection, draft, who=who, form=form, revision=revision, live=live, note=note)


def go_live(connect: Connect, kept: Editions, *, who: SignedIn, form: UUID, edition: int, live: int | None) -> int:
    """Give visitors an edition that was published before, and return its number; the draft stays as it is.

    Visitors who are filling in finish on theirs. Raises NotFoundError, PublishedMeanwhileError.
    """
    earlier = kept.form(form, edition)
    with connect() as connection:
        locked = _locked(connection, who=who, form=form, live=live)
        if edition not in (editions.numbers_of_form(connection, team=who.team_id, form=form) or []):
            raise NotFoundError
        if locked.live_edition != edition:
            editions.set_live(connection, team=who.team_id, form=form, number=edition, person=who.person_id)
            booking.plan(connection, form, earlier)
            note_form(connection, who, "gone back", form, edition=edition)
            # Its tables may have changed since it was proven.
            ask(connection, HELD_AGAINST, {"form": str(form), "edition": edition})
    return edition


def changes_to_come(connect: Connect, kept: Editions, *, who: SignedIn, form: UUID) -> list[Change]:
    """Return in words what publishing the draft would change for visitors; nothing where there is no edition yet.

    Trials are the team's own and are left out. Raises NotFoundError.
    """
    with connect() as connection:
        found = forms.find_form(connection, team=who.team_id, form=form)
    if found is None:
        raise NotFoundError
    if found.live_edition is None:
        return []
    live, draft = kept.form(form, found.live_edition), read_stored(found.draft)
    return describe_changes(live, draft.model_copy(update={"trials": live.trials}))


def prove(connect: Connect, form: UUID, draft: Form, *, despite_trials: bool) -> None:
    """Hold a draft against its form's team. Raises NotProvenError where the proof has errors, TrialsFailError."""
    program, team = compile_form(draft), people.written_to(connect, draft, form)
    found = findings_of(connect, form, program, team)
    errors = [finding for finding in found if finding.severity is Severity.ERROR]
    if errors:
        raise NotProvenError(f"{errors[0].message} {errors[0].remedy}")
    if not despite_trials:
        with tables_for(connect, form) as tables:
            _try(program, team, tables)


def _require_account(connection: Connection, draft: Form, form: UUID) -> None:
    """Raise NotProvenError where the form's payment goes to an account that is not the team's."""
    payment = draft.payment
    if not payment.on or payment.practice:
        return
    if payments.account_of_form(connection, form=form, account=UUID(payment.account)) is None:
        raise NotProvenError("The account that payments go to is not the team's. Pick another in Payment.")


def make_live(
    connection: Connection,
    draft: Form,
    *,
    who: SignedIn,
    form: UUID,
    revision: int,
    live: int | None = None,
    note: str = "",
) -> int:
    """Make an edition of a draft that was proven, and give it to visitors; raises as `publish` does."""
    made = editions.edition_of_revision(connection, form=form, revision=revision)
    locked = _locked(connection, who=who, form=form, live=live, made=made)
    if locked.revision != revision:
        raise ClashError("The draft has changed since. Look at the changes, then publish again.")
    # Made meanwhile by the same press, sent twice.
    made = editions.edition_of_revision(connection, form=form, revision=revision)
    number = made or editions.insert_edition(connection, team=who.team_id, form=form, person=who.person_id, note=note)
    if locked.live_edition != number:
        editions.set_live(connection, team=who.team_id, form=form, number=number, person=who.person_id)
        booking.plan(connection, form, draft)
        note_form(connection, who, "published", form, edition=number)
    return number


def _locked(connection: Connection, *, who: SignedIn, form: UUID, live: int | None, made: int | None = None) -> Locked:
    """Return the form, which nobody else can publish until the transaction ends.

    Raises PublishedMeanwhileError where something else than `live`, as it was seen, was made live by another person.
    """
    locked = editions.lock_form(connection, team=who.team_id, form=form)
    if locked is None:
        raise NotFoundError
    last = editions.last_live(connection, form=form)
    seen = live if live is not None else made
    moved = seen is not None and locked.live_edition not in (seen, made)
    if moved and last is not None and last.person_id != who.person_id:
        at = f"{last.at.astimezone(UTC):%d %B, %H:%M} UTC"
        message = (
            f"{last.person or 'Somebody'} made edition {last.edition} live on {at}. "
            f"Look at what it changed, then publish again."
        )
        raise PublishedMeanwhileError(message)
    return locked


def _try(program: Program, team: Mapping[str, str], tables: Tables) -> None:
    failing = {result.trial for result in run_trials(program, team, tables).results if not result.passed}
    if failing:
        names = ", ".join(f"“{trial.name}”" for trial in program.form.trials if trial.id in failing)
        count = len(program.form.trials)
        raise TrialsFailError(f"{len(failing)} of {count} trials {'fails' if len(failing) == 1 else 'fail'}: {names}.")


def set_sites(connection: Connection, *, who: SignedIn, form: UUID, sites: list[str]) -> list[str]:
    """Set the websites that may frame the form and return them as origins.

    Raises DefinitionError for what is no website address, NotFoundError.
    """
    origins = list(dict.fromkeys(_origin(site, index) for index, site in enumerate(sites)))
    if not forms.set_sites(connection, team=who.team_id, form=form, sites=origins):
        raise NotFoundError
    note_form(connection, who, "sites set", form)
    return origins


def _origin(site: str, index: int) -> str:
    parts = parts_of(site.strip() if "://" in site else f"https://{site.strip()}")
    host = parts.hostname or ""
    # What is written into a policy header must be a plain host; anything else could widen the policy.
    plain = host.replace("-", "").replace(".", "")
    # A word alone is a name of nobody's website ("not a site"), but for the machine itself.
    if "." not in host and host != "localhost":
        plain = ""
    try:
        port = f":{parts.port}" if parts.port else ""
    except ValueError:
        plain, port = "", ""
    if parts.scheme not in ("http", "https") or not plain.isascii() or not plain.isalnum():
        message = f'"{site[:80]}" is no website address; write one such as https://www.example.org'
        raise DefinitionError([Problem(path=f"sites.{index}", message=message)])
    return f"{parts.scheme}://{host}{port}"
