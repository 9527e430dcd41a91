"""The conversions and comparisons of formulas where the kind is known only when they run.

Where it is known before, `emit` writes a bare operator instead; both must agree, and tests compare them.
"""

import datetime
import re
from collections.abc import Callable
from decimal import Decimal
from typing import Any

from codexa.core.formula.metering import LONG, bounded, spend
from codexa.core.formula.values import (
    ONE,
    ZERO,
    Choice,
    Choices,
    ChosenRecord,
    ChosenRecords,
    ErrorCode,
    Failed,
    Files,
    FormulaFailure,
    compared,
    difference,
    fail,
    total,
    whole,
)

_PLAIN_DECIMAL = re.compile(r"[+-]?(\d{1,100}(\.\d{0,100})?|\.\d{1,100})", re.ASCII)
_DAY = datetime.timedelta(days=1)
_SECONDS_IN_DAY = Decimal(86_400)


def number(value: Any) -> Decimal:
    """Return a value as arithmetic sees it: blank is 0, yes is 1, a choice is what it counts as."""
    if value.__class__ is Decimal:
        return value
    if value is None:
        return ZERO
    if isinstance(value, bool):
        return ONE if value else ZERO
    if isinstance(value, Choice | Choices):
        return value.counts
    if isinstance(value, str) and not isinstance(value, ChosenRecord):
        return _number_of_text(value)
    return fail(ErrorCode.VALUE, f"A number is wanted here, and this is {called(value)}.")


def _number_of_text(value: str) -> Decimal:
    # Only plain decimal text: what looks like a number to one reader is a date or a code to another.
    text = value.strip()
    if not text:
        return ZERO
    found = plain_number(text)
    if found is None:
        fail(ErrorCode.VALUE, f'A number is wanted here, and this is the text "{value[:40]}".')
    return found


def plain_number(text: str) -> Decimal | None:
    """Return the number of plain decimal text, or None."""
    return Decimal(text) if _PLAIN_DECIMAL.fullmatch(text) else None


def text(value: Any) -> str:
    """Return a value as joined text: blank is "", a choice its code, a date ISO 8601, yes is TRUE."""
    if isinstance(value, str):
        return value
    if value is None:
        return ""
    if value.__class__ is Decimal:
        return text_of_number(value)
    if isinstance(value, bool):
        return "TRUE" if value else "FALSE"
    if isinstance(value, Choices | ChosenRecords):
        return ", ".join(value)
    if isinstance(value, datetime.datetime):
        return value.isoformat(sep=" ", timespec="minutes")
    if isinstance(value, datetime.date):
        return value.isoformat()
    if isinstance(value, datetime.time):
        return value.isoformat(timespec="minutes")
    return fail(ErrorCode.VALUE, f"Text is wanted here, and this is {called(value)}.")


def text_of_number(value: Decimal) -> str:
    """Return a number as plain text, rounded to 28 digits, without trailing zeros."""
    rounded = compared(value)
    if not rounded:
        return "0"
    whole = format(rounded, "f") if -40 <= rounded.adjusted() <= 40 else str(rounded.normalize())
    return whole.rstrip("0").rstrip(".") if "." in whole and "E" not in whole else whole


def condition(value: Any) -> bool:
    """Return a value as yes or no: blank is no, a number is yes unless it is 0."""
    if value is True or value is False:
        return value
    if value is None:
        return False
    if isinstance(value, Decimal):
        return value != 0
    return fail(ErrorCode.VALUE, f"Yes or no is wanted here, and this is {called(value)}.")


def date(value: Any) -> datetime.date:
    """Return a value as a date; text must be an ISO 8601 date."""
    if isinstance(value, datetime.datetime):
        return value.date()
    if isinstance(value, datetime.date):
        return value
    if isinstance(value, str) and not isinstance(value, Choice | ChosenRecord):
        try:
            return datetime.date.fromisoformat(value.strip())
        except ValueError:
            pass
    return fail(ErrorCode.VALUE, f"A date is wanted here, and this is {called(value)}.")


def time(value: Any) -> datetime.time:
    """Return a value as a time of day; text must be an ISO 8601 time."""
    if isinstance(value, datetime.datetime):
        return value.time()
    if isinstance(value, datetime.time):
        return value
    if isinstance(value, str) and not isinstance(value, Choice):
        try:
            return datetime.time.fromisoformat(value.strip()).replace(tzinfo=None)
        except ValueError:
            pass
    return fail(ErrorCode.VALUE, f"A time is wanted here, and this is {called(value)}.")


def join(left: str, right: str) -> str:
    """Return two texts joined."""
    return bounded(left + right)


def joined(pieces: tuple[str, ...]) -> str:
    """Return texts joined; each is bounded, so that the whole can't exhaust memory before it is measured."""
    whole = "".join(pieces)
    if len(whole) <= LONG:
        return whole
    spend(len(bounded(whole)) >> 8)
    return whole


def add(left: Any, right: Any) -> Any:
    """Add numbers, or a number of days to a date."""
    if isinstance(left, datetime.date):
        return shift(left, number(right)) if not isinstance(right, datetime.date) else _no_sum()
    if isinstance(right, datetime.date):
        return shift(right, number(left))
    if isinstance(left, datetime.time):
        return shift_time(left, number(right))
    if isinstance(right, datetime.time):
        return shift_time(right, number(left))
    return total(number(left), number(right))


def _no_sum() -> Any:
    return fail(ErrorCode.VALUE, "Two dates can't be added; their difference is left - right.")


