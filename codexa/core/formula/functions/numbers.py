"""Numbers: sums, counts and rounding, in exact decimals."""

import datetime
from collections.abc import Callable
from decimal import (
    ROUND_DOWN,
    ROUND_FLOOR,
    ROUND_HALF_UP,
    ROUND_UP,
    Context,
    Decimal,
    InvalidOperation,
)
from functools import cache
from typing import Any

from codexa.core.formula import convert
from codexa.core.formula.constants import folded_number
from codexa.core.formula.functions.function import Argument, CodeWriter, Example, Function, Parameter, Role
from codexa.core.formula.metering import spend
from codexa.core.formula.types import NUMBER, NUMBERS, Digits, Kind, Type
from codexa.core.formula.values import ARITHMETIC, ONE, ZERO, ErrorCode, compared, fail, settled, whole

_USUAL_PLACES = 20
_LEFT_OVER = -6  # a sum of amounts below 1E21 that leaves something over leaves less than 1E-6
_EXACT = Context(prec=13_000, Emax=6144, Emin=-6143, traps=[InvalidOperation])  # digits between any two numbers here
_KNOWN, _MILLIONTH = Decimal("1E-27"), Decimal("1E-6")
_LONG_CHAIN = 60  # arguments
_MOST_DECIMALS = 300  # further from the point than this no number here has a digit

_NUMBERS = (Parameter("numbers", Role.NUMBERS), Parameter("further", Role.NUMBERS, optional=True, repeated=True))
_VALUES = (Parameter("values", Role.VALUES), Parameter("further", Role.VALUES, optional=True, repeated=True))
_NUMBER = Parameter("number", Role.NUMBER)
_DECIMALS = Parameter("decimals", Role.NUMBER, optional=True)
_COUNTED = (Decimal, datetime.date, datetime.datetime, datetime.time)


def like_arguments(types: list[Type]) -> Type:
    """Return the type of a number made of such: money where one of them is."""
    kinds = {each.kind for each in types}
    return Type(kind=Kind.MONEY if Kind.MONEY in kinds else Kind.NUMBER)


def like_first(types: list[Type]) -> Type:
    """Return the type of a number made of the first argument: money where that is money."""
    return Type(kind=types[0].kind if types[0].kind in NUMBERS else Kind.NUMBER)


def _sum_type(types: list[Type]) -> Type:
    digits = [each.digits for each in types if each.digits is not None and not each.is_list]
    exact = None
    if len(digits) == len(types):
        exact = Digits(
            whole=max(each.whole for each in digits) + len(str(len(digits))),
            decimals=max(each.decimals for each in digits),
        )
    return Type(kind=like_arguments(types).kind, digits=exact)


def _emit_sum(emitter: CodeWriter, call: Argument, role: Role) -> str:
    # Python reads a chain of + by going one level deeper for each.
    exact = call.type.digits is not None and call.type.digits.comparable_as_is
    if not exact or len(call.parts) > _LONG_CHAIN:
        code = f"{emitter.helper(total_of)}({emitter.flat_list(call.parts, Role.NUMBERS)})"
    else:
        code = "(" + " + ".join(emitter.emit(part, Role.NUMBER) for part in call.parts) + ")"
    return emitter.convert(code, call.type, role)


def values_of(values: list[Any]) -> list[Decimal]:
    """Return the numbers of a list as a sum sees them."""
    spend(len(values) >> 2)
    # As in the standard, text in a list is passed over; a blank counts for nothing.
    return [convert.number(value) for value in values if value is not None and value.__class__ is not str]


def total_of(values: list[Any]) -> Decimal:
    """Return the sum of a list: blanks and texts are passed over, and equal parts leave nothing over."""
    try:
        result = sum(values, ZERO)  # numbers alone, which is usual, need no second look
    except TypeError:
        values = values_of(values)
        result = sum(values, ZERO)
    return result if result.adjusted() >= _LEFT_OVER or not result else _settled_sum(result, values)


