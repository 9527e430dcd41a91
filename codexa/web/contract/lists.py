"""Lists of options that forms share."""

from datetime import datetime
from typing import Any
from uuid import UUID

from codexa.core.form.shared_lists import SharedOption
from codexa.web.contract.message import Message
from codexa.web.contract.tables import FormNamedReply


class ListFaceReply(Message):
    """A list: how many options it has, and in how many forms' drafts it is."""

    id: UUID
    name: str
    options: int
    forms: int
    changed_at: datetime


class ListsReply(Message):
    """The team's lists, by name."""

    lists: list[ListFaceReply]


class NewListRequest(Message):
    """A list to make: its name and options."""

    document: dict[str, Any]


class SaveListRequest(Message):
    """Another name or other options for a list; `revision` is the one that was seen."""

    revision: int
    document: dict[str, Any]


class ListReply(Message):
    """A list, and the forms that have options from it; `behind` are those that others were just saving."""

    id: UUID
    revision: int
    name: str
    options: list[SharedOption]
    forms: list[FormNamedReply]
    behind: list[str]
