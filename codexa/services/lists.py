"""The team's lists of options: made, changed with the drafts that follow them, deleted."""

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.core.form.comparing import count_changes
from codexa.core.form.shared_lists import SharedList, read_list, with_list
from codexa.core.form.upgrades import read_stored
from codexa.services.errors import ClashError, NotFoundError
from codexa.store import forms, lists
from codexa.store.database import Connect, Connection
from codexa.store.lists import FormWithList, ListFace
from codexa.store.sessions import SignedIn

_LOOKS = 3  # at a draft that somebody saves at the same moment


@dataclass(frozen=True, kw_only=True, slots=True)
class OpenedList:
    """A list, its revision, and the forms in whose draft it is; `behind` are those that could not follow it."""

    id: UUID
    revision: int
    shared: SharedList
    forms: list[FormWithList]
    behind: list[str]


def list_lists(connect: Connect, *, who: SignedIn) -> list[ListFace]:
    """Return the team's lists, by name."""
    with connect() as connection:
        return lists.list_lists(connection, team=who.team_id)


def create(connect: Connect, *, who: SignedIn, document: Any) -> UUID:
    """Make a list, and return its id. Raises DefinitionError."""
    made = read_list(document)
    with connect() as connection:
        return lists.insert_list(connection, team=who.team_id, name=made.name, options=_kept(made))


def show(connect: Connect, *, who: SignedIn, list_id: UUID, behind: list[str] | None = None) -> OpenedList:
    """Return a list. Raises NotFoundError."""
    with connect() as connection:
        row = lists.find_list(connection, team=who.team_id, list_id=list_id)
        if row is None:
            raise NotFoundError("This list is gone. Somebody else has deleted it.")
        known = lists.forms_with_list(connection, team=who.team_id, list_id=list_id)
    shared = read_list({"name": row.name, "options": row.options})
    return OpenedList(id=list_id, revision=row.revision, shared=shared, forms=known, behind=behind or [])


def change(connect: Connect, *, who: SignedIn, list_id: UUID, revision: int, document: Any) -> OpenedList:
    """Change a list, and with it the drafts of all forms that have options from it; live editions stay as they are.

    Each draft is a state of its own in its form's history. Raises DefinitionError, NotFoundError, ClashError.
    """
    changed = read_list(document)
    before = show(connect, who=who, list_id=list_id)
    with connect() as connection:
        saved = lists.set_list(
            connection, team=who.team_id, list_id=list_id, revision=revision, name=changed.name, options=_kept(changed)
        )
        if not saved:
            raise ClashError("Somebody else has changed this list meanwhile. Look at it, then change it again.")
    behind = [form.name for form in before.forms if not _follows(connect, who, form.id, list_id, changed)]
    return show(connect, who=who, list_id=list_id, behind=behind)


def _follows(connect: Connect, who: SignedIn, form: UUID, list_id: UUID, shared: SharedList) -> bool:
    """Give a form's draft the options as they are now; False where others keep saving it."""
    for _ in range(_LOOKS):
        with connect() as connection:
            if _given(connection, who, form, list_id, shared):
                return True
    return False


def _given(connection: Connection, who: SignedIn, form: UUID, list_id: UUID, shared: SharedList) -> bool:
    row = forms.find_form(connection, team=who.team_id, form=form)
    if row is None:
        return True  # it was deleted
    draft = read_stored(with_list(read_stored(row.draft).model_dump(mode="json"), list_id.hex, shared))
    saved = forms.save_draft(
        connection,
        team=who.team_id,
        form=form,
        person=who.person_id,
        revision=row.revision,
        name=draft.name,
        draft=draft.model_dump(mode="json"),
        changes=count_changes(read_stored(row.draft), draft),
    )
    return saved is not None


def delete(connect: Connect, *, who: SignedIn, list_id: UUID) -> None:
    """Delete a list; choices keep the options that they had from it. Raises NotFoundError."""
    with connect() as connection:
        if not lists.delete_list(connection, team=who.team_id, list_id=list_id):
            raise NotFoundError


def _kept(shared: SharedList) -> list[dict[str, Any]]:
    return [each.model_dump(mode="json") for each in shared.options]
