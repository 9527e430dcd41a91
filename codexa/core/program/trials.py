"""Running trials: what comes out of saved answers, what differs from what was expected, and which rules were tried."""

import datetime
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from types import MappingProxyType
from typing import Any
from zoneinfo import ZoneInfo

from codexa.core.context import NOBODY, Context, visitor_facts
from codexa.core.definition.trials import Expected, Trial
from codexa.core.fields import type_of
from codexa.core.fields.calculated import CalculatedField
from codexa.core.form.form import FORM
from codexa.core.formula import convert
from codexa.core.formula.functions.function import Role
from codexa.core.formula.types import Kind
from codexa.core.formula.values import Failed
from codexa.core.look_ups import NO_TABLES, Tables
from codexa.core.program.evaluate import State, evaluate
from codexa.core.program.facts import Formula
from codexa.core.program.figure_kinds import kind_of
from codexa.core.program.follow_ups import USUAL_MOMENTS, as_if, due, told
from codexa.core.program.names import name_of
from codexa.core.program.order import money
from codexa.core.program.order_names import ORDER, PAYMENT
from codexa.core.program.payment import payment_due
from codexa.core.program.places import ALWAYS
from codexa.core.program.program import Program
from codexa.core.program.templates import DASH

_NOON = datetime.time(12)
_USUAL = "the form's usual words"


@dataclass(frozen=True, kw_only=True, slots=True)
class Difference:
    """What a trial expected of something and what came instead, in words; `part` is its id, or None for the form."""

    part: str | None
    name: str
    expected: str
    came: str


@dataclass(frozen=True, kw_only=True, slots=True)
class TrialResult:
    """How a trial ended; `outcome` is all that came out."""

    trial: str
    passed: bool
    differences: tuple[Difference, ...]
    outcome: Expected


@dataclass(frozen=True, kw_only=True, slots=True)
class RuleCoverage:
    """In how many trials a condition held, and in how many it did not; in rows, in any of them."""

    owner: str
    setting: str
    held: int
    did_not: int


@dataclass(frozen=True, kw_only=True, slots=True)
class TrialReport:
    """All trials of a form, and how they covered its conditions."""

    results: tuple[TrialResult, ...]
    coverage: tuple[RuleCoverage, ...]


NOTHING_TOLD: Mapping[str, Any] = MappingProxyType({})
_NUMBER = 1  # of a response that is only tried


def run_trials(program: Program, people: Mapping[str, str] = NOBODY, tables: Tables = NO_TABLES) -> TrialReport:
    """Run every trial of the form, each on its own day at noon; `people` and `tables` are the team's, as in Context."""
    trials = program.form.trials
    states = [_state_of(program, trial, people, tables) for trial in trials]
    return TrialReport(
        results=tuple(_result(trial, state) for trial, state in zip(trials, states, strict=True)),
        coverage=_coverage(program, states),
    )


def _state_of(program: Program, trial: Trial, people: Mapping[str, str], tables: Tables) -> State:
    visitor = trial.visitor
    told = {"visitor": visitor_facts(visitor.email, visitor.name), "groups": frozenset(visitor.groups)}
    return state_on(program, trial.answers, trial.link, trial.day, people, tables=tables, told=told)


def state_on(
    program: Program,
    answers: Mapping[str, Any],
    link: Mapping[str, str],
    day: datetime.date,
    people: Mapping[str, str] = NOBODY,
    *,
    tables: Tables = NO_TABLES,
    told: Mapping[str, Any] = NOTHING_TOLD,
) -> State:
    """Return the state of the form with these answers, given at noon of a day.

    `told` is what else the surroundings have: the `visitor` and their `groups`, as in Context.
    """
    now = datetime.datetime.combine(day, _NOON, ZoneInfo(program.form.time_zone))
    context = Context(now=now, locale=program.form.locale, link=link, people=people, tables=tables, **told)
    return evaluate(program, answers, context)


