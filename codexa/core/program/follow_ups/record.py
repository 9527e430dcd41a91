"""A record: what a response says is kept in the team's tables, made anew or found by what tells records apart."""

from collections.abc import Iterator, Sequence
from typing import Any

from codexa.core.definition.parts import Field
from codexa.core.errors import AnswerError
from codexa.core.fields import field_type_of
from codexa.core.fields.field_type import FieldType, Medium, Region
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.form.follow_ups import RecordCell, RecordFollowUp
from codexa.core.form.known_tables import KnownTable, label_of
from codexa.core.formula import convert
from codexa.core.formula.types import NUMBERS, RECORDS, WORDS, Kind
from codexa.core.formula.values import Failed, Files, FormulaFailure
from codexa.core.program.evaluate import Row, State
from codexa.core.program.facts import Formula
from codexa.core.program.findings import Finding, error
from codexa.core.program.follow_ups.kind import FollowUpKind
from codexa.core.program.program import Program

_WAYS = {"make": "a record", "either": "a record, found or made,", "change": "a record that is found"}
# What a column takes, by its kind; text takes everything.
_TAKES = {
    Kind.NUMBER: NUMBERS | {Kind.CHOICE, Kind.CHOICES},
    Kind.MONEY: NUMBERS | {Kind.CHOICE, Kind.CHOICES},
    Kind.DATE: {Kind.DATE, Kind.DATE_TIME},
    Kind.DATE_TIME: {Kind.DATE, Kind.DATE_TIME},
    Kind.TIME: {Kind.TIME, Kind.DATE_TIME},
    Kind.YES_NO: {Kind.YES_NO},
    Kind.CHOICE: WORDS,
    Kind.CHOICES: WORDS | {Kind.CHOICES},
    Kind.RECORD: RECORDS | WORDS | NUMBERS,
    Kind.RECORDS: RECORDS | WORDS | NUMBERS,
    Kind.FILES: {Kind.FILES},
}


class RecordKind(FollowUpKind[RecordFollowUp]):
    """Record."""

    kind_name = "record"
    title = "Record"

    def content(self, state: State, follow_up: RecordFollowUp) -> dict[str, Any] | None:
        """The records by step, each as raw answers by column; what can't be worked out is told, and not kept."""
        steps = [_step(state, follow_up, at) for at in range(len(follow_up.steps))]
        known = [each for each in steps if each is not None]
        return {"steps": known} if known and len(known) == len(steps) else None

    def told(self, content: dict[str, Any]) -> str:
        """Which tables get records."""
        return ", ".join(f"{_WAYS[each['way']]} in {each['name']}" for each in content["steps"])

    def findings(self, program: Program, follow_up: RecordFollowUp) -> Iterator[Finding]:
        """What is missing to make such records."""
        if not follow_up.steps:
            yield error("no_records", "It keeps nothing yet.", "Choose a table.", follow_up.id, "steps")
        for at in range(len(follow_up.steps)):
            yield from _findings(program, follow_up, at)


def _step(state: State, follow_up: RecordFollowUp, at: int) -> dict[str, Any] | None:
    step, program = follow_up.steps[at], state.program
    table = program.form.table(step.table)
    if table is None:
        return None
    rows: Sequence[Row | tuple[()]] = [()] if not step.rows else _rows(state, step.rows)
    known = {name: getattr(step, name) for name in ("id", "table", "way", "rows", "under", "linked_by")}
    return {
        **known,
        "name": table.name,
        "found_by": list(step.found_by),
        "records": [_record(state, follow_up, at, table, row) for row in rows],
    }


def _rows(state: State, kind: str) -> list[Row]:
    return [
        row
        for place in state.program.repeats.values()
        for row in state.rows(place)
        if state.kind_of(place, row).kind.id == kind
    ]


def _record(
    state: State, follow_up: RecordFollowUp, at: int, table: KnownTable, row: Row | tuple[()]
) -> dict[str, Any]:
    """Return the raw answers by column, what the team reads of them, and what could not be worked out, in words."""
    cells: dict[str, Any] = {}
    shown: dict[str, str] = {}
    wrong = []
    for index, cell in enumerate(follow_up.steps[at].cells):
        column = table.fields.get(cell.column)
        formula = state.program.formula(follow_up.id, f"steps.{at}.cells.{index}.value")
        if column is None or formula is None:
            continue
        value = formula.compiled.run(state.values, state.context, row)
        try:
            cells[cell.column] = entered = _entered(value, column, table.region)
            if entered is not None:
                shown[cell.column] = _shown(value, entered, column, table.region)
        except (AnswerError, FormulaFailure) as failure:
            reason = failure.message if isinstance(failure, AnswerError) else failure.error.message
            wrong.append(f"{label_of(column)}: {reason}")
    return {"cells": cells, "shown": shown, "wrong": wrong}


