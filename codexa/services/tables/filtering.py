"""What a table's records can be asked for, and a filter as it is asked of the database."""

import datetime
from collections.abc import Iterator

from codexa.core.definition.parts import Field
from codexa.core.definition.rich_text import plain
from codexa.core.fields import field_type_of
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.form.known_tables import label_of
from codexa.core.responses.conditions import Condition, ConditionError, Filter, days_of, read_values
from codexa.core.responses.holds import Holds, holds_kind
from codexa.core.tables.table import Table
from codexa.services.context import context_of
from codexa.store.record_filters import RecordTest
from codexa.store.tables import RecordFilter

_DAYS = (Holds.DATE, Holds.MOMENT)


def holds_of(column: Field) -> Holds:
    """Return what a column holds; one that names records is compared by their names, as text."""
    return holds_kind(field_type_of(column).value_type(column).kind)


def options_of(column: Field) -> Iterator[tuple[str, str]]:
    """Yield code and label of a choice's options."""
    for option in getattr(column, "options", ()):
        yield option.code, plain(option.label) or option.code


def record_filter(table: Table, filter_: Filter) -> RecordFilter:
    """Return a filter as it is asked. Raises ConditionError: of a column that is gone, and of what is no value."""
    today = context_of(table.form).today
    tests = [_test(table, each, at, today) for at, each in enumerate(filter_.conditions)]
    return RecordFilter(tests=tests, all_of=filter_.match == "all", words=filter_.words)


def _test(table: Table, condition: Condition, at: int, today: datetime.date) -> RecordTest:
    column = table.columns.get(condition.column)
    if column is None:
        raise ConditionError(at, "The column that this asks for is gone. Remove the condition.")
    holds = holds_of(column)
    values = read_values(condition, holds, at, label_of(column))
    if holds in _DAYS and values:
        values = days_of(condition.how, values, today, table.form.region.first_weekday)
    return RecordTest(
        column=column.id,
        holds=holds,
        how=condition.how,
        values=values,
        names=isinstance(column, RecordChoiceField),
        zone=table.definition.time_zone,
    )
