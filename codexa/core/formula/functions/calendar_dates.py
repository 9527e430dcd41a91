"""Reckoning with calendar dates: months, weeks, working days, parts of a year (OpenFormula 6.10)."""

import calendar
import datetime
from decimal import Decimal
from typing import Any

from codexa.core.formula import convert
from codexa.core.formula.functions.dates import first_weekday
from codexa.core.formula.functions.function import Function, Parameter, Role, function
from codexa.core.formula.types import DATE, NUMBER
from codexa.core.formula.values import ONE, ZERO, ErrorCode, fail, whole

_DATE = Parameter("date", Role.DATE)
_START = Parameter("start", Role.DATE)
_END = Parameter("end", Role.DATE)
_MONTHS = Parameter("months", Role.NUMBER)
_HOLIDAYS = Parameter("holidays", Role.LIST, optional=True)
_DAY = datetime.timedelta(days=1)
_DAYS_IN = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)
_MOST_MONTHS = Decimal(12 * 9999)
_MOST_WORKING_DAYS = 100_000


def _days_in(year: int, month: int) -> int:
    return 29 if month == 2 and calendar.isleap(year) else _DAYS_IN[month - 1]


def months_later(date: datetime.date, months: Decimal) -> datetime.date:
    """Return the same day so many months later, or the last of a month that is too short for it.

    Raises FormulaFailure before the year 1 and after the year 9999.
    """
    if abs(months) > _MOST_MONTHS:
        fail(ErrorCode.NUMBER, "This date is before the year 1 or after the year 9999.")
    count = date.year * 12 + date.month - 1 + whole(months)
    if not 12 <= count < 12 * 10_000:
        fail(ErrorCode.NUMBER, "This date is before the year 1 or after the year 9999.")
    year, month = divmod(count, 12)
    return datetime.date(year, month + 1, min(date.day, _days_in(year, month + 1)))


def _end_of_month(date: datetime.date, months: Decimal) -> datetime.date:
    later = months_later(date, months)
    return later.replace(day=_days_in(later.year, later.month))


