"""The records of a table: looked at, typed, removed and brought back; what is wrong is told cell by cell."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from codexa.core.context import Context
from codexa.core.fields.field_type import Medium
from codexa.core.fields.file_upload import FileUploadField, is_shown_small
from codexa.core.fields.options import MAX_OPTIONS
from codexa.core.form.known_tables import label_of
from codexa.core.responses.conditions import Filter
from codexa.core.tables.alone import Wanted, settled
from codexa.core.tables.records import (
    Record,
    Wrong,
    once_of,
    record_of,
    record_of_answers,
    texts_of,
    typed_texts_of,
)
from codexa.core.tables.table import Table
from codexa.services.audit import note
from codexa.services.context import context_of
from codexa.services.errors import NamedElsewhereError, NotFoundError, RecordRefusedError
from codexa.services.tables import naming as naming_others
from codexa.services.tables.filtering import holds_of, record_filter
from codexa.services.tables.looking_up import tables_beside
from codexa.services.tables.tables import opened, show
from codexa.services.tables.working_out import as_row
from codexa.store import content, tables
from codexa.store.database import Connect, Connection
from codexa.store.sessions import SignedIn
from codexa.store.tables import Naming, Order, RecordRow

MOST_CHANGES = 2_000  # records that are typed or pasted at once


@dataclass(frozen=True, kw_only=True, slots=True)
class ShownFile:
    """A file in a column; `is_picture` where there is a small picture of it to look at."""

    id: str
    name: str
    is_picture: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class ShownRecord:
    """A record as people read it (`cells`) and as they would type it again (`typed`), by column id, with its files."""

    number: int
    revision: int
    name: str
    cells: dict[str, str]
    typed: dict[str, str]
    files: dict[str, list[ShownFile]]
    offered: bool
    published_at: datetime | None


@dataclass(frozen=True, kw_only=True, slots=True)
class RecordPage:
    """Records from a place on, of `count` that there are."""

    count: int
    records: list[ShownRecord]


@dataclass(frozen=True, kw_only=True, slots=True)
class Typed:
    """What was typed into a record's cells; `number` None for a new one, `revision` that of what was seen.

    `answers` are raw answers by column in the place of cells, as forms have them.
    """

    number: int | None
    revision: int | None
    cells: Mapping[str, str]
    answers: Mapping[str, Any] | None = None


@dataclass(frozen=True, kw_only=True, slots=True)
class WrongCell:
    """What is wrong with what was typed: `at` is its place among the changes."""

    at: int
    column: str
    message: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Outcome:
    """What is kept now, in the order of the changes, None for what is wrong; and what is."""

    records: list[ShownRecord | None]
    wrong: list[WrongCell]


@dataclass(frozen=True, kw_only=True, slots=True)
class PastChange:
    """What was done to a record: of a change the cells as they were before."""

    kind: str
    at: datetime
    person: str | None
    cells: dict[str, str]


def shown(table: Table, row: RecordRow) -> ShownRecord:
    """Return a record for people."""
    return ShownRecord(
        number=row.number,
        revision=row.revision,
        name=row.name,
        cells=texts_of(table, row.kept, Medium.PAGE),
        typed=typed_texts_of(table, row.kept),
        files={column.id: _files(row.kept[column.id]) for column in file_columns(table) if column.id in row.kept},
        offered=row.offered,
        published_at=row.published_at,
    )


def file_columns(table: Table) -> Iterator[FileUploadField]:
    """Yield the columns that have files."""
    return (each for each in table.columns.values() if isinstance(each, FileUploadField))


def _files(kept: Any) -> list[ShownFile]:
    return [
        ShownFile(id=each["id"], name=each["name"], is_picture=is_shown_small(each["type"]))
        for each in (kept if isinstance(kept, list) else [])
    ]


def page(
    connect: Connect, *, who: SignedIn, table: UUID, filter_: Filter, sort: str, first: int, most: int
) -> RecordPage:
    """Return records from a place on: those that a filter chooses, in the order of a column, "-" before it downwards.

    Raises NotFoundError, ConditionError.
    """
    known = show(connect, who=who, table=table).table
    order, asked = _order(known, sort), record_filter(known, filter_)
    with connect() as connection:
        rows, count = tables.page(connection, table=table, filter_=asked, order=order, first=first, most=most)
    return RecordPage(count=count, records=[shown(known, each) for each in rows])


def _order(table: Table, sort: str) -> Order | None:
    column = table.columns.get(sort.removeprefix("-"))
    if column is None:
        return None
    return Order(column=column.id, holds=holds_of(column), descending=sort.startswith("-"))


def change(connect: Connect, *, who: SignedIn, table: UUID, changes: Sequence[Typed]) -> Outcome:
    """Keep what was typed, record by record; what is wrong is not kept, and told. Raises NotFoundError."""
    show(connect, who=who, table=table, changes=True)  # so that nothing is put together while it is locked
    with connect() as connection:
        known = opened(tables.lock_table(connection, team=who.team_id, table=table)).table
        return Changing(connection, table, known, who.person_id).all(changes)


class Changing:
    """Changes records of a table, which nobody else changes in this transaction."""

    def __init__(self, connection: Connection, table_id: UUID, table: Table, person: UUID | None) -> None:
        """Begin; the table is locked."""
        self._connection, self._id, self._table, self._person = connection, table_id, table, person
        self._context: Context = context_of(table.form, tables=tables_beside(connection, table_id))

    def all(self, changes: Sequence[Typed]) -> Outcome:
        """Keep what can be kept, all at once, and tell what is wrong with the rest."""
        rows, wrong = self.keep(changes)
        return Outcome(
            records=[shown(self._table, rows[at]) if at in rows else None for at in range(len(changes))], wrong=wrong
        )

    def keep(self, changes: Sequence[Typed]) -> tuple[dict[int, RecordRow], list[WrongCell]]:
        """Do the same; return the records by the place of their change, and what is wrong."""
        numbers = [each.number for each in changes if each.number is not None]
        there = tables.lock_records(self._connection, table=self._id, numbers=numbers)
        made: dict[int, Record] = {}
        wrong: dict[int, list[Wrong]] = {}
        for at, typed in enumerate(changes):
            record = self._record(typed, there)
            if isinstance(record, Record):
                made[at] = record
            else:
                wrong[at] = record
        wrong |= self._alike(changes, made)
        rows = self._keep(changes, {at: record for at, record in made.items() if at not in wrong}, there)
        told = [
            WrongCell(at=at, column=each.column, message=each.message) for at in sorted(wrong) for each in wrong[at]
        ]
        return rows, told

    def _record(self, typed: Typed, there: Mapping[int, RecordRow]) -> Record | list[Wrong]:
        if typed.number is None:
            return self._made_of(typed, None)
        before = there.get(typed.number)
        if before is None:
            return [Wrong(column="", message="This record is gone. Somebody else has removed it.")]
        if typed.revision is not None and before.revision != typed.revision:
            message = "Somebody else has changed this record meanwhile. Look at it, then type it again."
            return [Wrong(column="", message=message)]
        return self._made_of(typed, before.kept)

    def _made_of(self, typed: Typed, kept: Mapping[str, Any] | None) -> Record | list[Wrong]:
        if typed.answers is not None:
            return record_of_answers(self._table, typed.answers, self._context, kept)
        return record_of(self._table, typed.cells, self._context, kept)

    def _alike(self, changes: Sequence[Typed], made: Mapping[int, Record]) -> dict[int, list[Wrong]]:
        """Return what would make two records alike where no two may be."""
        places = list(made)
        wanted = [Wanted(number=changes[at].number, values=made[at].once) for at in places]
        names = {name for each in wanted for name in each.values.items()}
        held = tables.who_have(self._connection, table=self._id, values=names)
        return {
            places[at]: [Wrong(column=column, message=_alike(number))]
            for at, (column, number) in settled(wanted, held).items()
        }

    def _keep(
        self, changes: Sequence[Typed], made: Mapping[int, Record], there: Mapping[int, RecordRow]
    ) -> dict[int, RecordRow]:
        publication = self._table.definition.published
        at_once = publication is not None and publication.at_once
        new = [at for at in made if changes[at].number is None]
        numbers = dict(zip(new, tables.next_numbers(self._connection, table=self._id, count=len(new)), strict=True))
        rows: dict[int, RecordRow] = {}
        for at, record in made.items():
            before = there.get(changes[at].number or 0)
            row = as_row(record, number=numbers[at] if before is None else before.number, before=before)
            rows[at] = replace(row, published_at=self._context.now) if before is None and at_once else row
        changed = [at for at in made if at not in numbers and rows[at].revision > there[rows[at].number].revision]
        tables.insert_records(self._connection, [rows[at] for at in new], table=self._id, published=at_once)
        tables.change_records(self._connection, [rows[at] for at in changed], table=self._id, person=self._person)
        renamed = [rows[at].number for at in changed if rows[at].name != there[rows[at].number].name]
        naming_others.call_anew(self._connection, table=self._id, numbers=renamed)
        tables.free_values(self._connection, table=self._id, numbers=[rows[at].number for at in changed])
        tables.take_many(
            self._connection,
            table=self._id,
            values=[(*name, rows[at].number) for at in (*new, *changed) for name in made[at].once.items()],
        )
        if self._person is None and publication is not None and not at_once:
            # What a visitor has changed is looked at again before anybody reads it.
            numbers_changed = [rows[at].number for at in changed]
            content.publish(self._connection, table=self._id, numbers=numbers_changed, published=False, person=None)
        return rows


def _alike(number: int | None) -> str:
    other = "Another line" if number is None else f"Record {number}"
    return f"{other} has the same already. Type another one."


Way = Literal["ask", "empty", "keep"]  # what becomes of records that others name


@dataclass(frozen=True, kw_only=True, slots=True)
class Gone:
    """The records that were removed, and those that stay and are offered no more."""

    removed: list[int]
    kept: list[int]


def remove(connect: Connect, *, who: SignedIn, table: UUID, numbers: Sequence[int], way: Way = "ask") -> Gone:
    """Remove records that are there; they can be brought back for a while.

    Of those that other records name: with "empty" these name them no more, with "keep" they stay and are offered no
    more; so do all of a table that live forms offer. Raises NamedElsewhereError with "ask" where there are any,
    RecordRefusedError where others must name one, NotFoundError.
    """
    known = show(connect, who=who, table=table, changes=True).table
    with connect() as connection:
        there = list(tables.lock_records(connection, table=table, numbers=numbers))
        naming = tables.who_name(connection, table=table, numbers=there)
        named = sorted({each.to_number for each in naming})
        offering = [name for _, name in tables.forms_that_offer(connection, table=table)] if there else []
        if (named or offering) and way == "ask":
            raise NamedElsewhereError(_asked(connection, naming, named, offering))
        if named and way == "empty":
            _empty(connection, who, table, named)
        kept = (there if offering else named) if way == "keep" else []
        gone = [each for each in there if each not in kept]
        tables.set_offered(connection, table=table, numbers=kept, offered=False)
        tables.free_values(connection, table=table, numbers=gone)
        tables.remove_records(connection, table=table, numbers=gone, removed=True, person=who.person_id)
        if gone:
            note(connection, who, "records removed", name=known.definition.name, count=len(gone))
    return Gone(removed=gone, kept=kept)


_MOST_FORMS_TOLD = 3


def _asked(connection: Connection, naming: Sequence[Naming], named: Sequence[int], offering: Sequence[str]) -> str:
    """Return what refers to records that are to be removed, in words."""
    said = []
    if named:
        count = "One record is" if len(named) == 1 else f"{len(named)} records are"
        said.append(f"{count} named by {naming_others.told(connection, naming)}.")
    if offering:
        more = len(offering) - _MOST_FORMS_TOLD
        forms = ", ".join(offering[:_MOST_FORMS_TOLD]) + (f" and {more} more forms" if more > 0 else "")
        said.append(f"Visitors can choose it in {forms}.")
    return " ".join([*said, "Choose what becomes of them."])


def _empty(connection: Connection, who: SignedIn, table: UUID, gone: Sequence[int]) -> None:
    """Have no record name these any more. Raises RecordRefusedError where that can't be."""
    found = tables.naming_records(connection, table=table, numbers=gone, after=(UUID(int=0), 0), most=_MOST_EMPTIED + 1)
    if len(found) > _MOST_EMPTIED:
        raise RecordRefusedError(f"More than {_MOST_EMPTIED:,} records name them. Keep them, but offer them no more.")
    for naming_table in dict.fromkeys(each for each, _ in found):
        numbers = [number for each, number in found if each == naming_table]
        known = opened(tables.lock_table(connection, team=who.team_id, table=naming_table)).table
        rows = tables.lock_records(connection, table=naming_table, numbers=numbers)
        changes = [
            Typed(number=number, revision=None, cells=naming_others.emptied(known, row, table, gone))
            for number, row in rows.items()
        ]
        _, wrong = Changing(connection, naming_table, known, who.person_id).keep(changes)
        if wrong:
            number = changes[wrong[0].at].number
            raise RecordRefusedError(
                f"Record {number} of {known.definition.name} must name one: {wrong[0].message} "
                "Keep them, but offer them no more."
            )


