"""Responses as a table: the columns of all editions, and each value as people or programs read it."""

import csv
import io
import re
import unicodedata
from collections.abc import Callable, Collection, Iterable, Iterator, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import Any, Literal, Self, TypeVar
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.definition.parts import Block, blocks_within
from codexa.core.fields.field_type import Medium, Region
from codexa.core.fields.file_upload import FileUploadField
from codexa.core.form.form import Form
from codexa.core.program.explain import Explanation, explain_all
from codexa.core.responses.holds import TYPED, UNREADABLE
from codexa.services.editions import Editions
from codexa.services.errors import NotFoundError
from codexa.services.form_columns import FormColumns, source_id
from codexa.services.response_columns import LINK, Column, Held, HeldField, HeldRepeat, held_in, source_of
from codexa.store import editions as store
from codexa.store import responses, views
from codexa.store.database import Connect, Connection
from codexa.store.responses import Event, HowItCame, ResponseRow
from codexa.store.sessions import SignedIn

Value = TypeVar("Value")
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
    """A response as a row; `cells` holds text by column id, and nothing for a blank.

    `status` is a code of the form's, "" for none; `person` the id of who has it in hand, "" for nobody.
    """

    number: int
    edition: int
    received_at: str
    test: bool
    stage: str
    payment: str
    decision: str
    status: str
    tags: list[str]
    person: str
    cells: dict[str, str]
    files: dict[str, list[dict[str, Any]]]


class ResponseTable:
    """The responses of one form, read with the edition that each was given to.

    What was given to an edition that can't be read any more has no cells.
    """

    def __init__(self, editions: Editions, *, form: UUID, numbers: Sequence[int]) -> None:
        """Take up the form's editions, by their numbers; only those that responses were given to are read whole."""
        self._editions, self._form = editions, form
        self._form_columns = FormColumns(editions, form=form, numbers=numbers)
        self._read: dict[int, _Edition | None] = {}

    @property
    def columns(self) -> list[Column]:
        """The columns of all editions."""
        return self._form_columns.columns

    def row(self, response: ResponseRow, medium: Medium, only: Collection[str] | None = None) -> Row:
        """Return a response as text for people or programs; with `only`, of these columns."""
        edition = self._edition(response.edition)
        received_at = response.received_at if edition is None else response.received_at.astimezone(edition.zone)
        return Row(
            number=response.number,
            edition=response.edition,
            received_at=received_at.isoformat(timespec="seconds"),
            test=response.test,
            stage=response.stage,
            payment=response.payment,
            decision=response.decision,
            status=response.status or "",
            tags=response.tags,
            person="" if response.person_id is None else str(response.person_id),
            cells={} if edition is None else self._cells(edition, response, medium, only),
            files=self.files(response) if medium is Medium.PAGE else {},
        )

    def _cells(
        self, edition: "_Edition", response: ResponseRow, medium: Medium, only: Collection[str] | None
    ) -> dict[str, str]:
        ids = {held_id: self._form_columns.id_of(response.edition, held_id) for held_id in edition.held}
        wanted = {held_id for held_id, column in ids.items() if only is None or column in only}
        return self._by_column(response.edition, edition.cells(response, medium, wanted))

    def text(self, response: ResponseRow, column_id: str) -> str:
        """Return what a response has in one column, for people; what its link brought is a column too."""
        if column_id.startswith(LINK):
            return str(response.told.get("link", {}).get(column_id.removeprefix(LINK), ""))
        return self.row(response, Medium.PAGE, (column_id,)).cells.get(column_id, "")

    def typed(self, response: ResponseRow) -> dict[str, Any]:
        """Return what a response has of numbers, days and times, by column, as values of Python."""
        edition = self._edition(response.edition)
        return {} if edition is None else self._by_column(response.edition, edition.typed(response))

    def files(self, response: ResponseRow) -> dict[str, list[dict[str, Any]]]:
        """Return the files of a response by column, those in rows with their repeat."""
        edition = self._edition(response.edition)
        found = {} if edition is None else {held_id: edition.files_of(response, held_id) for held_id in edition.held}
        return self._by_column(response.edition, {held_id: files for held_id, files in found.items() if files})

    def _by_column(self, edition: int, values: dict[str, Value]) -> dict[str, Value]:
        return {self._form_columns.id_of(edition, held_id): value for held_id, value in values.items()}

    def _edition(self, number: int) -> "_Edition | None":
        if number not in self._read:
            read = self._editions.readable(self._form, number)
            self._read[number] = None if read is None else _Edition.of(read)
        return self._read[number]


