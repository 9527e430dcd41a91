"""A record: what somebody typed into a table's cells, accepted by the engine, and read again as text."""

from collections.abc import Iterable, Iterator, Mapping
from contextlib import suppress
from dataclasses import dataclass, replace
from typing import Any

from codexa.core.context import Context
from codexa.core.definition.parts import Field
from codexa.core.errors import AnswerError
from codexa.core.fields import field_type_of
from codexa.core.fields.decimals import DecimalType
from codexa.core.fields.field_type import Medium, Region
from codexa.core.fields.file_upload import FileUploadField
from codexa.core.fields.record_choice import RecordChoiceField, RecordChoiceType
from codexa.core.fields.yes_no import BooleanType
from codexa.core.look_ups import keys_of
from codexa.core.program.accept import Refused, accept, computed_of
from codexa.core.program.evaluate import FieldError
from codexa.core.program.kept import entered_as_it_was, state_of_kept
from codexa.core.program.kept_records import kept_tables
from codexa.core.responses.folding import folded
from codexa.core.responses.holds import UNREADABLE
from codexa.core.tables.table import Table

MOST_COMPARED = 400  # characters of a value that only one record may have
_MOST_WORDS = 20_000


@dataclass(frozen=True, kw_only=True, slots=True)
class Record:
    """A record to be kept: values by column id as the engine dumps them; no blanks.

    `once` is what is compared of columns in which no two have the same; `name` what people call it; `words` what it is
    found by, and `keys` what filters of forms compare, "column=key". `names` are the records that it names: by which
    column, of which table, which number.
    """

    values: dict[str, Any]
    once: dict[str, str]
    name: str
    words: str
    keys: tuple[str, ...]
    names: tuple[tuple[str, str, int], ...]


@dataclass(frozen=True, kw_only=True, slots=True)
class Wrong:
    """What is wrong with a cell: of which column, "" for the record itself, and why with a remedy."""

    column: str
    message: str


def record_of(
    table: Table, cells: Mapping[str, str], context: Context, kept: Mapping[str, Any] | None = None
) -> Record | list[Wrong]:
    """Return the record that typed cells give, by column id, or what is wrong with them; blank empties a cell.

    Cells that are left out stay as they were `kept`. Numbers are written as in the table's language, days also as in
    ISO 8601, options by code or label.
    """
    strange = _strange(table, cells)
    if strange:
        return strange
    typed = {column: typed_value(table.columns[column], text, table.form.region) for column, text in cells.items()}
    return record_of_answers(table, typed, context, kept)


def _strange(table: Table, columns: Iterable[str]) -> list[Wrong]:
    strange = [each for each in columns if each not in table.columns]
    return [Wrong(column="", message=f"This table has no column “{each}”. Look at it again.") for each in strange]


def record_of_answers(
    table: Table, answers: Mapping[str, Any], context: Context, kept: Mapping[str, Any] | None = None
) -> Record | list[Wrong]:
    """Return the record that raw answers give, by column id, as forms have them; in all else like `record_of`."""
    strange = _strange(table, answers)
    if strange:
        return strange
    before: dict[str, Any] = {}
    if kept is not None:
        known = _of_columns(table, kept)
        # What is named already may be removed by now, and stays named.
        context = replace(context, tables=kept_tables(table.program, known, context.tables))
        before = entered_as_it_was(table.program, known, context)
    result = accept(table.program, {**before, **answers}, context)
    if isinstance(result, Refused):
        return [Wrong(column=address, message=_said(each)) for address, each in result.errors.items()]
    gone = {column: value for column, value in (kept or {}).items() if column not in table.columns}
    return _record(table, gone | result.answers | result.computed)


def _said(error: FieldError) -> str:
    if error.code == "dropped":
        return "There is no such record in that table, or there are several of that name. Type its name or its number."
    return error.message


def with_shown(kept: Any, shown: Mapping[int, str]) -> Any:
    """Return a value that names records with what is shown of them now, by number."""
    if isinstance(kept, list):
        return [with_shown(each, shown) for each in kept]
    return {**kept, "shown": shown.get(kept["record"], kept["shown"])}


def record_as_kept(table: Table, kept: Mapping[str, Any], context: Context) -> Record:
    """Return a record as it is by a table's columns of now: what was typed stays, all else is worked out anew."""
    typed = {
        column: value
        for column, value in kept.items()
        if column not in table.columns or field_type_of(table.columns[column]).answered
    }
    return _record(table, typed | computed_of(state_of_kept(table.program, _of_columns(table, typed), context)))