@dataclass(frozen=True, kw_only=True, slots=True)
class NamedBy:
    """How many records of a table name a record, by the label of the column."""

    table: UUID
    name: str
    column: str
    count: int


def named(connect: Connect, *, who: SignedIn, table: UUID, number: int) -> list[NamedBy]:
    """Return which records of other tables name a record. Raises NotFoundError."""
    show(connect, who=who, table=table)
    with connect() as connection:
        found = tables.who_name(connection, table=table, numbers=[number])
        return [
            NamedBy(
                table=each.table_id,
                name=each.table_name,
                column=naming_others.label_in(connection, each.table_id, each.column_id),
                count=each.count,
            )
            for each in found
        ]


def offered_in(connect: Connect, *, who: SignedIn, table: UUID) -> list[tuple[UUID, str]]:
    """Return the forms, by id and name, that offer a table's records to visitors now. Raises NotFoundError."""
    show(connect, who=who, table=table)
    with connect() as connection:
        return tables.forms_that_offer(connection, table=table)


@dataclass(frozen=True, kw_only=True, slots=True)
class MadeBy:
    """A response that made or changed a record: of which form, by id and name."""

    form: UUID
    name: str
    number: int
    kind: str
    at: datetime


def origins(connect: Connect, *, who: SignedIn, table: UUID, number: int) -> list[MadeBy]:
    """Return which responses made or changed a record, newest first. Raises NotFoundError."""
    show(connect, who=who, table=table)
    with connect() as connection:
        found = tables.origins_of(connection, team=who.team_id, table=table, number=number)
    return [
        MadeBy(form=each.form_id, name=each.form_name, number=each.response_number, kind=each.kind, at=each.at)
        for each in found
    ]


