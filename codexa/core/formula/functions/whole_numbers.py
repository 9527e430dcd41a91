"""Whole numbers: steps, parity, divisors."""

import math
from collections.abc import Callable
from decimal import ROUND_CEILING, ROUND_DOWN, ROUND_FLOOR, ROUND_HALF_UP, ROUND_UP, Decimal
from typing import Any

from codexa.core.formula.convert import text_of_number
from codexa.core.formula.functions.function import Function, Parameter, Role, function
from codexa.core.formula.functions.numbers import like_first, rounding_function, values_of
from codexa.core.formula.types import NUMBER
from codexa.core.formula.values import ONE, ZERO, ErrorCode, compared, fail, whole

_NUMBER = Parameter("number", Role.NUMBER)
_STEP = Parameter("step", Role.NUMBER, optional=True)
_MODE = Parameter("mode", Role.NUMBER, optional=True)
_NUMBERS = (Parameter("numbers", Role.NUMBERS), Parameter("further", Role.NUMBERS, optional=True, repeated=True))
_MOST_DIGITS = 34
_MOST = 10**_MOST_DIGITS


def _ceiling(number: Decimal, step: Decimal = ONE, mode: Decimal = ZERO) -> Decimal:
    return _to_step(number, step, ROUND_UP if mode else ROUND_CEILING)


def _floor(number: Decimal, step: Decimal = ONE, mode: Decimal = ZERO) -> Decimal:
    return _to_step(number, step, ROUND_DOWN if mode else ROUND_FLOOR)


def _to_multiple(number: Decimal, multiple: Decimal) -> Decimal:
    return _to_step(number, multiple, ROUND_HALF_UP)


def _to_step(number: Decimal, step: Decimal, rounding: str) -> Decimal:
    # Multiples of -5 are those of 5; with a mode the amount is rounded, not the number (OpenFormula 6.17.1, 6.17.3).
    if not step or not number:
        return ZERO
    if step.is_signed() and not number.is_signed():
        fail(ErrorCode.NUMBER, f"A number above 0 wants a step above 0, not {text_of_number(step)}.")
    step = abs(step)
    return compared(number / step).to_integral_value(rounding) * step + ZERO


def _quotient(number: Decimal, divisor: Decimal) -> Decimal:
    return compared(number / divisor).to_integral_value(ROUND_DOWN)


def _away_from_zero(number: Decimal, odd: bool) -> Decimal:
    # The next even or odd whole number away from zero (OpenFormula 6.17.4, 6.17.8).
    whole = compared(number).to_integral_value(ROUND_UP)
    if (whole % 2 != 0) is odd:
        return whole
    return whole - ONE if whole < 0 else whole + ONE


def _over_whole(combine: Callable[..., int]) -> Callable[[list[Any]], Decimal]:
    def over(values: list[Any]) -> Decimal:
        numbers = list(map(whole, values_of(values)))
        if not numbers or not all(0 <= number < _MOST for number in numbers):
            fail(ErrorCode.NUMBER, f"Whole numbers from 0 on are wanted here, of at most {_MOST_DIGITS} digits.")
        return Decimal(combine(*numbers)) + ZERO

    return over


_SIGNS = "A negative number may have a step above 0; the standard wants the same sign."

FUNCTIONS: tuple[Function, ...] = (
    function(
        "CEILING",
        (_NUMBER, _STEP, _MODE),
        like_first,
        "Up to a multiple of the step; with a mode other than 0 a negative number away from zero.",
        _ceiling,
        ("CEILING(7, 5)", "10"),
        ("CEILING(-7, -5)", "-5"),
        ("CEILING(-7, -5, 1)", "-10"),
        differs=_SIGNS,
    ),
    function(
        "FLOOR",
        (_NUMBER, _STEP, _MODE),
        like_first,
        "Down to a multiple of the step; with a mode other than 0 a negative number towards zero.",
        _floor,
        ("FLOOR(7, 5)", "5"),
        ("FLOOR(-7, -5)", "-10"),
        differs=_SIGNS,
    ),
    function(
        "MROUND",
        (_NUMBER, Parameter("multiple", Role.NUMBER)),
        like_first,
        "The nearest multiple; halves go away from zero.",
        _to_multiple,
        ("MROUND(7.5, 5)", "10"),
        ("MROUND(-7, 5)", "-5"),
        ("MROUND(7, -5)", "#NUM!"),
        differs=_SIGNS,
    ),
    rounding_function("TRUNC", ROUND_DOWN, "Cut off after so many decimals.", ("TRUNC(-2.97, 1)", "-2.9")),
    function(
        "EVEN",
        (_NUMBER,),
        NUMBER,
        "The next even whole number, away from zero.",
        lambda number: _away_from_zero(number, odd=False),
        ("EVEN(2.1)", "4"),
        ("EVEN(-1)", "-2"),
    ),
    function(
        "ODD",
        (_NUMBER,),
        NUMBER,
        "The next odd whole number, away from zero.",
        lambda number: _away_from_zero(number, odd=True),
        ("ODD(2)", "3"),
        ("ODD(0)", "1"),
    ),
    function(
        "QUOTIENT",
        (_NUMBER, Parameter("divisor", Role.NUMBER)),
        NUMBER,
        "How many whole times the divisor goes in.",
        _quotient,
        ("QUOTIENT(-7, 2)", "-3"),
    ),
    function("GCD", _NUMBERS, NUMBER, "The greatest common divisor.", _over_whole(math.gcd), ("GCD(12, 18)", "6")),
    function("LCM", _NUMBERS, NUMBER, "The least common multiple.", _over_whole(math.lcm), ("LCM(4, 6)", "12")),
)
