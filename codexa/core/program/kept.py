"""What was kept of a response, worked out again as it was, or entered again as a visitor would."""

from collections.abc import Iterator, Mapping
from dataclasses import replace
from functools import cached_property
from typing import Any

from codexa.core.context import Context
from codexa.core.errors import CoreError
from codexa.core.formula.metering import begin
from codexa.core.formula.values import use_exact_arithmetic
from codexa.core.program.evaluate import Row, State
from codexa.core.program.kept_records import kept_tables
from codexa.core.program.parts import open_parts
from codexa.core.program.places import ROW_ADDRESS, ROW_KIND, KindPlace, Place, RepeatPlace
from codexa.core.program.program import Program

# What reading a value of another edition may raise: its field was of another type, or had other options.
_UNREADABLE = (ValueError, KeyError, TypeError, ArithmeticError, AttributeError, CoreError)


def state_of_kept(program: Program, kept: Mapping[str, Any], context: Context) -> State:
    """Return the state that was accepted, of the answers that were kept of it and the surroundings of that moment.

    The program is that of the response's own edition. Files need no look-up, and what waited for the response's number
    is there where the context has one. A kept value that can't be read any more is blank.
    """
    use_exact_arithmetic()
    begin()
    values = list(program.initial)
    for place in program.top_places:
        if isinstance(place, RepeatPlace):
            values[place.all_rows.slot] = _rows(program, place, kept.get(place.block.id))
        elif place.read_back:
            assert place.value is not None
            values[place.value.slot] = _loaded(place, kept.get(place.block.id))
    program.work_out(values, replace(context, tables=kept_tables(program, kept)), set())
    begin()
    given = _EnteredAgain(program, kept)
    brought = {block: link for block, (link, _) in program.linked.items() if context.link.get(link.name)}
    return State(
        program=program,
        context=context,
        values=values,
        misread={},
        dropped=set(),
        given=given,
        brought=brought,
        closed=program.closed_to(open_parts(program.form, context)) if program.has_parts else frozenset(),
    )


class _EnteredAgain(Mapping[str, Any]):
    """The answers that a visitor would have entered, worked out once somebody asks: few do, and it takes long."""

    def __init__(self, program: Program, kept: Mapping[str, Any]) -> None:
        self._program, self._kept = program, kept

    @cached_property
    def _answers(self) -> dict[str, Any]:
        return entered_again(self._program, self._kept)

    def __getitem__(self, block: str) -> Any:
        return self._answers[block]

    def __iter__(self) -> Iterator[str]:
        return iter(self._answers)

    def __len__(self) -> int:
        return len(self._answers)


def _loaded(place: Place, stored: Any) -> Any:
    """Return the value; what was kept blank is blank, so that no default comes in its place."""
    if stored is None or place.field_type is None:
        return None
    try:
        return place.field_type.load(stored, place.block)
    except _UNREADABLE:
        return None


def _rows(program: Program, place: RepeatPlace, stored: Any) -> list[Row]:
    rows = []
    for each in stored or ():
        kind = place.kind_named(each["kind"])
        if kind is not None:
            rows.append(_row(program, place, kind, each))
    return rows


def _row(program: Program, place: RepeatPlace, kind: KindPlace, stored: Mapping[str, Any]) -> Row:
    row: Row = list(program.initial_rows[kind.kind.id])
    row[ROW_ADDRESS], row[ROW_KIND] = f"{place.block.id}/{stored['id']}/", kind.index
    for inner in kind.places:
        if inner.read_back:
            assert inner.value is not None
            row[inner.value.slot] = _loaded(inner, stored["values"].get(inner.block.id))
    return row


def entered_again(program: Program, kept: Mapping[str, Any]) -> dict[str, Any]:
    """Return the raw answers that a visitor would have given for what was kept of a response.

    What the program has no field for, or can't take there any more, is left out.
    """
    answers: dict[str, Any] = {}
    for place in program.top_places:
        stored = kept.get(place.block.id)
        if stored is None:
            continue
        if isinstance(place, RepeatPlace):
            answers[place.block.id] = [
                {**row, "values": _entered_values(program, place, row)} for row in stored if _known_kind(place, row)
            ]
        elif (answer := _entered(program, place, stored)) is not None:
            answers[place.block.id] = answer
    return answers


