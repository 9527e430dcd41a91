"""What a provider of payments does for us. To add one, write such a class and name it in `accounts.provider_of`."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from typing import Literal, Protocol
from uuid import UUID


class ProviderAwayError(Exception):
    """The provider does not answer, or answers what can't be read; trying again may help."""


class ProviderRefusesError(Exception):
    """The provider says no, with a reason; trying the same again won't help."""


class NotFromProviderError(Exception):
    """What came is not signed by the provider, or is too old."""


@dataclass(frozen=True, kw_only=True, slots=True)
class ProviderAccount:
    """Whose keys these are, and which kinds of cards can be taken."""

    name: str
    public_key: str
    cards: tuple[str, ...]


@dataclass(frozen=True, kw_only=True, slots=True)
class WantedPlan:
    """What is to follow a first payment: `amount` each, in minor units, `every` so many of `unit`.

    `times` counts all payments, the first too where it is made now (`first_now`); None is for no end. Days are reckoned
    from `starts_on`; a month that is too short has its payment on its last day.
    """

    amount: int
    every: int
    unit: str
    times: int | None
    starts_on: date
    first_now: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class Wanted:
    """What is asked for: `amount` in minor units, `id` ours, the same for every try; `cards` are the kinds taken.

    Where a `plan` follows, the amount may be 0: only the card is kept then. `back_to` is our page for whoever pays.
    """

    id: UUID
    amount: int
    currency: str
    reference: str
    payer: Mapping[str, str]
    cards: Sequence[str]
    plan: WantedPlan | None = None
    back_to: str = ""


@dataclass(frozen=True, kw_only=True, slots=True)
class ProviderState:
    """How the provider says a payment stands, in minor units; `page` is where it is paid.

    `open` is not paid yet, with the `reason` where a card was refused; `asking` waits for its holder. What has `failed`
    is a later charge; `first` is the payment whose plan it is of, or "". `plan` is what follows this payment.
    """

    id: str
    state: Literal["open", "asking", "paid", "cancelled", "failed"]
    amount: int
    currency: str
    refunded: int
    reason: str
    card: str
    page: str = ""
    first: str = ""
    plan: "ProviderPlan | None" = None


@dataclass(frozen=True, kw_only=True, slots=True)
class ProviderCharge:
    """A charge of a plan: which in turn, from 1, of which day, and how it stands."""

    turn: int
    day: date
    payment: ProviderState


@dataclass(frozen=True, kw_only=True, slots=True)
class ProviderPlan:
    """How the provider says a plan stands: the day of the next charge, and every charge that was made."""

    state: Literal["waiting", "running", "stopped", "ended"]
    next_on: date | None
    charges: tuple[ProviderCharge, ...]


class Provider(Protocol):
    """One provider, with the keys of one account. Every method may raise ProviderAwayError or ProviderRefusesError."""

    def account(self) -> ProviderAccount:
        """Return whose keys these are."""

    def register_hook(self, address: str) -> str:
        """Have events told to an address, and return what signs them."""

    def ask(self, wanted: Wanted) -> ProviderState:
        """Ask for a payment; asking again with the same id gives the same payment."""

    def find(self, provider_id: str) -> ProviderState:
        """Return how a payment stands."""

    def cancel(self, provider_id: str) -> ProviderState:
        """Take a payment back that was not paid; one that was stays paid."""

    def refund(self, provider_id: str, amount: int, *, key: UUID) -> ProviderState:
        """Give so much back; the same key gives it back once."""

    def stop_plan(self, provider_id: str) -> ProviderState:
        """Charge nothing more of the plan that began with a payment; where nothing more would be, change nothing."""

    def charge_again(self, provider_id: str, turn: int, *, key: UUID) -> ProviderState:
        """Try a charge again that has failed, of the plan that began with a payment; the same key tries once."""

    def changed_since(self, moment: datetime) -> list[ProviderState]:
        """Return the payments that changed since a moment."""

    def told_of(self, headers: Mapping[str, str], body: bytes, hook_secret: str) -> str:
        """Return which payment an event is about, by the provider's id; of a plan's charge the first payment.

        Raises NotFromProviderError.
        """
