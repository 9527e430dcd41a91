"""The desk: making, duplicating, deleting and bringing back forms."""

import re
import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.core.form.form import Form, Page, read_form
from codexa.core.form.outline_text import Outlined, OutlineLine, read_outline
from codexa.core.form.outline_words import FoundPart, outline_words
from codexa.core.form.upgrades import read_imported, read_stored
from codexa.services.addresses import free_slug
from codexa.services.audit import note_form
from codexa.services.errors import NotFoundError, PlansRunError
from codexa.services.tables.rights import refuse_beyond_rights
from codexa.store import desk as store
from codexa.store import forms, payments
from codexa.store.database import Connect, Connection
from codexa.store.sessions import SignedIn

_MOST_WORDS = 8
_MOST_FOUND = 40
_MOST_READ = 500  # drafts that one search makes to be found; what is left comes with the next


def make_form(connection: Connection, *, who: SignedIn, name: str) -> UUID:
    """Make a blank form with one page and return its id."""
    form = read_form({"name": name, "title": name})
    first_page = Page(id=secrets.token_hex(4), title="")
    return insert(connection, who=who, draft=form.model_copy(update={"pages": (first_page,)}))


def outlined(text: str) -> Outlined:
    """Return what pasted text makes, with new ids."""
    return read_outline(text, lambda: secrets.token_hex(6))


@dataclass(frozen=True, kw_only=True, slots=True)
class TriedOutline:
    """What pasted text would make, and what became of each of its lines."""

    form: Form
    lines: list[OutlineLine]


def try_outline(text: str) -> TriedOutline:
    """Return what pasted text would make; makes nothing."""
    found = outlined(text)
    return TriedOutline(form=read_form({"name": "outline", "pages": found.pages}), lines=found.lines)


def import_form(connect: Connect, *, who: SignedIn, document: Any) -> UUID:
    """Make a form of a JSON document of any format and return its id.

    Raises DefinitionError with everything that is wrong.
    """
    draft = read_imported(document)
    refuse_beyond_rights(connect, who=who, former=None, draft=draft)
    with connect() as connection:
        return insert(connection, who=who, draft=draft)


def outline_form(connect: Connect, *, who: SignedIn, name: str, text: str) -> UUID:
    """Make a form of pasted text and return its id. Raises DefinitionError."""
    return import_form(connect, who=who, document={"name": name, "title": name, "pages": outlined(text).pages})


def duplicate_form(connect: Connect, *, who: SignedIn, form: UUID) -> UUID:
    """Make a copy of a form's draft and return its id. Raises NotFoundError."""
    with connect() as connection:
        original = forms.find_form(connection, team=who.team_id, form=form)
    if original is None:
        raise NotFoundError
    draft = read_stored(original.draft)
    copy = draft.model_copy(update={"name": _copied(draft.name[:190])})
    with connect() as connection:
        return insert(connection, who=who, draft=copy, sites=original.sites)


def _copied(name: str) -> str:
    """Return the name of a copy: "Name (copy)", then "Name (copy 2)"."""
    found = re.fullmatch(r"(.*) \(copy(?: (\d+))?\)", name, re.DOTALL)
    return f"{name} (copy)" if found is None else f"{found[1]} (copy {int(found[2] or 1) + 1})"


def set_deleted(connection: Connection, *, who: SignedIn, form: UUID, deleted: bool) -> None:
    """Delete a form, or bring it back. Raises NotFoundError; PlansRunError while people are charged by it."""
    if not forms.set_deleted(connection, team=who.team_id, form=form, deleted=deleted):
        raise NotFoundError
    running = payments.running_plans(connection, form=form) if deleted else 0
    if running:
        plans = "1 plan still charges" if running == 1 else f"{running} plans still charge"
        raise PlansRunError(f"{plans} somebody by this form. Stop what runs in Payment first.")
    note_form(connection, who, "form deleted" if deleted else "form brought back", form)


def set_labels(connection: Connection, *, who: SignedIn, form: UUID, labels: Sequence[str]) -> None:
    """Set a form's labels, each once, whatever its letters. Raises NotFoundError."""
    tidy = {label.casefold(): label for label in (" ".join(each.split()) for each in labels) if label}
    if not store.set_labels(connection, team=who.team_id, form=form, labels=list(tidy.values())):
        raise NotFoundError


def give(connection: Connection, *, who: SignedIn, form: UUID, person: UUID) -> None:
    """Say whose a form is. Raises NotFoundError where there is no such form, or nobody like that in the team."""
    if not store.set_owner(connection, team=who.team_id, form=form, person=person):
        raise NotFoundError
    note_form(connection, who, "form given", form)


def find_parts(connection: Connection, *, who: SignedIn, words: str) -> list[tuple[UUID, str, FoundPart]]:
    """Return what is in forms that has all of these words, with its form's id and name; at most so many."""
    wanted = words.lower().split()[:_MOST_WORDS]
    if not wanted:
        return []
    stale = store.stale_outlines(connection, team=who.team_id, most=_MOST_READ)
    if stale:
        store.keep_outlines(connection, [(form, revision, outline_words(draft)) for form, revision, draft in stale])
    found = []
    for row in store.find_outlines(connection, team=who.team_id, person=who.person_id, words=wanted, most=_MOST_FOUND):
        parts = (FoundPart(*part) for part in row.parts)
        found += [(row.id, row.name, part) for part in parts if _has(part, wanted)]
    return found[:_MOST_FOUND]


def _has(part: FoundPart, words: Sequence[str]) -> bool:
    said = f"{part.number} {part.title} {part.key}".lower()
    return all(word in said for word in words)


def insert(connection: Connection, *, who: SignedIn, draft: Form, sites: list[str] | None = None) -> UUID:
    """Make a form of a draft, and return its id."""
    return forms.insert_form(
        connection,
        team=who.team_id,
        person=who.person_id,
        name=draft.name,
        slug=free_slug(connection, team=who.team_id, name=draft.name),
        draft=draft.model_dump(mode="json"),
        sites=sites or [],
    )
