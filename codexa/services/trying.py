"""Trying a draft: what comes out of answers, its trials, and its figures on the responses that came in."""

import datetime
from collections.abc import Mapping
from dataclasses import dataclass, replace
from random import Random
from typing import Any
from uuid import UUID

from codexa.core.context import EVERYBODY, Context
from codexa.core.definition.trials import Expected
from codexa.core.look_ups import Tables
from codexa.core.program.charts import bars_of, looked_at
from codexa.core.program.commitment import Commitment
from codexa.core.program.evaluate import State, evaluate
from codexa.core.program.faces import BarFace, FormState
from codexa.core.program.kept import entered_again
from codexa.core.program.order import money
from codexa.core.program.payment import PaymentDue, payment_due
from codexa.core.program.program import Program
from codexa.core.program.public import form_state
from codexa.core.program.trials import figure_texts, holding, outcome_of, state_on
from codexa.core.program.untried import Aim, answers_for_untried
from codexa.services.answering import Given
from codexa.services.context import context_of
from codexa.services.errors import NotFoundError
from codexa.services.tables.looking_up import tables_for
from codexa.store import responses
from codexa.store.database import Connect
from codexa.store.responses import ResponseRow
from codexa.store.sessions import SignedIn

MOST_RESPONSES = 50
MOST_CHARGES = 3


@dataclass(frozen=True, kw_only=True, slots=True)
class Tried:
    """What comes out of answers: all that a trial would look at, and which conditions hold, by owner and setting.

    `values` are the texts of fields and figures by id, `charts` the bars of the charts in confirmations, by the
    confirmation and the paragraph's place ("ID.2"), `looked_at` the numbers that figures of bands look at; `to_pay` is
    the amount that is due at once, "" where nothing is, and `plan` what is due later; `state` is what visitors would
    see.
    """

    outcome: Expected
    holding: dict[str, dict[str, bool]]
    values: dict[str, str]
    charts: dict[str, list[BarFace]]
    looked_at: dict[str, str]
    to_pay: str
    plan: "TriedPlan | None"
    state: FormState


@dataclass(frozen=True, kw_only=True, slots=True)
class TriedCharge:
    """A later charge: on which day, and how much, as visitors read it."""

    day: datetime.date
    amount: str


@dataclass(frozen=True, kw_only=True, slots=True)
class TriedPlan:
    """What is paid now and later in `words`; the first later charges, how many follow (None for no end) and the last.

    `whole` is all that is ever paid, "" where there is no end to it.
    """

    words: str
    charges: list[TriedCharge]
    more: int | None
    last_day: datetime.date | None
    whole: str


def outcome(
    program: Program, given: Given, day: datetime.date | None, people: Mapping[str, str], *, tables: Tables
) -> Tried:
    """Return what comes out of answers on a day, or now; `people` are those of the team whom the form writes to."""
    today = context_of(program.form).today
    told = {"visitor": given.visitor.facts, "groups": given.visitor.groups}
    state = state_on(program, given.answers, given.link, day or today, people, tables=tables, told=told)
    holds: dict[str, dict[str, bool]] = {}
    for (owner, setting), held in holding(state).items():
        holds.setdefault(owner, {})[setting] = held
    charts = {
        f"{confirmation.id}.{at}": bars_of(state, paragraph.chart, paragraph.chart_look)
        for confirmation in program.form.confirmations
        for at, paragraph in enumerate(confirmation.paragraphs)
        if paragraph.chart
    }
    due = payment_due(state)
    return Tried(
        outcome=outcome_of(state),
        holding=holds,
        values=_values(state),
        charts=charts,
        looked_at=looked_at(state),
        to_pay="" if due is None else money(due.amount, program.region),
        plan=None if due is None else _plan(state, due),
        state=FormState.model_validate(form_state(state)),
    )


@dataclass(frozen=True, kw_only=True, slots=True)
class Untried:
    """Answers for a new trial, with what a link brings and what comes of them; what they reach, and what they don't."""

    answers: dict[str, Any]
    link: dict[str, str]
    outcome: Expected
    reached: tuple[Aim, ...]
    missed: tuple[Aim, ...]


def untried(program: Program, seed: int, people: Mapping[str, str], *, tables: Tables) -> Untried:
    """Return sample answers of today with which conditions hold, or fail, that did in no trial; by chance of a seed."""
    found = answers_for_untried(program, Random(seed), context_of(program.form).today, people, tables)  # noqa: S311 - no secret
    outcome = outcome_of(found.state)
    return Untried(answers=found.answers, link=found.link, outcome=outcome, reached=found.reached, missed=found.missed)


def _plan(state: State, due: PaymentDue) -> TriedPlan | None:
    later, region = due.later, state.program.region
    if later is None:
        return None
    count = MOST_CHARGES if later.times is None else min(later.times, MOST_CHARGES)
    whole = Commitment(now=due.amount, later=later).whole
    return TriedPlan(
        words=due.words,
        charges=[TriedCharge(day=later.day(turn), amount=money(later.amount, region)) for turn in range(1, count + 1)],
        more=None if later.times is None else later.times - count,
        last_day=None if later.times is None else later.day(later.times),
        whole="" if whole is None else money(whole, region),
    )


def _values(state: State) -> dict[str, str]:
    shown = {place.block.id: state.presented(place) or "" for place in state.program.top_places if place.field_type}
    return shown | dict(figure_texts(state))


@dataclass(frozen=True, kw_only=True, slots=True)
class TriedResponse:
    """A response as the draft would see it: its answers as they would be entered, and the draft's figures."""

    number: int
    answers: dict[str, Any]
    figures: dict[str, str]


def on_responses(connect: Connect, program: Program, *, who: SignedIn, form: UUID) -> list[TriedResponse]:
    """Return the newest responses with the figures that the draft works out of them; no tries."""
    with connect() as connection:
        rows = responses.page_of_responses(connection, team=who.team_id, form=form, limit=MOST_RESPONSES)
    with tables_for(connect, form) as tables:
        states = [(row, _state(program, row, tables)) for row in rows if not row.test]
    return [
        TriedResponse(number=row.number, answers=dict(state.given), figures=dict(figure_texts(state)))
        for row, state in states
    ]


def on_response(connect: Connect, program: Program, *, who: SignedIn, form: UUID, number: int) -> TriedResponse:
    """Return any one response with all that the draft works out of it now, its number included; nothing is kept.

    Raises NotFoundError.
    """
    with connect() as connection:
        row = responses.find_response(connection, team=who.team_id, form=form, number=number)
    if row is None:
        raise NotFoundError(f"There is no response {number} to this form.")
    with tables_for(connect, form) as tables:
        state = _state(program, row, tables)
    return TriedResponse(number=number, answers=dict(state.given), figures=_values(state))


def _state(program: Program, row: ResponseRow, tables: Tables) -> State:
    """Return what the draft says of a response at its moment; what others filled in counts as what its visitor did."""
    context = Context.from_json(row.told, number=row.number)
    known = replace(context, locale=program.form.locale, tables=tables, at_part=EVERYBODY)
    return evaluate(program, entered_again(program, row.answers), known)
