"""The facts of a record choice: which records are offered now, and what was chosen of them."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, NamedTuple

from codexa.core.context import Context
from codexa.core.fields.file_upload import is_shown_small
from codexa.core.fields.record_choice import AskedRecords, RecordChoiceField
from codexa.core.form.form import Form
from codexa.core.formula.values import ChosenRecord, ChosenRecords
from codexa.core.look_ups import ALL_RECORDS, MOST_LISTED, KeptRecord, LookUp
from codexa.core.program.facts import Formula
from codexa.core.program.fitting import Fitting
from codexa.core.program.record_parts import Shown


class OfferedRecord(NamedTuple):
    """A record as visitors see it in a list: how many are left of it where there is an end, and a picture by its id."""

    number: int
    shown: str
    left: int | None = None
    picture: str = ""


@dataclass(frozen=True, kw_only=True, slots=True)
class Offered:
    """What a record choice offers, whether there is more than is listed, and what is chosen.

    `lost` says that something was chosen that is not offered. `asked` is the question that found it. `left` is how many
    are left of what is chosen, by number, where there is an end to it.
    """

    records: tuple[OfferedRecord, ...] = ()
    more: bool = False
    chosen: ChosenRecord | ChosenRecords | None = None
    lost: bool = False
    asked: LookUp | None = None
    left: Mapping[int, int] = field(default_factory=dict)


def _only(values: Mapping[str, Any], columns: Collection[str]) -> dict[str, Any]:
    return {column: value for column, value in values.items() if column in columns}


def trimmed(values: Mapping[str, Any], used: Collection[tuple[str, ...]]) -> dict[str, Any]:
    """Return values with only what is `used` of the records that they name, along paths of columns."""
    found = {}
    for column, value in values.items():
        further = {path[1:] for path in used if len(path) > 1 and path[0] == column}
        if further and isinstance(value, dict):
            inner = {each: known for each, known in value["values"].items() if any(each == path[0] for path in further)}
            found[column] = {**value, "values": trimmed(inner, further)}
        else:
            found[column] = {**value, "values": {}} if isinstance(value, dict) and "values" in value else value
    return found


def offered_record(shown: Shown, record: KeptRecord) -> OfferedRecord:
    """Return a record as visitors see it in a list."""
    picture = _picture(record, shown.block.picture) if shown.block.picture else ""
    return OfferedRecord(record.number, shown(record), record.left, picture)


def _picture(record: KeptRecord, column: str) -> str:
    files = record.values.get(column) or ()
    return next((each["id"] for each in files if is_shown_small(each["type"])), "")


class Looking:
    """Looks a block's records up; `used` are the paths of columns that formulas and texts take of what is chosen."""

    def __init__(
        self, form: Form, block: RecordChoiceField, filtering: Formula | None, used: frozenset[tuple[str, ...]]
    ) -> None:
        """Take in what stays the same in every state."""
        self.block = block
        self.shown = Shown(form=form, block=block)
        self.fitting = None if filtering is None else Fitting(filtering)
        order = ("-" if block.descending else "") + block.ordered_by if block.ordered_by else ""
        shown = frozenset(each.id for each in self.shown.columns()) | frozenset(filter(None, [block.picture]))
        tried = frozenset() if self.fitting is None else self.fitting.columns()
        self._kept = shown | {path[0] for path in used}
        self._same: dict[str, Any] = {
            "table": block.table if self.shown.table is not None else "",
            "order": order,
            "first": 0 if block.look == "search" else MOST_LISTED,
            "columns": self._kept | tried,
            "places": block.places,
            "paths": frozenset(self._with_tables(form, path[:-1]) for path in used if len(path) > 1),
        }
        self._used = used

    def _with_tables(self, form: Form, path: tuple[str, ...]) -> tuple[tuple[str, str], ...]:
        """Return columns that lead on, each with the table whose records it names."""
        found, table = [], form.table(self.block.table)
        for column_id in path:
            column = None if table is None else table.fields.get(column_id)
            assert isinstance(column, RecordChoiceField)
            found.append((column_id, column.table))
            table = form.table(column.table)
        return tuple(found)

    def __call__(
        self, values: Sequence[Any], context: Context, row: Sequence[Any], answer: Any, operands: Sequence[Any]
    ) -> Offered:
        """Return what is offered in this state, and what of it was answered."""
        if isinstance(answer, ChosenRecord | ChosenRecords):
            return Offered(chosen=answer)  # as it was when the response was taken
        condition = ALL_RECORDS if self.fitting is None else self.fitting.condition(operands, values, context, row)
        chosen = answer if isinstance(answer, AskedRecords) else ()
        asked = LookUp(condition=condition, chosen=tuple(chosen), **self._same)
        found = context.tables.look_up(asked)
        there = [each for each in found.chosen if each is not None]
        return Offered(
            records=tuple(offered_record(self.shown, each) for each in found.listed),
            more=found.more,
            chosen=self._chosen(there),
            lost=len(there) < len(chosen),
            asked=asked,
            left={each.number: each.left for each in there if each.left is not None},
        )

    def _chosen(self, there: Sequence[KeptRecord]) -> ChosenRecord | ChosenRecords | None:
        records = [
            ChosenRecord(
                self.shown(record),
                number=record.number,
                values=trimmed(
                    {each: value for each, value in record.values.items() if each in self._kept}, self._used
                ),
            )
            for record in there
        ]
        if self.block.several:
            return ChosenRecords(records) or None
        return records[0] if records else None
