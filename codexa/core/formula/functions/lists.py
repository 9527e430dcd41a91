"""Lists: finding an item, and figures over a whole column."""

import operator
from bisect import bisect_left, bisect_right
from collections.abc import Callable
from decimal import Decimal
from typing import Any

from codexa.core.formula import convert
from codexa.core.formula.columns import Column
from codexa.core.formula.failing import sound
from codexa.core.formula.functions.criteria import is_wild, matching
from codexa.core.formula.functions.function import Function, Parameter, Role, function
from codexa.core.formula.functions.numbers import values_of
from codexa.core.formula.metering import spend
from codexa.core.formula.types import ANY, NUMBER, Type
from codexa.core.formula.values import ARITHMETIC, ONE, ZERO, ErrorCode, compared, fail, whole

_LIST = Parameter("list", Role.LIST)


def _item_of(types: list[Type]) -> Type:
    last = types[2] if len(types) > 2 else types[0]
    return Type(kind=last.kind, may_be_blank=True, digits=last.digits) if last.is_list else ANY


def _item(values: list[Any], position: Decimal) -> Any:
    return _at(values, whole(position))


def _at(values: list[Any], place: int) -> Any:
    if not 1 <= place <= len(values):
        fail(ErrorCode.REFERENCE, f"The list has {len(values)} items, counted from 1.")
    return sound(values[place - 1])


def _position(value: Any, values: list[Any], order: Decimal = ONE) -> Decimal:
    # 0: the first that is equal; 1: the last that is not more, -1: the last that is not less, in a list in that order
    # (OpenFormula 6.14.9). Items of another kind are passed over.
    return Decimal(_place(value, values, order))


def _place(value: Any, values: list[Any], order: Decimal = ONE) -> int:
    if not order:
        return _place_of(value, values)
    return _last_in_order(value, values, convert.more if order.is_signed() else convert.less) or _not_there()


def _not_there() -> int:
    return fail(ErrorCode.NOT_AVAILABLE, "The list has no such value.")


def _place_of(value: Any, values: list[Any]) -> int:
    if not is_wild(value) and isinstance(values, Column) and (places := values.positions(value)) is not None:
        return places[0] + 1 if places else _not_there()
    spend(len(values) >> 2)
    fits = matching(value)(values)
    return fits.index(True) + 1 if True in fits else _not_there()


def _last_in_order(value: Any, values: list[Any], beyond: Callable[[Any, Any], bool]) -> int:
    """Return the place, from 1, of the last item that does not lie beyond the value; 0 where all do."""
    if value.__class__ is Decimal:
        wanted = compared(value)
        try:  # what is looked at on the way is numbers alone, which is usual
            if beyond is convert.less:
                return bisect_right(values, wanted, key=_number_alone)
            return bisect_right(values, -wanted, key=_negated)
        except TypeError:
            pass
    spend(len(values))
    known = [place for place, item in enumerate(values) if convert.have_order(item, value)]
    found = bisect_left(known, True, key=lambda place: beyond(value, values[place]))
    return known[found - 1] + 1 if found else 0


def _number_alone(item: Any) -> Decimal:
    if item.__class__ is Decimal:
        return compared(item)
    raise TypeError


def _negated(item: Any) -> Decimal:
    return -_number_alone(item)


def _looked_up(value: Any, values: list[Any], results: list[Any] | None = None) -> Any:
    return _at(values if results is None else results, _place(value, values))


def _deviation(values: list[Any]) -> Decimal:
    numbers = values_of(values)
    mean = sum(numbers, ZERO) / len(numbers)
    spread: Decimal = sum(((number - mean) ** 2 for number in numbers), ZERO) / (len(numbers) - 1)
    return spread.sqrt(ARITHMETIC)


def _sum_of_products(first: list[Any], *further: list[Any]) -> Decimal:
    if any(len(each) != len(first) for each in further):
        fail(ErrorCode.VALUE, "These lists are of different length.")
    if len(further) == 1:
        try:
            return sum(map(operator.mul, first, further[0]), ZERO)  # numbers alone, which is usual
        except TypeError:
            pass
    total = ZERO
    for items in zip(first, *further, strict=True):
        product = ONE
        for item in items:
            product *= ZERO if item.__class__ is str else convert.number(item)
        total += product
    return total


FUNCTIONS: tuple[Function, ...] = (
    function(
        "INDEX",
        (_LIST, Parameter("position", Role.NUMBER)),
        _item_of,
        "The item at a position, counted from 1.",
        _item,
        ("INDEX(7, 1)", "7"),
        ("INDEX(7, 2)", "#REF!"),
    ),
    function(
        "MATCH",
        (Parameter("value", Role.VALUE), _LIST, Parameter("order", Role.NUMBER, optional=True)),
        NUMBER,
        "The position of a value in a list: with 0 the first equal one, with 1 (or nothing) the last that is not more "
        "in a rising list, with -1 the last that is not less in a falling one.",
        _position,
        ("MATCH(7, 7, 0)", "1"),
        ("MATCH(7, 8, 0)", "#N/A"),
    ),
    function(
        "LOOKUP",
        (Parameter("value", Role.VALUE), _LIST, Parameter("results", Role.LIST, optional=True)),
        lambda types: _item_of([types[1], *types[1:]]),
        "The result that stands beside the last item that is not more, in a rising list.",
        _looked_up,
        ("LOOKUP(7, 5, 50)", "50"),
    ),
    function(
        "STDEV",
        (Parameter("numbers", Role.NUMBERS), Parameter("further", Role.NUMBERS, optional=True, repeated=True)),
        NUMBER,
        "How far the numbers spread around their mean (of a sample).",
        _deviation,
        ("STDEV(2, 4, 6)", "2"),
        ("STDEV(2)", "#DIV/0!"),
    ),
    function(
        "SUMPRODUCT",
        (_LIST, Parameter("further", Role.LIST, optional=True, repeated=True)),
        NUMBER,
        "The lists multiplied item by item, and added.",
        _sum_of_products,
        ("SUMPRODUCT(3, 4)", "12"),
    ),
)
