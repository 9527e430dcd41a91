"""Records of a table as a file: CSV for any number, a workbook for as many as somebody waits for."""

import csv
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
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


@dataclass(frozen=True, kw_only=True, slots=True)
class Extract:
    """What of a table goes into a file: the records that a filter chooses, with some columns by id, or all."""

    filter: Filter
    columns: Sequence[str] = ()

    def of(self, table: Table) -> list[Field]:
        """Return the columns, in the table's order; those that are gone are left out."""
        return [each for each in table.columns.values() if not self.columns or each.id in self.columns]


def as_csv(connect: Connect, *, who: SignedIn, table: UUID, extract: Extract) -> Iterator[str]:
    """Return the lines of a CSV (RFC 4180): codes, plain numbers, days as in ISO 8601, formulas defused.

    Raises NotFoundError, ConditionError.
    """
    known, rows = every(connect, who=who, table=table, filter_=extract.filter)
    return _lines(known, extract.of(known), rows)


def _lines(table: Table, columns: Sequence[Field], rows: Iterator[RecordRow]) -> Iterator[str]:
    writer = csv.writer(Through(), lineterminator="\r\n", quoting=csv.QUOTE_ALL)
    yield writer.writerow([defused(label_of(each)) for each in columns])
    for row in rows:
        texts = texts_of(table, row.kept, Medium.CSV)
        yield writer.writerow([defused(texts.get(each.id, "")) for each in columns])


def write_workbook(connect: Connect, path: Path, *, who: SignedIn, table: UUID, extract: Extract) -> None:
    """Write records into a workbook, with labels for people. Raises NotFoundError, ConditionError, TooManyError."""
    known, rows = every(connect, who=who, table=table, filter_=extract.filter)
    columns = extract.of(known)
    count = page(connect, who=who, table=table, filter_=extract.filter, sort="", first=0, most=1).count
    if count > _MOST_IN_WORKBOOK:
        raise TooManyError(
            f"A workbook takes at most {_MOST_IN_WORKBOOK:,} records, and these are {count:,}. Take CSV."
        )
    book = Book(path)
    sheet = book.sheet(known.definition.name, map(label_of, columns))
    for at, row in enumerate(rows, 1):
        texts = texts_of(known, row.kept, Medium.PAGE)
        for place, column in enumerate(columns):
            book.write(sheet, (at, place), _typed(known, column, row.kept.get(column.id), texts))
    book.close()


def _typed(table: Table, column: Field, kept: Any, texts: dict[str, str]) -> Any:
    """Return a cell's value as one that a spreadsheet has a type for, else its text."""
    holds = holds_kind(field_type_of(column).value_type(column).kind)
    value = comparable(kept, holds, ZoneInfo(table.form.time_zone)) if kept is not None and holds in TYPED else None
    return texts.get(column.id) if value is None else value