def outcome_of(state: State) -> Expected:
    """Return all that came out: what a new trial expects.

    Of blocks those that a condition shows or hides, of values the figures and the calculated fields.
    """
    program = state.program
    conditional = [place for place in program.top_places if _is_conditional(state, place.block.id)]
    index = state.confirmation()
    return Expected(
        shown=tuple(place.block.id for place in conditional if state.shown(place)),
        hidden=tuple(place.block.id for place in conditional if not state.shown(place)),
        figures=dict(figure_texts(state)),
        exact=dict(_exact_numbers(state)),
        wrong=tuple(state.errors()),
        path=tuple(program.form.pages[page].id for page in state.path()),
        confirmation="" if index is None else program.form.confirmations[index].id,
        follow_ups=_follow_ups(state),
    )


def _follow_ups(state: State) -> dict[str, str]:
    numbered = state.with_number(_NUMBER)
    found = ((moment, as_if(numbered, moment)) for moment in USUAL_MOMENTS)
    made = [each for moment, then in found if then is not None for each in due(then, moment)]
    return {each.follow_up: told(each, state.program.form.locale) for each in made}


def _is_conditional(state: State, block: str) -> bool:
    place = state.program.places[block]
    return place.conditions.shown is not ALWAYS and type_of(place.block).visible


def figure_texts(state: State, without: Collection[str] = ()) -> Iterator[tuple[str, str]]:
    """Yield the id of every figure, the order, the payment and each calculated field with its value as text.

    What failed is a dash; a payment of nothing is "". Those of the ids `without` are left out.
    """
    scope = state.program.layout.scope
    for figure_id, place in state.program.figures.items():
        if figure_id in without:
            continue
        value = state.at(place.value)
        bare = None if value is None or isinstance(value, Failed) else kind_of(place.figure).value(place.figure, value)
        entry = scope.entry((place.figure.key,))
        text = DASH if isinstance(value, Failed) else "" if bare is None or entry is None else entry.present(bare)
        yield figure_id, text
    order = state.order()
    if order is not None:
        yield ORDER, DASH if isinstance(order, Failed) else money(order.total, state.program.region)
    if state.program.form.payment.on:
        due = payment_due(state)
        failed = isinstance(state.commitment, Failed)
        nothing = DASH if failed else ""
        yield PAYMENT, nothing if due is None else due.words or money(due.amount, state.program.region)
    for field in state.program.top_places:
        told = field.block.id not in without and type_of(field.block).visible
        if told and field.field_type is not None and not field.answered:
            yield field.block.id, state.presented(field) or ""


def _exact_numbers(state: State) -> Iterator[tuple[str, str]]:
    """Yield the numbers that people may read rounded, by id, as plain text; money has no more digits than they see."""
    program = state.program
    for figure_id, place in program.figures.items():
        kind, value = kind_of(place.figure), state.at(place.value)
        if kind.value_type(place.figure).kind is Kind.NUMBER and value is not None and not isinstance(value, Failed):
            yield figure_id, convert.text(kind.value(place.figure, value))
    for field in program.top_places:
        number = state.value(field)
        if isinstance(field.block, CalculatedField) and field.block.format != "money" and isinstance(number, Decimal):
            yield field.block.id, convert.text(number)


def holding(state: State) -> dict[tuple[str, str], bool]:
    """Return, by owner and setting, whether each condition of the form holds; in rows, whether it does in any.

    A condition in rows of which there are none is left out, and so are filters, which hold option by option.
    """
    found: dict[tuple[str, str], bool] = {}
    for formula in conditions_of(state.program):
        results = [result is True for result in _results(state, formula)]
        if results:
            found[formula.owner, formula.setting] = any(results)
    return found


def conditions_of(program: Program) -> list[Formula]:
    """Return the conditions of a form that can be looked at as such; a constant decides nothing."""
    return [
        each
        for each in program.formulas
        if each.mark.role is Role.CONDITION and each.mark.fact not in ("offered", "fitting") and each.compiled.reads
    ]