def _settled_sum(result: Decimal, values: list[Decimal]) -> Decimal:
    # As with the difference of two numbers: what is added and what is taken away may be equal.
    above, below = (sum((each for each in values if (each > 0) is sign), ZERO) for sign in (True, False))
    return settled(result, above, -below)


def _product(values: list[Any]) -> Decimal:
    result = ONE
    for value in values_of(values):
        result *= value
    return result


def _count(values: list[Any]) -> Decimal:
    kinds = list(map(type, values))
    return Decimal(sum(map(kinds.count, _COUNTED)))


def _count_filled(values: list[Any]) -> Decimal:
    return Decimal(len([value for value in values if value is not None]))


def _count_blank(values: list[Any]) -> Decimal:
    return Decimal(len([value for value in values if value is None or (isinstance(value, str) and not value)]))


def rounder(rounding: str) -> Callable[..., Decimal]:
    """Return what rounds a number to so many decimals in that manner (`decimal.ROUND_…`)."""

    def round_to(number: Decimal, decimals: Decimal = ZERO) -> Decimal:
        places = whole(decimals)
        if places > _MOST_DECIMALS or number.is_zero():
            return number
        if places < -_MOST_DECIMALS:
            return ZERO
        number = compared(number)
        # A number that ends before the last wanted digit is already round; quantizing it could overflow 34 digits.
        exponent = number.as_tuple().exponent
        if isinstance(exponent, int) and exponent >= -places:
            return number
        rounded = number.quantize(Decimal(1).scaleb(-places), rounding=rounding, context=ARITHMETIC)
        return rounded if places >= 0 else rounded + ZERO

    return round_to


def _emit_rounded(rounding: str) -> Callable[[CodeWriter, Argument, Role], str]:
    # To so many decimals as stand in the formula it is quicker.
    anywhere = rounder(rounding)

    def emit(emitter: CodeWriter, call: Argument, role: Role) -> str:
        number = emitter.emit(call.parts[0], Role.NUMBER)
        places = folded_number(call.parts[1].node) if len(call.parts) > 1 else ZERO
        if places is None or places != int(places) or not 0 <= places <= _USUAL_PLACES:
            code = f"{emitter.helper(anywhere)}({number}, {emitter.emit(call.parts[1], Role.NUMBER)})"
        else:
            code = f"{emitter.helper(_rounded_to(int(places), rounding))}({number})"
        return emitter.convert(code, call.type, role)

    return emit


@cache
def _rounded_to(places: int, rounding: str) -> Callable[[Decimal], Decimal]:
    quantum, anywhere = Decimal(1).scaleb(-places), rounder(rounding)

    def round_to(number: Decimal) -> Decimal:
        try:
            rounded = compared(number).quantize(quantum, rounding)
        except InvalidOperation:  # too many digits to hold them all: such a number is round already
            return anywhere(number, Decimal(places))
        return rounded

    return round_to


def _whole(number: Decimal) -> Decimal:
    return compared(number).to_integral_value(ROUND_FLOOR)


def _modulo(number: Decimal, divisor: Decimal) -> Decimal:
    if not divisor:
        return number / divisor
    # The result has the sign of the divisor (OpenFormula 6.16.37), Python's % that of the number.
    try:
        left = number % divisor
    except InvalidOperation:  # the quotient has more than 34 digits
        left = _EXACT.remainder(number, divisor)
    if left and left.is_signed() is not divisor.is_signed():
        left += divisor
    return ZERO if _is_left_over(left, number, divisor) else left + ZERO


def _is_left_over(left: Decimal, number: Decimal, divisor: Decimal) -> bool:
    """Say whether a remainder is only what 34 digits leave over of a third: of 1/3*3 divided by 1, or of 2 by 1/3."""
    if _is_certain(number) and _is_certain(divisor):
        return left == divisor
    known = min(abs(number) * _KNOWN, abs(divisor) * _MILLIONTH)
    return min(abs(left), abs(divisor - left)) <= known


