"""Everything about a person."""

from typing import Annotated, Literal
from uuid import UUID

from pydantic import StringConstraints

from codexa.web.contract.message import Message

Email = Annotated[str, StringConstraints(min_length=1, max_length=320)]


class PersonRequest(Message):
    """The e-mail address of somebody."""

    email: Email


class ForgetPersonRequest(Message):
    """Whose responses are anonymised or removed."""

    email: Email
    does: Literal["anonymise", "remove"]


class FoundInReply(Message):
    """The responses of one form that name an address, by number."""

    form: UUID
    name: str
    numbers: list[int]


class PersonReply(Message):
    """Where the team's forms name an address."""

    found: list[FoundInReply]


class ForgottenReply(Message):
    """How many responses are being anonymised or removed; those `staying` are still filled in, held, or unpaid."""

    responses: int
    staying: int
