"""Plausible answers, filled in field after field, for previews, tests and demo data."""

from collections.abc import Sequence
from random import Random
from typing import Any

from codexa.core.context import Context
from codexa.core.definition.figures import ScoreFigure
from codexa.core.fields.field_type import Sampling
from codexa.core.fields.sample_people import somebody
from codexa.core.fields.slot import SlotField
from codexa.core.look_ups import MOST_FOUND
from codexa.core.program.evaluate import State, evaluate
from codexa.core.program.figures import best_codes
from codexa.core.program.places import Place, RepeatPlace
from codexa.core.program.program import Program
from codexa.core.program.record_offers import find_records
from codexa.core.program.slot_offers import slots_state

_KNOWN = 0.5  # of a quiz, besides lucky guesses


def sample_answers(program: Program, random: Random, context: Context) -> dict[str, Any]:
    """Return plausible raw answers to what is shown, field after field, as a visitor would fill the form in."""
    return filled_in(program, sampling(program, random, context), context)


def filled_in(program: Program, how: Sampling, context: Context) -> dict[str, Any]:
    """Return sample answers as one person gives them, at the moment of the context."""
    answers: dict[str, Any] = {}
    for place in program.top_places:
        state = evaluate(program, answers, context)
        if not state.shown(place) or place.block.id in state.brought:
            continue
        if isinstance(place, RepeatPlace):
            _answer_rows(answers, place, how, state)
        elif place.answered and (state.required(place) or how.random.random() < 0.8):
            _answer(answers, place, how, state)
    return answers


def sampling(program: Program, random: Random, context: Context) -> Sampling:
    """Return what samples for a form are made with: one person, at the moment of the context."""
    return Sampling(random=random, person=somebody(random), region=program.region, now=context.now)


def answer_what_is_missing(answers: dict[str, Any], state: State, how: Sampling) -> None:
    """Fill in, in place, what must be answered in that state and is blank."""
    for place in state.program.top_places:
        if place.block.id in answers or state.error(place) is None:
            continue
        if isinstance(place, RepeatPlace):
            _answer_rows(answers, place, how, state)
        elif place.answered:
            _answer(answers, place, how, state)


def another_answer(place: Place, state: State, how: Sampling) -> Any:
    """Return any answer to a field outside rows, or rows of a repeat; None where there is none."""
    if isinstance(place, RepeatPlace):
        return _sample_rows(place, how)
    if place.found is not None:
        return _some_offered(state, place, (), how.random)
    assert place.field_type is not None
    return place.field_type.sample(place.block, how)


def _answer(answers: dict[str, Any], place: Place, how: Sampling, state: State) -> None:
    assert place.field_type is not None
    block: Any = place.block
    if place.found is not None:
        answers[place.block.id] = _some_offered(state, place, (), how.random)
        return
    if place.offered is not None:
        offered = state.at(place.offered)
        block = block.model_copy(update={"options": tuple(each for each in block.options if each.code in offered)})
    right = _right_codes(state.program, place.block.id) if how.random.random() < _KNOWN else ()
    for at in range(20):
        known = [each.id for each in getattr(block, "options", ()) if each.code in right]
        answer = known[0] if at == 0 and len(known) == 1 else place.field_type.sample(block, how)
        if answer is None:
            return
        tried = evaluate(state.program, {**answers, place.block.id: answer}, state.context)
        if tried.error(place) is None and place.block.id not in tried.dropped:
            answers[place.block.id] = answer
            return


def _right_codes(program: Program, field: str) -> list[str]:
    """Return what a quiz takes for right, where it is one option."""
    questions = (
        question
        for figure in program.form.figures
        if isinstance(figure, ScoreFigure)
        for question in figure.questions
        if question.field == field
    )
    return next((best_codes(question, 1) for question in questions), [])


def _answer_rows(answers: dict[str, Any], place: RepeatPlace, how: Sampling, state: State) -> None:
    for _ in range(20):
        answers[place.block.id] = _sample_rows(place, how)
        tried = _with_offered(answers, place, state, how.random)
        if not any(address.startswith(place.block.id) for address in tried.errors()):
            return


def _with_offered(answers: dict[str, Any], place: RepeatPlace, state: State, random: Random) -> State:
    """Choose the records and slots that rows want, one after the other, and return the state then."""
    for at, given in enumerate(answers[place.block.id]):
        for inner in next(each for each in place.kinds if each.kind.id == given["kind"]).places:
            if inner.found is None:
                continue
            tried = evaluate(state.program, answers, state.context)
            given["values"][inner.block.id] = _some_offered(tried, inner, tried.rows(place)[at], random)
    return evaluate(state.program, answers, state.context)


def _some_offered(state: State, place: Place, row: Sequence[Any], random: Random) -> str | list[str] | None:
    """Return any of the slots that are free, or of the records that fit, or some; None where there is none."""
    if isinstance(place.block, SlotField):
        times = [each["id"] for day in slots_state(state, place, row)["days"] for each in day["times"]]
        return random.choice(times) if times else None
    numbers = [str(each.number) for each in find_records(state, place, row, "", MOST_FOUND)[0]]
    if not numbers:
        return None
    block: Any = place.block
    if not block.several:
        return random.choice(numbers)
    least = block.minimum or 1
    return random.sample(numbers, min(len(numbers), random.randint(least, max(least, block.maximum or 3))))


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
