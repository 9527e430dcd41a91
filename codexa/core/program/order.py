"""The order of a form that sells: its lines, what is taken off and added, and the total, each to the minor unit."""

import datetime
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from functools import lru_cache
from typing import Any, NamedTuple

from codexa.core.definition.order import Discount, Tax
from codexa.core.fields.field_type import Medium, Region
from codexa.core.fields.formatted import to_minor_unit
from codexa.core.fields.number import NumberField
from codexa.core.fields.options import Optioned
from codexa.core.fields.product import ProductField
from codexa.core.fields.written import currency_text
from codexa.core.form.pricing import Priced, price_of_option
from codexa.core.formula import convert
from codexa.core.formula.values import Choices, ErrorCode, Failed, fail

_NOTHING, _ONE, _HUNDRED = Decimal(0), Decimal(1), Decimal(100)


@dataclass(frozen=True, kw_only=True, slots=True)
class Line:
    """Something that was ordered: of which block and, where it has any, which option; so many at this price."""

    block: str
    option: str
    label: str
    quantity: Decimal
    price: Decimal
    amount: Decimal


@dataclass(frozen=True, kw_only=True, slots=True)
class Lines:
    """What was ordered, what it comes to, how many pieces that are, and what they weigh."""

    lines: tuple[Line, ...]
    subtotal: Decimal
    count: Decimal
    weight: Decimal


@dataclass(frozen=True, kw_only=True, slots=True)
class Sum:
    """A named amount: what a discount takes off, or what a tax comes to; `included` is in the total already."""

    name: str
    amount: Decimal
    included: bool = False


@dataclass(frozen=True, kw_only=True, slots=True)
class Discounts:
    """What is taken off, and by which discounts, by id, whose code was typed."""

    sums: tuple[Sum, ...]
    redeemed: tuple[str, ...]


@dataclass(frozen=True, kw_only=True, slots=True)
class OrderTotals:
    """The whole order: lines + shipping + added taxes − discounts is the total."""

    lines: Lines
    discounts: tuple[Sum, ...]
    redeemed: tuple[str, ...]
    shipping: Decimal
    taxes: tuple[Sum, ...]
    total: Decimal

    @property
    def discount(self) -> Decimal:
        """What is taken off in all."""
        return sum((each.amount for each in self.discounts), _NOTHING)

    @property
    def tax(self) -> Decimal:
        """What all taxes come to, in the prices or on top."""
        return sum((each.amount for each in self.taxes), _NOTHING)


class AtPrice(NamedTuple):
    """What is ordered of a product, and the price of each that a formula gives."""

    ordered: Any
    price: Any


Collector = Callable[[Sequence[Sequence[Any]]], Lines]


def collector(priced: Sequence[Priced], region: Region) -> Collector:
    """Return what makes the lines: of each block in turn the values that it has, in rows any number.

    The value of a product whose quantity is asked apart is that of both.
    """
    weights = {each.block.id: getattr(each.block, "weight", None) or _NOTHING for each in priced}

    def collect(values: Sequence[Sequence[Any]]) -> Lines:
        found = [
            line
            for each, given in zip(priced, values, strict=True)
            for value in given
            for line in _lines_of(each, value, region)
        ]
        return Lines(
            lines=tuple(found),
            subtotal=sum((line.amount for line in found), _NOTHING),
            count=sum((line.quantity for line in found), _NOTHING),
            weight=sum((line.quantity * weights[line.block] for line in found), _NOTHING),
        )

    return collect


def _lines_of(priced: Priced, value: Any, region: Region) -> Iterable[Line]:
    block = priced.block
    if value is None or isinstance(value, Failed):
        return
    if isinstance(block, ProductField):
        yield from _lines_of_product(block, value, region)
    elif isinstance(block, NumberField) and block.price is not None:
        if value > 0:
            yield _line(block.id, block.label, value, block.price, region)
    elif isinstance(block, Optioned):
        for choice in value if isinstance(value, Choices) else (value,):
            price = price_of_option(block, choice)
            if price is not None:
                yield replace(_line(block.id, choice.label, _ONE, price, region), option=str(choice))


