"""Responses as a table: the columns of all editions, and each value as people or programs read it."""

import csv
import io
import re
import unicodedata
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.context import Context
from codexa.core.definition.figures import Figure
from codexa.core.definition.parts import Field, Repeat, RowKind, blocks_within
from codexa.core.definition.rich_text import plain
from codexa.core.errors import DefinitionError
from codexa.core.fields import field_type_of
from codexa.core.fields.field_type import Medium
from codexa.core.form.form import Form
from codexa.core.formula.types import NUMBERS
from codexa.core.program.explain import Explanation, NoSuchFactError, explain_all
from codexa.core.program.figure_kinds import kind_of
from codexa.core.program.kept import state_of_kept
from codexa.services.editions import Editions
from codexa.services.errors import NotFoundError
from codexa.store import editions as store
from codexa.store import responses
from codexa.store.database import Connect, Connection
from codexa.store.responses import After, Event, ResponseRow
from codexa.store.sessions import SignedIn

_PLAIN_NUMBER = re.compile(r"-?\d+(\.\d+)?", re.ASCII)
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
class Column:
    """A field as a column; `calculated` where no visitor answered it, `numeric` where its values are numbers."""

    id: str
    label: str
    number: str
    calculated: bool
    numeric: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class Row:
    """A response as a row; `cells` holds text by column id, and nothing for a blank."""

    number: int
    edition: int
    received_at: str
    cells: dict[str, str]


class ResponseTable:
    """The responses of one form, read with the edition that each was given to.

    What was given to an edition that can't be read any more has no cells.
    """

    def __init__(self, editions: Editions, *, form: UUID, numbers: Sequence[int]) -> None:
        """Take up the form's editions, by their numbers."""
        self._forms = {number: read for number in numbers if (read := _readable(editions, form, number)) is not None}
        self._held = {number: _held(read) for number, read in self._forms.items()}

    @property
    def columns(self) -> list[Column]:
        """The fields of the latest edition in order, then those that only older editions had."""
        columns: dict[str, Column] = {}
        for number in sorted(self._forms, reverse=True):
            outline = self._forms[number].numbers()
            for held_id, held in self._held[number].items():
                if held_id not in columns:
                    columns[held_id] = held.column(outline.get(held_id, "") if number == max(self._forms) else "")
        return list(columns.values())

    def row(self, response: ResponseRow, medium: Medium) -> Row:
        """Return a response as text for people or programs."""
        form = self._forms.get(response.edition)
        if form is None:
            received = response.received_at.isoformat(timespec="seconds")
            return Row(number=response.number, edition=response.edition, received_at=received, cells={})
        received_at = response.received_at.astimezone(ZoneInfo(form.time_zone))
        cells = {
            held_id: self._held[response.edition][held_id].text(stored, form, medium)
            for held_id, stored in (response.computed | response.answers).items()
            if held_id in self._held[response.edition]
        }
        return Row(
            number=response.number,
            edition=response.edition,
            received_at=received_at.isoformat(timespec="seconds"),
            cells=cells,
        )


def _readable(editions: Editions, form: UUID, number: int) -> Form | None:
    try:
        return editions.form(form, number)
    except DefinitionError:
        return None


@dataclass(frozen=True, slots=True)
class _HeldField:
    field: Field

    def column(self, number: str) -> Column:
        field, field_type = self.field, field_type_of(self.field)
        numeric = field_type.value_type(field).kind in NUMBERS
        label = plain(field.label)
        return Column(id=field.id, label=label, number=number, calculated=not field_type.answered, numeric=numeric)

    def text(self, stored: Any, form: Form, medium: Medium) -> str:
        field_type = field_type_of(self.field)
        return field_type.present(field_type.load(stored, self.field), self.field, form.region, medium)


@dataclass(frozen=True, slots=True)
class _HeldRepeat:
    repeat: Repeat

    def column(self, number: str) -> Column:
        label = plain(self.repeat.label) or self.repeat.key
        return Column(id=self.repeat.id, label=label, number=number, calculated=False, numeric=False)

    def text(self, stored: Any, form: Form, medium: Medium) -> str:
        kinds = {kind.id: kind for kind in self.repeat.kinds}
        rows = [self._row(row, kinds[row["kind"]], form, medium) for row in stored if row["kind"] in kinds]
        return " | ".join(rows)

    def _row(self, row: dict[str, Any], kind: RowKind, form: Form, medium: Medium) -> str:
        # In the order of the fields: the database keeps no order of keys.
        fields = [block for block, _ in blocks_within(kind.blocks) if isinstance(block, Field)]
        given = row["values"]
        cells = [
            f"{plain(field.label)}: {_HeldField(field).text(given[field.id], form, medium)}"
            for field in fields
            if field.id in given
        ]
        return f"{plain(kind.label)} ({'; '.join(cells)})"


