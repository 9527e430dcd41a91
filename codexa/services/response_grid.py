"""Responses as a table: the columns of all editions, and each value as people or programs read it."""

import csv
import io
import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.definition.form import Form, read_form
from codexa.core.definition.parts import Field
from codexa.core.fields import field_type_of
from codexa.core.fields.field_type import Medium
from codexa.core.formula.types import NUMBERS
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
        self._fields = {number: {each.id: each for each in form.fields()} for number, form in self._forms.items()}

    @property
    def columns(self) -> list[Column]:
        """The fields of the latest edition in order, then those that only older editions had."""
        columns: dict[str, Column] = {}
        for number in sorted(self._forms, reverse=True):
            outline = self._forms[number].numbers()
            for field_id, field in self._fields[number].items():
                if field_id not in columns:
                    columns[field_id] = _column(field, outline[field_id] if number == max(self._forms) else "")
        return list(columns.values())

    def row(self, response: ResponseRow, medium: Medium) -> Row:
        """Return a response as text for people or programs."""
        form = self._forms[response.edition]
        received = response.received_at.astimezone(ZoneInfo(form.time_zone))
        cells = {
            block_id: self._cell(form, self._fields[response.edition][block_id], stored, medium)
            for block_id, stored in (response.answers | response.computed).items()
        }
        return Row(
            number=response.number,
            edition=response.edition,
            received_at=received.isoformat(timespec="seconds"),
            cells=cells,
        )

    def _cell(self, form: Form, field: Field, stored: Any, medium: Medium) -> str:
        field_type = field_type_of(field)
        return field_type.present(field_type.load(stored, field), field, form.region, medium)


def _column(field: Field, number: str) -> Column:
    field_type = field_type_of(field)
    return Column(
        id=field.id,
        label=field.label,
        number=number,
        calculated=not field_type.answered,
        numeric=field_type.value_type(field).kind in NUMBERS,
    )


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
