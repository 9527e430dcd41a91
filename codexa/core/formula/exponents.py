"""Powers, logarithms and e^x to 34 digits.

What has no end is computed by MPFR, correctly rounded in 140 bits (42 digits).
"""

from decimal import Decimal, Overflow
from typing import Any

import gmpy2  # type: ignore[import-untyped]  # the package ships no types

from codexa.core.formula.metering import spend
from codexa.core.formula.values import ARITHMETIC, ONE, ZERO, ErrorCode, compared, fail

SMALL_POWER = 64  # up to here whole powers are multiplied out
_MOST_MULTIPLIED = Decimal(SMALL_POWER)
_STEPS, _ROOT_STEPS = 10, 3  # see metering
_TEN = Decimal(10)
_HALF = Decimal("0.5")
_BITS, _DIGITS = 140, 42
_MPFR = gmpy2.context(precision=_BITS)
_LN_10 = _MPFR.log(gmpy2.mpfr(10, _BITS))


def _to_bits(number: Decimal) -> Any:
    return gmpy2.mpfr(str(number), _BITS)


def _to_decimal(number: Any) -> Decimal:
    if not gmpy2.is_finite(number):
        raise Overflow
    digits, exponent, _ = number.digits(10, _DIGITS)
    return ARITHMETIC.create_decimal(f"{digits}E{exponent - _DIGITS}")


def power(base: Decimal, exponent: Decimal) -> Decimal:
    """Return a number raised. Raises DivisionByZero for 0 to a negative power, Overflow for what is too large."""
    whole = exponent.to_integral_value()
    is_small = abs(whole) <= _MOST_MULTIPLIED
    if exponent == whole and is_small and base:
        return base**whole
    if not base:
        return ONE / base if exponent.is_signed() and exponent else base**exponent
    if exponent == whole:
        pass  # multiplied out it would take long
    elif base.is_signed():
        fail(ErrorCode.NUMBER, "A negative number has no such power.")
    elif is_small and abs(exponent - whole) == _HALF:
        spend(_ROOT_STEPS)
        root = base.sqrt(ARITHMETIC)
        return base**whole * root if exponent > whole else base**whole / root
    spend(_STEPS)
    return _to_decimal(_MPFR.pow(_to_bits(base), _to_bits(exponent)))


def logarithm(number: Decimal, base: Decimal = _TEN) -> Decimal:
    """Return the logarithm to a base. Raises FormulaFailure from 0 down, DivisionByZero for base 1."""
    if not (_is_above_0(number) and _is_above_0(base)):
        fail(ErrorCode.NUMBER, "Only numbers above 0 have a logarithm.")
    if base is _TEN:
        below = _LN_10
    elif compared(base) == ONE:
        return ONE / ZERO
    else:
        below = _MPFR.log(_to_bits(base))
    spend(_STEPS)
    return _to_decimal(_MPFR.div(_MPFR.log(_to_bits(number)), below))


def _is_above_0(number: Decimal) -> bool:
    return bool(number) and not number.is_signed()


def natural_logarithm(number: Decimal) -> Decimal:
    """Return the logarithm to base e. Raises FormulaFailure from 0 down."""
    if not _is_above_0(number):
        return logarithm(number)
    spend(_STEPS)
    return _to_decimal(_MPFR.log(_to_bits(number)))


def exponential(number: Decimal) -> Decimal:
    """Return e raised. Raises Overflow for what is too large."""
    spend(_STEPS)
    return _to_decimal(_MPFR.exp(_to_bits(number)))
