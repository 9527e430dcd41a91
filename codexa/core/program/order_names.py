"""The names by which formulas and texts know the order: order.total, order.lines, order.shipping."""

from collections.abc import Callable
from decimal import Decimal
from typing import Any

from codexa.core.fields.field_type import Region
from codexa.core.formula import convert
from codexa.core.formula.scope import Reference
from codexa.core.formula.types import NUMBER, TEXT, Kind, Type
from codexa.core.program.order import lines_in_words, money
from codexa.core.program.places import Spot
from codexa.core.program.scope import Entry, Path, presenter
from codexa.core.program.spots import OrderSpots

PAYMENT = "whole-payment"  # the owner of what belongs to the payment
ORDER = "whole-order"  # the owner of what belongs to the order; no block can have this id
_MONEY = Type(kind=Kind.MONEY)


def order_entries(spots: OrderSpots, region: Region) -> dict[Path, Entry]:
    """Return every name of an order, with where it stands and how visitors read it."""

    def entry(spot: Spot, kind: Type, take: Callable[[Any], Any], present: Callable[[Any], str]) -> Entry:
        reference = Reference(slot=spot.slot, type=kind, facet=take)
        return Entry(reference=reference, present=present, owner=ORDER)

    def amount(value: Decimal) -> str:
        return money(value, region)

    def discount(sums: Any) -> Decimal:
        return sum((each.amount for each in sums.sums), Decimal(0))

    return {
        ("order", "lines"): entry(spots.lines, TEXT, lines_in_words, convert.text),
        ("order", "count"): entry(spots.lines, NUMBER, lambda lines: lines.count, presenter(region)),
        ("order", "weight"): entry(spots.lines, NUMBER, lambda lines: lines.weight, presenter(region)),
        ("order", "subtotal"): entry(spots.lines, _MONEY, lambda lines: lines.subtotal, amount),
        ("order", "discount"): entry(spots.discounts, _MONEY, discount, amount),
        ("order", "shipping"): entry(spots.shipping, _MONEY, lambda value: value, amount),
        ("order", "tax"): entry(spots.total, _MONEY, lambda order: order.tax, amount),
        ("order", "total"): entry(spots.total, _MONEY, lambda order: order.total, amount),
    }
