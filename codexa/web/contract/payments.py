"""Accounts with providers, and payments."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from pydantic import StringConstraints

from codexa.web.contract.message import Message


class AccountReply(Message):
    """An account: of its secret key the last four characters, `cards` the kinds that it takes."""

    id: UUID
    provider: str
    name: str
    last_four: str
    cards: list[str]


class AccountsReply(Message):
    """The team's accounts."""

    accounts: list[AccountReply]


class NewAccountRequest(Message):
    """The secret key of an account, entered once."""

    secret: Annotated[str, StringConstraints(min_length=8, max_length=200, pattern=r"^[\x21-\x7e]+$")]


class TestedReply(Message):
    """What a test of an account found, in words."""

    told: str


class PaymentReply(Message):
    """A payment as the team sees it: amounts as people write them, `left` what can be given back (plain decimal)."""

    number: int
    state: str
    amount: str
    refunded: str
    left: str
    reason: str
    card: str
    payer: str
    provider_number: str
    due_until: datetime
    created_at: datetime
    changed_at: datetime


class SumsReply(Message):
    """What came of a form's payments in one currency, as people write it; of tries apart."""

    test: bool
    count: int
    paid: str
    refunded: str
    due: str


class PaymentsReply(Message):
    """A form's latest payments, and what they come to."""

    payments: list[PaymentReply]
    sums: list[SumsReply]


class RefundRequest(Message):
    """So much is given back, in major units as plain decimal."""

    amount: Annotated[str, StringConstraints(pattern=r"^\d{1,12}(\.\d{1,4})?$")]


class RefundReply(Message):
    """What became of it, in words."""

    told: str
