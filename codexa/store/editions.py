"""Editions: what was published, unchangeable."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("editions")


@dataclass(frozen=True, kw_only=True, slots=True)
class EditionRow:
    """An edition in the list of a form's editions."""

    number: int
    published_at: datetime
    published_by: str | None
    responses: int


@dataclass(frozen=True, kw_only=True, slots=True)
class LiveEdition:
    """What visitors get at an address, and the sites that may frame it."""

    form_id: UUID
    number: int
    sites: list[str]


def publish(connection: Connection, *, team: UUID, form: UUID, person: UUID, revision: int) -> int | None:
    """Publish that revision of the draft and return the edition's number; None where the draft has moved on."""
    row = one(connection, _QUERIES["publish"], team=team, form=form, person=person, revision=revision)
    if row is None:
        return None
    connection.execute(_QUERIES["set_live"], {"team": team, "form": form, "number": row["number"]})
    return int(row["number"])


def list_editions(connection: Connection, *, team: UUID, form: UUID) -> list[EditionRow]:
    """Return a form's editions, newest first."""
    return [EditionRow(**row) for row in many(connection, _QUERIES["list_editions"], team=team, form=form)]


def definitions_of_form(connection: Connection, *, team: UUID, form: UUID) -> dict[int, dict[str, Any]]:
    """Return the definitions of all editions by number."""
    rows = many(connection, _QUERIES["definitions_of_form"], team=team, form=form)
    return {row["number"]: row["definition"] for row in rows}


def find_live(connection: Connection, *, team_slug: str, slug: str) -> LiveEdition | None:
    """Return the edition at a public address."""
    row = one(connection, _QUERIES["find_live"], team_slug=team_slug, slug=slug)
    return LiveEdition(**row) if row else None


def find_definition(connection: Connection, *, form: UUID, number: int) -> dict[str, Any] | None:
    """Return the definition of one edition."""
    row = one(connection, _QUERIES["find_definition"], form=form, number=number)
    return row["definition"] if row else None


def takes_responses(connection: Connection, *, form: UUID) -> bool:
    """Say whether the form can still be answered."""
    return bool(exactly_one(connection, _QUERIES["takes_responses"], form=form)["exists"])
