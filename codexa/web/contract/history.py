"""Saved states, and who else is here."""

from datetime import datetime
from typing import Annotated

from pydantic import StringConstraints

from codexa.core.definition.parts import Identifier
from codexa.core.form.comparing import Change
from codexa.web.contract.message import Message


class StateReply(Message):
    """A saved state of a draft: its name, "" for none, and how many changes it made of the state before.

    `edition` is its number where it was published.
    """

    revision: int
    saved_at: datetime
    saved_by: str | None
    edition: int | None
    name: str
    changes: int


class StatesReply(Message):
    """Saved states, newest first."""

    states: list[StateReply]


class NameStateRequest(Message):
    """What a saved state is called; "" for nothing."""

    name: Annotated[str, StringConstraints(max_length=100)]


class ChangesReply(Message):
    """What changed between two states, in words."""

    changes: list[Change]


class PresenceRequest(Message):
    """A tab that shows a form: the area, and the part that is selected in it."""

    tab: Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{1,40}$")]
    area: Annotated[str, StringConstraints(max_length=40)]
    part: Identifier | None = None


class PresentReply(Message):
    """Somebody else with the form open."""

    name: str
    area: str
    part: str | None


class PresenceReply(Message):
    """Who else is here, the revision that is saved now, and the edition that visitors get now."""

    people: list[PresentReply]
    revision: int
    live_edition: int | None


class LeaveRequest(Message):
    """A tab that was closed."""

    tab: Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{1,40}$")]