def _lines_of_product(block: ProductField, value: Any, region: Region) -> Iterable[Line]:
    price_of: Callable[[str], Decimal | None] = block.price_of
    if isinstance(value, AtPrice):
        value, price_of = value.ordered, _always(value.price)
    if value is None or isinstance(value, Failed):
        return
    if isinstance(value, tuple) and not isinstance(value, Choices):
        chosen, quantity = value
        found = [] if quantity is None or (block.options and chosen is None) else [(chosen, quantity)]
    elif isinstance(value, Choices):
        found = [(each, each.counts) for each in value]
    else:
        found = [(None, value)]
    for option, quantity in found:
        price = price_of("" if option is None else str(option)) if quantity > 0 else None
        if price is not None and quantity > 0:
            label = block.label if option is None else f"{block.label}, {option.label}"
            line = _line(block.id, label, quantity, price, region)
            yield line if option is None else replace(line, option=str(option))


def price_given(value: Any) -> Decimal | None:
    """Return what a formula gives as a price, never below 0; None where it gives none."""
    return None if value is None or isinstance(value, Failed) else max(_NOTHING, convert.number(value))


def _always(given: Any) -> Callable[[str], Decimal]:
    """Return what gives one price; where there is none, nothing is given away: the order can't be worked out."""

    def price(_option: str) -> Decimal:
        found = price_given(given)
        return fail(ErrorCode.VALUE, "What is ordered has no price yet.") if found is None else found

    return price


def _line(block: str, label: str, quantity: Decimal, price: Decimal, region: Region) -> Line:
    amount = to_minor_unit(quantity * price, region.currency)
    return Line(block=block, option="", label=label, quantity=quantity, price=price, amount=amount)


def same_code(discount: Discount, typed: str) -> bool:
    """Say whether what was typed is the code of a discount; capitals and spaces around it don't matter."""
    return bool(discount.code) and discount.code.strip().casefold() == typed.strip().casefold()


def is_in_time(discount: Discount, today: datetime.date) -> bool:
    """Say whether a discount's code counts on a day."""
    begun = discount.first_day is None or discount.first_day <= today
    return begun and (discount.last_day is None or today <= discount.last_day)


def discounter(discounts: Sequence[Discount], region: Region) -> Callable[..., Discounts]:
    """Return what works discounts out; they never take off more than the lines come to.

    It is given the lines, the code that was typed, today's date, and of each discount that holds its index and what its
    formula gave.
    Where the amount of one that is due failed, so do the discounts: nobody is to pay more than was promised.
    """

    def work_out(lines: Any, typed: Any, today: datetime.date, held: Sequence[tuple[int, Any]]) -> Discounts:
        if isinstance(lines, Failed):
            lines.spread()
        left, found, redeemed = lines.subtotal, [], []
        code = "" if typed is None else convert.text(typed)
        for index, given in held:
            each = discounts[index]
            if each.code and not (same_code(each, code) and is_in_time(each, today)):
                continue
            if isinstance(given, Failed):
                given.spread()
            wanted = _NOTHING if given is None else convert.number(given)
            if each.percent is not None:
                wanted = lines.subtotal * each.percent / _HUNDRED
            if each.code:
                redeemed.append(each.id)
            amount = min(left, max(_NOTHING, to_minor_unit(wanted, region.currency)))
            if amount:
                left -= amount
                found.append(Sum(name=each.name, amount=amount))
        return Discounts(sums=tuple(found), redeemed=tuple(redeemed))

    return work_out


def shipper(region: Region) -> Callable[[Any, Any], Decimal]:
    """Return what settles the cost of shipping: what a formula gave, never below 0, and nothing for nothing."""

    def settle(lines: Lines | Failed, given: Any) -> Decimal:
        if isinstance(lines, Failed):
            lines.spread()
        if not lines.count or given is None:
            return _NOTHING
        return max(_NOTHING, to_minor_unit(convert.number(given), region.currency))

    return settle


