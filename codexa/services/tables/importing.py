"""Records from a file: its columns are the table's, or new ones; every line goes through the engine, by a job.

What is wrong is told by line. A line that is meant for a record that is there changes it; each line is done once,
however often a worker dies over it.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.core.definition.keys import code_from, key_from
from codexa.core.form.known_tables import label_of
from codexa.core.tables.guessing import Guess, Writing, as_typed, guess, writing_of
from codexa.core.tables.records import Wrong, once_of, record_of, typed_values
from codexa.core.tables.table import Table, table_of, without_columns
from codexa.services.context import context_of
from codexa.services.errands.asking import ask
from codexa.services.errors import ClashError, NotFoundError, TableRefusedError
from codexa.services.spreadsheets import Line, read_table
from codexa.services.spreadsheets import Table as Read
from codexa.services.tables import tables as known_tables
from codexa.services.tables.looking_up import tables_beside
from codexa.services.tables.records import Changing, Typed
from codexa.services.tables.tables import document_of, opened
from codexa.store import imports, tables
from codexa.store.database import Connect, Connection
from codexa.store.imports import ImportRow, TableImport
from codexa.store.sessions import SignedIn

ERRAND = "records taken in from a file"
NEW = "new"  # the column that a header has where it becomes one
_AT_ONCE = 500
_TRIED = 500  # lines that are gone through before anything is kept
_MOST_TOLD = 100
_MOST_REFUSED = 10_000
_GUESSED_BY = 2_000  # cells of a column


@dataclass(frozen=True, kw_only=True, slots=True)
class PlannedColumn:
    """A header of the file: the id of the column it is, NEW for one that it becomes, "" to leave it out."""

    header: str
    column: str
    guess: Guess


@dataclass(frozen=True, kw_only=True, slots=True)
class Plan:
    """What a file would bring. `wrong` are the first of the lines that are, by number as spreadsheets count."""

    columns: list[PlannedColumn]
    lines: int
    empty: int
    writing: Writing
    tried: int
    wrong_count: int
    wrong: list[tuple[int, str]]


def plan(
    connect: Connect,
    *,
    who: SignedIn,
    table: UUID,
    content: bytes,
    columns: Mapping[str, str] | None,
    writing: Writing | None,
) -> Plan:
    """Return what a file would bring; `columns` are ids by header, None for what its headers say.

    Raises TableRefusedError, NotFoundError, DefinitionError where no such columns can be made.
    """
    known = known_tables.show(connect, who=who, table=table, changes=True).table
    file = _File.of(known, content, columns, writing)
    grown, ids = file.grown()
    tried = file.read.lines[:_TRIED]
    wrong = []
    with connect() as connection:
        context = context_of(grown.form, tables=tables_beside(connection, table))
        for line in tried:
            record = record_of(grown, _cells(grown, line, ids, file.writing), context)
            if isinstance(record, list):
                wrong.append((line.number, _told(grown, record[0])))
    return Plan(
        columns=file.columns,
        lines=len(file.read.lines),
        empty=file.read.empty,
        writing=file.writing,
        tried=len(tried),
        wrong_count=len(wrong),
        wrong=wrong[:_MOST_TOLD],
    )


@dataclass(frozen=True, kw_only=True, slots=True)
class _File:
    """A file that is read for a table."""

    table: Table
    read: Read
    columns: list[PlannedColumn]
    writing: Writing

    @classmethod
    def of(cls, table: Table, content: bytes, columns: Mapping[str, str] | None, writing: Writing | None) -> "_File":
        read = read_table(content)
        headers = [each for each in read.headers if each]
        cells = {each: [line.cells.get(each, "") for line in read.lines[:_GUESSED_BY]] for each in headers}
        how = writing or writing_of(list(cells.values()))
        likely = _likely(table, headers) if columns is None else _asked(table, headers, columns)
        usual = NEW if columns is None else ""
        planned = [
            PlannedColumn(header=each, column=likely.get(each, usual), guess=guess(cells[each], how))
            for each in headers
        ]
        return cls(table=table, read=read, columns=planned, writing=how)

    def grown(self) -> tuple[Table, dict[str, str]]:
        """Return the table with the columns that are new, and the ids of all that are taken in by header."""
        document = document_of(self.table)
        ids = {each.header: each.column for each in self.columns if each.column not in ("", NEW)}
        for each in self.columns:
            if each.column == NEW:
                column = _new_column(each, document["columns"])
                document["columns"].append(column)
                ids[each.header] = column["id"]
        return table_of(document), ids

    def ready(self, key_column: str) -> tuple[Table, list[dict[str, Any]]]:
        """Return the table with its new columns, and the lines as a job takes them in. Raises TableRefusedError."""
        grown, ids = self.grown()
        if not ids:
            raise TableRefusedError("No column of the file is taken in. Choose at least one.")
        if not self.read.lines:
            raise TableRefusedError("The file has no lines below its headers.")
        if key_column and key_column not in ids.values():
            raise TableRefusedError("The file has no column by which its lines are told apart. Choose one, or none.")
        lines = self.read.lines
        return grown, [{"line": each.number, "cells": _cells(grown, each, ids, self.writing)} for each in lines]


def _likely(table: Table, headers: Sequence[str]) -> dict[str, str]:
    """Return the columns that headers mean: by key or label, each once."""
    by_name = {_bare(label_of(each)): each.id for each in table.columns.values()}
    by_name |= {_bare(each.key): each.id for each in table.columns.values()}
    found: dict[str, str] = {}
    for header in headers:
        column = by_name.get(_bare(header))
        if column is not None and column not in found.values():
            found[header] = column
    return found


def _bare(text: str) -> str:
    return "".join(sign for sign in text.casefold() if sign.isalnum())


def _asked(table: Table, headers: Sequence[str], columns: Mapping[str, str]) -> dict[str, str]:
    for header, column in columns.items():
        if header not in headers:
            raise TableRefusedError(f"The file has no column “{header}”.")
        if column not in ("", NEW) and column not in table.columns:
            raise TableRefusedError("This table has no such column. Look at it again.")
    taken = [each for each in columns.values() if each not in ("", NEW)]
    if len(set(taken)) < len(taken):
        raise TableRefusedError("Two columns of the file are the same one here. Leave one of them out.")
    return dict(columns)


def _new_column(planned: PlannedColumn, columns: Sequence[Mapping[str, Any]]) -> dict[str, Any]:
    ids, keys = {each["id"] for each in columns}, {each["key"] for each in columns}
    at = len(columns) + 1
    while f"c{at}" in ids:
        at += 1
    made: dict[str, Any] = {
        "id": f"c{at}",
        "type": planned.guess.type,
        "key": key_from(planned.header, keys),
        "label": planned.header,
    }
    if planned.guess.type == "number":
        made["decimals"] = planned.guess.decimals
    if planned.guess.options:
        codes: set[str] = set()
        made["options"] = []
        for number, label in enumerate(planned.guess.options, 1):
            codes.add(code := code_from(label, codes))
            made["options"].append({"id": f"o{number}", "code": code, "label": label})
    return made


def _cells(table: Table, line: Line, ids: Mapping[str, str], writing: Writing) -> dict[str, str]:
    region = table.form.region
    return {
        column: as_typed(table.columns[column], line.cells.get(header, ""), writing, region)
        for header, column in ids.items()
    }


def _told(table: Table, wrong: Wrong) -> str:
    column = table.columns.get(wrong.column)
    return wrong.message if column is None else f"{label_of(column)} – {wrong.message}"


def begin(
    connect: Connect,
    *,
    who: SignedIn,
    table: UUID,
    content: bytes,
    name: str,
    columns: Mapping[str, str] | None,
    writing: Writing | None,
    key_column: str,
) -> UUID:
    """Have a file's lines taken in, and return its id; new columns are there at once.

    With a `key_column`, in which no two records may have the same, a line changes the record that has its value.
    Raises TableRefusedError, NotFoundError, ClashError, DefinitionError.
    """
    known = known_tables.show(connect, who=who, table=table, changes=True)
    if key_column and key_column not in known.table.definition.once:
        raise TableRefusedError("Records can be told apart only by a column in which no two may have the same.")
    grown, lines = _File.of(known.table, content, columns, writing).ready(key_column)
    with connect() as connection:
        now = tables.lock_table(connection, team=who.team_id, table=table)
        if now is None:
            raise NotFoundError
        if now.revision != known.revision:
            raise ClashError("Somebody else has changed this table meanwhile. Look at it, then bring in the file.")
        if grown.definition != known.table.definition:
            tables.set_definition(connection, table=table, name=grown.definition.name, definition=document_of(grown))
        return _ask_for(connection, who, table, lines, name=name, key_column=key_column)


def _ask_for(
    connection: Connection, who: SignedIn, table: UUID, lines: list[dict[str, Any]], *, name: str, key_column: str
) -> UUID:
    made = imports.insert_table_import(
        connection, table=table, person=who.person_id, name=name, key_column=key_column, lines=lines
    )
    ask(connection, ERRAND, {"import": str(made)}, team=who.team_id)
    return made


def create_from(connect: Connect, *, who: SignedIn, name: str, content: bytes) -> UUID:
    """Make a table of a file: its headers become columns, its lines are taken in by a job. Returns the table's id.

    Raises TableRefusedError, DefinitionError.
    """
    grown, lines = _File.of(without_columns(name), content, None, None).ready("")
    with connect() as connection:
        made = tables.insert_table(connection, team=who.team_id, name=name, definition=document_of(grown))
        _ask_for(connection, who, made, lines, name=name, key_column="")
    return made


def list_imports(connect: Connect, *, who: SignedIn, table: UUID) -> list[ImportRow]:
    """Return what was taken in of late into a table, newest first. Raises NotFoundError."""
    known_tables.show(connect, who=who, table=table)
    with connect() as connection:
        return imports.list_imports(connection, team=who.team_id, into=table)


def stop(connect: Connect, *, who: SignedIn, table: UUID, taking: UUID) -> None:
    """Take in nothing more; what is in stays. Raises NotFoundError."""
    known_tables.show(connect, who=who, table=table, changes=True)
    with connect() as connection:
        if not imports.stop_import(connection, team=who.team_id, into=table, taking=taking):
            raise NotFoundError("This has ended already.")


def carry_out(connect: Connect, taking: UUID) -> str:
    """Take in what is left of a file, and say how it ended."""
    with connect() as connection:
        found = imports.find_table_import(connection, taking=taking)
    if found is None:
        return "there was nothing to take in any more"
    kept = 0
    while True:
        with connect() as connection:
            place = imports.lock_import(connection, taking=taking)
            row = tables.lock_table(connection, team=found.team_id, table=found.table_id)
            if place is None or row is None:
                return f"{kept} records taken in"
            table = opened(row).table
            part = found.lines[place : place + _AT_ONCE]
            refused = _take(connection, found, table, part)
            imports.end_part(
                connection,
                taking=taking,
                gone=len(part),
                kept=len(part) - len(refused),
                refused=refused[: max(0, _MOST_REFUSED - place)],
            )
        kept += len(part) - len(refused)


def _take(
    connection: Connection, found: TableImport, table: Table, part: Sequence[Mapping[str, Any]]
) -> list[dict[str, Any]]:
    """Take in lines, and return those that are refused with why."""
    cells = [{column: text for column, text in line["cells"].items() if column in table.columns} for line in part]
    numbers = _meant(connection, found, table, cells)
    twice = {number for number in numbers if number is not None and numbers.count(number) > 1}
    changes, places, refused = [], [], {}
    for at, (line, number) in enumerate(zip(cells, numbers, strict=True)):
        if number in twice and numbers.index(number) != at:
            refused[at] = "An earlier line is the same record. Leave one of them out."
            continue
        changes.append(Typed(number=number, revision=None, cells=line))
        places.append(at)
    _rows, wrong = Changing(connection, found.table_id, table, found.person_id).keep(changes)
    for each in wrong:
        message = _told(table, Wrong(column=each.column, message=each.message))
        refused.setdefault(places[each.at], message)
    return [{"line": part[at]["line"], "message": refused[at]} for at in sorted(refused)]


def _meant(
    connection: Connection, found: TableImport, table: Table, cells: Sequence[Mapping[str, str]]
) -> list[int | None]:
    """Return which record each line means, None for a new one."""
    column = found.key_column
    if column not in table.definition.once:
        return [None] * len(cells)
    values = (typed_values(table, {column: line.get(column, "")}) for line in cells)
    names = [(column, once_of(table, each).get(column, "")) for each in values]
    held = tables.who_have(connection, table=found.table_id, values=set(names))
    return [held.get(name) for name in names]