def _entered(value: Any, column: Field, region: Region) -> Any:
    """Return a value as somebody would enter it into a column. Raises AnswerError, FormulaFailure."""
    if isinstance(value, Failed):
        raise FormulaFailure(value.error)
    if value is None or value == "":
        return None
    kind: FieldType[Any] = field_type_of(column)
    if isinstance(value, Files):
        return kind.dump(value)
    try:
        adopted = kind.adopt(value, column, region)
    except AnswerError:
        # An option is also meant by its label, a day as people write it.
        adopted = kind.parse(kind.from_link(convert.text(value), column, region), column, region)
    return None if adopted is None else kind.enter(adopted, column, region)


def _shown(value: Any, entered: Any, column: Field, region: Region) -> str:
    if isinstance(column, RecordChoiceField):
        return convert.text(value)  # a record is known by what is shown of it
    kind: FieldType[Any] = field_type_of(column)
    return kind.present(kind.parse(entered, column, region), column, region, Medium.PAGE)


def _findings(program: Program, follow_up: RecordFollowUp, at: int) -> Iterator[Finding]:
    step, owner, place = follow_up.steps[at], follow_up.id, f"steps.{at}"
    table = program.form.table(step.table)
    if table is None:
        message = "It is not said of which table the records are." if not step.table else "Its table is not known."
        yield error("no_such_table", message, "Choose a table.", owner, f"{place}.table")
        return
    for index, cell in enumerate(step.cells):
        yield from _of_cell(program, follow_up, (at, index), cell, table)
    given = {cell.column for cell in step.cells if cell.value.strip()} | {step.linked_by}
    if step.way != "change":
        wanted = [each for each in table.fields.values() if getattr(each, "required", "").upper() == "TRUE"]
        missing = [label_of(each) for each in wanted if each.id not in given]
        if missing:
            needs = ", ".join(label_of(each) for each in wanted)
            message = f"{table.name} needs {needs}; missing: {', '.join(missing)}."
            yield error("column_missing", message, "Say what is kept there.", owner, f"{place}.cells")
    yield from _of_finding(follow_up, at, table, given)
    yield from _of_place(program, follow_up, at, table)


def _of_cell(
    program: Program, follow_up: RecordFollowUp, at: tuple[int, int], cell: RecordCell, table: KnownTable
) -> Iterator[Finding]:
    owner, setting = follow_up.id, f"steps.{at[0]}.cells.{at[1]}.value"
    column = table.fields.get(cell.column)
    if column is None:
        message = f"{table.name} has no such column any more."
        yield error("no_such_column", message, "Take it out.", owner, setting)
        return
    if not field_type_of(column).answered:
        message = f"{label_of(column)} is worked out in the table itself."
        yield error("column_computed", message, "Take it out.", owner, setting)
        return
    formula = program.formula(owner, setting)
    if formula is not None and not _fits(formula, column):
        gives = formula.compiled.type.name
        message = f"{label_of(column)} is a {field_type_of(column).value_type(column).name}, and this gives {gives}."
        yield error("wrong_type", message, "Take something else, or work it out.", owner, setting)


def _fits(formula: Formula, column: Field) -> bool:
    given, wanted = formula.compiled.type, field_type_of(column).value_type(column).kind
    if given.is_list:
        return wanted is Kind.RECORDS
    return given.kind in (Kind.ANY, Kind.BLANK) or given.kind in _TAKES.get(wanted, {given.kind})


def _of_finding(follow_up: RecordFollowUp, at: int, table: KnownTable, given: set[str]) -> Iterator[Finding]:
    step, owner, setting = follow_up.steps[at], follow_up.id, f"steps.{at}.found_by"
    if step.way == "make":
        return
    if not step.found_by:
        message = f"It is not said by what a record of {table.name} is found."
        yield error("not_found_by", message, "Choose the columns that tell records apart.", owner, setting)
    for column_id in step.found_by:
        column = table.fields.get(column_id)
        if column is None:
            message = f"{table.name} has no column any more by which it is found."
            yield error("no_such_column", message, "Choose another.", owner, setting)
        elif column_id not in given:
            message = f"A record is found by {label_of(column)}, and nothing is said of what stands there."
            yield error("not_found_by", message, "Say what it is.", owner, setting)


def _of_place(program: Program, follow_up: RecordFollowUp, at: int, table: KnownTable) -> Iterator[Finding]:
    step, owner, place = follow_up.steps[at], follow_up.id, f"steps.{at}"
    kinds = {kind.id for repeat in program.form.repeats() for kind in repeat.kinds}
    if step.rows and step.rows not in kinds:
        message = "The rows that become records are not there any more."
        yield error("no_such_rows", message, "Choose others, or none.", owner, f"{place}.rows")
    if not step.under:
        return
    above = next((each for each in follow_up.steps[:at] if each.id == step.under), None)
    if above is None or (above.rows and above.rows != step.rows):
        message = "The record that it belongs to does not stand above it, or is one of many."
        yield error("no_record_above", message, "Choose another, or none.", owner, f"{place}.under")
        return
    column = table.fields.get(step.linked_by)
    if column is None or getattr(column, "table", "") != above.table:
        message = f"It is not said which column of {table.name} names the record that it belongs to."
        yield error("not_linked", message, "Choose a column of records of that table.", owner, f"{place}.linked_by")
