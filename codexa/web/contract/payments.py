"""Accounts with providers, and payments."""

from datetime import date, datetime
from typing import Annotated
from uuid import UUID

from pydantic import Field as Setting
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


class CardsReply(Message):
    """Kinds of cards."""

    cards: list[str]


class NewAccountRequest(Message):
    """The secret key of an account, entered once."""

    secret: Annotated[str, StringConstraints(min_length=8, max_length=200, pattern=r"^[\x21-\x7e]+$")]


class TestedReply(Message):
    """What a test of an account found, in words."""

    told: str


class PaymentReply(Message):
    """A payment as the team sees it: amounts as people write them, `left` what can be given back (plain decimal).

    `turn` 0 is what was paid at first, with the `plan` that it began in words and how that stands; others are charges,
    each of a `day`. `test` where it was practice.
    """

    form: UUID
    form_name: str
    number: int
    turn: int
    day: date | None
    test: bool
    state: str
    amount: str
    refunded: str
    left: str
    currency: str
    receipt: int | None
    reason: str
    card: str
    payer: str
    provider_number: str
    plan: str
    plan_state: str
    next_on: date | None
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
    """The latest payments of a form or of all, and what they come to."""

    payments: list[PaymentReply]
    sums: list[SumsReply]


class ToComeReply(Message):
    """A charge that is still to come."""

    day: date
    amount: str


class MoneyEventReply(Message):
    """Something that happened about money: of which `charge` (None for what was paid at first), and by whom.

    `amount` as people write it, `card` and `reason` are "" where it has none.
    """

    kind: str
    at: datetime
    person: str | None
    charge: int | None
    amount: str
    card: str
    reason: str


class PaymentInFullReply(Message):
    """All that came of a response's payment: at first and later, what is to come next, and what happened when.

    `more` says how many are to come after those, None for no end.
    """

    payments: list[PaymentReply]
    to_come: list[ToComeReply]
    more: int | None
    events: list[MoneyEventReply]


class RefundRequest(Message):
    """So much is given back, in major units as plain decimal: of what was paid at first, or of a later charge."""

    amount: Annotated[str, StringConstraints(pattern=r"^\d{1,12}(\.\d{1,4})?$")]
    turn: Annotated[int, Setting(ge=0, le=1_000_000)] = 0


class DoneReply(Message):
    """What became of something that was asked for, in words."""

    told: str
