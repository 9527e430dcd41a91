"""Responses as a table: the columns of all editions, and each value as people or programs read it."""

from collections.abc import Collection, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import Any, Self, TypeVar
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
from codexa.services.response_columns import LINK, Column, Held, HeldField, HeldRepeat, fields_of, held_in, source_of
from codexa.store import editions as store
from codexa.store import responses, views
from codexa.store.database import Connect, Connection
from codexa.store.responses import AnswersRow, Event, HowItCame, ResponseRow
from codexa.store.sessions import SignedIn

Value = TypeVar("Value")


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
    booking: str
    at_part: str
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
        return Row(
            number=response.number,
            edition=response.edition,
            received_at=self.received_at(response),
            test=response.test,
            stage=response.stage,
            payment=response.payment,
            decision=response.decision,
            booking=response.booking,
            at_part=response.at_part,
            status=response.status or "",
            tags=response.tags,
            person="" if response.person_id is None else str(response.person_id),
            cells=self.cells(response, medium, only),
            files=self.files(response) if medium is Medium.PAGE else {},
        )

    def cells(self, response: AnswersRow, medium: Medium, only: Collection[str] | None = None) -> dict[str, str]:
        """Return the cells of a row by column; with `only`, of these columns."""
        stored = response.computed | response.answers
        return {
            each.column: each.text(stored[each.source], medium)
            for each in self.readers(response.edition)
            if each.source in stored and (only is None or each.column in only)
        }

    def readers(self, number: int) -> list["Reader"]:
        """Return what reads the columns of an edition; nothing for one that can't be read any more."""
        edition = self._edition(number)
        return [] if edition is None else edition.readers

    def received_at(self, response: AnswersRow) -> str:
        """Return when a response came, by the clock of its form (ISO 8601)."""
        edition = self._edition(response.edition)
        moment = response.received_at if edition is None else response.received_at.astimezone(edition.zone)
        return moment.isoformat(timespec="seconds")

    def written(self, response: ResponseRow, column_id: str, kept: str) -> str:
        """Return how a response writes a text that is `kept` to compare, for people; "" where it has none like it.

        What its link brought is a column too, and so is a field in rows.
        """
        if column_id.startswith(LINK):
            return str(response.told.get("link", {}).get(column_id.removeprefix(LINK), ""))
        whole, _, part = column_id.partition("/")
        if part:
            return self._written_in_rows(response, whole, part, kept)
        return self.cells(response, Medium.PAGE, (column_id,)).get(column_id, "")

    def _written_in_rows(self, response: ResponseRow, column_id: str, part: str, kept: str) -> str:
        edition = self._edition(response.edition)
        held = None if edition is None else edition.held.get(source_id(column_id))
        if edition is None or not isinstance(held, HeldRepeat):
            return ""
        fields = {field.id: HeldField(field) for kind in held.repeat.kinds for field in fields_of(kind)}
        for row in response.answers.get(held.repeat.id, ()):
            value = row["values"].get(part)
            if part in fields and value is not None and fields[part].value(value, edition.region) == kept:
                return fields[part].text(value, edition.region, Medium.PAGE)
        return ""

    def typed(self, response: AnswersRow) -> dict[str, Any]:
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
            self._read[number] = None if read is None else _Edition.of(number, read, self._form_columns)
        return self._read[number]


@dataclass(frozen=True, kw_only=True, slots=True)
class Reader:
    """Reads one column of an edition: `source` is what a response keeps its value under."""

    column: str
    source: str
    held: Held
    region: Region

    def text(self, stored: Any, medium: Medium) -> str:
        """Return a kept value as text for people or programs."""
        return self.held.text(stored, self.region, medium)


@dataclass(frozen=True, kw_only=True, slots=True)
class _Edition:
    """What it takes to read the responses to an edition."""

    number: int
    held: dict[str, Held]
    readers: list[Reader]
    region: Region
    zone: ZoneInfo

    @classmethod
    def of(cls, number: int, form: Form, columns: FormColumns) -> Self:
        held, region = held_in(form), form.region
        readers = [
            Reader(column=columns.id_of(number, held_id), source=source_of(held_id), held=each, region=region)
            for held_id, each in held.items()
        ]
        return cls(number=number, held=held, readers=readers, region=region, zone=ZoneInfo(form.time_zone))

    def typed(self, response: AnswersRow) -> dict[str, Any]:
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
        case (
            "approved"
            | "denied"
            | "step approved"
            | "asked back"
            | "remark"
            | "task done"
            | "handed on"
            | "handed back"
        ):
            return ": ".join(filter(None, (data.get("step") or data.get("name"), data.get("remark"))))
        case "decision asked":
            return str(data["subject"] or data["name"])
        case "rebooked":
            return f"{data['before']} → {data['after']}"
        case "cancelled":
            return str(data.get("because", ""))
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
