"""What a form can know beside its answers; passed in, so that the same input always gives the same state."""

import datetime
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from decimal import Decimal
from types import MappingProxyType
from typing import Any, Literal, Self
from zoneinfo import ZoneInfo

from codexa.core.look_ups import NO_TABLES, Tables


@dataclass(frozen=True, kw_only=True, slots=True)
class DecisionFacts:
    """What was decided of a response: its state (asked, approved, denied, asked back), the remark, and by whom."""

    state: str
    remark: str = ""
    by: str = ""


NOBODY: Mapping[str, str] = MappingProxyType({})
NOTHING_ENTERED: Mapping[str, Any] = MappingProxyType({})
# With whom a response stands, beside the ids of parts: who filled it in, or the team, whom no part is closed to.
FILLING_IN: Literal[""] = ""
EVERYBODY = "*"
NOTHING_TAKEN: Mapping[str, int] = MappingProxyType({})


@dataclass(frozen=True, kw_only=True, slots=True)
class HandedOnFacts:
    """Where a response went last: the `name` of the part, the remark, and by whom it was handed on or back."""

    name: str
    remark: str = ""
    by: str = ""


@dataclass(frozen=True, kw_only=True, slots=True)
class PaymentFacts:
    """How the payment of a response stands: amounts in major units, the provider's number for it, and its state.

    `receipt` is our own number for it, once it is paid. Of a plan: `plan` in words, the amount of the later `charge`
    that it is about (None for what was paid at first), and the day of the `next`.
    """

    amount: Decimal
    number: str
    status: str
    refunded: Decimal
    receipt: Decimal | None = None
    plan: str = ""
    charge: Decimal | None = None
    next: datetime.date | None = None


def visitor_facts(email: str, name: str) -> dict[str, str]:
    """Return what formulas know of who is signed in; of a name the last word is the last name, a single one the first.

    Nothing of nobody.
    """
    if not email:
        return {}
    first, _, last = " ".join(name.split()).rpartition(" ")
    first, last = (first, last) if first else (last, "")
    return {"email": email, "name": name, "first": first, "last": last}


@dataclass(frozen=True, kw_only=True, slots=True)
class Context:
    """The surroundings of one evaluation.

    `now` is aware, in the form's time zone; `locale` the form's language; `visitor` who is signed in ("email", "name"),
    with the names of their `groups`; `link` what came with the address; `number` the response's own number,
    known only once it is saved; `people` are those of the team, by id, as mail reaches them, and `taken` how much of
    what runs out is gone, by the name of a claim. By that name `held` are the slots that the response has already, and
    those for which it is `waiting`; `own_page` is the address of its visitor's own page. `payment` is how its payment
    stands, `decision` what was decided, `tables` are the team's (none of these is kept with a response). Of a response
    that goes from part to part `at_part` says with which it stands (None while it is filled in first), `others` what
    was entered so far, by block id, and `handed_on` what is known of where it went last.
    """

    now: datetime.datetime
    locale: str = "en"
    visitor: Mapping[str, str] = field(default_factory=dict)
    groups: frozenset[str] = frozenset()
    link: Mapping[str, str] = field(default_factory=dict)
    number: int | None = None
    people: Mapping[str, str] = field(default_factory=lambda: NOBODY)
    taken: Mapping[str, int] = field(default_factory=lambda: NOTHING_TAKEN)
    held: Mapping[str, str] = field(default_factory=lambda: NOBODY)
    waiting: frozenset[str] = frozenset()
    own_page: str = ""
    payment: PaymentFacts | None = None
    decision: DecisionFacts | None = None
    at_part: str | None = None
    others: Mapping[str, Any] = field(default_factory=lambda: NOTHING_ENTERED)
    handed_on: HandedOnFacts | None = None
    tables: Tables = NO_TABLES

    @property
    def today(self) -> datetime.date:
        """The date where the form is at home."""
        return self.now.date()

    def with_number(self, number: int) -> "Context":
        """Return the same surroundings once the response is saved under that number."""
        return replace(self, number=number)

    def with_payment(self, payment: PaymentFacts | None) -> "Context":
        """Return the same surroundings with how the response's payment stands."""
        return replace(self, payment=payment)

    def as_json(self) -> dict[str, Any]:
        """Return what a response was told, to be kept with it; its number is its own."""
        return {
            "now": self.now.isoformat(),
            "zone": str(self.now.tzinfo),
            "locale": self.locale,
            "visitor": dict(self.visitor),
            "groups": sorted(self.groups),
            "link": dict(self.link),
            **({"waiting": sorted(self.waiting)} if self.waiting else {}),
        }

    @classmethod
    def from_json(cls, told: Mapping[str, Any], *, number: int | None = None) -> Self:
        """Return the surroundings that `as_json` gave."""
        now = datetime.datetime.fromisoformat(told["now"])
        return cls(
            now=now.astimezone(ZoneInfo(told["zone"])),
            locale=told["locale"],
            visitor=told["visitor"],
            groups=frozenset(told["groups"]),
            link=told["link"],
            waiting=frozenset(told.get("waiting", ())),
            number=number,
        )
