"""Responses as a table: the columns of all editions, and each value as people or programs read it."""

import csv
import io
import re
import unicodedata
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.definition.parts import Block, blocks_within
from codexa.core.errors import DefinitionError
from codexa.core.fields.field_type import Medium, Region
from codexa.core.fields.file_upload import FileUploadField
from codexa.core.program.explain import Explanation, explain_all
from codexa.services.editions import Editions
from codexa.services.errors import NotFoundError
from codexa.services.response_columns import Column, Held, HeldField, HeldRepeat, held_in, source_of
from codexa.store import editions as store
from codexa.store import responses
from codexa.store.database import Connect, Connection
from codexa.store.responses import After, Event, HowItCame, ResponseRow
from codexa.store.sessions import SignedIn

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
class Row:
    """A response as a row; `cells` holds text by column id, and nothing for a blank."""

    number: int
    edition: int
    received_at: str
    test: bool
    cells: dict[str, str]


class ResponseTable:
    """The responses of one form, read with the edition that each was given to.

    What was given to an edition that can't be read any more has no cells.
    """

    def __init__(self, editions: Editions, *, form: UUID, numbers: Sequence[int]) -> None:
        """Take up the form's editions, by their numbers; only those that responses were given to are read whole."""
        self._editions, self._form, self._numbers = editions, form, numbers
        self._read: dict[int, _Edition | None] = {}

    @property
    def columns(self) -> list[Column]:
        """The fields of the latest edition in order, then those that only older editions had, without a number."""
        columns: dict[str, Column] = {}
        latest = True
        for number in sorted(self._numbers, reverse=True):
            found = self._editions.columns(self._form, number)
            for column in found or ():
                if column.id not in columns:
                    columns[column.id] = column if latest else replace(column, number="", earlier=True)
            latest = latest and found is None
        return list(columns.values())

    def row(self, response: ResponseRow, medium: Medium) -> Row:
        """Return a response as text for people or programs."""
        edition = self._edition(response.edition)
        received_at = response.received_at if edition is None else response.received_at.astimezone(edition.zone)
        return Row(
            number=response.number,
            edition=response.edition,
            received_at=received_at.isoformat(timespec="seconds"),
            test=response.test,
            cells={} if edition is None else edition.cells(response, medium),
        )

    def files(self, response: ResponseRow) -> dict[str, list[dict[str, Any]]]:
        """Return the files of a response by column, those in rows with their repeat."""
        edition = self._edition(response.edition)
        found = {} if edition is None else {held_id: edition.files_of(response, held_id) for held_id in edition.held}
        return {held_id: files for held_id, files in found.items() if files}

    def _edition(self, number: int) -> "_Edition | None":
        if number not in self._read:
            self._read[number] = _edition(self._editions, self._form, number)
        return self._read[number]


@dataclass(frozen=True, kw_only=True, slots=True)
class _Edition:
    """What it takes to read the responses to an edition."""

    held: dict[str, Held]
    region: Region
    zone: ZoneInfo

    def cells(self, response: ResponseRow, medium: Medium) -> dict[str, str]:
        stored = response.computed | response.answers
        return {
            held_id: held.text(stored[source], self.region, medium)
            for held_id, held in self.held.items()
            if (source := source_of(held_id)) in stored
        }

    def files_of(self, response: ResponseRow, held_id: str) -> list[dict[str, Any]]:
        held, stored = self.held[held_id], response.answers.get(held_id)
        if isinstance(held, HeldRepeat):
            uploads = {
                each.id for kind in held.repeat.kinds for each, _ in blocks_within(kind.blocks) if _is_upload(each)
            }
            values = [value for row in stored or () for name, value in row["values"].items() if name in uploads]
            return [file for each in values for file in each]
        return list(stored or ()) if isinstance(held, HeldField) and _is_upload(held.field) else []


def _is_upload(block: Block) -> bool:
    return isinstance(block, FileUploadField)


def _edition(editions: Editions, form: UUID, number: int) -> _Edition | None:
    try:
        read = editions.form(form, number)
    except DefinitionError:
        return None
    return _Edition(held=held_in(read), region=read.region, zone=ZoneInfo(read.time_zone))


@dataclass(frozen=True, kw_only=True, slots=True)
class Page:
    """A page of responses, newest first: columns, rows, how many there are in all, and where the next page begins."""

    columns: list[Column]
    rows: list[Row]
    count: int
    next: After | None


