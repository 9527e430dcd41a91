"""Which follow-ups are due, with everything worked out: recipients, texts, values. Jobs only carry them out."""

import datetime
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Any, get_args

from codexa.core.context import EVERYBODY, DecisionFacts, HandedOnFacts, PaymentFacts
from codexa.core.fields.moments import shown_date
from codexa.core.form.follow_ups import (
    AccountFollowUp,
    ApprovalFollowUp,
    CalendarFollowUp,
    EmailFollowUp,
    FollowUp,
    Moment,
    RecordFollowUp,
    TaskFollowUp,
    WebhookFollowUp,
)
from codexa.core.program.accept import in_own_language
from codexa.core.program.commitment import Later
from codexa.core.program.evaluate import State
from codexa.core.program.findings import Finding, error
from codexa.core.program.follow_ups.account import AccountKind
from codexa.core.program.follow_ups.approval import ApprovalKind, decider_findings
from codexa.core.program.follow_ups.calendar import CHANGES, CalendarKind
from codexa.core.program.follow_ups.day import day_findings, moment_of
from codexa.core.program.follow_ups.email import EmailKind
from codexa.core.program.follow_ups.email_findings import people_findings
from codexa.core.program.follow_ups.kind import FollowUpKind, holds
from codexa.core.program.follow_ups.record import RecordKind
from codexa.core.program.follow_ups.task import TaskKind
from codexa.core.program.follow_ups.webhook import WebhookKind
from codexa.core.program.payment import payment_due
from codexa.core.program.program import Program

_CALENDAR = CalendarKind()
KINDS: dict[type[FollowUp], FollowUpKind[Any]] = {
    EmailFollowUp: EmailKind(),
    WebhookFollowUp: WebhookKind(),
    RecordFollowUp: RecordKind(),
    AccountFollowUp: AccountKind(),
    ApprovalFollowUp: ApprovalKind(),
    TaskFollowUp: TaskKind(),
    CalendarFollowUp: _CALENDAR,
}
KINDS_BY_NAME = {each.kind_name: each for each in KINDS.values()}
MOMENTS: tuple[Moment, ...] = get_args(Moment)
# What a response comes to where all goes well.
USUAL_MOMENTS: tuple[Moment, ...] = ("handed in", "paid", "complete", "day")
_TRIED_NUMBER = "0000"  # of a payment that is only tried
_OF_PLAN: tuple[Moment, ...] = ("charge", "charge failed")
_OF_DECISION: tuple[Moment, ...] = ("approved", "denied", "asked back")
_TRIED_DECISION = {each: DecisionFacts(state=each, remark="…", by="…") for each in _OF_DECISION}
_OF_PARTS: tuple[Moment, ...] = ("handed on", "handed back")
_TRIED_HANDING = HandedOnFacts(name="…", remark="…", by="…")
_OF_SLOTS: tuple[Moment, ...] = ("moved up", "rebooked", "cancelled")
_OF_PAYMENT: tuple[Moment, ...] = ("paid", "payment failed", *_OF_PLAN, "refunded")


@dataclass(frozen=True, kw_only=True, slots=True)
class Due:
    """What a follow-up does, as JSON that a job carries out.

    `moment` is the event, and which of them where it comes more than once ("charge 3").
    `at` is when, in ISO 8601 with its offset, where it is set off by a day; None where it is done at once.
    """

    follow_up: str
    name: str
    moment: str
    kind: str
    content: dict[str, Any]
    at: str | None = None


def as_if(state: State, moment: Moment) -> State | None:
    """Return the state as it would be at a moment of its life, for trying; None where it does not come to that.

    What is due counts as paid, once it would be; of money given back, all of it.
    """
    if moment in _OF_DECISION:
        state = replace(state, context=replace(state.context, decision=_TRIED_DECISION[moment]))
    if moment in _OF_PARTS:
        state = replace(state, context=replace(state.context, handed_on=_TRIED_HANDING))
    asked = payment_due(state)
    if asked is None or moment in ("kept", "handed in"):
        return state if moment not in _OF_PAYMENT else None
    if moment in _OF_PLAN and asked.later is None:
        return None
    facts = PaymentFacts(
        amount=asked.amount,
        number=_TRIED_NUMBER,
        status={"payment failed": "due", "charge failed": "failed", "refunded": "refunded"}.get(moment, "paid"),
        refunded=asked.amount if moment == "refunded" else Decimal(0),
        receipt=None if moment in ("payment failed", "charge failed") else Decimal(1),
        plan=asked.words,
        charge=asked.later.amount if asked.later and moment in _OF_PLAN else None,
        next=_next_day(asked.later, moment),
    )
    return replace(state, context=state.context.with_payment(facts))


def _next_day(later: Later | None, moment: Moment) -> datetime.date | None:
    """Return the day of the next charge; a charge that is tried counts as the first."""
    turn = 2 if moment in _OF_PLAN else 1
    return None if later is None or (later.times is not None and turn > later.times) else later.day(turn)


