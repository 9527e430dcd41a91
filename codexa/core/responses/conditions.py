"""Conditions that choose some of a form's responses: what can be asked of which column, and values that are none."""

import datetime
from collections.abc import Callable, Mapping
from decimal import Decimal, InvalidOperation
from typing import Annotated, Any, Literal

from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.definition.parts import Part
from codexa.core.errors import CoreError
from codexa.core.responses.folding import folded
from codexa.core.responses.holds import Holds

How = Literal[
    "is",
    "contains",
    "begins",
    "any_of",
    "all_of",
    "none_of",
    "at_least",
    "at_most",
    "between",
    "last_days",
    "this",
    "blank",
    "answered",
]
_THERE: tuple[How, ...] = ("answered", "blank")
_RANGE: tuple[How, ...] = ("at_least", "at_most", "between")
# What can be asked of a column, the usual first.
HOWS: Mapping[Holds, tuple[How, ...]] = {
    Holds.TEXT: ("contains", "is", "begins", *_THERE),
    Holds.NUMBER: ("is", *_RANGE, *_THERE),
    Holds.YES_NO: ("is", *_THERE),
    Holds.DATE: ("is", *_RANGE, "last_days", "this", *_THERE),
    Holds.TIME: (*_RANGE, *_THERE),
    Holds.MOMENT: ("is", *_RANGE, "last_days", "this", *_THERE),
    Holds.CHOICE: ("any_of", "none_of", *_THERE),
    Holds.CHOICES: ("any_of", "all_of", "none_of", *_THERE),
    Holds.FILES: (*_RANGE, *_THERE),
    Holds.GRID: _THERE,
    Holds.ROWS: (*_RANGE, *_THERE),
}
PERIODS = ("day", "week", "month", "year")
_MOST_DAYS, _MOST_VALUES, _MOST_WORDS = 36_500, 200, 200
_GREATEST = Decimal(10) ** 40

Value = Annotated[str, StringConstraints(max_length=500)]


class Condition(Part):
    """One condition: a column by id, how it is compared, and with what, as text (numbers with a point, ISO 8601 dates).

    A field in rows is named by its repeat, "/" and its id: any row may have it so.
    """

    column: Annotated[str, StringConstraints(max_length=200)]
    how: How
    values: Annotated[tuple[Value, ...], Setting(max_length=_MOST_VALUES)] = ()


class Filter(Part):
    """Which responses: all conditions must hold, or any; and each of the words must be found in what was answered."""

    match: Literal["all", "any"] = "all"
    conditions: Annotated[tuple[Condition, ...], Setting(max_length=40)] = ()
    words: Annotated[str, StringConstraints(max_length=_MOST_WORDS)] = ""


class ConditionError(CoreError):
    """A condition can't be looked for; `at` is its place among the conditions, `message` says why and what to do."""

    def __init__(self, at: int, message: str) -> None:
        super().__init__(message)
        self.at, self.message = at, message


def read_values(condition: Condition, holds: Holds, at: int, name: str) -> tuple[Any, ...]:
    """Return a condition's values as the column's are compared. Raises ConditionError; `name` is the column's."""
    if condition.how not in HOWS[holds]:
        raise ConditionError(at, f"{name} can't be asked for {_said(condition.how)}. Choose another comparison.")
    wanted = _how_many(condition.how)
    given = [each.strip() for each in condition.values]
    if wanted is None and not any(given):
        raise ConditionError(at, f"Choose at least one value for {name}.")
    if wanted is not None and len(given) != wanted:
        raise ConditionError(at, f"{name} {_said(condition.how)} takes {wanted} values and got {len(given)}.")
    read = _reader(condition.how, holds)
    values = tuple(_read(read, text, at, name) for text in given)
    if condition.how == "between" and values[0] > values[1]:
        raise ConditionError(at, f"{name}: {given[0]} comes after {given[1]}. Swap the two.")
    return values


def _how_many(how: How) -> int | None:
    """Return how many values a comparison takes; None for one or more."""
    if how in _THERE:
        return 0
    if how in ("any_of", "all_of", "none_of"):
        return None
    return 2 if how == "between" else 1


def _said(how: str) -> str:
    return f'"{how.replace("_", " ")}"'


Read = Callable[[str], Any]


def _read(read: "tuple[Read, str]", text: str, at: int, name: str) -> Any:
    try:
        return read[0](text)
    except (ValueError, InvalidOperation):
        shown = text if len(text) <= 40 else f"{text[:40]}…"
        raise ConditionError(at, f'{name}: "{shown}" is no {read[1]}.') from None


def _number(text: str) -> Decimal:
    number = Decimal(text)
    if not number.is_finite() or abs(number) > _GREATEST:
        raise ValueError(text)
    return number


def _days(text: str) -> int:
    days = int(text)
    if not 1 <= days <= _MOST_DAYS:
        raise ValueError(text)
    return days


def _words(text: str) -> str:
    if not (words := folded(text)):
        raise ValueError(text)
    return words


def _period(text: str) -> str:
    if text not in PERIODS:
        raise ValueError(text)
    return text


def _yes(text: str) -> bool:
    if text not in ("yes", "no"):
        raise ValueError(text)
    return text == "yes"


_DAY: tuple[Read, str] = (datetime.date.fromisoformat, "date; write one such as 2026-12-24")
_TEXT: tuple[Read, str] = (_words, "text to look for; write at least one letter or digit")
_NUMBER: tuple[Read, str] = (_number, "number; write one such as 12 or 2.5")
_READERS: Mapping[Holds, tuple[Read, str]] = {
    Holds.TEXT: _TEXT,
    Holds.NUMBER: _NUMBER,
    Holds.YES_NO: (_yes, "answer; choose yes or no"),
    Holds.DATE: _DAY,
    Holds.TIME: (datetime.time.fromisoformat, "time; write one such as 18:30"),
    Holds.MOMENT: _DAY,
    Holds.FILES: _NUMBER,
    Holds.ROWS: _NUMBER,
}


def _reader(how: How, holds: Holds) -> tuple[Read, str]:
    if how == "last_days":
        return (_days, f"number of days; write one from 1 to {_MOST_DAYS}")
    if how == "this":
        return (_period, f"period; choose {', '.join(PERIODS)}")
    return _READERS.get(holds, (str, "value"))


def days_of(how: How, values: tuple[Any, ...], today: datetime.date, first_weekday: int) -> tuple[Any, Any]:
    """Return the first and the last day that a comparison of days lets in, None where there is no end on that side.

    The last seven days end today. `first_weekday` is that of a week, 0 for Sunday.
    """
    match how:
        case "is":
            return values[0], values[0]
        case "at_least":
            return values[0], None
        case "at_most":
            return None, values[0]
        case "between":
            return values
        case "last_days":
            return today - datetime.timedelta(days=min(values[0] - 1, today.toordinal() - 1)), today
        case _:
            return _period_of(values[0], today, first_weekday)


def _period_of(period: str, today: datetime.date, first_weekday: int) -> tuple[datetime.date, datetime.date]:
    match period:
        case "day":
            return today, today
        case "week":
            first = today - datetime.timedelta(days=(today.isoweekday() - first_weekday) % 7)
            return first, first + datetime.timedelta(days=6)
        case "month":
            first = today.replace(day=1)
            return first, (first + datetime.timedelta(days=31)).replace(day=1) - datetime.timedelta(days=1)
        case _:
            return today.replace(month=1, day=1), today.replace(month=12, day=31)
