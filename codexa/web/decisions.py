"""Decisions: what waits for who is signed in, and what they say to it. Looking at one changes nothing."""

from uuid import UUID

from flask import Blueprint

from codexa.services import tasks
from codexa.services.approvals import deciding
from codexa.services.approvals.deciding import OneDecision
from codexa.services.parts.waiting import waiting_for
from codexa.services.roles import Right
from codexa.web.contract.decisions import (
    DecidedReply,
    DecideRequest,
    DeciderReply,
    DecisionReply,
    DecisionsReply,
    DoneRequest,
    SaidReply,
    TaskReply,
    TasksReply,
    WaitingPartReply,
    WaitingReply,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.payments import way
from codexa.web.reading import BadRequestError

blueprint = Blueprint("decisions", __name__, url_prefix="/api/decisions")


@endpoint(blueprint, "GET", "", reply=DecisionsReply)
def inbox() -> DecisionsReply:
    """List what waits for who asks, and what they have decided."""
    who = may(Right.SEE_FORMS, used=False)
    found = deciding.inbox(way(), who=who)
    return DecisionsReply(
        parts=[WaitingPartReply.model_validate(each) for each in waiting_for(way(), who=who)],
        waiting=[WaitingReply.model_validate(each) for each in found.waiting],
        decided=[
            DecidedReply(
                form_id=each.form_id,
                form_name=each.form_name,
                number=each.number,
                kind=each.kind,
                at=each.at,
                remark=each.data.get("remark", ""),
            )
            for each in found.decided
        ],
    )


@endpoint(blueprint, "GET", "/<uuid:approval>", reply=DecisionReply)
def show(approval: UUID) -> DecisionReply:
    """Return one approval with its response."""
    return _reply(deciding.show(way(), who=may(Right.SEE_FORMS), approval=approval))


@endpoint(blueprint, "POST", "/<uuid:approval>", body=DecideRequest, reply=DecisionReply)
def decide(asked: DecideRequest, approval: UUID) -> DecisionReply:
    """Say yes or no to a step of an approval, ask its visitor back, or only remark something."""
    who = may(Right.SEE_FORMS)
    if asked.verdict in ("ask back", "remark") and not asked.remark.strip():
        raise BadRequestError("Write what it is about: the visitor, or the others who decide, read it.")
    deciding.decide(way(), who=who, approval=approval, step=asked.step, verdict=asked.verdict, remark=asked.remark)
    return _reply(deciding.show(way(), who=who, approval=approval))


@endpoint(blueprint, "GET", "/tasks", reply=TasksReply)
def list_tasks() -> TasksReply:
    """List what who asks has to do."""
    found = tasks.open_tasks(connection, who=may(Right.SEE_FORMS, used=False))
    return TasksReply(tasks=[TaskReply.model_validate(each) for each in found])


@endpoint(blueprint, "POST", "/tasks/<number:task>", body=DoneRequest)
def done(asked: DoneRequest, task: int) -> None:
    """Note that something was done."""
    tasks.done(connection, who=may(Right.SEE_FORMS), task=task, remark=asked.remark)


def _reply(found: OneDecision) -> DecisionReply:
    approval = found.approval
    said = [
        SaidReply(
            kind=each.kind,
            at=each.at,
            person=each.person or "",
            remark=each.data.get("remark", ""),
            step=each.data.get("step", ""),
        )
        for each in found.said
    ]
    names = {each.name: each.stands_in for each in found.deciders}
    return DecisionReply(
        id=approval.id,
        form_id=approval.form_id,
        form_name=found.form_name,
        number=approval.number,
        name=approval.name,
        subject=approval.subject,
        state=approval.state,
        step=approval.at_step,
        steps=approval.steps,
        step_name=approval.step_name,
        every=approval.every,
        asked_at=approval.asked_at,
        due_at=approval.due_at,
        document=found.document,
        deciders=[DeciderReply(name=name, stands_in=stands_in) for name, stands_in in names.items()],
        said=said,
        may_decide=found.may_decide,
    )
