"""Publishing."""

from datetime import datetime
from typing import Annotated

from annotated_types import Len
from pydantic import StringConstraints

from codexa.web.contract.drafts import Revision
from codexa.web.contract.message import Message


class PublishRequest(Message):
    """Publish this revision of the draft; with `despite_trials` also where trials of it fail."""

    revision: Revision
    despite_trials: bool = False


class PublishedReply(Message):
    """The edition that visitors get from now on."""

    edition: int
    address: str
    snippet: str


class EditionReply(Message):
    """An edition of a form."""

    number: int
    published_at: datetime
    published_by: str | None
    responses: int


class EditionsReply(Message):
    """The editions of a form, newest first."""

    editions: list[EditionReply]


class PublicAddressRequest(Message):
    """The last part of a form's public address, as a person writes it."""

    address: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"[A-Za-z0-9]")]


class PublicAddressReply(Message):
    """A form's public address, and the snippet that names it."""

    slug: str
    address: str
    snippet: str


class SitesRequest(Message):
    """The websites that may show the form in a frame."""

    sites: Annotated[list[Annotated[str, StringConstraints(max_length=300)]], Len(max_length=50)]


class SitesReply(Message):
    """The websites as they were understood."""

    sites: list[str]
