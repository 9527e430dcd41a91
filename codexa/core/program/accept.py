"""Taking a response: everything is worked out anew from the raw answers."""

from collections.abc import Mapping
from dataclasses import dataclass
from random import Random
from typing import Any

from codexa.core.context import Context
from codexa.core.formula.values import Failed
from codexa.core.program.evaluate import FieldError, State, evaluate
from codexa.core.program.program import Program


@dataclass(frozen=True, kw_only=True, slots=True)
class Accepted:
    """A response to be kept: JSON values by block id; `computed` holds what formulas gave."""

    answers: dict[str, Any]
    computed: dict[str, Any]


@dataclass(frozen=True, kw_only=True, slots=True)
class Refused:
    """A response that can't be kept: what is wrong, by block id; `unknown` are ids that the edition does not have."""

    errors: dict[str, FieldError]
    unknown: tuple[str, ...] = ()


def accept(program: Program, answers: Mapping[str, Any], context: Context) -> Accepted | Refused:
    """Return what is to be kept of these raw answers, or what is wrong with them.

    Values that a browser sends for computed fields are ignored; answers to fields that are not shown are not kept.
    """
    unknown = tuple(sorted(str(each)[:60] for each in answers if each not in program.places))
    if unknown:
        return Refused(errors={}, unknown=unknown)
    state = evaluate(program, answers, context)
    errors = state.errors()
    if errors:
        return Refused(errors=errors)
    return Accepted(answers=_kept(state, answered=True), computed=_kept(state, answered=False))


def _kept(state: State, *, answered: bool) -> dict[str, Any]:
    kept = {}
    for place in state.program.field_places:
        assert place.field_type is not None
        value = state.value(place)
        if place.field_type.answered is answered and value is not None and not isinstance(value, Failed):
            kept[place.block.id] = place.field_type.dump(value)
    return kept


def sample_answers(program: Program, random: Random, context: Context) -> dict[str, Any]:
    """Return plausible raw answers to what is shown, field after field, as a visitor would fill the form in."""
    answers: dict[str, Any] = {}
    for place in program.answered_places:
        assert place.field_type is not None
        state = evaluate(program, answers, context)
        wanted = state.required(place) or random.random() < 0.8
        if state.shown(place) and wanted:
            answers[place.block.id] = place.field_type.sample(place.block, random, program.form.region)
    return {block_id: answer for block_id, answer in answers.items() if answer is not None}
