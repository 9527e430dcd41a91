"""Records that name others: what becomes of them when those are removed, and how they follow a new name."""

from collections import defaultdict
from collections.abc import Mapping, Sequence
from typing import Any
from uuid import UUID

from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.tables.records import record_as_kept, with_shown
from codexa.core.tables.table import Table, table_of
from codexa.services.context import context_of
from codexa.services.errands.asking import ask
from codexa.services.tables.working_out import put
from codexa.store import tables
from codexa.store.database import Connect, Connection
from codexa.store.tables import Naming, RecordRow

ERRAND = "records called anew where they are named"
_AT_ONCE = 500
_MOST_STEPS = 5  # a name that is worked out of a name, and so on
_FIRST = (UUID(int=0), 0)


def told(connection: Connection, naming: Sequence[Naming]) -> str:
    """Return which records name some others, in words: "3 records of Loans (Instrument)"."""
    counts: dict[tuple[UUID, str], int] = defaultdict(int)
    names = {each.table_id: each.table_name for each in naming}
    for each in naming:
        counts[each.table_id, each.column_id] += each.count
    return ", ".join(
        f"{count} {'record' if count == 1 else 'records'} of {names[table]} ({label_in(connection, table, column)})"
        for (table, column), count in counts.items()
    )


def label_in(connection: Connection, table: UUID, column: str) -> str:
    """Return what people call a column of a table."""
    row = tables.any_table(connection, table=table)
    found = next((each for each in row.definition["columns"] if each["id"] == column), None) if row else None
    return str(found["label"] or found["key"]) if found else column


def call_anew(connection: Connection, *, table: UUID, numbers: Sequence[int], step: int = 0) -> None:
    """Have records that name these follow their new names, where there are any."""
    if not numbers or step >= _MOST_STEPS:
        return
    if tables.naming_records(connection, table=table, numbers=numbers, after=_FIRST, most=1):
        ask(connection, ERRAND, {"table": str(table), "numbers": list(numbers), "step": step})


def carry_out(connect: Connect, *, table: UUID, numbers: Sequence[int], step: int) -> str:
    """Have all records that name these show what they are called now, in parts that stay where a worker dies."""
    after: tuple[UUID, int] | None = _FIRST
    while after is not None:
        with connect() as connection:
            names = tables.names_of(connection, table=table, numbers=numbers)
            found = tables.naming_records(connection, table=table, numbers=numbers, after=after, most=_AT_ONCE)
            by_table: dict[UUID, list[int]] = defaultdict(list)
            for naming_table, number in found:
                by_table[naming_table].append(number)
            for naming_table, naming in by_table.items():
                changed = _follow(connection, naming_table, naming, table, names)
                call_anew(connection, table=naming_table, numbers=changed, step=step + 1)
            after = found[-1] if len(found) == _AT_ONCE else None
    return "all who name them follow"


def _follow(
    connection: Connection, table_id: UUID, numbers: Sequence[int], to_table: UUID, names: Mapping[int, str]
) -> list[int]:
    """Give records the names of those that they name, and return which are called otherwise themselves by that."""
    row = tables.any_table(connection, table=table_id)
    if row is None:
        return []
    table = table_of(row.definition)
    rows = tables.lock_records(connection, table=table_id, numbers=numbers)
    context, changed = context_of(table.form), {}
    for number, each in rows.items():
        kept = _with_names(table, each.kept, to_table, names)
        if kept != each.kept:
            changed[number] = record_as_kept(table, kept, context)
    tables.put_records(connection, table=table_id, records={number: put(each) for number, each in changed.items()})
    return [number for number, record in changed.items() if record.name != rows[number].name]


def _with_names(table: Table, kept: Mapping[str, Any], to_table: UUID, names: Mapping[int, str]) -> dict[str, Any]:
    naming = [each.id for each in _naming_columns(table, to_table)]
    return {column: with_shown(value, names) if column in naming else value for column, value in kept.items()}


def _naming_columns(table: Table, to_table: UUID) -> list[RecordChoiceField]:
    columns = (each for each in table.columns.values() if isinstance(each, RecordChoiceField))
    return [each for each in columns if each.table == to_table.hex]


def emptied(table: Table, row: RecordRow, to_table: UUID, gone: Sequence[int]) -> dict[str, str]:
    """Return what somebody would type into a record's cells so that it names none of these any more."""
    cells = {}
    for column in _naming_columns(table, to_table):
        kept = row.kept.get(column.id)
        named = kept if isinstance(kept, list) else [kept] if kept is not None else []
        left = [str(each["record"]) for each in named if each["record"] not in gone]
        if len(left) < len(named):
            cells[column.id] = ", ".join(left)
    return cells
