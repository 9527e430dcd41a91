"""The desk: making, duplicating, deleting and bringing back forms."""

import re
import secrets
import unicodedata
from typing import Any
from uuid import UUID

from codexa.core.definition.form import Form, Page, read_form
from codexa.core.definition.outline_text import Outlined, read_outline
from codexa.services.errors import NotFoundError
from codexa.store import forms
from codexa.store.database import Connection
from codexa.store.sessions import SignedIn


def slug_of(name: str) -> str:
    """Return a readable address for a name: small ASCII letters, digits and hyphens, never empty."""
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    return re.sub(r"[^a-z0-9]+", "-", plain).strip("-")[:60].strip("-") or "form"


def make_form(connection: Connection, *, who: SignedIn, name: str) -> UUID:
    """Make a blank form with one page and return its id."""
    form = read_form({"name": name, "title": name})
    first_page = Page(id=secrets.token_hex(4), title="")
    return _insert(connection, who=who, draft=form.model_copy(update={"pages": (first_page,)}))


def outlined(text: str) -> Outlined:
    """Return what pasted text makes, with new ids."""
    return read_outline(text, lambda: secrets.token_hex(6))


def import_form(connection: Connection, *, who: SignedIn, document: Any) -> UUID:
    """Make a form of a JSON document and return its id. Raises DefinitionError with everything that is wrong."""
    return _insert(connection, who=who, draft=read_form(document))


def duplicate_form(connection: Connection, *, who: SignedIn, form: UUID) -> UUID:
    """Make a copy of a form's draft and return its id. Raises NotFoundError."""
    original = forms.find_form(connection, team=who.team_id, form=form)
    if original is None:
        raise NotFoundError
    draft = read_form(original.draft)
    copy = draft.model_copy(update={"name": f"{draft.name[:190]} (copy)"})
    return _insert(connection, who=who, draft=copy, sites=original.sites)


def set_deleted(connection: Connection, *, who: SignedIn, form: UUID, deleted: bool) -> None:
    """Delete a form, or bring it back. Raises NotFoundError."""
    if not forms.set_deleted(connection, team=who.team_id, form=form, deleted=deleted):
        raise NotFoundError


def _insert(connection: Connection, *, who: SignedIn, draft: Form, sites: list[str] | None = None) -> UUID:
    return forms.insert_form(
        connection,
        team=who.team_id,
        person=who.person_id,
        name=draft.name,
        slug=free_slug(connection, team=who.team_id, name=draft.name),
        draft=draft.model_dump(mode="json"),
        sites=sites or [],
    )


def free_slug(connection: Connection, *, team: UUID, name: str, form: UUID | None = None) -> str:
    """Return an address for a name that no other form of the team has or had."""
    wanted = slug_of(name)
    taken = forms.slugs_like(connection, team=team, slug=wanted, form=form)
    if wanted not in taken:
        return wanted
    return next(slug for number in range(2, len(taken) + 3) if (slug := f"{wanted}-{number}") not in taken)
