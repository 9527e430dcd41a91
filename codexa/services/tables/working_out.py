"""Records of a table whose columns changed, worked out anew: figures, names, words, and what no two may have alike."""

from typing import Any
from uuid import UUID

from codexa.core.errors import DefinitionError, Problem
from codexa.core.form.known_tables import label_of
from codexa.core.tables.records import Record, once_of, record_as_kept
from codexa.core.tables.table import Table, table_of
from codexa.services.context import context_of
from codexa.services.errands.asking import ask
from codexa.store import tables
from codexa.store.database import Connect, Connection
from codexa.store.tables import RecordRow

ERRAND = "records worked out anew"
_AT_ONCE = 1_000
_WHILE_SAVING = 2_000  # records that are worked out while somebody waits


def take_anew(connection: Connection, *, table_id: UUID, table: Table) -> None:
    """Take for each record what no two may have alike. Raises DefinitionError where two have."""
    tables.free_values(connection, table=table_id)
    after = 0
    while table.definition.once and (
        rows := tables.all_records(connection, table=table_id, after=after, most=_AT_ONCE)
    ):
        wanted = [(column, value, row.number) for row in rows for column, value in once_of(table, row.kept).items()]
        twice = tables.take_many(connection, table=table_id, values=wanted)
        if twice is not None:
            column, first, second = twice
            label = label_of(table.columns[column])
            message = f"records {first} and {second} have the same in {label}; give one of them another first"
            raise DefinitionError([Problem(path="once", message=message)])
        after = rows[-1].number


def work_out_anew(connection: Connection, *, team: UUID, table_id: UUID, table: Table, revision: int) -> None:
    """Work out all records by other columns: at once where they are few, else by a job."""
    if tables.count_records(connection, table=table_id) > _WHILE_SAVING:
        ask(connection, ERRAND, {"table": str(table_id), "team": str(team), "revision": revision}, team=team)
        return
    after: int | None = 0
    while after is not None:
        after = _part(connection, table_id, table, after)


def carry_out(connect: Connect, *, team: UUID, table_id: UUID, revision: int) -> str:
    """Work out all records, in parts that stay where a worker dies; nothing where the columns changed again since."""
    after: int | None = 0
    table: Table | None = None  # of that one revision
    while after is not None:
        with connect() as connection:
            row = tables.lock_table(connection, team=team, table=table_id)
            if row is None or row.revision != revision:
                return "the table was changed again, or is gone"
            table = table or table_of(row.definition)
            after = _part(connection, table_id, table, after)
    return "all records are worked out"


def fill_keys(connect: Connect) -> None:
    """Work out what records are compared by, where a version before this one has kept them without."""
    with connect() as connection:
        found = tables.tables_without_keys(connection)
    for row in found:
        table = table_of(row.definition)
        context = context_of(table.form)
        while True:
            with connect() as connection:
                rows = tables.records_without_keys(connection, table=row.id, most=_AT_ONCE)
                put_anew = {each.number: put(record_as_kept(table, each.kept, context)) for each in rows}
                tables.put_records(connection, table=row.id, records=put_anew)
            if len(rows) < _AT_ONCE:
                break


def put(record: Record) -> dict[str, Any]:
    """Return a record as the store takes it."""
    return {
        "kept": record.values,
        "name": record.name,
        "words": record.words,
        "keys": record.keys,
        "names": [(column, UUID(to), number) for column, to, number in record.names],
    }


def as_row(record: Record, *, number: int, before: RecordRow | None = None) -> RecordRow:
    """Return a record as the store keeps it: a new one, or the one that was there `before` with what is said now."""
    return RecordRow(
        number=number,
        kept=record.values,
        name=record.name,
        words=record.words,
        keys=record.keys,
        names=[(column, UUID(to), named) for column, to, named in record.names],
        offered=before is None or before.offered,
        published_at=None if before is None else before.published_at,
        revision=1 if before is None else before.revision + (record.values != before.kept),
    )


def _part(connection: Connection, table_id: UUID, table: Table, after: int) -> int | None:
    """Work out the next records after a number, and return the last; None where there are no more."""
    rows = tables.all_records(connection, table=table_id, after=after, most=_AT_ONCE)
    context, changed = context_of(table.form), {}
    for row in rows:
        record = record_as_kept(table, row.kept, context)
        if (record.values, record.name, record.words) != (row.kept, row.name, row.words):
            changed[row.number] = put(record)
    tables.put_records(connection, table=table_id, records=changed)
    return rows[-1].number if len(rows) == _AT_ONCE else None
