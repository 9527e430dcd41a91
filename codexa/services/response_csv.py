"""Responses as CSV: a line each, as quickly as Python may."""

import csv
import re
import unicodedata
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from codexa.core.fields.field_type import Medium
from codexa.services.response_columns import Column
from codexa.services.response_grid import Reader, ResponseTable
from codexa.store.responses import AnswersRow, ResponseRow

# Cells that are made once each: how many of a column, how long ones, and of how many codes.
_MOST_KNOWN, _SHORT, _FEW = 2_000, 100, 20
_PLAIN_NUMBER = re.compile(r"-?\d+(\.\d+)?", re.ASCII)
# What no spreadsheet works anything out of: a number with a point or comma, and a telephone number (ITU-T E.123).
_HARMLESS = re.compile(r"-?\d+([.,]\d+)?|\+\d[\d ]*", re.ASCII)
# What a spreadsheet takes for the start of a formula (OWASP, "CSV Injection"), full-width signs folded to these too.
_STARTS_A_FORMULA = frozenset("=+-@")
_MOVE_ON = frozenset("\t\r\n")
# What some programs pass over before they look for one: white space, control and format characters.
_NOT_SEEN = "".join(
    sign
    for sign in map(chr, range(0x10000))
    if unicodedata.category(sign) in ("Cc", "Cf", "Zs", "Zl", "Zp", "Mn", "Me")
)


@dataclass(frozen=True, kw_only=True, slots=True)
class CsvFashion:
    """How an export is written.

    For programs (`Medium.CSV`) with codes and plain numbers, for people (`Medium.PAGE`) with labels and numbers as they
    write them. With a decimal comma plain numbers have one, as spreadsheets of some languages expect; `marked` puts the
    byte-order mark first by which some programs know UTF-8; `tries` has what was handed in for practice too, and says
    so.
    """

    medium: Medium = Medium.CSV
    separator: Literal[",", ";", "\t"] = ","
    decimal_comma: bool = False
    marked: bool = False
    tries: bool = False


_PLAIN_FASHION = CsvFashion()


def csv_lines(
    table: ResponseTable,
    found: Iterable[AnswersRow],
    fashion: CsvFashion = _PLAIN_FASHION,
    columns: Sequence[Column] | None = None,
) -> Iterator[str]:
    """Yield an export of responses line by line (RFC 4180: CRLF, quotes doubled), with spreadsheet formulas defused.

    `columns` are other ones than all answers, in their order. Among them may be facets of IN_ROWS, for which what is
    found must be whole rows.
    """
    cells = _Cells(table, table.columns if columns is None else columns, fashion)
    writer = csv.writer(Through(), delimiter=fashion.separator, lineterminator="\r\n", quoting=csv.QUOTE_ALL)
    yield ("\ufeff" if fashion.marked else "") + writer.writerow(cells.heads())
    for response in found:
        yield writer.writerow(cells.line(response))


class Through:
    """A file that gives back what is written, as the writer then does."""

    def write(self, line: str) -> str:
        """Return a line."""
        return line


class _Cells:
    """Makes the cells of responses, each edition's in a way of its own."""

    def __init__(self, table: ResponseTable, columns: Sequence[Column], fashion: CsvFashion) -> None:
        self._table, self._columns, self._fashion = table, columns, fashion
        self._facets = [each.id for each in columns if each.id in IN_ROWS]
        self._of_edition: dict[int, list[tuple[str, _Once]]] = {}

    def heads(self) -> list[str]:
        practice = ["Practice"] if self._fashion.tries else []
        heads = ["Number", "Received", "Edition", *practice, *(column.label for column in self._columns)]
        return [defused(each) for each in heads]

    def line(self, response: AnswersRow) -> list[str]:
        stored = response.computed | response.answers
        for facet in self._facets:
            assert isinstance(response, ResponseRow)
            stored[facet] = IN_ROWS[facet](response)
        line = [str(response.number), self._table.received_at(response), str(response.edition)]
        if self._fashion.tries:
            line.append("yes" if response.test else "no")
        kept = stored.get
        # One expression, as it is made forty times a line.
        line += [
            "" if (value := kept(source)) is None else cells[value] if type(value) is str else cells.of(value)
            for source, cells in self._cells(response.edition)
        ]
        return line

    def _cells(self, edition: int) -> list[tuple[str, "_Once"]]:
        if edition not in self._of_edition:
            readers = {each.column: each for each in self._table.readers(edition)}
            self._of_edition[edition] = [self._cell(each, readers.get(each.id)) for each in self._columns]
        return self._of_edition[edition]

    def _cell(self, column: Column, reader: Reader | None) -> tuple[str, "_Once"]:
        if column.id in IN_ROWS:
            labels = {each.code: each.label for each in column.options}
            return column.id, _Once(lambda codes: defused(", ".join(labels.get(code, code) for code in codes)))
        if reader is None:
            return "", _NOTHING
        return reader.source, _Once(self._written(column, reader))

    def _written(self, column: Column, reader: Reader) -> Callable[[Any], str]:
        """Return what makes a cell of a kept value."""
        medium, text, region = self._fashion.medium, reader.held.text, reader.region
        if self._fashion.decimal_comma and column.numeric and medium is Medium.CSV:
            return lambda stored: _with_comma(text(stored, region, medium))
        return lambda stored: defused(text(stored, region, medium))


class _Once(dict[Any, str]):
    """The cells of a column by their kept values: codes, days and the like are written once each."""

    def __init__(self, write: Callable[[Any], str]) -> None:
        self._write = write

    def __missing__(self, value: str) -> str:
        return self._keep(value, self._write(value))

    def of(self, value: Any) -> str:
        """Return the cell of a value that is no text."""
        key = _key_of(value)
        if key is None:
            return self._write(value)
        return self[key] if key in self else self._keep(key, self._write(value))

    def _keep(self, key: Any, cell: str) -> str:
        if len(self) < _MOST_KNOWN and len(cell) <= _SHORT:
            self[key] = cell
        return cell


_NOTHING = _Once(lambda _value: "")


def _key_of(value: Any) -> tuple[Any, ...] | None:
    """Return what tells a few codes, or yes from no; None for anything else."""
    if type(value) is list and len(value) <= _FEW and all(type(each) is str for each in value):
        return tuple(value)
    return (value,) if type(value) is bool else None


# The facets that a line may have, as codes; number, day and edition begin every line.
IN_ROWS: Mapping[str, Callable[[ResponseRow], Sequence[str]]] = {
    "response.status": lambda row: [row.status or ""],
    "response.tags": lambda row: row.tags,
    "response.person": lambda row: ["" if row.person_id is None else str(row.person_id)],
    "response.stage": lambda row: [row.stage],
    "response.payment": lambda row: [row.payment],
    "response.decision": lambda row: [row.decision],
    "response.at_part": lambda row: [row.at_part],
    "response.booking": lambda row: [row.booking],
}


def _with_comma(text: str) -> str:
    return text.replace(".", ",") if _PLAIN_NUMBER.fullmatch(text) else defused(text)


def defused(cell: str) -> str:
    """Return a cell that no spreadsheet takes for a formula; numbers, of telephones too, stay as they are."""
    if not cell or cell[0].isalnum():
        return cell
    shown = cell.lstrip(_NOT_SEEN)
    passed_over = cell[: len(cell) - len(shown)]
    begins = unicodedata.normalize("NFKC", shown[:1]) in _STARTS_A_FORMULA
    if (begins or not _MOVE_ON.isdisjoint(passed_over)) and not _HARMLESS.fullmatch(cell):
        return f"'{cell}"
    return cell