def entered_as_it_was(program: Program, kept: Mapping[str, Any], context: Context) -> dict[str, Any]:
    """Return the raw answers that lead to the same state again: what was left blank is emptied, so no default comes.

    The program is that of the response's own edition, the context that of its moment.
    """
    state, answers = state_of_kept(program, kept, context), entered_again(program, kept)
    for place in program.top_places:
        if isinstance(place, RepeatPlace):
            rows = {row[ROW_ADDRESS].split("/")[1]: row for row in state.rows(place)}
            for each in answers.get(place.block.id, ()):
                row = rows[each["id"]]
                inner = state.kind_of(place, row).places
                each["values"] |= {one.block.id: None for one in inner if _emptied(state, one, row, each["values"])}
        elif _emptied(state, place, (), answers):
            answers[place.block.id] = None
    return answers


def _emptied(state: State, place: Place, row: Row | tuple[()], answers: Mapping[str, Any]) -> bool:
    """Whether something would come in the place of an answer that is blank."""
    block = place.block
    comes = getattr(block, "default", "") or (not row and block.id in state.program.linked)
    return bool(comes) and place.answered and block.id not in answers and state.shown(place, row)


def _known_kind(place: RepeatPlace, row: Mapping[str, Any]) -> bool:
    return place.kind_named(row["kind"]) is not None


def _entered_values(program: Program, place: RepeatPlace, row: Mapping[str, Any]) -> dict[str, Any]:
    kind = place.kind_named(row["kind"])
    inner = {each.block.id: each for each in kind.places} if kind else {}
    found = {each: _entered(program, inner[each], stored) for each, stored in row["values"].items() if each in inner}
    return {block_id: answer for block_id, answer in found.items() if answer is not None}


def _entered(program: Program, place: Place, stored: Any) -> Any:
    if place.field_type is None or not place.answered:
        return None
    try:
        value = place.field_type.load(stored, place.block)
        answer = place.field_type.enter(value, place.block, program.region)
        place.field_type.parse(answer, place.block, program.region)
    except _UNREADABLE:
        return None
    return answer


def entered_in_language(state: State, program: Program) -> dict[str, Any]:
    """Return what a visitor typed as it is typed in the language of another program of the same form ("1,5" or "1.5").

    What is no answer, or is written alike in every language, stays as it is.
    """
    answers: dict[str, Any] = {}
    for block, raw in state.given.items():
        place = state.program.places.get(block)
        if isinstance(place, RepeatPlace) and isinstance(raw, list):
            rows = {row[ROW_ADDRESS].split("/")[1]: row for row in state.rows(place)}
            answers[block] = [_row_in_language(state, program, place, each, rows) for each in raw]
        else:
            answers[block] = raw if place is None else _typed(state, program, place, raw, ())
    return answers


def _row_in_language(state: State, program: Program, place: RepeatPlace, raw: Any, rows: Mapping[str, Row]) -> Any:
    row = rows.get(str(raw.get("id"))) if isinstance(raw, dict) else None
    if row is None or not isinstance(raw.get("values"), dict):
        return raw
    inner = {each.block.id: each for each in state.kind_of(place, row).places}
    values = {
        block: _typed(state, program, inner[block], each, row) if block in inner else each
        for block, each in raw["values"].items()
    }
    return {**raw, "values": values}


def _typed(state: State, program: Program, place: Place, raw: Any, row: Row | tuple[()]) -> Any:
    if not isinstance(raw, str) or place.field_type is None or not place.answered:
        return raw
    value = state.value(place, row)
    if value is None or place.address(row) in state.misread:
        return raw
    return place.field_type.enter(value, place.block, program.region)
