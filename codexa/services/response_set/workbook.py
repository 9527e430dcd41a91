"""What is filtered as a workbook (XLSX, ISO/IEC 29500): typed cells, a sheet for each repeat, nothing that computes.

Rows are written as they are read, in the same memory for any number.
"""

import datetime
from collections.abc import Iterable
from decimal import Decimal
from pathlib import Path
from typing import Any
from zoneinfo import ZoneInfo

import xlsxwriter

from codexa.core.definition.parts import Repeat
from codexa.core.fields.field_type import Medium, Region
from codexa.core.responses.holds import TYPED, Holds, comparable
from codexa.services.editions import Editions
from codexa.services.response_columns import HeldField, fields_of
from codexa.services.response_grid import ResponseTable
from codexa.services.response_set.opening import ResponseSet
from codexa.store.responses import ResponseRow

# The library has no types.
Format = Any
Worksheet = Any
MOST_ROWS = 1_048_575  # of a sheet, below its heading
_MOST_TEXT = 32_767  # signs of a cell
_MOST_DIGITS = 15  # that a number in a cell keeps
_OPTIONS = {
    "constant_memory": True,
    "strings_to_formulas": False,
    "strings_to_urls": False,
    "strings_to_numbers": False,
}


class _Book:
    """A workbook being written: where the next row of each sheet goes."""

    def __init__(self, path: Path) -> None:
        self.book = xlsxwriter.Workbook(str(path), _OPTIONS)
        self._bold = self.book.add_format({"bold": True})
        self._day = self.book.add_format({"num_format": "yyyy-mm-dd"})
        self._moment = self.book.add_format({"num_format": "yyyy-mm-dd hh:mm"})
        self._time = self.book.add_format({"num_format": "hh:mm"})
        self._names: set[str] = set()

    def sheet(self, name: str, heads: Iterable[str]) -> Worksheet:
        """Add a sheet with a heading that stays in sight."""
        sheet = self.book.add_worksheet(self._free(name))
        sheet.freeze_panes(1, 0)
        for at, head in enumerate(heads):
            sheet.write_string(0, at, head[:_MOST_TEXT], self._bold)
        return sheet

    def _free(self, name: str) -> str:
        """Return a name for a sheet: at most 31 signs, none of which mean something there, and no other's."""
        bare = "".join(" " if sign in "[]:*?/\\'" else sign for sign in name).strip()[:28] or "Sheet"
        free, at = bare, 2
        while free.casefold() in self._names:
            free, at = f"{bare} {at}", at + 1
        self._names.add(free.casefold())
        return free

    def write(self, sheet: Worksheet, place: tuple[int, int], value: Any) -> None:
        """Write a typed value; nothing for a blank. What a cell can't hold exactly is text."""
        formats: dict[type, Format] = {datetime.date: self._day, datetime.datetime: self._moment}
        if value is None or value == "":
            return
        if isinstance(value, Decimal | int) and not isinstance(value, bool) and _fits(Decimal(value)):
            sheet.write_number(*place, float(value))
        elif type(value) in formats and value.year >= 1900:
            sheet.write_datetime(*place, value, formats[type(value)])
        elif isinstance(value, datetime.time):
            sheet.write_datetime(*place, value, self._time)
        else:
            sheet.write_string(*place, str(value)[:_MOST_TEXT])


def _fits(number: Decimal) -> bool:
    return len(number.normalize().as_tuple().digits) <= _MOST_DIGITS


def write_workbook(
    path: Path, editions: Editions, opened: ResponseSet, found: Iterable[ResponseRow], medium: Medium
) -> None:
    """Write responses into a file: labels for people, or codes for programs."""
    book = _Book(path)
    table = ResponseTable(editions, form=opened.form, numbers=opened.numbers)
    columns = table.columns
    main = book.sheet("Responses", ["Number", "Received", "Edition", *(column.label for column in columns)])
    repeats = _Repeats(book, editions, opened, medium)
    zone = ZoneInfo(opened.region.time_zone)
    for at, response in enumerate(found, 1):
        if at > MOST_ROWS:
            break
        received = response.received_at.astimezone(zone).replace(tzinfo=None, microsecond=0)
        typed, texts = table.typed(response), table.row(response, medium).cells
        cells = [response.number, received, response.edition]
        cells += [typed.get(column.id, texts.get(column.id)) for column in columns]
        for place, value in enumerate(cells):
            book.write(main, (at, place), value)
        repeats.write(response)
    book.book.close()


class _Repeats:
    """The sheets of repeats: a row for each row, with the number of its response."""

    def __init__(self, book: _Book, editions: Editions, opened: ResponseSet, medium: Medium) -> None:
        self._book, self._editions, self._form, self._medium = book, editions, opened.form, medium
        self._sheets: dict[str, tuple[Worksheet, list[str]]] = {}
        self._next: dict[str, int] = {}
        for column in opened.columns:
            if column.holds is Holds.ROWS:
                heads = ["Number", "Row", "Kind", *(part.label for part in column.parts)]
                fields = [part.id.partition("/")[2] for part in column.parts]
                self._sheets[column.id] = (book.sheet(column.label, heads), fields)
                self._next[column.id] = 1

    def write(self, response: ResponseRow) -> None:
        form = self._editions.readable(self._form, response.edition) if self._sheets else None
        if form is None:
            return
        for repeat in form.repeats():
            if repeat.id in self._sheets:
                self._rows(repeat, response, form.region)

    def _rows(self, repeat: Repeat, response: ResponseRow, region: Region) -> None:
        sheet, places = self._sheets[repeat.id]
        kinds = {kind.id: kind for kind in repeat.kinds}
        for number, row in enumerate(response.answers.get(repeat.id) or (), 1):
            kind = kinds.get(row["kind"])
            at = self._next[repeat.id]
            if kind is None or at > MOST_ROWS:
                continue
            self._next[repeat.id] = at + 1
            for place, value in enumerate((response.number, number, kind.label or kind.key)):
                self._book.write(sheet, (at, place), value)
            fields = {each.id: each for each in fields_of(kind)}
            for place, field_id in enumerate(places, 3):
                if field_id in fields and (kept := row["values"].get(field_id)) is not None:
                    self._book.write(sheet, (at, place), self._cell(HeldField(fields[field_id]), kept, region))

    def _cell(self, held: HeldField, kept: Any, region: Region) -> Any:
        holds = held.column("").holds
        value = comparable(kept, holds, ZoneInfo(region.time_zone)) if holds in TYPED else None
        return held.text(kept, region, self._medium) if value is None else value