@dataclass(frozen=True, kw_only=True, slots=True)
class _Edition:
    """What it takes to read the responses to an edition."""

    held: dict[str, Held]
    region: Region
    zone: ZoneInfo

    @classmethod
    def of(cls, form: Form) -> Self:
        return cls(held=held_in(form), region=form.region, zone=ZoneInfo(form.time_zone))

    def cells(self, response: ResponseRow, medium: Medium, wanted: Collection[str]) -> dict[str, str]:
        stored = response.computed | response.answers
        return {
            held_id: held.text(stored[source], self.region, medium)
            for held_id, held in self.held.items()
            if held_id in wanted and (source := source_of(held_id)) in stored
        }

    def typed(self, response: ResponseRow) -> dict[str, Any]:
        stored = response.computed | response.answers
        found = {}
        for held_id, held in self.held.items():
            if held.column("").holds in TYPED and (source := source_of(held_id)) in stored:
                with suppress(*UNREADABLE):
                    found[held_id] = held.value(stored[source], self.region)
        return found

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
    """One response with the columns to read it by, its files by column, how it came, what happened, and statuses."""

    columns: list[Column]
    row: Row
    files: dict[str, list[dict[str, Any]]]
    how: HowItCame
    events: list[Event]
    statuses: dict[str, str]


def single(connect: Connect, editions: Editions, *, who: SignedIn, form: UUID, number: int) -> Single:
    """Return one response. Raises NotFoundError."""
    with connect() as connection:
        numbers = _numbers(connection, who, form)
        found = _find(connection, who, form, number)
        how = responses.how_it_came(connection, team=who.team_id, form=form, number=number)
        events = responses.list_events(connection, team=who.team_id, form=form, number=number)
        statuses = views.statuses(connection, team=who.team_id, form=form) or []
    assert how is not None
    table = ResponseTable(editions, form=form, numbers=numbers)
    return Single(
        columns=table.columns,
        row=table.row(found, Medium.PAGE),
        files=table.files(found),
        how=how,
        events=events,
        statuses={each["code"]: each["label"] for each in statuses},
    )


def about(event: Event, statuses: Mapping[str, str]) -> str:
    """Return what belongs to an event, in words: a note, a tag, to which status; "" where its kind says it all."""
    data = event.data
    match event.kind:
        case "noted":
            return str(data["note"])
        case "tagged" | "untagged":
            return str(data["tag"])
        case "given to":
            return str(data["person"]) or "nobody"
        case "status":
            return " → ".join(statuses.get(code, code) or "none" for code in (data["from"], data["to"]))
        case "corrected":
            changes = (f"{each['label']}: {each['before'] or '–'} → {each['after'] or '–'}" for each in data["changes"])
            return "\n".join(filter(None, (data["because"], *changes)))
        case _:
            return ""


def why(
    connect: Connect, editions: Editions, *, who: SignedIn, form: UUID, number: int, part: str
) -> tuple[Explanation, ...]:
    """Return why everything about a part of a response was as it was when it came.

    Raises NotFoundError, and NoSuchFactError where the form has no such part.
    """
    with connect() as connection:
        found = _find(connection, who, form, number)
    return explain_all(editions.accepted(form, found, number, for_team=True), source_id(part))


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
    found: Iterable[ResponseRow],
    fashion: CsvFashion = _PLAIN_FASHION,
    columns: Sequence[Column] | None = None,
) -> Iterator[str]:
    """Yield an export of responses line by line (RFC 4180: CRLF, quotes doubled), with spreadsheet formulas defused.

    `columns` are other ones than all answers, in their order; among them may be facets of IN_ROWS.
    """
    wanted = None if columns is None else {each.id for each in columns}
    columns = table.columns if columns is None else columns
    heads = ["Number", "Received", "Edition", *(["Practice"] if fashion.tries else [])]
    mark = "\ufeff" if fashion.marked else ""
    yield mark + _line([*heads, *(column.label for column in columns)], fashion)
    commas = fashion.decimal_comma and fashion.medium is Medium.CSV
    for response in found:
        row = table.row(response, fashion.medium, wanted)
        cells = [_cell(row, column, commas=commas) for column in columns]
        practice = [("yes" if row.test else "no")] if fashion.tries else []
        yield _line([str(row.number), row.received_at, str(row.edition), *practice, *cells], fashion)


# The facets that a row has, as codes; number, day and edition begin every line.
IN_ROWS: Mapping[str, Callable[[Row], Sequence[str]]] = {
    "response.status": lambda row: [row.status],
    "response.tags": lambda row: row.tags,
    "response.person": lambda row: [row.person],
    "response.stage": lambda row: [row.stage],
    "response.payment": lambda row: [row.payment],
    "response.decision": lambda row: [row.decision],
}


def _cell(row: Row, column: Column, *, commas: bool) -> str:
    if column.id in IN_ROWS:
        labels = {each.code: each.label for each in column.options}
        return ", ".join(labels.get(code, code) for code in IN_ROWS[column.id](row))
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
