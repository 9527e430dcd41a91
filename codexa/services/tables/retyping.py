"""Records of a table of which a column becomes another type: all are read anew while the table is saved, or none."""

from collections import defaultdict
from collections.abc import Iterator, Sequence
from uuid import UUID

from codexa.core.errors import DefinitionError, Problem
from codexa.core.form.known_tables import label_of
from codexa.core.tables.records import Record, Wrong
from codexa.core.tables.retyping import record_retyped, retyped_columns
from codexa.core.tables.table import Table
from codexa.services.context import context_of
from codexa.services.tables.looking_up import tables_beside
from codexa.services.tables.naming import call_anew
from codexa.services.tables.working_out import as_row
from codexa.store import tables
from codexa.store.database import Connection

MOST_RETYPED = 20_000  # records, while somebody waits
_AT_ONCE, _TOLD = 1_000, 3


def retype(connection: Connection, *, table_id: UUID, before: Table, after: Table, person: UUID) -> None:
    """Read anew what stands in columns of another type, which is a change of each record in its history.

    The table is locked. Raises DefinitionError with what can't be read, by column; then nothing may be kept.
    """
    columns = retyped_columns(before, after)
    if not columns:
        return
    count = tables.count_records(connection, table=table_id)
    if count > MOST_RETYPED:
        message = (
            f"there are {count:,} records, and at most {MOST_RETYPED:,} are read anew; add a column of the new type"
        )
        raise DefinitionError([Problem(path=_path(after, columns[0]), message=message)])
    context = context_of(after.form, tables=tables_beside(connection, table_id, offered_only=False))
    wrong: dict[str, list[str]] = defaultdict(list)
    number = 0
    while rows := tables.all_records(connection, table=table_id, after=number, most=_AT_ONCE):
        changed = []
        for row in rows:
            record, texts = record_retyped(before, after, row.kept, context)
            if isinstance(record, Record):
                changed.append(as_row(record, number=row.number, before=row))
            else:
                for column, told in _told(record, columns, texts, row.number):
                    wrong[column].append(told)
        if not wrong:
            tables.change_records(connection, changed, table=table_id, person=person)
            names = {each.number: each.name for each in rows}
            renamed = [each.number for each in changed if each.name != names[each.number]]
            call_anew(connection, table=table_id, numbers=renamed)
        number = rows[-1].number
    if wrong:
        raise DefinitionError([_problem(after, column, told) for column, told in wrong.items()])


def _told(
    wrong: Sequence[Wrong], columns: Sequence[str], texts: dict[str, str], number: int
) -> Iterator[tuple[str, str]]:
    for each in wrong:
        column = each.column if each.column in columns else columns[0]
        what = f"“{texts[column][:60]}”" if column in texts and column == each.column else ""
        yield column, f"record {number} {what} ({each.message})".replace("  ", " ")


def _problem(after: Table, column: str, told: Sequence[str]) -> Problem:
    label, count = label_of(after.columns[column]), len(told)
    more = f" and {count - _TOLD:,} more" if count > _TOLD else ""
    message = (
        f"{label} stays as it is, for not all can be read so: {'; '.join(told[:_TOLD])}{more}. Correct these first"
    )
    return Problem(path=_path(after, column), message=message)


def _path(table: Table, column: str) -> str:
    return f"columns.{[each.id for each in table.definition.columns].index(column)}.type"