def _week_number(date: datetime.date, mode: Decimal = ONE) -> Decimal:
    # 1: weeks start on Sunday, 2: on Monday, 11 to 17: on Monday to Sunday, and the year's first day is in week 1;
    # 21: ISO 8601 (OpenFormula 6.10.24).
    start = whole(mode)
    if start == 21:
        return Decimal(date.isocalendar().week)
    first = first_weekday(start)
    if first is None:
        fail(ErrorCode.NUMBER, "Weeks are counted 1 (from Sunday), 2 (from Monday), 11 to 17, or 21 (ISO 8601).")
    before = (date.replace(month=1, day=1).weekday() - first) % 7
    return Decimal((date.timetuple().tm_yday - 1 + before) // 7 + 1)


def _free(holidays: list[Any] | None) -> set[datetime.date]:
    return {convert.date(each) for each in holidays or () if each is not None}


def _working_days(start: datetime.date, end: datetime.date, holidays: list[Any] | None = None) -> Decimal:
    first, last = min(start, end), max(start, end)
    weeks, rest = divmod((last - first).days + 1, 7)
    count = weeks * 5 + sum((first.weekday() + each) % 7 < 5 for each in range(rest))
    count -= sum(first <= day <= last and day.weekday() < 5 for day in _free(holidays))
    return Decimal(count if start <= end else -count)


def _working_day(start: datetime.date, days: Decimal, holidays: list[Any] | None = None) -> datetime.date:
    if abs(days) > _MOST_WORKING_DAYS:
        fail(ErrorCode.NUMBER, f"Count at most {_MOST_WORKING_DAYS} working days.")
    free = {day for day in _free(holidays) if day.weekday() < 5}
    left, day, step = whole(abs(days)), start, _DAY if days > 0 else -_DAY
    try:
        while left:
            before, day = day, _weekday_after(day, left, step)
            # What was free on the way is gone on with, until nothing on the way was.
            first, last = min(before + step, day), max(before + step, day)
            left = sum(first <= each <= last for each in free)
    except OverflowError:
        fail(ErrorCode.NUMBER, "This date is before the year 1 or after the year 9999.")
    return day


def _weekday_after(day: datetime.date, count: int, step: datetime.timedelta) -> datetime.date:
    """Return the last of so many days from Monday to Friday after a day, or before it."""
    weeks, rest = divmod(count - 1, 5)
    day += 7 * weeks * step
    for _ in range(rest + 1):
        day += step
        while day.weekday() >= 5:
            day += step
    return day


def _difference(start: datetime.date, end: datetime.date, unit: str) -> Decimal:
    if start > end:
        fail(ErrorCode.NUMBER, "The start is after the end.")
    months = (end.year - start.year) * 12 + end.month - start.month - (end.day < start.day)
    match unit.lower():
        case "y":
            return Decimal(months // 12)
        case "m":
            return Decimal(months)
        case "d":
            return Decimal((end - start).days)
        case "ym":
            return Decimal(months % 12)
        case "md":
            return Decimal((end - months_later(start, Decimal(months))).days)
        case "yd":
            return Decimal((end - months_later(start, Decimal(months // 12 * 12))).days)
    return fail(ErrorCode.NUMBER, 'Count in "y", "m", "d", "ym", "md" or "yd".')


def _thirty_day_months(start: datetime.date, end: datetime.date, *, european: bool) -> Decimal:
    first, last = start.day, end.day
    if european:
        first, last = min(first, 30), min(last, 30)
    else:
        if start == _end_of_month(start, ZERO) and start.month == 2:
            last = 30 if end == _end_of_month(end, ZERO) and end.month == 2 else last
            first = 30
        last = 30 if last == 31 and first >= 30 else last
        first = min(first, 30)
    return Decimal((end.year - start.year) * 360 + (end.month - start.month) * 30 + last - first)


def _actual_years(first: datetime.date, last: datetime.date) -> Decimal:
    if last <= months_later(first, Decimal(12)):
        leap_day = any(
            calendar.isleap(year) and first <= datetime.date(year, 2, 29) <= last
            for year in range(first.year, last.year + 1)
        )
        whole_leap_year = first.year == last.year and calendar.isleap(first.year)
        return Decimal((last - first).days) / (366 if leap_day or whole_leap_year else 365)
    years = range(first.year, last.year + 1)
    mean = Decimal(sum(366 if calendar.isleap(year) else 365 for year in years)) / len(years)
    return Decimal((last - first).days) / mean


def _part_of_year(start: datetime.date, end: datetime.date, basis: Decimal = ZERO) -> Decimal:
    # OpenFormula 4.11.7: 0 US 30/360, 1 actual/actual, 2 actual/360, 3 actual/365, 4 European 30/360.
    first, last = min(start, end), max(start, end)
    match whole(basis):
        case 0 | 4 as counted:
            return _thirty_day_months(first, last, european=counted == 4) / 360
        case 1:
            return _actual_years(first, last)
        case 2 | 3 as counted:
            return Decimal((last - first).days) / (360 if counted == 2 else 365)
    return fail(ErrorCode.NUMBER, "A year is counted by basis 0, 1, 2, 3 or 4.")


FUNCTIONS: tuple[Function, ...] = (
    function(
        "EDATE",
        (_DATE, _MONTHS),
        DATE,
        "The same day so many months later.",
        months_later,
        ("EDATE(DATE(2026, 1, 31), 1)", "2026-02-28"),
    ),
    function(
        "EOMONTH",
        (_DATE, _MONTHS),
        DATE,
        "The last day of the month so many months later.",
        _end_of_month,
        ("EOMONTH(DATE(2026, 1, 5), 0)", "2026-01-31"),
    ),
    function(
        "WEEKNUM",
        (_DATE, Parameter("counting", Role.NUMBER, optional=True)),
        NUMBER,
        "The week of the year: weeks start on Sunday, with 2 on Monday, with 11 to 17 on Monday to Sunday; with 21 as "
        "ISO 8601 counts.",
        _week_number,
        ("WEEKNUM(DATE(2026, 1, 4))", "2"),
        ("WEEKNUM(DATE(2026, 1, 4), 2)", "1"),
    ),
    function(
        "ISOWEEKNUM",
        (_DATE,),
        NUMBER,
        "The week of the year as ISO 8601 counts it.",
        lambda date: Decimal(date.isocalendar().week),
        ("ISOWEEKNUM(DATE(2027, 1, 1))", "53"),
    ),
    function(
        "NETWORKDAYS",
        (_START, _END, _HOLIDAYS),
        NUMBER,
        "How many working days, both ends included.",
        _working_days,
        ("NETWORKDAYS(DATE(2026, 11, 20), DATE(2026, 11, 24))", "3"),
        steps=8,
    ),
    function(
        "WORKDAY",
        (_START, Parameter("days", Role.NUMBER), _HOLIDAYS),
        DATE,
        "The date so many working days later.",
        _working_day,
        ("WORKDAY(DATE(2026, 11, 20), 1)", "2026-11-23"),
    ),
    function(
        "DATEDIF",
        (_START, _END, Parameter("unit", Role.TEXT)),
        NUMBER,
        'Whole years "y", months "m" or days "d" between two dates; "ym", "md" and "yd" count what is left over.',
        _difference,
        ('DATEDIF(DATE(2008, 5, 17), DATE(2026, 5, 16), "y")', "17"),
    ),
    function(
        "YEARFRAC",
        (_START, _END, Parameter("basis", Role.NUMBER, optional=True)),
        NUMBER,
        "The part of a year between two dates.",
        _part_of_year,
        ("YEARFRAC(DATE(2026, 1, 1), DATE(2026, 7, 1))", "0.5"),
        steps=10,
    ),
)
