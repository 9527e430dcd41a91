"""What programs ask for by a key, what they get, and how a team keeps its keys and feeds."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from pydantic import Field as Setting

from codexa.services.keys import KeyRight
from codexa.web.contract.message import Message
from codexa.web.contract.public import LinkValues
from codexa.web.contract.response_set import Name


class NewKeyRequest(Message):
    """A key to make: what it may do, for one form or all of the team's."""

    name: Name
    rights: Annotated[list[KeyRight], Setting(min_length=1, max_length=3)]
    form: UUID | None = None


class NewKeyReply(Message):
    """A key that was made: it is shown this once."""

    id: UUID
    key: str


class KeyReply(Message):
    """A key as its team sees it; `form` is the form's name, None where it is for all."""

    id: UUID
    name: str
    rights: list[KeyRight]
    form: str | None
    made_by: str | None
    made_at: datetime
    last_used_at: datetime | None


class KeysReply(Message):
    """The keys of a team, newest first."""

    keys: list[KeyReply]


class NewFeedRequest(Message):
    """A saved view to make a feed of."""

    view: UUID


class FeedReply(Message):
    """A live feed of a view; `address` is without its ending, .csv or .json."""

    id: UUID
    view_id: UUID
    view: str
    address: str
    made_by: str | None
    made_at: datetime
    last_fetched_at: datetime | None
    fetches: int


class FeedsReply(Message):
    """The live feeds of a form, newest first."""

    feeds: list[FeedReply]


class ApiForm(Message):
    """A form: where visitors fill it in, the edition that they get (None before there is one), how many responses."""

    id: UUID
    name: str
    address: str | None
    edition: int | None
    responses: int
    changed_at: datetime


class ApiForms(Message):
    """The forms that a key may read, latest change first."""

    forms: list[ApiForm]


class ApiResponses(Message):
    """A page of responses, by keys; `next` is the cursor of the page after it, "" where there is none."""

    responses: list[dict[str, Any]]
    next: str


class ApiSubmission(Message):
    """Answers by key, as responses have them, or as texts; and what a link would bring."""

    answers: dict[str, Any]
    link: LinkValues = Setting(default_factory=dict)


class ApiReceived(Message):
    """A response was kept: its number, its confirmation's page, and whether something is to be paid there."""

    number: int
    page: str
    to_pay: str
