"""Sums and counts of the items that meet a criterion (OpenFormula 4.11.8: ">=5", "<>x", or a value to be equal to)."""

import datetime
import re
from collections.abc import Callable
from decimal import Decimal
from typing import Any

from codexa.core.formula import convert
from codexa.core.formula.columns import Column
from codexa.core.formula.functions.function import Argument, CodeWriter, Example, Function, Parameter, Role, function
from codexa.core.formula.metering import spend
from codexa.core.formula.types import NUMBER
from codexa.core.formula.values import ZERO, Choice, ErrorCode, fail

_CRITERION = re.compile(r"(<=|>=|<>|<|>|=)(.*)", re.DOTALL)
_PLAIN_NUMBER = re.compile(r"[+-]?(\d{1,100}(\.\d{0,100})?|\.\d{1,100})", re.ASCII)
_LIST = Parameter("list", Role.LIST)
_CRITERION_PARAMETER = Parameter("criterion", Role.VALUE)
_FURTHER = Parameter("further", Role.VALUES, optional=True, repeated=True)

_TESTS: dict[str, Callable[[Any, Any], bool]] = {
    "=": convert.equal,
    "<>": lambda item, value: not convert.equal(item, value),
    "<": convert.less,
    "<=": convert.not_more,
    ">": lambda item, value: convert.less(value, item),
    ">=": lambda item, value: convert.not_more(value, item),
}


def _value_of(text: str) -> Any:
    if _PLAIN_NUMBER.fullmatch(text):
        return Decimal(text)
    try:
        return datetime.date.fromisoformat(text)
    except ValueError:
        return text or None


def _is_written(criterion: Any) -> bool:
    """Say whether a criterion is a text that may begin with a comparison."""
    return isinstance(criterion, str) and not isinstance(criterion, Choice)


def _meets(criterion: Any) -> Callable[[Any], bool]:
    match = _CRITERION.fullmatch(criterion) if _is_written(criterion) else None
    if match:
        test, value = _TESTS[match[1]], _value_of(match[2].strip())
    else:
        test, value = convert.equal, criterion
    return lambda item: _same_kind(item, value, test)


def _same_kind(item: Any, value: Any, test: Callable[[Any, Any], bool]) -> bool:
    ordering = test not in (convert.equal, _TESTS["<>"])
    return False if ordering and _kind(item) is not _kind(value) and not isinstance(item, Choice) else test(item, value)


def _kind(value: Any) -> type:
    return str if isinstance(value, str) else type(value)


def _fitting(tests: list[tuple[list[Any], Any]], count: int) -> list[bool]:
    fits = [True] * count
    for items, criterion in tests:
        if len(items) != count:
            fail(ErrorCode.VALUE, "These lists are of different length.")
        is_plain = not (_is_written(criterion) and _CRITERION.fullmatch(criterion))
        positions = items.positions(criterion) if is_plain and isinstance(items, Column) else None
        if positions is None:
            spend(count)
            meets = _meets(criterion)
            fits = [before and meets(item) for before, item in zip(fits, items, strict=True)]
        else:
            found = set(positions)
            fits = [before and at in found for at, before in enumerate(fits)]
    return fits


def _numbers(items: list[Any], fits: list[bool]) -> list[Decimal]:
    return [
        convert.number(item)
        for item, fit in zip(items, fits, strict=True)
        if fit and item is not None and item.__class__ is not str
    ]


def _summed(items: list[Any], fits: list[bool]) -> Decimal:
    return sum(_numbers(items, fits), ZERO)


def _sum_if(items: list[Any], criterion: Any, summed: list[Any] | None = None) -> Decimal:
    fits = _fitting([(items, criterion)], len(items if summed is None else summed))
    return _summed(items if summed is None else summed, fits)


def _count_if(items: list[Any], criterion: Any) -> Decimal:
    return Decimal(sum(_fitting([(items, criterion)], len(items))))


def _average_if(items: list[Any], criterion: Any, averaged: list[Any] | None = None) -> Decimal:
    numbers = _numbers(
        items if averaged is None else averaged,
        _fitting([(items, criterion)], len(items if averaged is None else averaged)),
    )
    return sum(numbers, ZERO) / len(numbers)


def _pairs(arguments: tuple[Any, ...]) -> list[tuple[list[Any], Any]]:
    if len(arguments) % 2:
        fail(ErrorCode.VALUE, "Each list needs a criterion after it.")
    return list(zip(arguments[::2], arguments[1::2], strict=True))


def _sum_ifs(summed: list[Any], *arguments: Any) -> Decimal:
    return _summed(summed, _fitting(_pairs(arguments), len(summed)))


def _count_ifs(*arguments: Any) -> Decimal:
    return Decimal(sum(_fitting(_pairs(arguments), len(arguments[0]))))


def _emit_pairs(call: Callable[..., Decimal], lists_before: int) -> Callable[[CodeWriter, Argument, Role], str]:
    def emit(emitter: CodeWriter, part: Argument, role: Role) -> str:
        arguments = []
        for index, argument in enumerate(part.parts):
            is_list = index < lists_before or (index - lists_before) % 2 == 0
            code = emitter.flat_list([argument], Role.VALUES) if is_list else emitter.emit(argument, Role.VALUE)
            arguments.append(code)
        return emitter.convert(f"{emitter.helper(call)}({', '.join(arguments)})", part.type, role)

    return emit


FUNCTIONS: tuple[Function, ...] = (
    function(
        "SUMIF",
        (_LIST, _CRITERION_PARAMETER, Parameter("summed", Role.LIST, optional=True)),
        NUMBER,
        "The items that meet the criterion added, or what stands beside them in another list.",
        _sum_if,
        ('SUMIF(7, ">=5")', "7"),
        ('SUMIF("dome", "DOME", 3)', "3"),
    ),
    function(
        "COUNTIF",
        (_LIST, _CRITERION_PARAMETER),
        NUMBER,
        "How many items meet the criterion.",
        _count_if,
        ('COUNTIF(7, "<>7")', "0"),
    ),
    function(
        "AVERAGEIF",
        (_LIST, _CRITERION_PARAMETER, Parameter("averaged", Role.LIST, optional=True)),
        NUMBER,
        "The mean of the items that meet the criterion, or of what stands beside them.",
        _average_if,
        ('AVERAGEIF(7, ">5")', "7"),
        ('AVERAGEIF(7, ">8")', "#DIV/0!"),
    ),
    Function(
        name="SUMIFS",
        parameters=(Parameter("summed", Role.LIST), _LIST, _CRITERION_PARAMETER, _FURTHER),
        result=NUMBER,
        purpose="The items added for which every list meets the criterion that follows it.",
        examples=(Example('SUMIFS(10, 7, ">5", "dome", "dome")', "10"),),
        emit=_emit_pairs(_sum_ifs, 1),
    ),
    Function(
        name="COUNTIFS",
        parameters=(_LIST, _CRITERION_PARAMETER, _FURTHER),
        result=NUMBER,
        purpose="For how many places every list meets the criterion that follows it.",
        examples=(Example('COUNTIFS(7, ">5", "dome", "harbour")', "0"),),
        emit=_emit_pairs(_count_ifs, 0),
    ),
)
