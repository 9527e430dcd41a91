"""What was: the saved states of a draft and what changed between them. Who is here: who else works on it now."""

from dataclasses import dataclass
from uuid import UUID

from codexa.core.form.comparing import Change, describe_changes
from codexa.core.form.form import Form
from codexa.core.form.upgrades import read_stored
from codexa.core.program.compiling import compile_form
from codexa.core.program.form_text import TextLine, compared_texts, form_text
from codexa.services.errors import NotFoundError
from codexa.store import forms
from codexa.store import history as store
from codexa.store.database import Connect, Connection
from codexa.store.history import Present, SavedState
from codexa.store.sessions import SignedIn

HEARD_SECONDS = 9  # a tab tells every four seconds that it is there
_PAGE = 200


@dataclass(frozen=True, kw_only=True, slots=True)
class Here:
    """Who else is here, and what is saved and live now, so that a tab knows when somebody saved or published."""

    people: list[Present]
    revision: int
    live_edition: int | None


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


def name_state(connection: Connection, *, who: SignedIn, form: UUID, revision: int, name: str) -> None:
    """Give a saved state a name, by which it is kept for good; "" takes it away. Raises NotFoundError."""
    if not store.name_state(connection, team=who.team_id, form=form, revision=revision, name=" ".join(name.split())):
        raise NotFoundError


def text_of_state(
    connect: Connect, *, who: SignedIn, form: UUID, revision: int, against: int | None = None
) -> tuple[Form, list[TextLine]]:
    """Return a saved state as words, marked by what differs from another where one is named. Raises NotFoundError."""
    shown = _state_at(connect, who, form, revision)
    lines = form_text(compile_form(shown))
    if against is None:
        return shown, [TextLine(" ", line) for line in lines]
    return shown, compared_texts(form_text(compile_form(_state_at(connect, who, form, against))), lines)


def _state_at(connect: Connect, who: SignedIn, form: UUID, revision: int) -> Form:
    with connect() as connection:
        draft = store.find_state_at(connection, team=who.team_id, form=form, revision=revision)
    if draft is None:
        raise NotFoundError
    return read_stored(draft)


def compare(connect: Connect, *, who: SignedIn, form: UUID, before: int, after: int) -> list[Change]:
    """Return what changed between the draft as it stood at two revisions, in words. Raises NotFoundError."""
    old, new = (_state_at(connect, who, form, each) for each in (before, after))
    return describe_changes(old, new)


def here(connection: Connection, *, who: SignedIn, form: UUID, tab: str, area: str, part: str | None) -> Here:
    """Note that a tab shows the form, and return who else does. Raises NotFoundError."""
    noted = store.note_presence(
        connection, team=who.team_id, form=form, person=who.person_id, tab=tab, area=area, part=part
    )
    saved = forms.find_saved(connection, team=who.team_id, form=form) if noted else None
    if saved is None:
        raise NotFoundError
    people = store.list_present(connection, form=form, person=who.person_id, seconds=HEARD_SECONDS)
    return Here(people=people, revision=saved.revision, live_edition=saved.live_edition)


def leave(connection: Connection, *, who: SignedIn, form: UUID, tab: str) -> None:
    """Forget a tab that was closed. Raises NotFoundError."""
    if forms.find_revision(connection, team=who.team_id, form=form) is None:
        raise NotFoundError
    store.forget_presence(connection, form=form, tab=tab)
