"""What has an order and a middle: numbers, dates, times of day and moments; each result is of its arguments' kind.

In a list text is passed over and a blank counts for nothing, as in the standard (OpenFormula 6.18).
"""

import datetime
import itertools
from collections.abc import Callable, Iterable
from decimal import Decimal
from typing import Any

from codexa.core.formula import convert
from codexa.core.formula.failing import sound
from codexa.core.formula.functions.function import (
    Argument,
    CodeWriter,
    Example,
    Function,
    Parameter,
    Remark,
    Role,
    function,
)
from codexa.core.formula.functions.numbers import like_arguments, values_of
from codexa.core.formula.metering import spend
from codexa.core.formula.types import DATES, MOMENTS, NUMBERS, Kind, Type
from codexa.core.formula.values import ZERO, ErrorCode, fail, whole

_MEASURES = (Parameter("values", Role.MEASURES), Parameter("further", Role.MEASURES, optional=True, repeated=True))
_LIST = Parameter("list", Role.MEASURES)
_RANK = Parameter("place", Role.NUMBER)
_NUMBERS_ALONE = {Decimal, type(None)}
_NO_COMMON_ORDER = "Numbers, dates and times have no common order."


def _like_measures(types: list[Type]) -> Type:
    kinds = {each.kind for each in types} - {Kind.BLANK}
    if Kind.ANY in kinds:
        return Type(kind=Kind.ANY, may_be_blank=True)
    if kinds and (kinds <= DATES or kinds == {Kind.TIME}):
        return Type(kind=kinds.pop() if len(kinds) == 1 else Kind.DATE_TIME, may_be_blank=True)
    return like_arguments(types)


def _first_like_measures(types: list[Type]) -> Type:
    return _like_measures(types[:1])


def _mixed(call: Argument) -> Iterable[Remark]:
    kinds = {part.type.kind for part in call.parts} - {Kind.BLANK, Kind.ANY}
    if len(kinds) > 1 and not kinds <= DATES and kinds & MOMENTS:
        yield Remark(call.node.span, _NO_COMMON_ORDER)


def _measures_of(values: list[Any]) -> list[Any]:
    """Return what of a list has an order, all of one kind: numbers, dates, times or moments."""
    kinds = set(map(type, values))
    if kinds <= _NUMBERS_ALONE:
        spend(len(values) >> 2)  # they are sorted, most often
        return [value for value in values if value is not None] if type(None) in kinds else values
    found = [sound(value) for value in values if value is not None and value.__class__ is not str]
    moments = [value for value in found if isinstance(value, datetime.date | datetime.time)]
    if not moments:
        return values_of(found)
    spend(len(values) >> 2)
    clocks = sum(isinstance(value, datetime.time) for value in found)
    if len(moments) < len(found) or 0 < clocks < len(found):
        fail(ErrorCode.VALUE, _NO_COMMON_ORDER)
    zone = next((value.tzinfo for value in found if isinstance(value, datetime.datetime)), None)
    return found if zone is None else [_moment(value, zone) for value in found]


def _moment(value: datetime.date, zone: datetime.tzinfo) -> datetime.datetime:
    if isinstance(value, datetime.datetime):
        return value
    return datetime.datetime.combine(value, datetime.time(), zone)


def _extreme(choose: Callable[..., Any], nothing: Decimal | None) -> Callable[[list[Any]], Any]:
    def extreme(values: list[Any]) -> Any:
        try:
            found = choose(values)
            if found.__class__ is Decimal:  # numbers alone, which is usual, need no second look
                return found
        except (TypeError, ValueError):
            pass
        return choose(_measures_of(values), default=nothing)

    return extreme


_EXTREMES = {
    (choose, nothing): _extreme(choose, nothing) for choose, nothing in itertools.product((min, max), (ZERO, None))
}