@dataclass(frozen=True, slots=True)
class _HeldFigure:
    figure: Figure

    def column(self, number: str) -> Column:
        name = self.figure.name or self.figure.key
        return Column(id=self.figure.id, label=name, number="", calculated=True, numeric=True)

    def text(self, stored: Any, form: Form, medium: Medium) -> str:
        return kind_of(self.figure).present_kept(self.figure, stored, form.region, medium)


def _held(form: Form) -> dict[str, _HeldField | _HeldRepeat | _HeldFigure]:
    """Return what a response of that edition has one value of, by id."""
    held: dict[str, _HeldField | _HeldRepeat | _HeldFigure] = {
        each.id: _HeldField(each) if isinstance(each, Field) else _HeldRepeat(each) for each in form.columns()
    }
    return held | {figure.id: _HeldFigure(figure) for figure in form.figures}


@dataclass(frozen=True, kw_only=True, slots=True)
class Page:
    """A page of responses, newest first: columns, rows, how many there are in all, and where the next page begins."""

    columns: list[Column]
    rows: list[Row]
    count: int
    next: After | None


def page(connect: Connect, editions: Editions, *, who: SignedIn, form: UUID, limit: int, after: After | None) -> Page:
    """Return a page of responses, from the newest or after a place in their order. Raises NotFoundError."""
    with connect() as connection:
        numbers = _numbers(connection, who, form)
        found = responses.page_of_responses(connection, team=who.team_id, form=form, limit=limit, after=after)
        count = responses.count_responses(connection, team=who.team_id, form=form)
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
    """One response with the columns to read it by, and what happened to it."""

    columns: list[Column]
    row: Row
    events: list[Event]


def single(connect: Connect, editions: Editions, *, who: SignedIn, form: UUID, number: int) -> Single:
    """Return one response. Raises NotFoundError."""
    with connect() as connection:
        numbers = _numbers(connection, who, form)
        found = _find(connection, who, form, number)
        events = responses.list_events(connection, team=who.team_id, form=form, number=number)
    table = ResponseTable(editions, form=form, numbers=numbers)
    return Single(columns=table.columns, row=table.row(found, Medium.PAGE), events=events)


def why(
    connect: Connect, editions: Editions, *, who: SignedIn, form: UUID, number: int, part: str
) -> tuple[Explanation, ...]:
    """Return why everything about a part of a response was as it was when it came. Raises NotFoundError."""
    with connect() as connection:
        found = _find(connection, who, form, number)
    program = editions.program(form, found.edition)
    state = state_of_kept(program, found.answers, Context.from_json(found.told, number=number))
    try:
        return explain_all(state, part)
    except NoSuchFactError as error:
        raise NotFoundError(str(error)) from None


def csv_lines(connection: Connection, editions: Editions, *, who: SignedIn, form: UUID) -> Iterator[str]:
    """Yield the export line by line (RFC 4180: CRLF, quotes doubled), with spreadsheet formulas defused."""
    table = ResponseTable(editions, form=form, numbers=_numbers(connection, who, form))
    columns = table.columns
    yield _line(["Number", "Received", "Edition", *(column.label for column in columns)])
    for response in responses.all_responses(connection, team=who.team_id, form=form):
        row = table.row(response, Medium.CSV)
        cells = [row.cells.get(column.id, "") for column in columns]
        yield _line([str(row.number), row.received_at, str(row.edition), *cells])


def _line(cells: list[str]) -> str:
    buffer = io.StringIO()
    csv.writer(buffer, lineterminator="\r\n", quoting=csv.QUOTE_ALL).writerow([defused(cell) for cell in cells])
    return buffer.getvalue()


def defused(cell: str) -> str:
    """Return a cell that no spreadsheet takes for a formula; numbers stay numbers."""
    shown = cell.lstrip(_NOT_SEEN)
    passed_over = cell[: len(cell) - len(shown)]
    begins = unicodedata.normalize("NFKC", shown[:1]) in _STARTS_A_FORMULA
    if (begins or not _MOVE_ON.isdisjoint(passed_over)) and not _PLAIN_NUMBER.fullmatch(cell):
        return f"'{cell}"
    return cell