def totaller(taxes: Sequence[Tax], region: Region) -> Callable[..., Any]:
    """Return what adds everything up, with the taxes that hold, by index; what failed is the total's failure too."""

    def add_up(lines: Any, discounts: Any, shipping: Any, held: Sequence[int]) -> Any:
        for each in (lines, discounts, shipping):
            if isinstance(each, Failed):
                return each
        taken = sum((each.amount for each in discounts.sums), _NOTHING)
        paid = lines.subtotal - taken + shipping
        due = [taxes[index] for index in held] if lines.count else []
        found = [_tax(each, base, region) for each, base in zip(due, _bases(due, lines, taken, shipping), strict=True)]
        added = sum((each.amount for each in found if not each.included), _NOTHING)
        return OrderTotals(
            lines=lines,
            discounts=discounts.sums,
            redeemed=discounts.redeemed,
            shipping=shipping,
            taxes=tuple(found),
            total=paid + added,
        )

    return add_up


def _bases(taxes: Sequence[Tax], lines: Lines, taken: Decimal, shipping: Decimal) -> list[Decimal]:
    """Return what each tax is of; what is taken off is shared out among the lines by what they come to."""
    named = {product for each in taxes for product in each.products}
    part = (lines.subtotal - taken) / lines.subtotal if lines.subtotal else _NOTHING

    def base(tax: Tax) -> Decimal:
        of_lines = [
            line.amount
            for line in lines.lines
            if (line.block in tax.products if tax.products else line.block not in named)
        ]
        return sum(of_lines, _NOTHING) * part + (_NOTHING if tax.products else shipping)

    return [base(each) for each in taxes]


def _tax(tax: Tax, paid: Decimal, region: Region) -> Sum:
    share = tax.percent / (_HUNDRED + tax.percent) if tax.included else tax.percent / _HUNDRED
    name = f"{tax.name} {convert.text_of_number(tax.percent)} %".strip()
    return Sum(name=name, amount=to_minor_unit(paid * share, region.currency), included=tax.included)


def money(amount: Decimal, region: Region, medium: Medium = Medium.PAGE) -> str:
    """Return an amount as people of the form's language write it, or plain to the minor unit for programs."""
    if medium is Medium.CSV:
        return format(to_minor_unit(amount, region.currency), "f")
    return _written(amount, region.currency, region.locale)


@lru_cache(maxsize=16_384)
def _written(amount: Decimal, currency: str, locale: str) -> str:
    # Prices hardly change from one state to the next, and writing one takes far longer than looking it up.
    return currency_text(amount, currency, locale)


def lines_in_words(lines: Lines) -> str:
    """Return what was ordered in one line."""
    return ", ".join(f"{convert.text_of_number(each.quantity)} × {each.label}" for each in lines.lines)


def dump_order(order: OrderTotals, region: Region) -> dict[str, Any]:
    """Return the order as JSON to keep: every amount as plain text, to the minor unit."""

    def plain(amount: Decimal) -> str:
        return money(amount, region, Medium.CSV)

    return {
        "lines": [
            {
                "block": each.block,
                "option": each.option,
                "label": each.label,
                "quantity": convert.text_of_number(each.quantity),
                "price": convert.text_of_number(each.price),
                "amount": plain(each.amount),
            }
            for each in order.lines.lines
        ],
        "subtotal": plain(order.lines.subtotal),
        "discounts": [{"name": each.name, "amount": plain(each.amount)} for each in order.discounts],
        "discount": plain(order.discount),
        "shipping": plain(order.shipping),
        "taxes": [{"name": each.name, "amount": plain(each.amount), "included": each.included} for each in order.taxes],
        "tax": plain(order.tax),
        "total": plain(order.total),
        "currency": region.currency,
    }
