"""Taking in responses from a table."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.web.contract.message import Message

TableBytes = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9+/]*={0,2}$")]
Header = Annotated[str, StringConstraints(max_length=200)]


class PlanImportRequest(Message):
    """A table, its bytes in base64 (RFC 4648), and which column is which field, by key; None for what headers say."""

    table: TableBytes
    columns: Annotated[dict[Header, Header], Setting(max_length=400)] | None = None


class ImportRequest(Message):
    """A table to take in, under a name."""

    table: TableBytes
    name: Annotated[str, StringConstraints(min_length=1, max_length=200)]
    columns: Annotated[dict[Header, Header], Setting(max_length=400)]


class TargetReply(Message):
    """A field that a column may be."""

    key: str
    label: str


class RefusedLineReply(Message):
    """A line that is not taken in, by its number as spreadsheets count, and why."""

    line: int
    message: str


class PlanImportReply(Message):
    """What a table would bring; of the lines that were `tried` the first that are wrong, and how many are."""

    headers: list[str]
    lines: int
    empty: int
    targets: list[TargetReply]
    columns: dict[str, str]
    tried: int
    wrong_count: int
    wrong: list[RefusedLineReply]


class ImportReply(Message):
    """How far a table has come: of `count` lines `place` were gone through, `kept` are responses now."""

    id: UUID
    name: str
    count: int
    place: int
    kept: int
    refused: list[RefusedLineReply]
    state: Literal["waiting", "done", "stopped"]
    person: str | None
    created_at: datetime


class ImportsReply(Message):
    """What was taken in of late, newest first."""

    imports: list[ImportReply]
