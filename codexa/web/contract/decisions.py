"""Decisions: what waits for somebody, one of them with its response, and what is said."""

from datetime import date, datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import StringConstraints

from codexa.web.contract.message import Message


class WaitingReply(Message):
    """What waits for a decision: of which form and response, what about, since when and until when."""

    id: UUID
    form_id: UUID
    form_name: str
    number: int
    name: str
    subject: str
    step_name: str
    asked_at: datetime
    due_at: datetime | None


class DecidedReply(Message):
    """What somebody has decided: approved, denied, step approved, or asked back."""

    form_id: UUID
    form_name: str
    number: int
    kind: str
    at: datetime
    remark: str


class WaitingPartReply(Message):
    """A response that stands with a part that who asks fills in: since when, and what was said with it, by whom."""

    form_id: UUID
    form_name: str
    number: int
    name: str
    since: datetime
    remark: str
    by_name: str


class DecisionsReply(Message):
    """What waits for who asks, the most urgent first, and what they have decided, the latest first.

    `parts` are the responses that they fill in a part of.
    """

    waiting: list[WaitingReply]
    parts: list[WaitingPartReply]
    decided: list[DecidedReply]


class DeciderReply(Message):
    """Somebody who may decide now; whether only as a stand-in."""

    name: str
    stands_in: bool


class SaidReply(Message):
    """What was said about a response, by whom."""

    kind: str
    at: datetime
    person: str
    remark: str
    step: str


class DecisionReply(Message):
    """One approval: how it stands, at which step of how many, the response in words, who decides, what was said.

    `document` is the response's, by pages; `may_decide` is whether who asks may decide now.
    """

    id: UUID
    form_id: UUID
    form_name: str
    number: int
    name: str
    subject: str
    state: str
    step: int
    steps: int
    step_name: str
    every: bool
    asked_at: datetime
    due_at: datetime | None
    document: dict[str, Any]
    deciders: list[DeciderReply]
    said: list[SaidReply]
    may_decide: bool


class DecideRequest(Message):
    """What somebody says to the step of an approval that they saw."""

    step: int
    verdict: Literal["approve", "deny", "ask back", "remark"]
    remark: Annotated[str, StringConstraints(max_length=5_000)] = ""


class TaskReply(Message):
    """Something to do about a response, until which day, and whether that is over."""

    id: int
    form_id: UUID
    form_name: str
    number: int
    words: str
    due_on: date | None
    made_at: datetime
    late: bool | None


class TasksReply(Message):
    """What who asks has to do, what is due first."""

    tasks: list[TaskReply]


class DoneRequest(Message):
    """What there is to say about something that was done."""

    remark: Annotated[str, StringConstraints(max_length=2_000)] = ""
