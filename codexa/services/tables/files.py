"""Files in a table's columns: put into a record, taken out of it, and what a response has brought copied into one."""

import os
import shutil
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import IO, Any
from uuid import UUID, uuid4

from codexa.core.fields.file_upload import FileUploadField
from codexa.core.tables.table import Table
from codexa.services import uploads
from codexa.services.errors import FileRefusedError, NotFoundError, RecordRefusedError
from codexa.services.tables.records import Changing, ShownRecord, Typed
from codexa.services.tables.rights import allowed
from codexa.services.tables.tables import opened, show
from codexa.store import record_files, tables
from codexa.store.database import Connect, Connection
from codexa.store.sessions import SignedIn
from codexa.store.uploads import Upload


@dataclass(frozen=True, kw_only=True, slots=True)
class Cell:
    """A column of a record of a table, and who of the team is at it."""

    who: SignedIn
    table: UUID
    number: int
    column: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Arriving:
    """A file as it arrives; `length` is in bytes where it is told, `free` how many megabytes the disk keeps free."""

    name: str
    length: int | None
    content: IO[bytes]
    free: int


def add(connect: Connect, folder: Path, cell: Cell, file: Arriving) -> ShownRecord:
    """Put a file into a column of a record, and return the record; no connection is held while it arrives.

    Raises NotFoundError,
    NotAllowedError, FileRefusedError with what is wrong with the file, RecordRefusedError where the record takes no
    more of them, TooBusyError.
    """
    field = file_column(show(connect, who=cell.who, table=cell.table, changes=True).table, cell.column)
    upload = uploads.keep(folder, field, name=file.name, length=file.length, content=file.content, free=file.free)
    try:
        with connect() as connection:
            return _changed(connection, cell, lambda kept: [*kept, facts_of(upload)], upload)
    except BaseException:
        uploads.remove(folder, upload.id)
        raise


def take_out(connect: Connect, cell: Cell, file: UUID) -> ShownRecord:
    """Take a file out of a column of a record, and return the record; its history still has it.

    Raises NotFoundError, NotAllowedError, RecordRefusedError.
    """
    file_column(show(connect, who=cell.who, table=cell.table, changes=True).table, cell.column)
    with connect() as connection:
        return _changed(connection, cell, lambda kept: [each for each in kept if each["id"] != str(file)])


def find(connect: Connect, *, who: SignedIn, table: UUID, file: UUID) -> Upload:
    """Return what is known of a file of a table. Raises NotFoundError, NotAllowedError."""
    show(connect, who=who, table=table)
    with connect() as connection:
        found = record_files.find_file(connection, team=who.team_id, table=table, id=file)
    if found is None:
        raise NotFoundError("This file is gone.")
    return found


def file_column(table: Table, column: str) -> FileUploadField:
    """Return a column that has files. Raises NotFoundError."""
    found = table.columns.get(column)
    if not isinstance(found, FileUploadField):
        raise NotFoundError("This table has no such column for files. Look at it again.")
    return found


def facts_of(upload: Upload) -> dict[str, Any]:
    """Return what a record keeps of a file."""
    return {"id": str(upload.id), "name": upload.name, "size": upload.size, "type": upload.media_type}


def _changed(
    connection: Connection,
    cell: Cell,
    files: Callable[[list[dict[str, Any]]], list[dict[str, Any]]],
    upload: Upload | None = None,
) -> ShownRecord:
    row = allowed(tables.lock_table(connection, team=cell.who.team_id, table=cell.table), cell.who, changes=True)
    there = tables.lock_records(connection, table=cell.table, numbers=[cell.number])
    if cell.number not in there:
        raise NotFoundError("This record is gone. Somebody else has removed it.")
    answers = {cell.column: files(there[cell.number].kept.get(cell.column) or [])}
    typed = Typed(number=cell.number, revision=None, cells={}, answers=answers)
    outcome = Changing(connection, cell.table, opened(row).table, cell.who.person_id).all([typed])
    [record] = outcome.records
    if record is None:
        wrong = outcome.wrong[0]
        raise FileRefusedError(wrong.message) if wrong.column == cell.column else RecordRefusedError(wrong.message)
    if upload is not None:
        record_files.insert_file(connection, upload, table=cell.table, number=cell.number)
    return record


def copies(
    connection: Connection, folder: Path, *, form: UUID, table: Table, answers: Mapping[str, Any]
) -> tuple[dict[str, Any], list[Upload]]:
    """Return answers for a record with copies of the files that a response has brought, and these, to be noted.

    A copy is a second name of what lies on the disk: the response may go, and the record keeps it.
    """
    made: list[Upload] = []
    found = dict(answers)
    for column, given in answers.items():
        if isinstance(table.columns.get(column), FileUploadField) and given:
            copied = [_copy(connection, folder, form, UUID(each["id"])) for each in given]
            found[column] = [facts_of(each) for each in copied if each is not None]
            made += [each for each in copied if each is not None]
    return found, made


def _copy(connection: Connection, folder: Path, form: UUID, sent: UUID) -> Upload | None:
    known = record_files.sent_upload(connection, form=form, id=sent)
    if known is None or not (folder / str(sent)).exists():
        return None
    copy = Upload(
        id=uuid4(),
        block_id="",
        name=known.name,
        media_type=known.media_type,
        size=known.size,
        has_thumbnail=known.has_thumbnail,
    )
    for ending in ("", ".small") if known.has_thumbnail else ("",):
        _link(folder / f"{sent}{ending}", folder / f"{copy.id}{ending}")
    return copy


def _link(path: Path, second: Path) -> None:
    try:
        os.link(path, second)
    except OSError:
        shutil.copyfile(path, second)  # some file systems know no second names
