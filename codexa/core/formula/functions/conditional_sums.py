"""Sums and counts of the items that meet a criterion; see `criteria`."""

import operator
from collections.abc import Callable
from decimal import Decimal
from itertools import compress
from typing import Any

from codexa.core.formula.functions.criteria import Fits, fitting
from codexa.core.formula.functions.function import Argument, CodeWriter, Example, Function, Parameter, Role, function
from codexa.core.formula.functions.numbers import total_of, values_of
from codexa.core.formula.types import NUMBER
from codexa.core.formula.values import ZERO, ErrorCode, fail

_LIST = Parameter("list", Role.LIST)
_CRITERION_PARAMETER = Parameter("criterion", Role.VALUE)
_FURTHER = Parameter("further", Role.VALUES, optional=True, repeated=True)
_CRITERIA = 'A criterion is a value, or text such as ">=5", "<>x" or "d*", in which * is any text and ? any character.'


def _fitting(tests: list[tuple[list[Any], Any]], count: int) -> Fits:
    fits = [True] * count
    for items, criterion in tests:
        if len(items) != count:
            fail(ErrorCode.VALUE, "These lists are of different length.")
        fits = list(map(operator.and_, fits, fitting(items, criterion)))
    return fits


def _those_of(items: list[Any], fits: Fits) -> list[Any]:
    return list(compress(items, fits))


def _sum_if(items: list[Any], criterion: Any, summed: list[Any] | None = None) -> Decimal:
    added = items if summed is None else summed
    return total_of(_those_of(added, _fitting([(items, criterion)], len(added))))


def _count_if(items: list[Any], criterion: Any) -> Decimal:
    return Decimal(sum(fitting(items, criterion)))


def _average_if(items: list[Any], criterion: Any, averaged: list[Any] | None = None) -> Decimal:
    added = items if averaged is None else averaged
    numbers = values_of(_those_of(added, _fitting([(items, criterion)], len(added))))
    return sum(numbers, ZERO) / len(numbers)


def _pairs(arguments: tuple[Any, ...]) -> list[tuple[list[Any], Any]]:
    if len(arguments) % 2:
        fail(ErrorCode.VALUE, "Each list needs a criterion after it.")
    return list(zip(arguments[::2], arguments[1::2], strict=True))


def _sum_ifs(summed: list[Any], *arguments: Any) -> Decimal:
    return total_of(_those_of(summed, _fitting(_pairs(arguments), len(summed))))


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
        f"The items that meet the criterion added, or what stands beside them in another list. {_CRITERIA}",
        _sum_if,
        ('SUMIF(7, ">=5")', "7"),
        ('SUMIF("dome", "DOME", 3)', "3"),
    ),
    function(
        "COUNTIF",
        (_LIST, _CRITERION_PARAMETER),
        NUMBER,
        f"How many items meet the criterion. {_CRITERIA}",
        _count_if,
        ('COUNTIF(7, "<>7")', "0"),
        ('COUNTIF("dome", "d*")', "1"),
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