def page(
    connect: Connect,
    editions: Editions,
    *,
    who: SignedIn,
    form: UUID,
    limit: int,
    after: After | None,
    link: int | None = None,
) -> Page:
    """Return a page of responses (of one sealed link), from the newest or after a place in their order.

    Raises NotFoundError.
    """
    with connect() as connection:
        numbers = _numbers(connection, who, form)
        found = responses.page_of_responses(
            connection, team=who.team_id, form=form, limit=limit, after=after, link=link
        )
        count = responses.count_responses(connection, team=who.team_id, form=form, link=link)
    table = ResponseTable(editions, form=form, numbers=numbers)
    last = found[-1] if len(found) == limit else None
    return Page(
        columns=table.columns,
        rows=[table.row(response, Medium.PAGE) for response in found],
        count=count,
        next=None if last is None else After(received_at=last.received_at, number=last.number),
    )


def _numbers(connection: Connection, who: SignedIn, form: UUID) -> list[int]:
    numbers = store.numbers_of_form(connection, team=who.team_id, form=form)
    if numbers is None:
        raise NotFoundError
    return numbers


def _find(connection: Connection, who: SignedIn, form: UUID, number: int) -> ResponseRow:
    found = responses.find_response(connection, team=who.team_id, form=form, number=number)
    if found is None:
        raise NotFoundError
    return found


@dataclass(frozen=True, kw_only=True, slots=True)
class Single:
    """One response with the columns to read it by, its files by column, how it came, and what happened to it."""

    columns: list[Column]
    row: Row
    files: dict[str, list[dict[str, Any]]]
    how: HowItCame
    events: list[Event]


def single(connect: Connect, editions: Editions, *, who: SignedIn, form: UUID, number: int) -> Single:
    """Return one response. Raises NotFoundError."""
    with connect() as connection:
        numbers = _numbers(connection, who, form)
        found = _find(connection, who, form, number)
        how = responses.how_it_came(connection, team=who.team_id, form=form, number=number)
        events = responses.list_events(connection, team=who.team_id, form=form, number=number)
    assert how is not None
    table = ResponseTable(editions, form=form, numbers=numbers)
    return Single(
        columns=table.columns, row=table.row(found, Medium.PAGE), files=table.files(found), how=how, events=events
    )


def why(
    connect: Connect, editions: Editions, *, who: SignedIn, form: UUID, number: int, part: str
) -> tuple[Explanation, ...]:
    """Return why everything about a part of a response was as it was when it came.

    Raises NotFoundError, and NoSuchFactError where the form has no such part.
    """
    with connect() as connection:
        found = _find(connection, who, form, number)
    return explain_all(editions.accepted(form, found, number, for_team=True), part)


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
    connection: Connection, editions: Editions, *, who: SignedIn, form: UUID, fashion: CsvFashion = _PLAIN_FASHION
) -> Iterator[str]:
    """Yield the export line by line (RFC 4180: CRLF, quotes doubled), with spreadsheet formulas defused."""
    table = ResponseTable(editions, form=form, numbers=_numbers(connection, who, form))
    columns = table.columns
    heads = ["Number", "Received", "Edition", *(["Practice"] if fashion.tries else [])]
    mark = "\ufeff" if fashion.marked else ""
    yield mark + _line([*heads, *(column.label for column in columns)], fashion)
    commas = fashion.decimal_comma and fashion.medium is Medium.CSV
    for response in responses.all_responses(connection, team=who.team_id, form=form, tries=fashion.tries):
        row = table.row(response, fashion.medium)
        cells = [_cell(row, column, commas=commas) for column in columns]
        practice = [("yes" if row.test else "no")] if fashion.tries else []
        yield _line([str(row.number), row.received_at, str(row.edition), *practice, *cells], fashion)


def _cell(row: Row, column: Column, *, commas: bool) -> str:
    text = row.cells.get(column.id, "")
    return text.replace(".", ",") if commas and column.numeric and _PLAIN_NUMBER.fullmatch(text) else text


def _line(cells: list[str], fashion: CsvFashion) -> str:
    buffer = io.StringIO()
    writer = csv.writer(buffer, delimiter=fashion.separator, lineterminator="\r\n", quoting=csv.QUOTE_ALL)
    writer.writerow([defused(cell) for cell in cells])
    return buffer.getvalue()


def defused(cell: str) -> str:
    """Return a cell that no spreadsheet takes for a formula; numbers, of telephones too, stay as they are."""
    shown = cell.lstrip(_NOT_SEEN)
    passed_over = cell[: len(cell) - len(shown)]
    begins = unicodedata.normalize("NFKC", shown[:1]) in _STARTS_A_FORMULA
    if (begins or not _MOVE_ON.isdisjoint(passed_over)) and not _HARMLESS.fullmatch(cell):
        return f"'{cell}"
    return cell
