"""Who may fill in a form and when, how links to it look, links with values, and the check of a page."""

from datetime import datetime
from typing import Annotated, Literal

from annotated_types import Interval, Len
from pydantic import Field, StringConstraints

from codexa.core.form.access import Access
from codexa.core.form.sharing import Sharing
from codexa.web.contract.message import Message


class AccessRequest(Message):
    """Who may fill in the form and when."""

    access: Access


class FormPasswordRequest(Message):
    """The password that visitors type; "" takes it away."""

    password: Annotated[str, StringConstraints(max_length=200)]


class SharingRequest(Message):
    """How links to the form look in other programs."""

    sharing: Sharing


class WhoAndWhenReply(Message):
    """What is set; `taken` responses count towards a limit, `kept` may be gone on with.

    `opens` and `closes` are moments with their offset.
    """

    access: Access
    has_password: bool
    sharing: Sharing
    taken: int
    kept: int
    opens: str
    closes: str


Name = Annotated[str, StringConstraints(max_length=60)]
Header = Annotated[str, StringConstraints(max_length=300)]


class LinksRequest(Message):
    """Sealed links to be made of a table: its bytes in base64 (RFC 4648), and which column gives which value.

    `until` is a moment where the form is at home, or ""; without `uses` a link may be used any number of times.
    """

    table: Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9+/]*={0,2}$")]
    name: Annotated[str, StringConstraints(min_length=1, max_length=200)] = "Links"
    columns: Annotated[dict[Name, Header], Len(max_length=50)] = Field({})
    until: Annotated[str, StringConstraints(max_length=30)] = ""
    uses: Annotated[int, Interval(ge=1, le=1_000_000)] | None = None
    email: Header = ""


class WrongLineReply(Message):
    """A line that no link is made of, and why."""

    number: int
    message: str


class LinksPlanReply(Message):
    """What would be made of a table: its headers, how many links, the first with their values, and what is wrong.

    Before columns are picked nothing is made. Of what is `wrong` the first lines are told, of `wrong_count`.
    """

    headers: list[str]
    lines: int
    empty: int
    links: int
    first: list[dict[str, str]]
    wrong: list[WrongLineReply]
    wrong_count: int


class MadeLinksReply(Message):
    """Links were made: what they are known by together, and how many."""

    batch: int
    links: int


class BatchReply(Message):
    """Links that were made together."""

    id: int
    name: str
    made_at: datetime
    made_by: str | None
    links: int
    responses: int
    addressed: int
    mailed: int
    failed: int


class BatchesReply(Message):
    """All that was made together, newest first."""

    batches: list[BatchReply]


class SealedLinkReply(Message):
    """A sealed link: its address, what it gives, until when, and what became of it."""

    id: int
    address: str
    given: dict[str, str]
    until: datetime | None
    uses: int | None
    ended: bool
    email: str
    responses: int
    mail: Literal["", "waiting", "sent", "failed"]
    mail_result: str
    mailed_at: datetime | None


class SealedLinksReply(Message):
    """Some of the links that were made together; `next` is what to go on after, null at the end."""

    links: list[SealedLinkReply]
    next: int | None


class LinkMailsRequest(Message):
    """What the mail with each link says."""

    subject: Annotated[str, StringConstraints(min_length=1, max_length=200)]
    words: Annotated[str, StringConstraints(max_length=5_000)]


class LinkMailsReply(Message):
    """So many links will be sent."""

    count: int


class SealKeyRequest(Message):
    """Sign new links with a new key; with `end_others` no earlier link opens any more."""

    end_others: bool


class SealKeyReply(Message):
    """The number of the new key."""

    key: int


class LookRequest(Message):
    """A page of a website on which the form should be."""

    page: Annotated[str, StringConstraints(min_length=1, max_length=2_000)]


class RemarkReply(Message):
    """Something that was seen on the page."""

    good: bool
    words: str


class LookReply(Message):
    """What was seen on the page, first what keeps the form from showing."""

    remarks: list[RemarkReply]
