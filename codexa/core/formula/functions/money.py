"""Money over time (OpenFormula 6.12): what is paid out is negative, what is received positive."""

from decimal import Decimal
from typing import Any

from codexa.core.formula.exponents import power
from codexa.core.formula.functions.function import Function, Parameter, Role, function
from codexa.core.formula.functions.numbers import values_of
from codexa.core.formula.types import NUMBER
from codexa.core.formula.values import ONE, ZERO

_RATE = Parameter("rate", Role.NUMBER)
_PERIODS = Parameter("periods", Role.NUMBER)
_DUE = Parameter("at_start", Role.NUMBER, optional=True)


def _growth(rate: Decimal, periods: Decimal, at_start: Decimal) -> tuple[Decimal, Decimal]:
    """Return what one unit grows to, and what a payment of one unit each period grows to."""
    if rate.is_zero():
        return ONE, periods
    grown = power(ONE + rate, periods)
    payments = (grown - ONE) / rate
    return grown, payments * (ONE + rate) if at_start else payments


def _payment(
    rate: Decimal, periods: Decimal, present: Decimal, future: Decimal = ZERO, at_start: Decimal = ZERO
) -> Decimal:
    grown, payments = _growth(rate, periods, at_start)
    return -(present * grown + future) / payments


def _present(
    rate: Decimal, periods: Decimal, payment: Decimal, future: Decimal = ZERO, at_start: Decimal = ZERO
) -> Decimal:
    grown, payments = _growth(rate, periods, at_start)
    return -(payment * payments + future) / grown


def _future(
    rate: Decimal, periods: Decimal, payment: Decimal, present: Decimal = ZERO, at_start: Decimal = ZERO
) -> Decimal:
    grown, payments = _growth(rate, periods, at_start)
    return -(present * grown + payment * payments)


def _net_present(rate: Decimal, values: list[Any]) -> Decimal:
    total, factor = ZERO, ONE
    for value in values_of(values):
        factor *= ONE + rate
        total += value / factor
    return total


FUNCTIONS: tuple[Function, ...] = (
    function(
        "PMT",
        (_RATE, _PERIODS, Parameter("present", Role.NUMBER), Parameter("future", Role.NUMBER, optional=True), _DUE),
        NUMBER,
        "The payment each period that pays off a loan; with 1 as last argument at the start of each period.",
        _payment,
        ("ROUND(PMT(0.5%, 24, 1200), 2)", "-53.18"),
        ("PMT(0, 12, 1200)", "-100"),
    ),
    function(
        "PV",
        (_RATE, _PERIODS, Parameter("payment", Role.NUMBER), Parameter("future", Role.NUMBER, optional=True), _DUE),
        NUMBER,
        "What a row of payments is worth today.",
        _present,
        ("ROUND(PV(1%, 12, -100), 2)", "1125.51"),
    ),
    function(
        "FV",
        (_RATE, _PERIODS, Parameter("payment", Role.NUMBER), Parameter("present", Role.NUMBER, optional=True), _DUE),
        NUMBER,
        "What a row of payments grows to.",
        _future,
        ("ROUND(FV(1%, 12, -100), 2)", "1268.25"),
    ),
    function(
        "NPV",
        (_RATE, Parameter("values", Role.NUMBERS), Parameter("further", Role.NUMBERS, optional=True, repeated=True)),
        NUMBER,
        "What later payments, one each period, are worth today.",
        _net_present,
        ("ROUND(NPV(10%, 110, 121), 2)", "200"),
    ),
)