def _results(state: State, formula: Formula) -> Iterator[Any]:
    if not formula.kind:
        yield formula.compiled.run(state.values, state.context)
        return
    for place in state.program.repeats.values():
        for row in state.rows(place):
            if state.kind_of(place, row).kind.id == formula.kind:
                yield formula.compiled.run(state.values, state.context, row)


def _coverage(program: Program, states: Sequence[State]) -> tuple[RuleCoverage, ...]:
    found = [holding(state) for state in states]
    return tuple(
        RuleCoverage(
            owner=each.owner,
            setting=each.setting,
            held=sum(one.get((each.owner, each.setting)) is True for one in found),
            did_not=sum(one.get((each.owner, each.setting)) is False for one in found),
        )
        for each in conditions_of(program)
    )


def _result(trial: Trial, state: State) -> TrialResult:
    came = outcome_of(state)
    differences = tuple(_differences(state, trial.expected, came))
    return TrialResult(trial=trial.id, passed=not differences, differences=differences, outcome=came)


def _differences(state: State, wanted: Expected, came: Expected) -> Iterator[Difference]:
    program = state.program
    places = {place.block.id: place for place in program.top_places}
    for words, block_ids, other in (("shown", wanted.shown, "hidden"), ("hidden", wanted.hidden, "shown")):
        for block in block_ids:
            place = places.get(block)
            now = "deleted" if place is None else "shown" if state.shown(place) else "hidden"
            if now != words:
                yield _difference(program, block, words, now if place is None else other)
    for figure, text in wanted.figures.items():
        value = came.figures.get(figure)
        exact, number = wanted.exact.get(figure), came.exact.get(figure)
        if value != text:
            yield _difference(program, figure, text or "blank", "deleted" if value is None else value or "blank")
        elif exact is not None and exact != number:
            now_told = "no number" if number is None else f"exactly {number}"
            yield _difference(program, figure, f"exactly {exact}", now_told)
    yield from _wrong_differences(state, wanted, came)
    if wanted.path is not None and wanted.path != came.path:
        yield _of_form("the path", _pages(program, wanted.path), _pages(program, came.path or ()))
    if wanted.confirmation is not None and wanted.confirmation != came.confirmation:
        names = _confirmation_names(program)
        now = names[came.confirmation or ""]
        yield _of_form("the confirmation", names.get(wanted.confirmation, "one that is deleted"), now)
    yield from _follow_up_differences(program, wanted, came)


def _follow_up_differences(program: Program, wanted: Expected, came: Expected) -> Iterator[Difference]:
    expected, done = wanted.follow_ups, came.follow_ups or {}
    for each in () if expected is None else sorted(expected.keys() | done.keys()):
        before, now = (found.get(each, "nothing") for found in (expected or {}, done))
        if before != now:
            yield _of_form(name_of(program, each), before, now)


def _wrong_differences(state: State, wanted: Expected, came: Expected) -> Iterator[Difference]:
    if wanted.wrong is None:
        return
    errors = state.errors()
    for address in wanted.wrong:
        if address not in errors:
            yield _difference(state.program, _last(address), "an error", "none")
    for address in came.wrong or ():
        if address not in wanted.wrong:
            yield _difference(state.program, _last(address), "no error", errors[address].message)


def _last(address: str) -> str:
    return address.rsplit("/", 1)[-1]


def _difference(program: Program, part: str, expected: str, came: str) -> Difference:
    known = part in program.places or part in program.figures or part in (ORDER, PAYMENT)
    name = name_of(program, part) if known or part == FORM else "something that was deleted"
    return Difference(part=part if known else None, name=name, expected=expected, came=came)


def _of_form(name: str, expected: str, came: str) -> Difference:
    return Difference(part=None, name=name, expected=expected, came=came)


def _pages(program: Program, ids: Sequence[str]) -> str:
    numbers: Mapping[str, str] = program.form.numbers()
    return " → ".join(numbers.get(each, "a deleted page") for each in ids) or "no page"


def _confirmation_names(program: Program) -> dict[str, str]:
    named = {
        each.id: f"C.{index} {each.name or each.title}" for index, each in enumerate(program.form.confirmations, 1)
    }
    return {"": _USUAL} | named