def due(state: State, moment: Moment, which: str = "") -> list[Due]:
    """Return what an event of this response sets off, in the order of the form; the state has the response's number.

    For "day" all that is still to come: a day that has passed sets nothing off. Of an event that comes more than once,
    `which` tells each time from the others. Mail to visitors is in their language, all else in the form's own.
    """
    active = state.program.active_follow_ups
    found = [each for each in active if each.on == moment]
    changed = [each for each in active if isinstance(each, CalendarFollowUp) and each.on != moment in CHANGES]
    if not found and not changed:
        return []
    for_team = state if all(each.for_visitor for each in (*found, *changed)) else state.once(_for_team)
    made = [_due(state if each.for_visitor else for_team, each, which) for each in found]
    made += [_change_due(for_team, each, moment, which) for each in changed]
    return [each for each in made if each is not None]


def corrected_due(before: State, after: State, which: str) -> list[Due]:
    """Return what becomes of entries in calendars where answers were changed by hand, without an event of theirs."""
    made = []
    for each in before.program.active_follow_ups:
        if isinstance(each, CalendarFollowUp):
            was, now = (_change_due(state.once(_for_team), each, "corrected", which) for state in (before, after))
            made += [now] if now is not None and now != was else []
    return made


def _change_due(state: State, follow_up: CalendarFollowUp, moment: str, which: str) -> Due | None:
    """Return what becomes of an entry that was made at another moment."""
    content = _CALENDAR.change(state, follow_up, moment)
    if content is None:
        return None
    return Due(
        follow_up=follow_up.id,
        name=follow_up.name or _CALENDAR.title,
        moment=f"{moment} {which}".strip(),
        kind=_CALENDAR.kind_name,
        content=content,
    )


def _for_team(state: State) -> State:
    """Return the state as the team is told of it: in the form's own language, with all its parts."""
    own = in_own_language(state)
    return replace(own, context=replace(own.context, at_part=EVERYBODY)) if own.program.form.parts else own


def _due(state: State, follow_up: FollowUp, which: str) -> Due | None:
    at = moment_of(state, follow_up.day) if follow_up.on == "day" else None
    if follow_up.on == "day" and (at is None or at < state.context.now):
        return None
    if not holds(state, follow_up.id, "only_when"):
        return None
    kind = KINDS[type(follow_up)]
    content = kind.content(state, follow_up)
    if content is None:
        return None
    return Due(
        follow_up=follow_up.id,
        name=follow_up.name or kind.title,
        moment=f"{follow_up.on} {which}".strip(),
        kind=kind.kind_name,
        content=content,
        at=None if at is None else at.isoformat(),
    )


def told(each: Due, locale: str) -> str:
    """Return in one line what a follow-up does, its day as that language writes it."""
    words = KINDS_BY_NAME[each.kind].told(each.content)
    if each.at is None:
        return words
    at = datetime.datetime.fromisoformat(each.at)
    return f"on {shown_date(at.date(), locale)} at {at:%H:%M}: {words}"


def _moment_findings(program: Program, follow_up: FollowUp) -> Iterator[Finding]:
    if follow_up.on in _OF_PAYMENT and not program.form.payment.on:
        message = "It waits for a payment, and the form asks for none."
        yield error("no_payment", message, "Switch the payment on, or choose another moment.", follow_up.id, "on")
    elif follow_up.on in _OF_DECISION and not any(
        isinstance(each, ApprovalFollowUp) for each in program.active_follow_ups
    ):
        message = "It waits for a decision, and nobody is asked for one."
        yield error("no_approval", message, "Add an approval, or choose another moment.", follow_up.id, "on")
    elif follow_up.on == "handed on" and not program.form.parts:
        message = "It waits until it is handed on, and the form has no parts that others change."
        yield error("no_parts", message, "Make a part in Publish, or choose another moment.", follow_up.id, "on")
    elif follow_up.on in _OF_SLOTS and not program.has_slots:
        message = "It waits for a booking, and the form has no slots."
        yield error("no_slots", message, "Add a slot block, or choose another moment.", follow_up.id, "on")
    elif follow_up.on in _OF_PLAN and not program.form.payment.plans:
        message = "It waits for a later charge, and the form asks for one payment."
        yield error("no_plan", message, "Add a plan to the payment, or choose another moment.", follow_up.id, "on")


def follow_up_findings(program: Program, people: Mapping[str, str] | None) -> Iterator[Finding]:
    """Yield what a follow-up lacks, or can't do; `people` are those of the team, None where it is not known who is."""
    for each in program.active_follow_ups:
        yield from _moment_findings(program, each)
        yield from day_findings(program, each)
        yield from KINDS[type(each)].findings(program, each)
        if people is not None and isinstance(each, EmailFollowUp):
            yield from people_findings(each, people)
        if people is not None and isinstance(each, ApprovalFollowUp):
            yield from decider_findings(each, people)
        if people is not None and isinstance(each, TaskFollowUp) and each.who.person not in ("", *people):
            message = "Who has this to do is not in the team any more."
            yield error("no_such_person", message, "Choose somebody else.", each.id, "who")
