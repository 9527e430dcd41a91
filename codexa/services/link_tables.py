"""Reading a table of values for links: pasted rows, or a CSV file as spreadsheets write it."""

import csv
import io
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from codexa.services.errors import TableRefusedError

MOST_LINES = 100_000
MOST_BYTES = 20 * 1024 * 1024
_SEPARATORS = ("\t", ";", ",")
_LONGEST_CELL = 10_000


@dataclass(frozen=True, kw_only=True, slots=True)
class Line:
    """A line of a table: its number as spreadsheets count, and its cells by header."""

    number: int
    cells: dict[str, str]


@dataclass(frozen=True, kw_only=True, slots=True)
class LinkTable:
    """A table: its headers, its lines, and how many lines were empty."""

    headers: tuple[str, ...]
    lines: tuple[Line, ...]
    empty: int


def read_table(content: bytes) -> LinkTable:
    """Return the table of a CSV file (RFC 4180, or with semicolons or tabs), in UTF-8 or UTF-16.

    Raises TableRefusedError where it is too large, in another encoding, without headers, with a header twice or
    with lines that have more cells than headers.
    """
    if len(content) > MOST_BYTES:
        raise TableRefusedError(f"The table has {len(content):,} bytes; {MOST_BYTES:,} are taken. Split it.")
    rows = _rows(_decoded(content))
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
    return LinkTable(headers=headers, lines=tuple(lines), empty=empty)


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
