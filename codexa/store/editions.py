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
    """An edition in the list of a form's editions, with when and by whom it was last made what visitors get."""

    number: int
    published_at: datetime
    published_by: str | None
    note: str
    responses: int
    last_live_at: datetime | None
    last_live_by: str | None


@dataclass(frozen=True, kw_only=True, slots=True)
class LiveEdition:
    """What visitors get at an address, and the sites that may frame it."""

    form_id: UUID
    number: int
    sites: list[str]
    sharing: dict[str, Any]


@dataclass(frozen=True, kw_only=True, slots=True)
class Locked:
    """A form that nobody else can publish until the transaction ends: its draft's revision, and what is live."""

    revision: int
    live_edition: int | None


@dataclass(frozen=True, kw_only=True, slots=True)
class WentLive:
    """An edition was made what visitors get: when, and by whom."""

    edition: int
    at: datetime
    person_id: UUID | None
    person: str | None


def lock_form(connection: Connection, *, team: UUID, form: UUID) -> Locked | None:
    """Wait until nobody else publishes the form, and return what it is like then."""
    row = one(connection, _QUERIES["lock_form"], team=team, form=form)
    return Locked(**row) if row else None


def edition_of_revision(connection: Connection, *, form: UUID, revision: int) -> int | None:
    """Return the number of the edition that was made of a revision."""
    row = one(connection, _QUERIES["edition_of_revision"], form=form, revision=revision)
    return int(row["number"]) if row else None


def insert_edition(connection: Connection, *, team: UUID, form: UUID, person: UUID, note: str) -> int:
    """Make an edition of the draft of a form that is locked, and return its number."""
    row = exactly_one(connection, _QUERIES["insert_edition"], team=team, form=form, person=person, note=note)
    return int(row["number"])


def set_live(connection: Connection, *, team: UUID, form: UUID, number: int, person: UUID) -> None:
    """Make an edition of a form that is locked the one that visitors get."""
    connection.execute(_QUERIES["set_live"], {"team": team, "form": form, "number": number, "person": person})


def last_live(connection: Connection, *, form: UUID) -> WentLive | None:
    """Return which edition was made what visitors get at last, when, and by whom."""
    row = one(connection, _QUERIES["last_live"], form=form)
    return WentLive(**row) if row else None


def live_of_form(connection: Connection, *, form: UUID) -> int | None:
    """Return the edition that visitors of a form get; None where there is none, or no such form."""
    row = one(connection, _QUERIES["live_of_form"], form=form)
    return None if row is None else row["live_edition"]


def list_editions(connection: Connection, *, team: UUID, form: UUID) -> list[EditionRow]:
    """Return a form's editions, newest first."""
    return [EditionRow(**row) for row in many(connection, _QUERIES["list_editions"], team=team, form=form)]


def numbers_of_form(connection: Connection, *, team: UUID, form: UUID) -> list[int] | None:
    """Return the numbers of a form's editions; None where the team has no such form."""
    rows = many(connection, _QUERIES["numbers_of_form"], team=team, form=form)
    return [row["number"] for row in rows if row["number"] is not None] if rows else None


def all_numbers(connection: Connection, *, form: UUID) -> list[int]:
    """Return the numbers of a form's editions, whoever asks."""
    return [row["number"] for row in many(connection, _QUERIES["all_numbers"], form=form)]


def find_live(connection: Connection, *, team_slug: str, slug: str) -> LiveEdition | None:
    """Return the edition at a public address."""
    row = one(connection, _QUERIES["find_live"], team_slug=team_slug, slug=slug)
    return LiveEdition(**row) if row else None


def find_moved(connection: Connection, *, team_slug: str, slug: str) -> tuple[str, str] | None:
    """Return the present address of the form that had this one before: its team's slug, and its own."""
    row = one(connection, _QUERIES["find_moved"], team_slug=team_slug, slug=slug)
    return (row["team_slug"], row["slug"]) if row else None


def find_definition(connection: Connection, *, form: UUID, number: int) -> dict[str, Any] | None:
    """Return the definition of one edition."""
    row = one(connection, _QUERIES["find_definition"], form=form, number=number)
    return row["definition"] if row else None
