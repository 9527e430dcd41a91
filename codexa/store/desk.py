"""The desk of many forms: labels, owners, what is found, filters that a person keeps, and the bin."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, like_literal, many, one
from codexa.store.queries import queries

_QUERIES = queries("desk")


@dataclass(frozen=True, kw_only=True, slots=True)
class DeletedForm:
    """A form in the bin: since when, what came in by it, and which edition visitors got."""

    id: UUID
    name: str
    deleted_at: datetime
    responses: int
    live_edition: int | None


@dataclass(frozen=True, kw_only=True, slots=True)
class OutlineRow:
    """What a form has to be found by: [[id, number, title, key], …]."""

    id: UUID
    name: str
    parts: list[list[str]]


def set_labels(connection: Connection, *, team: UUID, form: UUID, labels: Sequence[str]) -> bool:
    """Set a form's labels; False where the team has no such form."""
    return one(connection, _QUERIES["set_labels"], team=team, form=form, labels=list(labels)) is not None


def set_owner(connection: Connection, *, team: UUID, form: UUID, person: UUID) -> bool:
    """Say whose a form is; False where there is no such form, or the person is not in the team."""
    return one(connection, _QUERIES["set_owner"], team=team, form=form, person=person) is not None


def list_deleted(connection: Connection, *, team: UUID, person: UUID, days: int) -> list[DeletedForm]:
    """Return the forms deleted within so many days that somebody may know of, the last that was deleted first."""
    rows = many(connection, _QUERIES["list_deleted"], team=team, person=person, days=days)
    return [DeletedForm(**row) for row in rows]


def forget_deleted(connection: Connection, *, days: int) -> list[UUID]:
    """Delete for good what lay in the bin for so many days, but for what was paid by; return uploads that are left."""
    return [row["id"] for row in many(connection, _QUERIES["forget_deleted"], days=days)]


def stale_outlines(connection: Connection, *, team: UUID, most: int) -> list[tuple[UUID, int, dict[str, Any]]]:
    """Return drafts that were saved since they were last made to be found: form, revision, document."""
    rows = many(connection, _QUERIES["stale_outlines"], team=team, most=most)
    return [(row["id"], row["revision"], row["draft"]) for row in rows]


def keep_outlines(connection: Connection, outlines: Sequence[tuple[UUID, int, Sequence[Sequence[str]]]]) -> None:
    """Keep what drafts are found by: form, revision, parts."""
    values = {
        "forms": [form for form, _, _ in outlines],
        "revisions": [revision for _, revision, _ in outlines],
        "parts": [Jsonb([list(part) for part in parts]) for _, _, parts in outlines],
        "words": ["\n".join(" ".join(part[1:]) for part in parts).lower() for _, _, parts in outlines],
    }
    connection.execute(_QUERIES["keep_outlines"], values)


def find_outlines(
    connection: Connection, *, team: UUID, person: UUID, words: Sequence[str], most: int
) -> list[OutlineRow]:
    """Return the forms that somebody sees in which all words, in small letters, are found, latest change first."""
    patterns = [f"%{like_literal(each)}%" for each in words]
    values = {"team": team, "person": person, "patterns": patterns, "most": most}
    return [OutlineRow(**row) for row in many(connection, _QUERIES["find_outlines"], **values)]


def list_views(connection: Connection, *, team: UUID, person: UUID) -> list[tuple[str, dict[str, Any]]]:
    """Return the filters that a person keeps, by name."""
    rows = many(connection, _QUERIES["list_views"], team=team, person=person)
    return [(row["name"], row["content"]) for row in rows]


def save_view(connection: Connection, *, team: UUID, person: UUID, name: str, content: dict[str, Any]) -> None:
    """Keep a filter under a name, in the place of one that had it."""
    values = {"team": team, "person": person, "name": name, "content": Jsonb(content)}
    connection.execute(_QUERIES["save_view"], values)


def delete_view(connection: Connection, *, team: UUID, person: UUID, name: str) -> None:
    """Forget a filter; where there is none, nothing is wrong."""
    connection.execute(_QUERIES["delete_view"], {"team": team, "person": person, "name": name})
