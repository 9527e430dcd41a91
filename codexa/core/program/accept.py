"""Taking a response: everything is worked out anew from the raw answers."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from codexa.core.context import Context
from codexa.core.formula.values import Failed
from codexa.core.program.evaluate import FieldError, Row, State, evaluate
from codexa.core.program.figure_kinds import kind_of
from codexa.core.program.kept import state_of_kept
from codexa.core.program.order import OrderTotals, dump_order
from codexa.core.program.order_names import ORDER
from codexa.core.program.places import ROW_ADDRESS, Place, RepeatPlace
from codexa.core.program.program import Program
from codexa.core.program.slot_offers import slots_waited_for


@dataclass(frozen=True, kw_only=True, slots=True)
class Accepted:
    """A response to be kept: JSON values by block id.

    A repeat's answer is its rows {"kind", "id", "values"} in the visitor's order. `computed` holds what formulas gave,
    of blocks and figures by their id, of rows by repeat and row, of the order as ORDER; its words are in the form's own
    language. `path` are the ids of the pages
    that applied, `confirmation` the id of the one that follows, None for the form's usual words.
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
    unknown = unknown_in(program, answers)
    if unknown:
        return Refused(errors={}, unknown=unknown)
    state = evaluate(program, answers, context)
    errors = state.errors()
    if errors:
        return Refused(errors=errors)
    return accepted_of(state)


def unknown_in(program: Program, answers: Mapping[str, Any]) -> tuple[str, ...]:
    """Return the ids that the edition does not ask for."""
    return tuple(sorted(str(each)[:60] for each in answers if not _is_known(program, each)))


def kept_of(state: State) -> dict[str, Any]:
    """Return what would be kept of the answers, by block id."""
    return _kept(state, answered=True)


def computed_of(state: State) -> dict[str, Any]:
    """Return what would be kept of the fields that are worked out, by block id."""
    return _kept(state, answered=False)


def in_own_language(state: State) -> State:
    """Return the state that the same answers come to in the form's own language: what the team is told."""
    own = state.program.own
    if own is None:
        return state
    context = replace(state.context, locale=own.form.locale)
    return state_of_kept(own, kept_of(state), context)


def accepted_of(state: State) -> Accepted:
    """Return what is to be kept of a state in which nothing is wrong."""
    waiting = slots_waited_for(state)
    if waiting != state.context.waiting:
        state = replace(state, context=replace(state.context, waiting=waiting))
    form, confirmation, own = state.program.form, state.confirmation(), in_own_language(state)
    return Accepted(
        answers=kept_of(state),
        computed=_kept(own, answered=False) | _figures(own) | _order(own),
        path=tuple(form.pages[index].id for index in state.path()),
        confirmation=None if confirmation is None else form.confirmations[confirmation].id,
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


def _order(state: State) -> dict[str, Any]:
    order = state.order()
    return {ORDER: dump_order(order, state.program.region)} if isinstance(order, OrderTotals) else {}


def numbered(accepted: Accepted, number: int) -> Accepted:
    """Return the response with what can be worked out only once it has its number."""
    state = accepted.state.with_number(number)
    if not state.program.needs_number:
        return replace(accepted, state=state)
    return accepted_of(state_of_kept(state.program, accepted.answers, state.context))
