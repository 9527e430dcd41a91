"""What is filtered as a workbook (XLSX, ISO/IEC 29500): typed cells, a sheet for each repeat, nothing that computes.

Rows are written as they are read, in the same memory for any number.
"""

from collections.abc import Iterable
from pathlib import Path
from typing import Any
from zoneinfo import ZoneInfo

from codexa.core.definition.parts import Repeat
from codexa.core.fields.field_type import Medium, Region
from codexa.core.responses.holds import TYPED, Holds, comparable
from codexa.services.editions import Editions
from codexa.services.response_columns import HeldField, fields_of
from codexa.services.response_grid import ResponseTable
from codexa.services.response_set.opening import ResponseSet
from codexa.services.workbooks import MOST_ROWS, Book, Worksheet
from codexa.store.responses import AnswersRow


def write_workbook(
    path: Path, editions: Editions, opened: ResponseSet, found: Iterable[AnswersRow], medium: Medium
) -> None:
    """Write responses into a file: labels for people, or codes for programs."""
    book = Book(path)
    table = ResponseTable(editions, form=opened.form, numbers=opened.numbers)
    columns = table.columns
    main = book.sheet("Responses", ["Number", "Received", "Edition", *(column.label for column in columns)])
    repeats = _Repeats(book, editions, opened, medium)
    zone = ZoneInfo(opened.region.time_zone)
    for at, response in enumerate(found, 1):
        if at > MOST_ROWS:
            break
        received = response.received_at.astimezone(zone).replace(tzinfo=None, microsecond=0)
        typed, texts = table.typed(response), table.cells(response, medium)
        cells = [response.number, received, response.edition]
        cells += [typed.get(column.id, texts.get(column.id)) for column in columns]
        for place, value in enumerate(cells):
            book.write(main, (at, place), value)
        repeats.write(response)
    book.close()


class _Repeats:
    """The sheets of repeats: a row for each row, with the number of its response."""

    def __init__(self, book: Book, editions: Editions, opened: ResponseSet, medium: Medium) -> None:
        self._book, self._editions, self._form, self._medium = book, editions, opened.form, medium
        self._sheets: dict[str, tuple[Worksheet, list[str]]] = {}
        self._next: dict[str, int] = {}
        for column in opened.columns:
            if column.holds is Holds.ROWS:
                heads = ["Number", "Row", "Kind", *(part.label for part in column.parts)]
                fields = [part.id.partition("/")[2] for part in column.parts]
                self._sheets[column.id] = (book.sheet(column.label, heads), fields)
                self._next[column.id] = 1

    def write(self, response: AnswersRow) -> None:
        form = self._editions.readable(self._form, response.edition) if self._sheets else None
        if form is None:
            return
        for repeat in form.repeats():
            if repeat.id in self._sheets:
                self._rows(repeat, response, form.region)

    def _rows(self, repeat: Repeat, response: AnswersRow, region: Region) -> None:
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