def _is_certain(number: Decimal) -> bool:
    # A whole number, as of a check digit, or one that ends long before the last of 34 digits, was not divided.
    return number == number.to_integral_value() or compared(number) == number


def _root(number: Decimal) -> Decimal:
    if number.is_signed() and number:
        fail(ErrorCode.NUMBER, "A negative number has no square root.")
    return number.sqrt()


def _emit_absolute(emitter: CodeWriter, call: Argument, role: Role) -> str:
    return emitter.convert(f"abs({emitter.emit(call.parts[0], Role.NUMBER)})", call.type, role)


def _over(name: str, call: Callable[..., Any], purpose: str, *examples: Example) -> Function:
    takes_values = name in ("COUNT", "COUNTA", "COUNTBLANK")
    return Function(
        name=name,
        parameters=_VALUES if takes_values else _NUMBERS,
        result=NUMBER if takes_values else like_arguments,
        purpose=purpose,
        examples=examples,
        call=call,
        sees_failures=takes_values,
    )


def rounding_function(name: str, rounding: str, purpose: str, *examples: tuple[str, str]) -> Function:
    """Return a function that rounds in that manner (`decimal.ROUND_…`) to so many decimals."""
    return Function(
        name=name,
        parameters=(_NUMBER, _DECIMALS),
        result=like_first,
        purpose=purpose,
        examples=tuple(Example(*each) for each in examples),
        emit=_emit_rounded(rounding),
    )


FUNCTIONS = (
    Function(
        name="SUM",
        parameters=_NUMBERS,
        result=_sum_type,
        purpose="All numbers added; blanks count as 0.",
        examples=(Example("SUM(1, 2.5, 3)", "6.5"), Example("0.1 + 0.2 = 0.3", "TRUE")),
        emit=_emit_sum,
    ),
    _over("PRODUCT", _product, "All numbers multiplied.", Example("PRODUCT(2, 3, 4)", "24")),
    _over("COUNT", _count, "How many of the values are numbers, dates or times.", Example('COUNT(1, "a", 2)', "2")),
    _over("COUNTA", _count_filled, "How many of the values are not blank.", Example('COUNTA(1, "a")', "2")),
    _over("COUNTBLANK", _count_blank, "How many of the values are blank.", Example('COUNTBLANK(1, "")', "1")),
    rounding_function(
        "ROUND",
        ROUND_HALF_UP,
        "Rounded to so many decimals, half away from zero.",
        ("ROUND(2.345, 2)", "2.35"),
        ("ROUND(-2.5)", "-3"),
        ("ROUND(1234, -2)", "1200"),
    ),
    rounding_function("ROUNDUP", ROUND_UP, "Rounded away from zero.", ("ROUNDUP(2.01)", "3")),
    rounding_function("ROUNDDOWN", ROUND_DOWN, "Rounded towards zero.", ("ROUNDDOWN(-2.9)", "-2")),
    Function(
        name="INT",
        parameters=(_NUMBER,),
        result=NUMBER,
        purpose="The greatest whole number that is not more.",
        examples=(Example("INT(-1.5)", "-2"), Example("INT(1/3*3)", "1")),
        call=_whole,
    ),
    Function(
        name="MOD",
        parameters=(_NUMBER, Parameter("divisor", Role.NUMBER)),
        result=NUMBER,
        purpose="What a division leaves over; it has the sign of the divisor.",
        examples=(Example("MOD(-7, 3)", "2"), Example("MOD(7, -3)", "-2")),
        call=_modulo,
    ),
    Function(
        name="ABS",
        parameters=(_NUMBER,),
        result=lambda types: Type(kind=like_arguments(types).kind, digits=types[0].digits),
        purpose="The number without its sign.",
        examples=(Example("ABS(-3)", "3"),),
        emit=_emit_absolute,
    ),
    Function(
        name="SQRT",
        parameters=(_NUMBER,),
        result=NUMBER,
        purpose="The square root.",
        examples=(Example("SQRT(9)", "3"),),
        call=_root,
    ),
)
