"""What came back."""

from codexa.web.contract.message import Message


class ColumnReply(Message):
    """A field as a column of the responses; `number` is its outline number, "" where it is gone."""

    id: str
    label: str
    number: str
    calculated: bool
    numeric: bool


class RowReply(Message):
    """A response as a row; `cells` holds text by column id, nothing for a blank."""

    number: int
    edition: int
    received_at: str
    cells: dict[str, str]


class ResponsesReply(Message):
    """A page of responses, newest first."""

    columns: list[ColumnReply]
    rows: list[RowReply]
    count: int


class ResponseReply(Message):
    """One response."""

    columns: list[ColumnReply]
    row: RowReply
