"""Reading a table: pasted rows, or a file as spreadsheets write it, CSV or XLSX."""

import csv
import datetime
import io
import zipfile
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from openpyxl import load_workbook  # type: ignore[import-untyped]  # the package ships no types

from codexa.services.errors import TableRefusedError

MOST_LINES = 100_000
MOST_BYTES = 20 * 1024 * 1024
_EXACT = 2**53  # up to here floating numbers are whole numbers exactly
_SEPARATORS = ("\t", ";", ",")
_LONGEST_CELL = 10_000
_ZIP = b"PK\x03\x04"
_MOST_UNPACKED = 200 * 1024 * 1024


@dataclass(frozen=True, kw_only=True, slots=True)
class Line:
    """A line of a table: its number as spreadsheets count, and its cells by header."""

    number: int
    cells: dict[str, str]


@dataclass(frozen=True, kw_only=True, slots=True)
class Table:
    """A table: its headers, its lines, and how many lines were empty."""

    headers: tuple[str, ...]
    lines: tuple[Line, ...]
    empty: int


def read_table(content: bytes) -> Table:
    """Return the table of a CSV file (RFC 4180, or with semicolons or tabs), in UTF-8 or UTF-16; or of an XLSX file.

    Of a workbook the first sheet is read, as text: numbers with a point, days and moments as in ISO 8601.
    Raises TableRefusedError where it is too large, in another encoding, without headers, with a header twice or
    with lines that have more cells than headers.
    """
    if len(content) > MOST_BYTES:
        raise TableRefusedError(f"The table has {len(content):,} bytes; {MOST_BYTES:,} are taken. Split it.")
    rows = _rows_of_workbook(content) if content.startswith(_ZIP) else _rows(_decoded(content))
    try:
        headers = tuple(each.strip() for each in next(rows, (0, []))[1])
        _require_headers(headers)
        lines: list[Line] = []
        empty = 0
        for number, cells in rows:
            if not any(each.strip() for each in cells):
                empty += 1
                continue
            if len(lines) >= MOST_LINES:
                raise TableRefusedError(f"The table has more than {MOST_LINES:,} lines. Split it.")
            lines.append(Line(number=number, cells=_cells(headers, cells, number)))
    except csv.Error as error:
        raise TableRefusedError(f"The table can't be read: {error}. Save it as CSV again.") from None
    return Table(headers=headers, lines=tuple(lines), empty=empty)


def _decoded(content: bytes) -> str:
    encoding = "utf-16" if content[:2] in (b"\xff\xfe", b"\xfe\xff") else "utf-8-sig"
    try:
        return content.decode(encoding)
    except UnicodeDecodeError as error:
        line = content[: error.start].count(b"\n") + 1
        message = f"Line {line} has a sign that is not UTF-8. Save the file as “CSV UTF-8”, or paste the rows."
        raise TableRefusedError(message) from None


def _rows(text: str) -> Iterator[tuple[int, list[str]]]:
    """Yield the rows with the number of the line on which each begins."""
    first = text.partition("\n")[0]
    separator = max(_SEPARATORS, key=first.count)
    csv.field_size_limit(_LONGEST_CELL)
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=separator, strict=True)
    begins = 1
    for cells in reader:
        yield begins, cells
        begins = reader.line_num + 1


def _rows_of_workbook(content: bytes) -> Iterator[tuple[int, list[str]]]:
    """Yield the rows of the first sheet."""
    try:
        for number, cells in enumerate(_sheet(content), 1):
            yield number, _bare([_text(each) for each in cells])
    except TableRefusedError:
        raise
    except Exception as error:
        raise TableRefusedError(f"The workbook can't be read ({type(error).__name__}). Save it as CSV.") from None


def _sheet(content: bytes) -> Iterator[tuple[object, ...]]:
    """Return the first sheet row by row. What a workbook unpacks to is looked at before it is unpacked."""
    with zipfile.ZipFile(io.BytesIO(content)) as parts:
        if sum(each.file_size for each in parts.infolist()) > _MOST_UNPACKED:
            raise TableRefusedError("The workbook is too large to be read. Save its sheet as CSV.")
    rows: Iterator[tuple[object, ...]] = (
        load_workbook(io.BytesIO(content), read_only=True, data_only=True).worksheets[0].iter_rows(values_only=True)
    )
    return rows


def _bare(cells: list[str]) -> list[str]:
    """Return a row without the blank cells at its end, which workbooks have for any format that was set there."""
    while cells and not cells[-1]:
        cells.pop()
    return cells


def _text(value: object) -> str:
    match value:
        case None:
            return ""
        case bool():
            return "yes" if value else "no"
        case float() if value.is_integer() and abs(value) < _EXACT:
            return str(int(value))
        case datetime.datetime() if value.time() == datetime.time():
            return value.date().isoformat()
        case datetime.datetime():
            return value.isoformat(timespec="seconds")
        case datetime.date() | datetime.time():
            return value.isoformat()
        case _:
            return str(value)[:_LONGEST_CELL]


def _require_headers(headers: tuple[str, ...]) -> None:
    if not any(headers):
        raise TableRefusedError("The first line has no headers. Name the columns in it.")
    twice = [header for header, count in Counter(headers).items() if count > 1 and header]
    if twice:
        raise TableRefusedError(f"Two columns are called “{twice[0]}”. Give each a name of its own.")


def _cells(headers: tuple[str, ...], cells: list[str], number: int) -> dict[str, str]:
    if any(each.strip() for each in cells[len(headers) :]):
        raise TableRefusedError(f"Line {number} has more cells than there are headers. Correct it.")
    return {header: cell.strip() for header, cell in zip(headers, cells, strict=False) if header}
