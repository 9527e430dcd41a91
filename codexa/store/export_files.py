"""Files that are made of responses by a job: what is wanted, how far it has come, how it ended."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("export_files")


@dataclass(frozen=True, kw_only=True, slots=True)
class Wanted:
    """A file to be made: of which form of which team, and how."""

    form_id: UUID
    team_id: UUID
    about: dict[str, Any]


@dataclass(frozen=True, kw_only=True, slots=True)
class FileRow:
    """A file as its team sees it: `rows` written so far, `size` in bytes once it is done, `result` why it failed."""

    id: UUID
    name: str
    rows: int
    size: int
    state: str
    result: str
    person: str | None
    created_at: datetime


def insert_file(
    connection: Connection, *, team: UUID, form: UUID, person: UUID, name: str, about: dict[str, Any]
) -> UUID | None:
    """Take up a file to be made and return its id; None where the team has no such form."""
    values = {"team": team, "form": form, "person": person, "name": name, "about": Jsonb(about)}
    row = one(connection, _QUERIES["insert_file"], **values)
    return row["id"] if row else None


def find_file(connection: Connection, *, file: UUID) -> Wanted | None:
    """Return a file that is still to be made."""
    row = one(connection, _QUERIES["find_file"], file=file)
    return Wanted(**row) if row else None


def note_rows(connection: Connection, *, file: UUID, rows: int) -> bool:
    """Note how many rows are written; False where nobody wants the file any more."""
    return one(connection, _QUERIES["note_rows"], file=file, rows=rows) is not None


def end_file(connection: Connection, *, file: UUID, state: str, rows: int, size: int, result: str) -> None:
    """Note how the making ended: done, or failed with why."""
    values = {"file": file, "state": state, "rows": rows, "size": size, "result": result}
    connection.execute(_QUERIES["end_file"], values)


def list_files(connection: Connection, *, team: UUID, form: UUID) -> list[FileRow]:
    """Return the files of a form, newest first."""
    return [FileRow(**row) for row in many(connection, _QUERIES["list_files"], team=team, form=form)]


def delete_file(connection: Connection, *, team: UUID, form: UUID, file: UUID) -> bool:
    """Forget a file, made or not; False where the team has none of that id."""
    return one(connection, _QUERIES["delete_file"], team=team, form=form, file=file) is not None


def delete_of_form(connection: Connection, *, form: UUID) -> list[UUID]:
    """Forget all files of a form, and return their ids."""
    return [row["id"] for row in many(connection, _QUERIES["delete_of_form"], form=form)]


def delete_old(connection: Connection, *, hours: int) -> list[UUID]:
    """Forget files that were asked for so many hours ago, and return their ids."""
    return [row["id"] for row in many(connection, _QUERIES["delete_old"], hours=hours)]
