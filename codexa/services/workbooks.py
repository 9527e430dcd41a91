"""Workbooks (XLSX, ISO/IEC 29500) that are written row by row: typed cells, and nothing that computes."""

import datetime
from collections.abc import Iterable
from decimal import Decimal
from pathlib import Path
from typing import Any

import xlsxwriter

from codexa.core.formula.values import WIDE

# The library has no types.
Format = Any
Worksheet = Any
MOST_ROWS = 1_048_575  # of a sheet, below its heading
_MOST_TEXT = 32_767  # signs of a cell
# What a number in a cell keeps.
_MOST_DIGITS, _MOST_EXPONENT = 15, 300
_OPTIONS = {
    "constant_memory": True,
    "strings_to_formulas": False,
    "strings_to_urls": False,
    "strings_to_numbers": False,
}


class Book:
    """A workbook being written, in the same memory for any number of rows."""

    def __init__(self, path: Path) -> None:
        """Begin it; `close` ends it."""
        self._book = xlsxwriter.Workbook(str(path), _OPTIONS)
        self._bold = self._book.add_format({"bold": True})
        self._day = self._book.add_format({"num_format": "yyyy-mm-dd"})
        self._moment = self._book.add_format({"num_format": "yyyy-mm-dd hh:mm"})
        self._time = self._book.add_format({"num_format": "hh:mm"})
        self._names: set[str] = set()

    def sheet(self, name: str, heads: Iterable[str]) -> Worksheet:
        """Add a sheet with a heading that stays in sight."""
        sheet = self._book.add_worksheet(self._free(name))
        sheet.freeze_panes(1, 0)
        for at, head in enumerate(heads):
            sheet.write_string(0, at, head[:_MOST_TEXT], self._bold)
        return sheet

    def close(self) -> None:
        """End it: only then it can be opened."""
        self._book.close()

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
    exact = WIDE.normalize(number)
    return len(exact.as_tuple().digits) <= _MOST_DIGITS and abs(exact.adjusted()) <= _MOST_EXPONENT
