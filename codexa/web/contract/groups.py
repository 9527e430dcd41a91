"""The groups of a team."""

from typing import Annotated
from uuid import UUID

from pydantic import StringConstraints

from codexa.web.contract.message import Message

GroupName = Annotated[str, StringConstraints(min_length=1, max_length=60, pattern=r"\S")]


class GroupReply(Message):
    """A group: formulas know it by its `code`; `people` are those of the team in it."""

    code: str
    name: str
    people: list[UUID]


class GroupsReply(Message):
    """The groups of the team, by name."""

    groups: list[GroupReply]


class GroupRequest(Message):
    """What a group is called."""

    name: GroupName


class GroupMadeReply(Message):
    """The group was made; formulas know it by its code."""

    code: str


class GroupHangingReply(Message):
    """The forms, by name, that name a group or let it fill in."""

    forms: list[str]


class InGroupRequest(Message):
    """Whether somebody is in a group from now on."""

    inside: bool