def offer(connect: Connect, *, who: SignedIn, table: UUID, numbers: Sequence[int], offered: bool) -> list[int]:
    """Have records offered to be chosen, or no more; return those that were not so before. Raises NotFoundError."""
    show(connect, who=who, table=table, changes=True)
    with connect() as connection:
        return tables.set_offered(connection, table=table, numbers=numbers, offered=offered)


def names(connect: Connect, *, who: SignedIn, table: UUID) -> tuple[list[str], bool]:
    """Return what records that are offered are called, as many as a choice has options, and whether there are more.

    Raises NotFoundError, NotAllowedError.
    """
    show(connect, who=who, table=table)
    with connect() as connection:
        found = tables.offered_names(connection, table=table, most=MAX_OPTIONS + 1)
    return found[:MAX_OPTIONS], len(found) > MAX_OPTIONS


def bring_back(connect: Connect, *, who: SignedIn, table: UUID, numbers: Sequence[int]) -> list[int]:
    """Bring removed records back, and return which were away.

    Raises NotFoundError, RecordRefusedError where another record has meanwhile what only one may have.
    """
    known = show(connect, who=who, table=table, changes=True).table
    with connect() as connection:
        away = tables.lock_records(connection, table=table, numbers=numbers, removed=True)
        wanted = [
            (column, value, row.number) for row in away.values() for column, value in once_of(known, row.kept).items()
        ]
        twice = tables.take_many(connection, table=table, values=wanted)
        if twice is not None:
            column, first, second = twice
            label = label_of(known.columns[column])
            raise RecordRefusedError(f"Record {second} can't come back: record {first} has the same {label} by now.")
        tables.remove_records(connection, table=table, numbers=list(away), removed=False, person=who.person_id)
    return list(away)


