"""Dates: real calendar dates, not serial numbers; weeks as ISO 8601 and the standard count them."""

import datetime
from collections.abc import Iterable
from decimal import Decimal
from typing import Any

from codexa.core.formula import convert
from codexa.core.formula.constants import folded_number
from codexa.core.formula.functions.function import Argument, Example, Function, Parameter, Remark, Role
from codexa.core.formula.types import DATE, NUMBER
from codexa.core.formula.values import ONE, ErrorCode, fail, whole

_DATE = Parameter("date", Role.DATE)
_MOST_MONTHS = 12 * 9999


def _today(context: Any) -> datetime.date:
    today: datetime.date = context.today
    return today


def _date(year: Decimal, month: Decimal, day: Decimal) -> datetime.date:
    # A month 13 is the next January, a day 0 the last of the month before (OpenFormula 6.10.2).
    months = whole(year) * 12 + whole(month) - 1 if abs(year) <= 9999 and abs(month) <= _MOST_MONTHS else -1
    if not 12 <= months < _MOST_MONTHS + 12:
        fail(ErrorCode.NUMBER, "This date is before the year 1 or after the year 9999.")
    return convert.shift(datetime.date(months // 12, months % 12 + 1, 1), Decimal(whole(day) - 1))


def _short_year(call: Argument) -> Iterable[Remark]:
    year = folded_number(call.parts[0].node)
    if year is not None and 0 <= year < 100:
        message = f"This is the year {whole(year)}, long ago. Write all four digits of a year of our time."
        yield Remark(call.parts[0].node.span, message, is_doubt=True)


def _days(later: datetime.date, earlier: datetime.date) -> Decimal:
    return convert.days_between(later, earlier)


def _weekday(date: datetime.date, counting: Decimal = ONE) -> Decimal:
    # 1: Sunday is 1; 2: Monday is 1; 3: Monday is 0; 11 to 17: Monday to Sunday is 1 (OpenFormula 6.10.20).
    mode = whole(counting)
    if mode == 3:
        return Decimal(date.weekday())
    first = first_weekday(mode)
    if first is None:
        fail(ErrorCode.NUMBER, "Weekdays are counted 1 (Sunday is 1), 2 (Monday is 1), 3 (Monday is 0) or 11 to 17.")
    return Decimal((date.weekday() - first) % 7 + 1)


def first_weekday(mode: int) -> int | None:
    """Return the day a week begins with, Monday as 0: 1 is Sunday, 2 Monday, 11 to 17 Monday to Sunday; else None."""
    return {1: 6, 2: 0}.get(mode, mode - 11 if 11 <= mode <= 17 else None)


FUNCTIONS = (
    Function(
        name="TODAY",
        parameters=(),
        result=DATE,
        purpose="Today's date where the form is at home.",
        examples=(Example("TODAY() - TODAY()", "0"),),
        call=_today,
        needs_context=True,
    ),
    Function(
        name="DATE",
        parameters=(Parameter("year", Role.NUMBER), Parameter("month", Role.NUMBER), Parameter("day", Role.NUMBER)),
        result=DATE,
        purpose="A date from its numbers.",
        look=_short_year,
        differs="A year below 100 is that year, not one of this century or the last.",
        examples=(Example("DATE(2026, 2, 29)", "2026-03-01"), Example("DATE(2026, 11, 30) + 1", "2026-12-01")),
        call=_date,
    ),
    Function(
        name="YEAR",
        parameters=(_DATE,),
        result=NUMBER,
        purpose="The year.",
        examples=(Example("YEAR(DATE(2026, 4, 5))", "2026"),),
        call=lambda date: Decimal(date.year),
    ),
    Function(
        name="MONTH",
        parameters=(_DATE,),
        result=NUMBER,
        purpose="The month, 1 to 12.",
        examples=(Example("MONTH(DATE(2026, 4, 5))", "4"),),
        call=lambda date: Decimal(date.month),
    ),
    Function(
        name="DAY",
        parameters=(_DATE,),
        result=NUMBER,
        purpose="The day of the month.",
        examples=(Example("DAY(DATE(2026, 4, 5))", "5"),),
        call=lambda date: Decimal(date.day),
    ),
    Function(
        name="DAYS",
        parameters=(Parameter("later", Role.DATE), Parameter("earlier", Role.DATE)),
        result=NUMBER,
        purpose="How many days lie between two dates.",
        examples=(Example("DAYS(DATE(2026, 3, 1), DATE(2026, 2, 1))", "28"),),
        call=_days,
    ),
    Function(
        name="WEEKDAY",
        parameters=(_DATE, Parameter("counting", Role.NUMBER, optional=True)),
        result=NUMBER,
        purpose="The day of the week: counted from Sunday = 1, with 2 from Monday = 1, with 3 from Monday = 0, "
        "with 11 to 17 from Monday to Sunday = 1.",
        examples=(Example("WEEKDAY(DATE(2026, 11, 23), 2)", "1"),),
        call=_weekday,
    ),
)
