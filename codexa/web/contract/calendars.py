"""The calendars of a team."""

from typing import Annotated
from uuid import UUID

from pydantic import StringConstraints

from codexa.web.contract.message import Message


class CalendarNameReply(Message):
    """A calendar of the team: its name, its address, and who signs in there."""

    id: UUID
    name: str
    address: str
    user_name: str


class CalendarsReply(Message):
    """The team's calendars, by name."""

    calendars: list[CalendarNameReply]


class NewCalendarRequest(Message):
    """A calendar to be taken up: its address (CalDAV), and what is signed in by; the password is entered once."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=100, pattern=r"\S")]
    address: Annotated[str, StringConstraints(min_length=8, max_length=500, pattern=r"^https?://\S+$")]
    user_name: Annotated[str, StringConstraints(max_length=200, pattern=r"^[^:\x00-\x1f]*$")]
    password: Annotated[str, StringConstraints(max_length=300, pattern=r"^[^\x00-\x1f]*$")]
