"""Publishing."""

from datetime import datetime
from typing import Annotated, Literal

from annotated_types import Interval, Len
from pydantic import StringConstraints

from codexa.web.contract.drafts import Revision
from codexa.web.contract.message import Message


class PublishRequest(Message):
    """Publish this revision of the draft; with `despite_trials` also where trials of it fail.

    `live` is the edition that was live when the changes were looked at; `note` is for the team.
    """

    revision: Revision
    live: Annotated[int, Interval(ge=0, le=2**31 - 1)] | None = None
    note: Annotated[str, StringConstraints(max_length=500)] = ""
    despite_trials: bool = False


class PublishedReply(Message):
    """The edition that visitors get from now on, the newest that there is, and what the draft changes of it."""

    edition: int
    newest_edition: int
    changes: int
    address: str


class GoLiveRequest(Message):
    """Give visitors an earlier edition; `live` is the one that they get, as it was seen."""

    live: Annotated[int, Interval(ge=0, le=2**31 - 1)] | None = None


class EditionReply(Message):
    """An edition of a form, with its note, and when and by whom it was last made live."""

    number: int
    published_at: datetime
    published_by: str | None
    note: str
    responses: int
    last_live_at: datetime | None
    last_live_by: str | None


class EditionsReply(Message):
    """The editions of a form, newest first."""

    editions: list[EditionReply]


class PublicAddressRequest(Message):
    """The last part of a form's public address, as a person writes it."""

    address: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"[A-Za-z0-9]")]


class PublicAddressReply(Message):
    """A form's public address."""

    slug: str
    address: str


class DifferenceReply(Message):
    """One thing that would come out otherwise: of which part, before and now, and what was changed that leads there."""

    kind: Literal["refused", "lost", "figure", "total", "path", "confirmation"]
    part: str | None
    name: str
    before: str
    now: str
    why: str


class ReplayedReply(Message):
    """A response that would come out otherwise."""

    number: int
    received_at: datetime
    edition: int
    differences: list[DifferenceReply]


class ReplayReply(Message):
    """Some responses put through the draft, newest first; `next` is what to go on after, null at the end."""

    looked_at: int
    differing: list[ReplayedReply]
    unreadable: int
    next: str | None


class SitesRequest(Message):
    """The websites that may show the form in a frame."""

    sites: Annotated[list[Annotated[str, StringConstraints(max_length=300)]], Len(max_length=50)]


class SitesReply(Message):
    """The websites as they were understood."""

    sites: list[str]
