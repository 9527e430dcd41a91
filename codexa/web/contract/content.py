"""Published records, for anybody."""

from datetime import datetime

from codexa.web.contract.message import Message


class ContentColumnReply(Message):
    """A column that is published."""

    key: str
    label: str


class ContentRecordReply(Message):
    """A published record: by key of its columns what programs read (`values`), and people (`shown`); no blanks.

    `pictures` are the addresses of small pictures in columns of files.
    """

    number: int
    name: str
    author: str
    published: datetime
    changed: datetime
    values: dict[str, str]
    shown: dict[str, str]
    pictures: dict[str, list[str]]


class ContentReply(Message):
    """Published records, the newest first; `next` is the address of those after them."""

    title: str
    columns: list[ContentColumnReply]
    records: list[ContentRecordReply]
    next: str | None
