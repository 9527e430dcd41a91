"""Responses and records that come from files: lines, how far they were taken in, and which were refused."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("imports")


@dataclass(frozen=True, kw_only=True, slots=True)
class Import:
    """What is being taken in: into which edition of which form, its lines {"line", "answers", "received"}, by place."""

    form_id: UUID
    edition: int
    lines: list[dict[str, Any]]
    place: int


@dataclass(frozen=True, kw_only=True, slots=True)
class TableImport:
    """What is being taken in into a table: its lines {"line", "cells"}; `key_column` says which record each is."""

    table_id: UUID
    team_id: UUID
    person_id: UUID | None
    key_column: str
    lines: list[dict[str, Any]]


@dataclass(frozen=True, kw_only=True, slots=True)
class ImportRow:
    """How far it has come: of `count` lines `place` were gone through, `kept` are in, `refused` {"line", "message"}."""

    id: UUID
    name: str
    count: int
    place: int
    kept: int
    refused: list[dict[str, Any]]
    state: str
    person: str | None
    created_at: datetime


def insert_import(
    connection: Connection,
    *,
    team: UUID,
    form: UUID,
    person: UUID,
    name: str,
    edition: int,
    lines: Sequence[dict[str, Any]],
) -> UUID | None:
    """Take up the lines of a table and return its id; None where the team has no such form."""
    values = {"team": team, "form": form, "person": person, "name": name, "edition": edition, "count": len(lines)}
    row = one(connection, _QUERIES["insert_import"], **values, lines=Jsonb(list(lines)))
    return row["id"] if row else None


def find_import(connection: Connection, *, taking: UUID) -> Import | None:
    """Return what is being taken in, None where it has ended."""
    row = one(connection, _QUERIES["find_import"], **{"import": taking})
    return Import(**row) if row else None


def insert_table_import(
    connection: Connection, *, table: UUID, person: UUID, name: str, key_column: str, lines: Sequence[dict[str, Any]]
) -> UUID:
    """Take up the lines of a file for a table, and return its id."""
    values = {"table": table, "person": person, "name": name, "key_column": key_column, "count": len(lines)}
    made: UUID = exactly_one(connection, _QUERIES["insert_table_import"], **values, lines=Jsonb(list(lines)))["id"]
    return made


def find_table_import(connection: Connection, *, taking: UUID) -> TableImport | None:
    """Return what is being taken in into a table, None where it has ended."""
    row = one(connection, _QUERIES["find_table_import"], **{"import": taking})
    return TableImport(**row) if row else None


def lock_import(connection: Connection, *, taking: UUID) -> int | None:
    """Return how many lines were gone through, kept from others until the transaction ends; None where it has ended."""
    row = one(connection, _QUERIES["lock_import"], **{"import": taking})
    return int(row["place"]) if row else None


def end_part(connection: Connection, *, taking: UUID, gone: int, kept: int, refused: Sequence[dict[str, Any]]) -> None:
    """Note that lines were gone through, how many of them are in, and which were refused."""
    values = {"import": taking, "gone": gone, "kept": kept, "refused": Jsonb(list(refused))}
    connection.execute(_QUERIES["end_part"], values)


def stop_import(connection: Connection, *, team: UUID, into: UUID, taking: UUID) -> bool:
    """Take in nothing more into a form or a table; False where it has ended, or the team has none of that id."""
    return one(connection, _QUERIES["stop_import"], **{"team": team, "into": into, "import": taking}) is not None


def list_imports(connection: Connection, *, team: UUID, into: UUID) -> list[ImportRow]:
    """Return what was taken in of late into a form or a table, newest first."""
    return [ImportRow(**row) for row in many(connection, _QUERIES["list_imports"], team=team, into=into)]


def forget_imports(connection: Connection, *, days: int) -> None:
    """Forget what ended so many days ago."""
    connection.execute(_QUERIES["forget_imports"], {"days": days})
