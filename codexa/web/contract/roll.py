"""The roll of a team's members."""

from typing import Annotated
from uuid import UUID

from annotated_types import Len

from codexa.services.members.roll import MOST_INVITED
from codexa.web.contract.message import Message


class RollReply(Message):
    """The table of the team's members, None before it was begun, how their accounts stand, and where they sign in."""

    table: UUID | None
    members: int
    confirmed: int
    invited: int
    page: str


class RollBegunReply(Message):
    """The table of the team's members."""

    table: UUID


class InviteMembersRequest(Message):
    """The members to write to, by the numbers of their records."""

    numbers: Annotated[list[int], Len(min_length=1, max_length=MOST_INVITED)]


class MembersInvitedReply(Message):
    """To how many was written."""

    count: int
