"""Lists of options that the team's forms share."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("lists")


@dataclass(frozen=True, kw_only=True, slots=True)
class ListFace:
    """A list: how many options it has, and in how many forms' drafts it is."""

    id: UUID
    name: str
    options: int
    changed_at: datetime
    forms: int


@dataclass(frozen=True, kw_only=True, slots=True)
class ListRow:
    """A list as it is kept: its options as JSON, and which revision that is."""

    id: UUID
    name: str
    options: list[dict[str, Any]]
    revision: int


@dataclass(frozen=True, kw_only=True, slots=True)
class FormWithList:
    """A form in whose draft a choice has its options from a list."""

    id: UUID
    name: str
    revision: int
    draft: dict[str, Any]


def list_lists(connection: Connection, *, team: UUID) -> list[ListFace]:
    """Return the team's lists, by name."""
    return [ListFace(**row) for row in many(connection, _QUERIES["list_lists"], team=team)]


def insert_list(connection: Connection, *, team: UUID, name: str, options: Sequence[dict[str, Any]]) -> UUID:
    """Make a list, and return its id."""
    row = exactly_one(connection, _QUERIES["insert_list"], team=team, name=name, options=Jsonb(list(options)))
    made: UUID = row["id"]
    return made


def find_list(connection: Connection, *, team: UUID, list_id: UUID) -> ListRow | None:
    """Return a list of the team."""
    row = one(connection, _QUERIES["find_list"], team=team, list=list_id)
    return ListRow(**row) if row else None


def set_list(
    connection: Connection,
    *,
    team: UUID,
    list_id: UUID,
    revision: int,
    name: str,
    options: Sequence[dict[str, Any]],
) -> bool:
    """Change a list; False where somebody has changed it since that revision, or it is gone."""
    known = {"team": team, "list": list_id, "revision": revision, "name": name, "options": Jsonb(list(options))}
    return one(connection, _QUERIES["set_list"], **known) is not None


def delete_list(connection: Connection, *, team: UUID, list_id: UUID) -> bool:
    """Delete a list; False where the team has none such."""
    return one(connection, _QUERIES["delete_list"], team=team, list=list_id) is not None


def forms_with_list(connection: Connection, *, team: UUID, list_id: UUID) -> list[FormWithList]:
    """Return the forms in whose draft a choice has its options from a list."""
    return [
        FormWithList(**row) for row in many(connection, _QUERIES["forms_with_list"], team=team, known_as=list_id.hex)
    ]