def history(connect: Connect, *, who: SignedIn, table: UUID, number: int) -> list[PastChange]:
    """Return what happened to a record, newest first, its making last. Raises NotFoundError."""
    known = show(connect, who=who, table=table).table
    with connect() as connection:
        found = tables.find_record(connection, team=who.team_id, table=table, number=number)
        changes = tables.list_changes(connection, team=who.team_id, table=table, number=number)
    if found is None:
        raise NotFoundError
    past = [
        PastChange(kind=each.kind, at=each.at, person=each.person, cells=_cells(known, each.before)) for each in changes
    ]
    return [*past, PastChange(kind="made", at=found[1], person=None, cells={})]


def _cells(table: Table, before: Mapping[str, Any] | None) -> dict[str, str]:
    return {} if before is None else texts_of(table, before, Medium.PAGE)


_AT_ONCE = 1_000
_MOST_EMPTIED = 2_000


def every(connect: Connect, *, who: SignedIn, table: UUID, filter_: Filter) -> tuple[Table, Iterator[RecordRow]]:
    """Return a table and all its records that a filter chooses, read while they are taken, by number.

    Raises NotFoundError, ConditionError.
    """
    known = show(connect, who=who, table=table).table
    asked = record_filter(known, filter_)

    def rows() -> Iterator[RecordRow]:
        after: int | None = 0
        while after is not None:
            with connect() as connection:
                found = tables.next_records(connection, table=table, filter_=asked, after=after, most=_AT_ONCE)
            yield from found
            after = found[-1].number if len(found) == _AT_ONCE else None

    return known, rows()
