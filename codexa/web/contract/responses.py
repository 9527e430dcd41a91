"""What came back."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import StringConstraints

from codexa.core.program.faces import FileFace
from codexa.core.responses.holds import Holds
from codexa.web.contract.message import Message

MOST_NUMBER = 2**31 - 1


class ColumnReply(Message):
    """A field as a column of the responses; `number` is its outline number, "" where it has none.

    `earlier` where only editions before the live one have it.
    """

    id: str
    label: str
    number: str
    calculated: bool
    numeric: bool
    holds: Holds
    earlier: bool


class RowReply(Message):
    """A response as a row; `cells` holds text by column id, nothing for a blank; a `test` is a try, not exported.

    `status` is a code of the form's, "" for none; `person` the id of who has it in hand, "" for nobody; `files` are by
    column id.
    """

    number: int
    edition: int
    received_at: str
    test: bool
    stage: str
    payment: str
    decision: str
    booking: str
    at_part: str
    status: str
    tags: list[str]
    person: str
    cells: dict[str, str]
    files: dict[str, list[FileFace]]


class ResponsesReply(Message):
    """A page of responses in an order; `next` asks for the page after it, "" where there is none.

    `exact` where `count` is no estimate; `behind` is how many responses are still being read in.
    """

    columns: list[ColumnReply]
    rows: list[RowReply]
    count: int
    exact: bool
    next: str
    behind: int


class HeldReply(Message):
    """A response that is held as suspected, and why, in words; those `removed` come back for 30 days."""

    number: int
    received_at: datetime
    reasons: list[str]
    removed: bool


class AllHeldReply(Message):
    """What is held of a form's responses, newest first."""

    held: list[HeldReply]


class ExportFileReply(Message):
    """A file that is made of responses: `rows` so far, `size` in bytes once it is done, `result` why it failed."""

    id: UUID
    name: str
    rows: int
    size: int
    state: Literal["waiting", "done", "failed"]
    result: str
    person: str | None
    created_at: datetime


class ExportFilesReply(Message):
    """The files of a form, newest first; each is kept for a day."""

    files: list[ExportFileReply]


class EventReply(Message):
    """Something that happened to a response; `who` is visitor, person, bank or clock, `person` a name of the team.

    `about` is what belongs to it, in words: a note, a tag, from which status to which.
    """

    kind: str
    at: datetime
    who: str
    person: str | None
    about: str


class StandingReply(Message):
    """With which part of its form a response stands ("" for who filled it in), since when, and what was said."""

    part: str
    name: str
    since: datetime
    remark: str
    by_name: str


class PartReply(Message):
    """A part of a form, which a response may be given to."""

    id: str
    name: str


class GiveToRequest(Message):
    """To which part a response shall go, "" for who filled it in, and what is asked there."""

    to: Annotated[str, StringConstraints(max_length=60)]
    remark: Annotated[str, StringConstraints(max_length=2_000)] = ""


class ResponseReply(Message):
    """One response with its files by column, how it came, and what happened to it, in order.

    `way` is "" where that is not known; `link` is what its sealed link was made with, "" where there was none.
    `visitor` is who was signed in, by name and e-mail, "" for nobody; `standing` is where it stands, and `parts` are
    those that it may be given to.
    """

    columns: list[ColumnReply]
    row: RowReply
    files: dict[str, list[FileFace]]
    way: str
    page: str
    seconds: int | None
    link: str
    visitor: str
    events: list[EventReply]
    standing: StandingReply | None
    parts: list[PartReply]
