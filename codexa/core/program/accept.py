"""Taking a response: everything is worked out anew from the raw answers."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from random import Random
from typing import Any

from codexa.core.context import Context
from codexa.core.errors import CoreError
from codexa.core.fields.field_type import Sampling
from codexa.core.formula.values import Failed
from codexa.core.program.evaluate import FieldError, Row, State, evaluate
from codexa.core.program.figure_kinds import kind_of
from codexa.core.program.places import ROW_ADDRESS, Place, RepeatPlace
from codexa.core.program.program import Program


@dataclass(frozen=True, kw_only=True, slots=True)
class Accepted:
    """A response to be kept: JSON values by block id.

    A repeat's answer is its rows {"kind", "id", "values"} in the visitor's order. `computed` holds what formulas gave,
    of blocks and figures by their id, of rows by repeat and row. `path` are the ids of the pages that applied,
    `confirmation` the id of the one that follows, None for the form's usual words.
    """

    answers: dict[str, Any]
    computed: dict[str, Any]
    path: tuple[str, ...]
    confirmation: str | None
    state: State


@dataclass(frozen=True, kw_only=True, slots=True)
class Refused:
    """A response that can't be kept: what is wrong, by address; `unknown` are ids that the edition does not have."""

    errors: dict[str, FieldError]
    unknown: tuple[str, ...] = ()


def accept(program: Program, answers: Mapping[str, Any], context: Context) -> Accepted | Refused:
    """Return what is to be kept of these raw answers, or what is wrong with them.

    Values that a browser sends for computed fields are ignored; answers to fields that are not shown are not kept.
    """
    unknown = tuple(sorted(str(each)[:60] for each in answers if not _is_known(program, each)))
    if unknown:
        return Refused(errors={}, unknown=unknown)
    state = evaluate(program, answers, context)
    errors = state.errors()
    if errors:
        return Refused(errors=errors)
    confirmation = state.confirmation()
    return Accepted(
        answers=_kept(state, answered=True),
        computed=_kept(state, answered=False) | _figures(state),
        path=tuple(program.form.pages[index].id for index in state.path()),
        confirmation=None if confirmation is None else program.form.confirmations[confirmation].id,
        state=state,
    )


def _is_known(program: Program, block_id: str) -> bool:
    place = program.places.get(block_id)
    return place is not None and place.kind is None


def _kept(state: State, *, answered: bool) -> dict[str, Any]:
    kept: dict[str, Any] = {}
    for place in state.program.top_places:
        if isinstance(place, RepeatPlace):
            rows = _kept_rows(state, place) if answered else _computed_rows(state, place)
            if rows:
                kept[place.block.id] = rows
        elif (value := _dumped(state, place, (), answered=answered)) is not None:
            kept[place.block.id] = value
    return kept


def _dumped(state: State, place: Place, row: Row | tuple[()], *, answered: bool) -> Any:
    if place.field_type is None or place.answered is not answered:
        return None
    value = state.value(place, row)
    return None if value is None or isinstance(value, Failed) else place.field_type.dump(value)


def _row_values(state: State, place: RepeatPlace, row: Row, *, answered: bool) -> dict[str, Any]:
    inner = state.kind_of(place, row).places
    found = {each.block.id: _dumped(state, each, row, answered=answered) for each in inner}
    return {block_id: value for block_id, value in found.items() if value is not None}


def _row_id(row: Row) -> str:
    return str(row[ROW_ADDRESS].split("/")[1])


def _kept_rows(state: State, place: RepeatPlace) -> list[dict[str, Any]]:
    return [
        {
            "kind": state.kind_of(place, row).kind.id,
            "id": _row_id(row),
            "values": _row_values(state, place, row, answered=True),
        }
        for row in state.rows(place)
    ]


def _computed_rows(state: State, place: RepeatPlace) -> dict[str, Any]:
    rows = {_row_id(row): _row_values(state, place, row, answered=False) for row in state.rows(place)}
    return {row_id: values for row_id, values in rows.items() if values}


def _figures(state: State) -> dict[str, Any]:
    kept = {}
    for figure_id, place in state.program.figures.items():
        value = state.at(place.value)
        if value is not None and not isinstance(value, Failed):
            kept[figure_id] = kind_of(place.figure).dump(place.figure, value)
    return kept


def number_result(accepted: Accepted, answers: Mapping[str, Any], number: int) -> Accepted:
    """Return the response with what can be worked out only once it has its number."""
    if not accepted.state.program.needs_number:
        return accepted
    state = evaluate(accepted.state.program, answers, accepted.state.context.with_number(number))
    return replace(accepted, computed=_kept(state, answered=False) | _figures(state), state=state)


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
        answer = place.field_type.enter(value, place.block, program.form.region)
        place.field_type.parse(answer, place.block, program.form.region)
    except (ValueError, KeyError, TypeError, ArithmeticError, AttributeError, CoreError):
        return None  # it was given to another edition, whose field was of another type or had other options
    return answer


def sample_answers(program: Program, random: Random, context: Context) -> dict[str, Any]:
    """Return plausible raw answers to what is shown, field after field, as a visitor would fill the form in."""
    answers: dict[str, Any] = {}
    how = Sampling(random=random, region=program.form.region, now=context.now)
    for place in program.top_places:
        state = evaluate(program, answers, context)
        if not state.shown(place):
            continue
        if isinstance(place, RepeatPlace):
            _answer_rows(answers, place, how, state)
        elif place.answered and (state.required(place) or random.random() < 0.8):
            _answer(answers, place, how, state)
    return answers


def _answer(answers: dict[str, Any], place: Place, how: Sampling, state: State) -> None:
    assert place.field_type is not None
    block: Any = place.block
    if place.offered is not None:
        offered = state.at(place.offered)
        block = block.model_copy(update={"options": tuple(each for each in block.options if each.code in offered)})
    for _ in range(20):
        answer = place.field_type.sample(block, how)
        if answer is None:
            return
        tried = evaluate(state.program, {**answers, place.block.id: answer}, state.context)
        if tried.error(place) is None and place.block.id not in tried.dropped:
            answers[place.block.id] = answer
            return


def _answer_rows(answers: dict[str, Any], place: RepeatPlace, how: Sampling, state: State) -> None:
    for _ in range(20):
        answers[place.block.id] = _sample_rows(place, how)
        tried = evaluate(state.program, answers, state.context)
        if not any(address.startswith(place.block.id) for address in tried.errors()):
            return


def _sample_rows(place: RepeatPlace, how: Sampling) -> list[dict[str, Any]]:
    repeat: Any = place.block
    wanted = [kind for kind in place.kinds for _ in range(kind.kind.min_rows)]
    most = min(repeat.max_rows, max(repeat.min_rows, 1) + 4)
    while place.kinds and len(wanted) < how.random.randint(max(repeat.min_rows, 1), max(most, 1)):
        wanted.append(how.random.choice(place.kinds))
    rows = []
    for index, kind in enumerate(wanted):
        values = {
            inner.block.id: inner.field_type.sample(inner.block, how)
            for inner in kind.places
            if inner.answered and inner.field_type is not None
        }
        given = {block_id: value for block_id, value in values.items() if value is not None}
        rows.append({"kind": kind.kind.id, "id": f"row{index}", "values": given})
    return rows
