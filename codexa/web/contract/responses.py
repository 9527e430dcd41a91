"""What came back."""

from datetime import datetime

from codexa.core.program.faces import FileFace
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
    earlier: bool


class RowReply(Message):
    """A response as a row; `cells` holds text by column id, nothing for a blank; a `test` is a try, not exported."""

    number: int
    edition: int
    received_at: str
    test: bool
    cells: dict[str, str]


class ResponsesReply(Message):
    """A page of responses, newest first; `next` asks for the page after it, where there may be one."""

    columns: list[ColumnReply]
    rows: list[RowReply]
    count: int
    next: str | None


class HeldReply(Message):
    """A response that is held as suspected, and why, in words; those `removed` come back for 30 days."""

    number: int
    received_at: datetime
    reasons: list[str]
    removed: bool


class AllHeldReply(Message):
    """What is held of a form's responses, newest first."""

    held: list[HeldReply]


class EventReply(Message):
    """Something that happened to a response; `who` is visitor, person, bank or clock, `person` a name of the team."""

    kind: str
    at: datetime
    who: str
    person: str | None


class ResponseReply(Message):
    """One response with its files by column, how it came, and what happened to it, in order.

    `way` is "" where that is not known; `link` is what its sealed link was made with, "" where there was none.
    """

    columns: list[ColumnReply]
    row: RowReply
    files: dict[str, list[FileFace]]
    way: str
    page: str
    seconds: int | None
    link: str
    events: list[EventReply]
