"""Responses as a table: the columns of all editions, and each value as people or programs read it."""

import csv
import io
import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.definition.figures import Figure
from codexa.core.definition.form import Form, read_form
from codexa.core.definition.parts import Field, Repeat, RowKind, blocks_within
from codexa.core.definition.rich_text import plain
from codexa.core.fields import field_type_of
from codexa.core.fields.field_type import Medium
from codexa.core.formula.types import NUMBERS
from codexa.core.program.figure_kinds import kind_of
from codexa.services.errors import NotFoundError
from codexa.store import editions, forms, responses
from codexa.store.database import Connection
from codexa.store.responses import ResponseRow
from codexa.store.sessions import SignedIn

_PLAIN_NUMBER = re.compile(r"-?\d+(\.\d+)?", re.ASCII)
# What a spreadsheet takes for the start of a formula (OWASP, "CSV Injection").
_STARTS_A_FORMULA = ("=", "+", "-", "@", "\t", "\r", "\n")


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
    """The responses of one form, read with the edition that each was given to."""

    def __init__(self, connection: Connection, *, who: SignedIn, form: UUID) -> None:
        """Read the form's editions. Raises NotFoundError where the team has no such form."""
        definitions = editions.definitions_of_form(connection, team=who.team_id, form=form)
        if not definitions and forms.find_form(connection, team=who.team_id, form=form) is None:
            raise NotFoundError
        self._forms = {number: read_form(definition) for number, definition in definitions.items()}
        self._held = {number: _held(form) for number, form in self._forms.items()}

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
        form = self._forms[response.edition]
        received = response.received_at.astimezone(ZoneInfo(form.time_zone))
        cells = {
            held_id: self._held[response.edition][held_id].text(stored, form, medium)
            for held_id, stored in (response.computed | response.answers).items()
            if held_id in self._held[response.edition]
        }
        return Row(
            number=response.number,
            edition=response.edition,
            received_at=received.isoformat(timespec="seconds"),
            cells=cells,
        )


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


def page(
    connection: Connection, *, who: SignedIn, form: UUID, limit: int, offset: int
) -> tuple[list[Column], list[Row], int]:
    """Return the columns, a page of rows (newest first) and the number of all rows."""
    table = ResponseTable(connection, who=who, form=form)
    found, count = responses.page_of_responses(connection, team=who.team_id, form=form, limit=limit, offset=offset)
    return table.columns, [table.row(response, Medium.PAGE) for response in found], count


def single(connection: Connection, *, who: SignedIn, form: UUID, number: int) -> tuple[list[Column], Row]:
    """Return one response with the columns to read it by. Raises NotFoundError."""
    found = responses.find_response(connection, team=who.team_id, form=form, number=number)
    if found is None:
        raise NotFoundError
    table = ResponseTable(connection, who=who, form=form)
    return table.columns, table.row(found, Medium.PAGE)


def csv_lines(connection: Connection, *, who: SignedIn, form: UUID) -> Iterator[str]:
    """Yield the export line by line (RFC 4180: CRLF, quotes doubled), with spreadsheet formulas defused."""
    table = ResponseTable(connection, who=who, form=form)
    columns = table.columns
    yield _line(["Number", "Received", "Edition", *(column.label for column in columns)])
    for response in responses.all_responses(connection, team=who.team_id, form=form):
        row = table.row(response, Medium.CSV)
        cells = [row.cells.get(column.id, "") for column in columns]
        yield _line([str(row.number), row.received_at, str(row.edition), *cells])


def _line(cells: list[str]) -> str:
    buffer = io.StringIO()
    csv.writer(buffer, lineterminator="\r\n").writerow([defused(cell) for cell in cells])
    return buffer.getvalue()


def defused(cell: str) -> str:
    """Return a cell that no spreadsheet takes for a formula; numbers stay numbers."""
    if cell.startswith(_STARTS_A_FORMULA) and not _PLAIN_NUMBER.fullmatch(cell):
        return f"'{cell}"
    return cell