def _record(table: Table, values: dict[str, Any]) -> Record:
    texts = texts_of(table, values, Medium.PAGE)
    return Record(
        values=values,
        once=_once(table, texts),
        name=texts.get(table.named_by, "")[:200],
        words=" \n ".join(folded(each) for each in texts.values())[:_MOST_WORDS],
        keys=tuple(_keys(table, values)),
        names=tuple(_names(table, values)),
    )


def _names(table: Table, values: Mapping[str, Any]) -> Iterator[tuple[str, str, int]]:
    for column in table.columns.values():
        kept = values.get(column.id)
        if isinstance(column, RecordChoiceField) and kept is not None:
            each = kept if isinstance(kept, list) else [kept]
            yield from dict.fromkeys((column.id, column.table, one["record"]) for one in each)


def _keys(table: Table, values: Mapping[str, Any]) -> Iterator[str]:
    for column in table.columns.values():
        kept = values.get(column.id)
        if kept is None:
            continue
        with suppress(*UNREADABLE):
            value = field_type_of(column).load(kept, column)
            yield from (f"{column.id}={key}" for key in keys_of(value))


def _of_columns(table: Table, kept: Mapping[str, Any]) -> dict[str, Any]:
    return {column: value for column, value in kept.items() if column in table.columns}


def once_of(table: Table, values: Mapping[str, Any]) -> dict[str, str]:
    """Return what is compared of a record in the columns in which no two have the same."""
    return _once(table, texts_of(table, values, Medium.PAGE)) if table.definition.once else {}


def _once(table: Table, texts: Mapping[str, str]) -> dict[str, str]:
    return {each: _compared(texts[each]) for each in table.definition.once if texts.get(each)}


def _compared(text: str) -> str:
    return " ".join(text.casefold().split())[:MOST_COMPARED]


def typed_value(column: Field, text: str, region: Region) -> Any:
    """Return what a typed cell is as an answer: a number as people write it, else as in a link or as it stands."""
    kind = field_type_of(column)
    text = text.strip()
    if not text or isinstance(kind, DecimalType):
        return text or None
    if isinstance(kind, BooleanType):
        return next((each for each in (True, False) if _says(text, kind, each, column, region)), text)
    return kind.from_link(text, column, region)


def _says(text: str, kind: BooleanType[Any], value: bool, column: Field, region: Region) -> bool:
    """Whether a text is yes (or no), as people or programs write it."""
    return any(folded(text) == folded(kind.present(value, column, region, medium)) for medium in Medium)


def typed_values(table: Table, cells: Mapping[str, str]) -> dict[str, Any]:
    """Return the values that typed cells come to by themselves, by column id; what can't be read is left out."""
    region, found = table.form.region, {}
    for column_id, text in cells.items():
        column = table.columns[column_id]
        kind = field_type_of(column)
        with suppress(AnswerError):
            value = kind.parse(typed_value(column, text, region), column, region)
            if value is not None:
                found[column_id] = kind.dump(value)
    return found


def texts_of(table: Table, values: Mapping[str, Any], medium: Medium) -> dict[str, str]:
    """Return what people or programs read in each column, by its id; nothing for a blank."""
    return {
        column.id: _text(values[column.id], column, table.form.region, medium)
        for column in table.columns.values()
        if values.get(column.id) is not None
    }


def _text(kept: Any, column: Field, region: Region, medium: Medium) -> str:
    try:
        return field_type_of(column).present_kept(kept, column, region, medium)
    except UNREADABLE:
        return str(kept)  # of an option that is gone


def typed_texts_of(table: Table, values: Mapping[str, Any]) -> dict[str, str]:
    """Return what somebody would type to get the same again, by column id; nothing for what is worked out or a file."""
    region, found = table.form.region, {}
    for column in table.columns.values():
        kind, kept = field_type_of(column), values.get(column.id)
        if kept is None or not kind.answered or isinstance(column, FileUploadField):
            continue  # what is worked out, and files, nobody types
        is_coded = hasattr(column, "options") or isinstance(kind, BooleanType | RecordChoiceType)
        entered = None if is_coded else kind.enter(kind.load(kept, column), column, region)
        found[column.id] = entered if isinstance(entered, str) else _text(kept, column, region, Medium.PAGE)
    return found