def _emit_extreme(choose: Callable[..., Any]) -> Callable[[CodeWriter, Argument, Role], str]:
    def emit(emitter: CodeWriter, call: Argument, role: Role) -> str:
        if len(call.parts) > 1 and all(_is_certain_number(part) for part in call.parts):
            numbers = ", ".join(emitter.emit(part, Role.NUMBER) for part in call.parts)
            code = f"{emitter.helper(choose)}({numbers})"
        else:
            nothing = None if call.type.kind in MOMENTS else ZERO
            extreme = _EXTREMES[choose, nothing]
            code = f"{emitter.helper(extreme)}({emitter.flat_list(call.parts, Role.MEASURES)})"
        return emitter.convert(code, call.type, role)

    return emit


def _is_certain_number(part: Argument) -> bool:
    return part.type.kind in NUMBERS and not part.type.may_be_blank and not part.type.is_list


def _average(values: list[Any]) -> Any:
    try:
        return sum(values, ZERO) / len(values)
    except TypeError:
        return _mean(_measures_of(values))


def _mean(values: list[Any]) -> Any:
    """Return the mean; of dates the day in which it lies, of times and moments the second."""
    if not values or isinstance(values[0], Decimal):
        return sum(values, ZERO) / len(values)
    count, first = len(values), values[0]
    if isinstance(first, datetime.datetime):
        return first + datetime.timedelta(seconds=sum((each - first).total_seconds() for each in values) // count)
    if isinstance(first, datetime.date):
        return datetime.date.fromordinal(sum(each.toordinal() for each in values) // count)
    seconds = sum(each.hour * 3600 + each.minute * 60 + each.second for each in values) // count
    return datetime.time(seconds // 3600, seconds // 60 % 60, seconds % 60)


def _median(values: list[Any]) -> Any:
    ordered = sorted(_measures_of(values))
    if not ordered:
        fail(ErrorCode.NUMBER, "There is nothing to find the middle of.")
    middle = len(ordered) // 2
    return ordered[middle] if len(ordered) % 2 else _mean(ordered[middle - 1 : middle + 1])


def _ranked(values: list[Any], rank: Decimal, *, greatest: bool) -> Any:
    ordered = sorted(_measures_of(values), reverse=greatest)
    place = whole(rank)
    if not 1 <= place <= len(ordered):
        fail(ErrorCode.NUMBER, f"There are {len(ordered)} values; there is no place {convert.text(rank)}.")
    return ordered[place - 1]


def _least_or_greatest(name: str, choose: Callable[..., Any], purpose: str, *examples: tuple[str, str]) -> Function:
    return Function(
        name=name,
        parameters=_MEASURES,
        result=_like_measures,
        purpose=purpose,
        examples=tuple(Example(*each) for each in examples),
        emit=_emit_extreme(choose),
        look=_mixed,
        differs="Of dates it is a date, blank where there are none.",
    )


FUNCTIONS = (
    function(
        "AVERAGE",
        _MEASURES,
        _like_measures,
        "The mean of numbers, dates or times; blanks are left out.",
        _average,
        ("AVERAGE(1, 2, 6)", "3"),
        ("AVERAGE(DATE(2026, 3, 1), DATE(2026, 3, 4))", "2026-03-02"),
        look=_mixed,
    ),
    function(
        "MEDIAN",
        _MEASURES,
        _like_measures,
        "The middle one of the values in order.",
        _median,
        ("MEDIAN(1, 9, 2)", "2"),
        look=_mixed,
    ),
    _least_or_greatest("MIN", min, "The smallest number, or the earliest date or time.", ("MIN(4, 2, 8)", "2")),
    _least_or_greatest(
        "MAX",
        max,
        "The greatest number, or the latest date or time.",
        ("MAX(4, 2, 8)", "8"),
        ("MAX(DATE(2026, 3, 1), DATE(2026, 3, 4))", "2026-03-04"),
    ),
    function(
        "LARGE",
        (_LIST, _RANK),
        _first_like_measures,
        "The greatest, second greatest … value.",
        lambda values, rank: _ranked(values, rank, greatest=True),
        ("LARGE(5, 1)", "5"),
    ),
    function(
        "SMALL",
        (_LIST, _RANK),
        _first_like_measures,
        "The smallest, second smallest … value.",
        lambda values, rank: _ranked(values, rank, greatest=False),
        ("SMALL(5, 2)", "#NUM!"),
    ),
)
