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


class RecordsInReply(Message):
    """The records of one table that name an address, or did, by number."""

    table: UUID
    name: str
    numbers: list[int]


class PersonReply(Message):
    """Where the team's forms and tables name an address."""

    found: list[FoundInReply]
    records: list[RecordsInReply]


class ForgottenReply(Message):
    """How many responses are being anonymised or removed; those `staying` are still filled in, held, or unpaid.

    `records` of tables are gone for good.
    """

    responses: int
    staying: int
    records: int
