"""Computed values: settled as their format says, and shown in the form's language."""

import datetime
from decimal import ROUND_HALF_UP, Decimal, InvalidOperation
from functools import cache
from typing import Any

from babel.dates import format_date
from babel.numbers import get_currency_precision

from codexa.core.definition.figures import Formatted
from codexa.core.fields.field_type import Medium, Region
from codexa.core.fields.written import currency_text, decimal_text, percent_text
from codexa.core.formula import convert
from codexa.core.formula.functions.numbers import rounder
from codexa.core.formula.types import Kind, Type
from codexa.core.formula.values import ARITHMETIC, ZERO, Choice, ErrorCode, fail, seen

_half_up = rounder(ROUND_HALF_UP)
_KINDS = {"number": Kind.NUMBER, "percent": Kind.NUMBER, "money": Kind.MONEY, "text": Kind.TEXT, "date": Kind.DATE}


def type_of_format(formatted: Formatted) -> Type:
    """Return the type of a value with that format; blank where the formula gives a blank."""
    return Type(kind=_KINDS[formatted.format], may_be_blank=True)


def settle(value: Any, formatted: Formatted, region: Region) -> Any:
    """Return a formula's result (never blank) as a value of that format, money to the minor unit.

    Raises FormulaFailure where the result is of another kind.
    """
    match formatted.format:
        case "money":
            return to_minor_unit(convert.number(value), region.currency)
        case "number" | "percent":
            return _rounded(convert.number(value), formatted)
        case "date":
            return convert.date(value)
    return value.label if isinstance(value, Choice) else convert.text(value)


def present(value: Any, formatted: Formatted, region: Region, medium: Medium) -> str:
    """Return a settled value as text: in the form's language for people, plain for programs."""
    if medium is Medium.CSV:
        money = formatted.format == "money"
        return format(to_minor_unit(value, region.currency), "f") if money else convert.text(value)
    if isinstance(value, Decimal):
        return _number(value, formatted, region)
    if isinstance(value, datetime.date):
        return str(format_date(value, format="long", locale=region.locale))
    return str(value)


def _number(value: Decimal, formatted: Formatted, region: Region) -> str:
    if formatted.format == "money":
        return currency_text(value, region.currency, region.locale)
    digits = "." + "0" * formatted.decimals if formatted.decimals else ""
    if formatted.format == "percent":
        return percent_text(seen(value, formatted.decimals + 2), region.locale, f"#,##0{digits}%")
    return decimal_text(seen(value, formatted.decimals), region.locale, f"#,##0{digits}")


def _rounded(value: Decimal, formatted: Formatted) -> Decimal:
    if formatted.kept_decimals is None:
        return value
    digits = formatted.kept_decimals + (2 if formatted.format == "percent" else 0)
    return _half_up(value, Decimal(digits))


def load(stored: str, formatted: Formatted) -> Any:
    """Return the value of the plain text that it was kept as."""
    if formatted.format in ("number", "money", "percent"):
        return Decimal(stored)
    return datetime.date.fromisoformat(stored) if formatted.format == "date" else stored


def to_minor_unit(value: Decimal, currency: str) -> Decimal:
    """Return an amount rounded to the currency's minor unit (ISO 4217), half away from zero.

    Raises FormulaFailure where it has more digits than are computed with.
    """
    try:
        return value.quantize(_minor_unit(currency), context=ARITHMETIC) + ZERO
    except InvalidOperation:
        fail(ErrorCode.NUMBER, "This is more than any amount may be.")


@cache
def minor_digits(currency: str) -> int:
    """Return how many decimals the currency has (ISO 4217)."""
    return int(get_currency_precision(currency))


@cache
def _minor_unit(currency: str) -> Decimal:
    return Decimal(1).scaleb(-minor_digits(currency))
