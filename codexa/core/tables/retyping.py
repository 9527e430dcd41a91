"""Columns that become another type: what stands in them is read anew, all of it or none."""

from collections.abc import Mapping
from typing import Any

from codexa.core.context import Context
from codexa.core.definition.parts import Field
from codexa.core.fields.field_type import Medium
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.tables.records import Record, Wrong, record_of_answers, texts_of, typed_texts_of, typed_value
from codexa.core.tables.table import Table


def _shape(column: Field) -> tuple[str, str, bool]:
    """Return what says how values of a column are kept."""
    if isinstance(column, RecordChoiceField):
        return column.type, column.table, column.several
    return column.type, "", False


def retyped_columns(before: Table, after: Table) -> list[str]:
    """Return the columns, by id, whose values are to be read anew to be kept."""
    both = (each for each in after.columns if each in before.columns)
    return [each for each in both if _shape(before.columns[each]) != _shape(after.columns[each])]


def record_retyped(
    before: Table, after: Table, kept: Mapping[str, Any], context: Context
) -> tuple[Record | list[Wrong], dict[str, str]]:
    """Return the record as it is by its new columns, or what can't be read; and the text that stood in each of them."""
    columns = [each for each in retyped_columns(before, after) if kept.get(each) is not None]
    texts = texts_of(before, kept, Medium.PAGE) | typed_texts_of(before, kept)
    answers = {
        each: _answer(before.columns[each], after.columns[each], kept[each], texts[each], after) for each in columns
    }
    left = {column: value for column, value in kept.items() if column not in columns}
    return record_of_answers(after, answers, context, left), {each: texts[each] for each in columns}


def _answer(before: Field, after: Field, kept: Any, text: str, table: Table) -> Any:
    """Return a value as somebody would answer it again; records of the same table by their numbers."""
    if isinstance(before, RecordChoiceField) and isinstance(after, RecordChoiceField) and before.table == after.table:
        numbers = [str(each["record"]) for each in (kept if isinstance(kept, list) else [kept])]
        return numbers if after.several else ", ".join(numbers)
    return typed_value(after, text, table.form.region)
