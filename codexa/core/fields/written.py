"""Numbers as people of a language write them, with all the digits that they have."""

from decimal import Decimal, localcontext

from babel.numbers import format_currency, format_decimal, format_percent

from codexa.core.formula.values import WIDE


def decimal_text(value: Decimal, locale: str, pattern: str | None = None) -> str:
    """Return a number by a pattern (Unicode CLDR), or with all its decimals."""
    # Babel rounds with the digits that this thread computes with, and gives up on a number that has more.
    with localcontext(WIDE):
        return str(format_decimal(value, format=pattern, locale=locale, decimal_quantization=pattern is not None))


def currency_text(amount: Decimal, currency: str, locale: str) -> str:
    """Return an amount with its currency (ISO 4217)."""
    with localcontext(WIDE):
        return str(format_currency(amount, currency, locale=locale))


def percent_text(value: Decimal, locale: str, pattern: str) -> str:
    """Return a share in hundredths by a pattern."""
    with localcontext(WIDE):
        return str(format_percent(value, format=pattern, locale=locale))
