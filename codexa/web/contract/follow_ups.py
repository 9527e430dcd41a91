"""Follow-ups: what would follow, and what followed."""

from datetime import datetime
from typing import Any

from pydantic import Field

from codexa.core.definition.parts import Identifier
from codexa.core.definition.trials import TrialVisitor
from codexa.web.contract.message import Message
from codexa.web.contract.public import LinkValues


class FollowUpsRequest(Message):
    """Answers to a draft, and what came with the address."""

    answers: dict[str, Any]
    link: LinkValues = Field({})
    visitor: TrialVisitor = TrialVisitor()


class DueReply(Message):
    """A follow-up that would be done: in one line, a mail's HTML and text, and all of it as data."""

    follow_up: str
    told: str
    html: str
    text: str
    content: dict[str, Any]


class FollowUpsReply(Message):
    """What would follow, in order."""

    due: list[DueReply]


class SecretReply(Message):
    """What signs a form's webhooks."""

    secret: str


class TryRequest(Message):
    """Which mail is sent to who asks, with which answers."""

    follow_up: Identifier
    answers: dict[str, Any]
    link: LinkValues = Field({})
    visitor: TrialVisitor = TrialVisitor()


class RunReply(Message):
    """What followed from a response: in one line, how often it was tried, and how it stands ("waiting", "done" …)."""

    id: int
    number: int
    name: str
    told: str
    state: str
    tries: int
    result: str
    again: int
    asked_by: str | None
    created_at: datetime
    ended_at: datetime | None
    due_at: datetime | None


class DeliveryReply(Message):
    """A try of a webhook: the request's address and headers, the reply's status, headers and body, or none."""

    try_: int
    at: datetime
    request: dict[str, Any]
    reply: dict[str, Any] | None


class RunInFullReply(Message):
    """What a run sends: of a mail its HTML and text, of a webhook its body and every try, first to last."""

    html: str
    text: str
    body: dict[str, Any] | None
    deliveries: list[DeliveryReply]


class RunsReply(Message):
    """What followed from a response, in order; or what waits and what did not work, of a form."""

    runs: list[RunReply]
