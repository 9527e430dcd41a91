"""A form's public address: after its name until it is published or a person chooses another; earlier ones lead on."""

import re
import unicodedata
from uuid import UUID

from codexa.services.errors import NameTakenError, NotFoundError
from codexa.store import forms
from codexa.store.database import Connection
from codexa.store.sessions import SignedIn


def slug_of(name: str) -> str:
    """Return a readable address for a name: small ASCII letters, digits and hyphens, never empty."""
    plain = unicodedata.normalize("NFKD", name[:200]).encode("ascii", "ignore").decode().lower()
    return re.sub(r"[^a-z0-9]+", "-", plain).strip("-")[:60].strip("-") or "form"


def free_slug(connection: Connection, *, team: UUID, name: str, form: UUID | None = None) -> str:
    """Return an address for a name that no other form of the team has, had, or gets before the transaction ends."""
    wanted = slug_of(name)
    forms.wait_for_slugs(connection, team=team)
    taken = forms.slugs_like(connection, team=team, slug=wanted, form=form)
    if wanted not in taken:
        return wanted
    return next(slug for number in range(2, len(taken) + 3) if (slug := f"{wanted}-{number}") not in taken)


def follow_name(connection: Connection, *, team: UUID, form: UUID, name: str) -> None:
    """Give a form the address of its name, where nobody has chosen one and it was never published."""
    has = forms.slug_that_follows(connection, team=team, form=form)
    if has is None or has == slug_of(name):
        return
    slug = free_slug(connection, team=team, name=name, form=form)
    if slug != has:
        forms.set_slug(connection, team=team, form=form, slug=slug, chosen=False)


def choose_address(connection: Connection, *, who: SignedIn, form: UUID, address: str) -> str:
    """Give a form the address that a person wants, written as addresses are, and return it; the old one leads on.

    Raises NameTakenError where another form has it or had it, NotFoundError.
    """
    slug = slug_of(address)
    forms.wait_for_slugs(connection, team=who.team_id)
    if slug in forms.slugs_like(connection, team=who.team_id, slug=slug, form=form):
        raise NameTakenError(f"Another form of your team has the address {slug}, or had it. Choose another.")
    if not forms.set_slug(connection, team=who.team_id, form=form, slug=slug, chosen=True):
        raise NotFoundError
    return slug
