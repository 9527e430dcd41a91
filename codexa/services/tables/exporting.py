"""All records of a table as a file: CSV for any number, a workbook for as many as somebody waits for."""

import csv
from collections.abc import Iterator
from pathlib import Path
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.definition.parts import Field
from codexa.core.fields import field_type_of
from codexa.core.fields.field_type import Medium
from codexa.core.form.known_tables import label_of
from codexa.core.responses.conditions import Filter
from codexa.core.responses.holds import TYPED, comparable, holds_kind
from codexa.core.tables.records import texts_of
from codexa.core.tables.table import Table
from codexa.services.errors import TooManyError
from codexa.services.response_csv import Through, defused
from codexa.services.tables.records import every, page
from codexa.services.workbooks import Book
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn
from codexa.store.tables import RecordRow

_MOST_IN_WORKBOOK = 20_000


def as_csv(connect: Connect, *, who: SignedIn, table: UUID) -> Iterator[str]:
    """Return the lines of a CSV (RFC 4180): codes, plain numbers, days as in ISO 8601, formulas defused.

    Raises NotFoundError.
    """
    known, rows = every(connect, who=who, table=table)
    return _lines(known, rows)


def _lines(table: Table, rows: Iterator[RecordRow]) -> Iterator[str]:
    writer = csv.writer(Through(), lineterminator="\r\n", quoting=csv.QUOTE_ALL)
    yield writer.writerow([defused(label_of(each)) for each in table.columns.values()])
    for row in rows:
        texts = texts_of(table, row.kept, Medium.CSV)
        yield writer.writerow([defused(texts.get(column, "")) for column in table.columns])


def write_workbook(connect: Connect, path: Path, *, who: SignedIn, table: UUID) -> None:
    """Write all records into a workbook, with labels for people. Raises NotFoundError, TooManyError."""
    known, rows = every(connect, who=who, table=table)
    count = page(connect, who=who, table=table, filter_=Filter(), sort="", first=0, most=1).count
    if count > _MOST_IN_WORKBOOK:
        raise TooManyError(
            f"A workbook takes at most {_MOST_IN_WORKBOOK:,} records, and these are {count:,}. Take CSV."
        )
    book = Book(path)
    sheet = book.sheet(known.definition.name, map(label_of, known.columns.values()))
    for at, row in enumerate(rows, 1):
        texts = texts_of(known, row.kept, Medium.PAGE)
        for place, column in enumerate(known.columns.values()):
            book.write(sheet, (at, place), _typed(known, column, row.kept.get(column.id), texts))
    book.close()


def _typed(table: Table, column: Field, kept: Any, texts: dict[str, str]) -> Any:
    """Return a cell's value as one that a spreadsheet has a type for, else its text."""
    holds = holds_kind(field_type_of(column).value_type(column).kind)
    value = comparable(kept, holds, ZoneInfo(table.form.time_zone)) if kept is not None and holds in TYPED else None
    return texts.get(column.id) if value is None else value
