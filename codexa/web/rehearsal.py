"""Rehearsals: a draft tried the whole way by whoever makes it; nothing of it leaves the machine."""

from uuid import UUID

from flask import Blueprint

from codexa.services import rehearsing
from codexa.services.rehearsing import Rehearsal, Rehearsed
from codexa.services.roles import Right
from codexa.web.contract.follow_ups import RunInFullReply, RunReply
from codexa.web.contract.rehearsal import (
    ClockRequest,
    NoRehearsalReply,
    RehearsalReply,
    RehearsedAnswerReply,
    RehearsedApprovalReply,
    RehearsedDecisionRequest,
    RehearsedReply,
    RehearsedVisitorRequest,
)
from codexa.web.contract.responses import StandingReply
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted
from codexa.web.payments import way
from codexa.web.responses import event_replies

blueprint = Blueprint("rehearsal", __name__, url_prefix="/api/forms/<uuid:form>/rehearsal")


@endpoint(blueprint, "GET", "", reply=NoRehearsalReply)
def show(form: UUID) -> NoRehearsalReply:
    """Return one's own rehearsal of a form, if there is one."""
    found = rehearsing.show(way(), who=may(Right.EDIT_FORMS, used=False), form=form)
    return NoRehearsalReply(rehearsal=None if found is None else _reply(found))


@endpoint(blueprint, "POST", "")
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def begin(form: UUID) -> None:
    """Begin a rehearsal of the draft, in the place of an earlier one of one's own."""
    rehearsing.begin(way(), who=may(Right.EDIT_FORMS), form=form)


@endpoint(blueprint, "DELETE", "")
def end(form: UUID) -> None:
    """Take one's own rehearsal away, with all that it made."""
    rehearsing.end(way(), who=may(Right.EDIT_FORMS), form=form)


@endpoint(blueprint, "POST", "/clock", body=ClockRequest)
def move_on(asked: ClockRequest, form: UUID) -> None:
    """Let days pass: what is due, runs out or is over by then, is so now."""
    rehearsing.move_on(way(), who=may(Right.EDIT_FORMS), form=form, days=asked.days)


@endpoint(blueprint, "PUT", "/visitor", body=RehearsedVisitorRequest)
def fill_in_as(asked: RehearsedVisitorRequest, form: UUID) -> None:
    """Have it filled in as a guest, a member or oneself from now on."""
    rehearsing.fill_in_as(way(), who=may(Right.EDIT_FORMS), form=form, wanted=asked.known)


@endpoint(blueprint, "POST", "/approvals/<uuid:approval>", body=RehearsedDecisionRequest)
def decide(asked: RehearsedDecisionRequest, form: UUID, approval: UUID) -> None:
    """Decide in the place of whoever is asked."""
    who, remark = may(Right.EDIT_FORMS), asked.remark.strip()
    rehearsing.decide(
        way(), who=who, form=form, approval=approval, step=asked.step, verdict=asked.verdict, remark=remark
    )


@endpoint(blueprint, "GET", "/runs/<number:run>", reply=RunInFullReply)
def in_full(form: UUID, run: int) -> RunInFullReply:
    """Return what a follow-up would have sent."""
    found = rehearsing.run_in_full(way(), who=may(Right.EDIT_FORMS), form=form, run=run)
    return RunInFullReply.model_validate(found)


def _reply(found: Rehearsal) -> RehearsalReply:
    return RehearsalReply(
        form=found.form,
        address=found.address,
        since=found.since,
        days=found.days,
        filled_in_by=found.filled_in_by,
        visitor_name=found.visitor_name,
        responses=[_of_response(each) for each in found.responses],
        approvals=[RehearsedApprovalReply.model_validate(each) for each in found.approvals],
    )


def _of_response(found: Rehearsed) -> RehearsedReply:
    single, row = found.single, found.single.row
    return RehearsedReply(
        number=row.number,
        stage=row.stage,
        payment=row.payment,
        decision=row.decision,
        booking=row.booking,
        answers=[
            RehearsedAnswerReply(label=each.label, text=row.cells[each.id])
            for each in single.columns
            if row.cells.get(each.id)
        ],
        events=event_replies(single),
        runs=[RunReply.model_validate(each) for each in found.runs],
        standing=None if found.standing is None else StandingReply.model_validate(found.standing),
        own_page=found.own_page,
    )
