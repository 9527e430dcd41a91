"""Scales of charts: how wide the bins of numbers are, and which stretches of time are counted together."""

import datetime
from decimal import Decimal
from typing import Literal

Unit = Literal["day", "week", "month", "year"]
_MOST_BINS = 16
_STEPS = (Decimal(1), Decimal(2), Decimal(5))
# From so many days on weeks, months, years tell more than days do.
_WEEKS_FROM, _MONTHS_FROM, _YEARS_FROM = 62, 400, 4_000


def bin_width(least: Decimal, greatest: Decimal, *, whole: bool) -> Decimal:
    """Return how wide bins are, so that there are few and their ends are round: 1, 2 or 5 times a power of ten."""
    span = greatest - least
    if whole and span < _MOST_BINS:
        return Decimal(1)
    if span == 0:
        return Decimal(1)
    power = Decimal(1).scaleb((span / _MOST_BINS).adjusted())
    for step in (*_STEPS, Decimal(10)):
        if span / (power * step) <= _MOST_BINS:
            return max(power * step, Decimal(1)) if whole else power * step
    return power * 10


def unit_of(days: int) -> Unit:
    """Return what is counted together over so many days."""
    if days < _WEEKS_FROM:
        return "day"
    if days < _MONTHS_FROM:
        return "week"
    return "month" if days < _YEARS_FROM else "year"


def steps(first: datetime.date, last: datetime.date, unit: Unit) -> list[datetime.date]:
    """Return the first day of each day, week, month or year from one to another."""
    days = [first]
    while days[-1] < last:  # a day after the last may be none that there is
        days.append(_next(days[-1], unit))
    return days


def _next(day: datetime.date, unit: Unit) -> datetime.date:
    match unit:
        case "day":
            return day + datetime.timedelta(days=1)
        case "week":
            return day + datetime.timedelta(days=7)
        case "month":
            return (day + datetime.timedelta(days=31)).replace(day=1)
        case _:
            return day.replace(year=day.year + 1)


def stretch_of(day: datetime.date, unit: Unit, first_weekday: int) -> datetime.date:
    """Return the first day of the day, week, month or year in which a day is; weeks begin with `first_weekday`."""
    match unit:
        case "day":
            return day
        case "week":
            return day - datetime.timedelta(days=min((day.isoweekday() - first_weekday) % 7, day.toordinal() - 1))
        case "month":
            return day.replace(day=1)
        case _:
            return day.replace(month=1, day=1)
