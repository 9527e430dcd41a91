"""A rehearsal of a form: what it made, in one place."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.web.contract.follow_ups import RunReply
from codexa.web.contract.message import Message
from codexa.web.contract.responses import EventReply, StandingReply


class RehearsedAnswerReply(Message):
    """What was answered or worked out: a label, and what stands there."""

    label: str
    text: str


class RehearsedReply(Message):
    """A response of a rehearsal: how it stands, its answers, what happened, what followed, its visitor's own page."""

    number: int
    stage: str
    payment: str
    decision: str
    booking: str
    answers: list[RehearsedAnswerReply]
    events: list[EventReply]
    runs: list[RunReply]
    standing: StandingReply | None
    own_page: str


class RehearsedApprovalReply(Message):
    """What is to be decided about a response."""

    id: UUID
    number: int
    name: str
    subject: str
    step: int
    step_name: str


class RehearsalReply(Message):
    """A rehearsal: its form, where that is filled in, since when, and the days that its clock was moved on.

    `filled_in_by` is as whom, as a preview knows them: "" for a guest, "me", or "member." and a record's number;
    `visitor_name` is what that member is called.
    """

    form: UUID
    address: str
    since: datetime
    days: int
    filled_in_by: str
    visitor_name: str
    responses: list[RehearsedReply]
    approvals: list[RehearsedApprovalReply]


class NoRehearsalReply(Message):
    """Whether there is a rehearsal, and which."""

    rehearsal: RehearsalReply | None


class ClockRequest(Message):
    """How many days shall pass."""

    days: Annotated[int, Setting(ge=1, le=400)]


class RehearsedDecisionRequest(Message):
    """What is said to a step of an approval, in the place of whoever is asked."""

    step: Annotated[int, Setting(ge=0, le=100)]
    verdict: Literal["approve", "deny", "ask back"]
    remark: Annotated[str, StringConstraints(max_length=2_000)] = ""


class RehearsedVisitorRequest(Message):
    """As whom a rehearsal is filled in: "" for a guest, "me", or "member." and the number of a member's record."""

    known: Annotated[str, StringConstraints(max_length=40)]