def subtract(left: Any, right: Any) -> Any:
    """Subtract numbers, a number of days from a date, or two dates (a number of days)."""
    if isinstance(left, datetime.date):
        if isinstance(right, datetime.date):
            return days_between(left, right)
        return shift(left, -number(right))
    if isinstance(left, datetime.time):
        if isinstance(right, datetime.time):
            return (_seconds(left) - _seconds(right)) / _SECONDS_IN_DAY
        return shift_time(left, -number(right))
    return difference(number(left), number(right))


def apart(left: Any, right: Any) -> Decimal:
    """Subtract a date, time or moment from another. Raises FormulaFailure where one is blank: it is not day 0."""
    if left is None or right is None:
        fail(ErrorCode.VALUE, "A date or time is wanted here, and this is blank.")
    days: Decimal = subtract(left, right)
    return days


def _seconds(value: datetime.time) -> Decimal:
    return Decimal(value.hour * 3600 + value.minute * 60 + value.second)


def shift_time(value: datetime.time, days: Decimal) -> datetime.time:
    """Return a time that many days later, as a clock shows it: past midnight it starts anew."""
    seconds = int((_seconds(value) + days * _SECONDS_IN_DAY).to_integral_value()) % 86_400
    return datetime.time(seconds // 3600, seconds // 60 % 60, seconds % 60)


def shift(day: datetime.date, days: Decimal) -> datetime.date:
    """Return a date or date-time that many days later; a date counts whole days only."""
    try:
        if isinstance(day, datetime.datetime):
            return day + datetime.timedelta(seconds=int((days * _SECONDS_IN_DAY).to_integral_value()))
        return day + whole(days) * _DAY
    except (OverflowError, ValueError):
        return fail(ErrorCode.NUMBER, "This date is before the year 1 or after the year 9999.")


def days_between(left: datetime.date, right: datetime.date) -> Decimal:
    """Return left - right in days, with a fraction where both have a time."""
    if isinstance(left, datetime.datetime) and isinstance(right, datetime.datetime):
        difference = left - right
        return Decimal(difference.days) + Decimal(difference.seconds) / _SECONDS_IN_DAY
    return Decimal((date(left) - date(right)).days)


_UNORDERED = (Failed, Files, list)
_FAMILIES: tuple[type, ...] = (bool, Decimal, str, datetime.datetime, datetime.date, datetime.time)


def _comparable(value: Any) -> tuple[type, Any]:
    if isinstance(value, Choices):
        return str, ", ".join(value).casefold()
    if isinstance(value, ChosenRecord):
        return ChosenRecord, value.number
    if isinstance(value, ChosenRecords):
        return ChosenRecords, sorted(each.number for each in value)
    for family in _FAMILIES:
        if isinstance(value, family):
            break
    else:
        fail(ErrorCode.VALUE, f"{called(value).capitalize()} can't be compared.")
    if isinstance(value, Decimal):
        return Decimal, compared(value)
    return family, value.casefold() if isinstance(value, str) else value


def _pair(left: Any, right: Any) -> tuple[tuple[type, Any], tuple[type, Any]]:
    # A choice is its number beside a number, and its code beside anything else.
    if isinstance(left, Choice | Choices) and isinstance(right, Decimal):
        left = left.counts
    if isinstance(right, Choice | Choices) and isinstance(left, Decimal):
        right = right.counts
    if isinstance(left, datetime.datetime) is not isinstance(right, datetime.datetime):
        left, right = _at_midnight(left, right), _at_midnight(right, left)
    return _comparable(left), _comparable(right)


def _at_midnight(value: Any, beside: Any) -> Any:
    # Beside a moment, a date is its first moment.
    if isinstance(value, datetime.date) and not isinstance(value, datetime.datetime):
        return datetime.datetime.combine(value, datetime.time(), getattr(beside, "tzinfo", None))
    return value


def equal(left: Any, right: Any) -> bool:
    """Compare for equality: a blank equals a blank and empty text and nothing else; text ignores case."""
    if left is None or right is None:
        other = right if left is None else left
        return other is None or (isinstance(other, str) and other == "") or other == ()
    (left_family, left), (right_family, right) = _pair(left, right)
    return left_family is right_family and bool(left == right)


def have_order(left: Any, right: Any) -> bool:
    """Say whether two values are of one kind that has an order, so that `less` can tell which comes first."""
    if left is None or right is None or isinstance(left, _UNORDERED) or isinstance(right, _UNORDERED):
        return False
    (left_family, _), (right_family, _) = _pair(left, right)
    return left_family is right_family


def less(left: Any, right: Any) -> bool:
    """Say whether left < right; FALSE where either is blank, an error where they are of different kinds."""
    if left is None or right is None:
        return False
    (left_family, left), (right_family, right) = _pair(left, right)
    if left_family is not right_family:
        fail(ErrorCode.VALUE, "Values of different kinds have no order.")
    return bool(left < right)


def not_more(left: Any, right: Any) -> bool:
    """Say whether left <= right, by the rules of `less`."""
    return left is not None and right is not None and not less(right, left)


def more(left: Any, right: Any) -> bool:
    """Say whether left > right, by the rules of `less`."""
    return less(right, left)


def not_less(left: Any, right: Any) -> bool:
    """Say whether left >= right, by the rules of `less`."""
    return not_more(right, left)


ORDERS: dict[str, Callable[[Any, Any], bool]] = {"<": less, "<=": not_more, ">": more, ">=": not_less}


def called(value: Any) -> str:
    """Return what a value is called in a message: "a date"."""
    names: dict[type, str] = {
        bool: "yes or no",
        Decimal: "a number",
        datetime.datetime: "a date and time",
        datetime.date: "a date",
        datetime.time: "a time",
        Choices: "several choices",
        ChosenRecord: "a record",
        ChosenRecords: "several records",
        list: "a list",
    }
    if value.__class__ is Failed:
        raise FormulaFailure(value.error)
    if value is None:
        return "blank"
    return names.get(type(value), "text")
