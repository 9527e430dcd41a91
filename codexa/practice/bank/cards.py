"""Cards to try with: what becomes of a payment hangs on the card's number; all of them are made up."""

import datetime
from dataclasses import dataclass
from typing import Literal

Outcome = Literal[
    "approved",
    "declined",
    "not enough",
    "asks the holder",
    "slow",
    "told twice",
    "told first",
    "not told",
    "later fails",
    "later never",
]

KINDS = {"4": "Aster", "5": "Boreal", "6": "Comet"}
WORDS: dict[Outcome, str] = {
    "approved": "is approved",
    "declined": "is declined",
    "not enough": "has not enough on it",
    "asks the holder": "wants its holder to confirm",
    "slow": "is approved after a while",
    "told twice": "is approved; the shop is told twice",
    "told first": "is approved; the shop is told before the visitor",
    "not told": "is approved; the shop is never told",
    "later fails": "is approved; each later charge is declined until it is charged again",
    "later never": "is approved; each later charge is declined, also when charged again",
}
LATER_DECLINED = ("later fails", "later never")
REASONS: dict[str, str] = {
    "declined": "The card was declined.",
    "not enough": "There is not enough on the card.",
    "refused": "The holder did not confirm the payment.",
}


class CardError(ValueError):
    """A card can't be taken; the message says why, for its holder."""


@dataclass(frozen=True)
class Card:
    """A card: its kind, the last four digits, and what becomes of a payment with it."""

    kind: str
    last: str
    outcome: Outcome


def check_digit(digits: str) -> str:
    """Return the digit that ISO/IEC 7812-1 adds to a card's number."""
    total = 0
    for at, digit in enumerate(reversed(digits)):
        value = int(digit) * (2 if at % 2 == 0 else 1)
        total += value - 9 if value > 9 else value
    return str(-total % 10)


def _number(first: str, at: int) -> str:
    digits = f"{first}{at:014d}"
    return digits + check_digit(digits)


# The first is 4000 0000 0000 0002.
NUMBERS: dict[str, Outcome] = {
    f"4{'0' * 14}" + check_digit(f"4{'0' * 14}"): "approved",
    **{_number("4", at * 10): outcome for at, outcome in enumerate(WORDS) if at},
    **{_number(first, 0): "approved" for first in ("5", "6")},
}


def read_card(number: str, expires: str, code: str, *, kinds: list[str], today: datetime.date) -> Card:
    """Return the card that was typed. Raises CardError; nothing of a number but its last digits is kept."""
    digits = number.replace(" ", "").replace("-", "")
    if not digits.isascii() or not digits.isdigit() or not 12 <= len(digits) <= 19:
        raise CardError("Type the 16 digits of the card.")
    if check_digit(digits[:-1]) != digits[-1]:
        raise CardError("The number has a typing error: its check digit is wrong.")
    month, _, year = expires.replace(" ", "").partition("/")
    if not (month.isdigit() and year.isdigit() and 1 <= int(month) <= 12 and len(year) == 2):
        raise CardError("Type month and year, such as 11/29.")
    if (2000 + int(year), int(month)) < (today.year, today.month):
        raise CardError("The card has expired.")
    if not (code.isascii() and code.isdigit() and len(code) in (3, 4)):
        raise CardError("Type the three digits on the back.")
    kind = KINDS.get(digits[0], "")
    if kind not in kinds:
        raise CardError(f"This card is not accepted here. Accepted: {', '.join(kinds)}.")
    return Card(kind=kind, last=digits[-4:], outcome=NUMBERS.get(digits, "declined"))
