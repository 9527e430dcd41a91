"""What formulas and texts know of a chosen record: its columns, and those of the records that it names in turn."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from codexa.core.definition.formulas import INSERTION
from codexa.core.definition.parts import Field
from codexa.core.errors import UNREADABLE
from codexa.core.fields import field_type_of
from codexa.core.fields.field_type import Medium, Region
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.form.form import Form
from codexa.core.form.known_tables import KnownTable
from codexa.core.formula.scope import Home, Reference
from codexa.core.formula.types import Kind, Type
from codexa.core.formula.values import ChosenRecord
from codexa.core.look_ups import KeptRecord
from codexa.core.program.scope import AnyScope, Entry, InnerScope, Path
from codexa.core.program.wording import RECORD

MOST_DEEP = 3  # columns one after the other: telescope.site.name is two


@dataclass(frozen=True, kw_only=True, slots=True)
class RecordPart:
    """A column of a record, along the ids of columns that lead to it; `block` is the id of whose record it is."""

    block: str
    path: tuple[str, ...]
    column: Field

    def __call__(self, record: ChosenRecord) -> Any:
        """Return the value; None where the record has none that can be read."""
        values: Mapping[str, Any] = record.values
        try:
            for each in self.path[:-1]:
                values = values[each]["values"]
            return field_type_of(self.column).load(values[self.path[-1]], self.column)
        except UNREADABLE:
            return None


@dataclass(frozen=True, kw_only=True, slots=True)
class RecordsPart:
    """The same of each of several records, as a list."""

    part: RecordPart

    def __call__(self, records: Any) -> list[Any]:
        """Return the values in the order of the records."""
        return [self.part(each) for each in records]


def part_named(form: Form, block: RecordChoiceField, keys: tuple[str, ...]) -> RecordPart | None:
    """Return the part of a block's record that keys of columns lead to."""
    table, path, column = form.table(block.table), [], None
    for key in keys[:MOST_DEEP]:
        column = None if table is None else table.by_key.get(key)
        if column is None:
            return None
        path.append(column.id)
        leads_on = isinstance(column, RecordChoiceField) and not column.several
        table = form.table(column.table) if leads_on and isinstance(column, RecordChoiceField) else None
    if column is None or len(path) < len(keys):
        return None
    return RecordPart(block=block.id, path=tuple(path), column=column)


def part_entry(form: Form, block: RecordChoiceField, part: RecordPart, reference: Reference) -> Entry:
    """Return what a name stands for that is a part of what `reference` is."""
    table = form.table(block.table)
    region = form.region if table is None else written_in(form, table)
    column, field_type = part.column, field_type_of(part.column)
    kind = field_type.value_type(column)
    type_ = Type(kind=kind.kind, is_list=block.several, may_be_blank=True, digits=kind.digits)

    def present(value: Any) -> str:
        each = value if isinstance(value, list) else [value]
        return ", ".join(field_type.present(one, column, region, Medium.PAGE) for one in each if one is not None)

    found = Reference(
        slot=reference.slot,
        type=type_,
        can_fail=reference.can_fail,
        home=reference.home,
        facet=RecordsPart(part=part) if block.several else part,
    )
    return Entry(reference=found, present=present, owner=block.id)


def written_in(form: Form, table: KnownTable) -> Region:
    """Return how a form's visitors read what a table holds: in their language, in the table's currency."""
    return Region(locale=form.locale, currency=table.currency, time_zone=form.time_zone)


def record_scope(outer: AnyScope, form: Form, block: RecordChoiceField) -> InnerScope:
    """Return the scope of a block's filter: `record` is one that may fit, `record.key` one of its columns."""
    itself = Reference(slot=0, type=Type(kind=Kind.RECORD), can_fail=False, home=Home.OPTION)
    entries: dict[Path, Entry] = {(RECORD,): Entry(reference=itself, present=str)}
    table = form.table(block.table)
    single = block.model_copy(update={"several": False})
    for key in table.by_key if table is not None else ():
        part = part_named(form, single, (key,))
        if part is not None:
            entries[(RECORD, key)] = part_entry(form, single, part, itself)
    return InnerScope(entries, outer)


@dataclass(frozen=True, kw_only=True)
class Shown:
    """How a block shows a record: its name, or a text with its columns in it."""

    form: Form
    block: RecordChoiceField

    @cached_property
    def table(self) -> KnownTable | None:
        """The table, if the form knows it; looked for once, as hundreds of records are shown."""
        return self.form.table(self.block.table)

    def columns(self) -> Iterator[Field]:
        """Yield the columns that stand in the text."""
        by_key = {} if self.table is None else self.table.by_key
        yield from (by_key[key] for key in self.names() if key in by_key)

    def names(self) -> list[str]:
        """Return the names in the text, as they are written there."""
        return [match[1].lower() for match in INSERTION.finditer(self.block.shown_as) if match[1]]

    def __call__(self, record: KeptRecord) -> str:
        """Return what is shown of a record; its number where nothing else is known."""
        table = self.table
        if table is None or not self.block.shown_as.strip():
            return record.name or str(record.number)
        region, by_key = written_in(self.form, table), table.by_key
        written = INSERTION.sub(
            lambda found: found[0][0] if found[1] is None else _written(record, by_key.get(found[1].lower()), region),
            self.block.shown_as,
        )
        return " ".join(written.split())[:500] or str(record.number)


def _written(record: KeptRecord, column: Field | None, region: Region) -> str:
    stored = None if column is None else record.values.get(column.id)
    if stored is None or column is None:
        return ""
    try:
        return field_type_of(column).present_kept(stored, column, region, Medium.PAGE)
    except UNREADABLE:
        return ""
