"""What a provider of payments does for us. To add one, write such a class and name it in `accounts.provider_of`."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
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
class Wanted:
    """What is asked for: `amount` in minor units, `id` ours, the same for every try; `cards` are the kinds taken."""

    id: UUID
    amount: int
    currency: str
    reference: str
    payer: Mapping[str, str]
    cards: Sequence[str]


@dataclass(frozen=True, kw_only=True, slots=True)
class ProviderState:
    """How the provider says a payment stands, in minor units; `page` is where it is paid.

    `open` is not paid yet, with the `reason` where a card was refused; `asking` waits for its holder.
    """

    id: str
    state: Literal["open", "asking", "paid", "cancelled"]
    amount: int
    currency: str
    refunded: int
    reason: str
    card: str
    page: str = ""


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

    def changed_since(self, moment: datetime) -> list[ProviderState]:
        """Return the payments that changed since a moment."""

    def told_of(self, headers: Mapping[str, str], body: bytes, hook_secret: str) -> str:
        """Return which payment an event is about, by the provider's id. Raises NotFromProviderError."""
