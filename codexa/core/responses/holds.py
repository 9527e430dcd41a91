"""What a column of a form's responses holds, and how a kept value becomes one that can be compared and counted."""

import datetime
from collections.abc import Callable, Mapping
from decimal import Decimal, InvalidOperation
from enum import StrEnum
from typing import Any
from zoneinfo import ZoneInfo

from codexa.core.formula.types import Kind
from codexa.core.responses.folding import folded


class Holds(StrEnum):
    """What the values of a column are, for comparing, sorting and counting."""

    TEXT = "text"
    NUMBER = "number"
    YES_NO = "yes or no"
    DATE = "date"
    TIME = "time"
    MOMENT = "date and time"
    CHOICE = "choice"
    CHOICES = "choices"
    FILES = "files"  # how many
    GRID = "grid"  # an option's code by that of each question
    ROWS = "rows"


_OF_KIND = {
    Kind.NUMBER: Holds.NUMBER,
    Kind.MONEY: Holds.NUMBER,
    Kind.YES_NO: Holds.YES_NO,
    Kind.DATE: Holds.DATE,
    Kind.TIME: Holds.TIME,
    Kind.DATE_TIME: Holds.MOMENT,
    Kind.CHOICE: Holds.CHOICE,
    Kind.CHOICES: Holds.CHOICES,
    Kind.FILES: Holds.FILES,
    Kind.ROWS: Holds.ROWS,
}
# Values that a spreadsheet has types for, too.
TYPED = frozenset({Holds.NUMBER, Holds.DATE, Holds.MOMENT, Holds.TIME})
# What a kept value of another shape than its column's raises.
UNREADABLE = (ValueError, TypeError, KeyError, AttributeError, InvalidOperation)


def holds_kind(kind: Kind) -> Holds:
    """Return what a column of values of a kind holds; what has no kind of its own is text."""
    return _OF_KIND.get(kind, Holds.TEXT)


def _moment(stored: Any, zone: ZoneInfo) -> datetime.datetime:
    # Of what lasts from one moment to another, the first (ISO 8601 writes the other after a slash).
    moment = datetime.datetime.fromisoformat(stored.partition("/")[0])
    return moment.astimezone(zone).replace(tzinfo=None) if moment.tzinfo else moment


def _code(stored: Any, _zone: ZoneInfo) -> str:
    """A visitor's own words have the one code that all of them have."""
    return str(next(iter(stored))) if isinstance(stored, dict) else str(stored)


def _codes(stored: Any, zone: ZoneInfo) -> list[str]:
    return list(dict.fromkeys(_code(each, zone) for each in stored))


def _number(stored: Any, _zone: ZoneInfo) -> Decimal:
    number = Decimal(str(stored))
    if not number.is_finite():
        raise ValueError(stored)
    return number


def _yes_or_no(stored: Any, _zone: ZoneInfo) -> bool:
    if isinstance(stored, bool):
        return stored
    return {"TRUE": True, "FALSE": False}[stored]  # what a formula gave, as text


_READ: Mapping[Holds, Callable[[Any, ZoneInfo], Any]] = {
    Holds.TEXT: lambda stored, _zone: folded(str(stored)),
    Holds.NUMBER: _number,
    Holds.YES_NO: _yes_or_no,
    Holds.DATE: lambda stored, _zone: datetime.date.fromisoformat(stored),
    Holds.TIME: lambda stored, _zone: datetime.time.fromisoformat(stored),
    Holds.MOMENT: _moment,
    Holds.CHOICE: _code,
    Holds.CHOICES: _codes,
    Holds.FILES: lambda stored, _zone: len(stored),
    Holds.GRID: lambda stored, _zone: {str(code): str(choice) for code, choice in stored.items()},
}


def comparable(stored: Any, holds: Holds, zone: ZoneInfo) -> Any:
    """Return a kept value (never blank) as one to compare: text folded, numbers as Decimal, moments as the clock says.

    Codes are text, several a list, files are counted, a grid is a dict; rows are read by their own fields. None where
    the value is of another shape, or says nothing.
    """
    try:
        value = _READ[holds](stored, zone)
    except UNREADABLE:
        return None
    return None if value in ("", [], {}) else value
