"""Dates: real calendar dates, not serial numbers; weeks as ISO 8601 and the standard count them."""

import datetime
from decimal import Decimal
from typing import Any

from codexa.core.formula import convert
from codexa.core.formula.functions.function import Example, Function, Parameter, Role
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


def _days(later: datetime.date, earlier: datetime.date) -> Decimal:
    return convert.days_between(later, earlier)


def _weekday(date: datetime.date, counting: Decimal = ONE) -> Decimal:
    # 1: Sunday is 1; 2: Monday is 1; 3: Monday is 0 (OpenFormula 6.10.22).
    monday_first = date.weekday()
    match whole(counting):
        case 1:
            return Decimal((monday_first + 1) % 7 + 1)
        case 2:
            return Decimal(monday_first + 1)
        case 3:
            return Decimal(monday_first)
    return fail(ErrorCode.NUMBER, "Weekdays are counted 1 (Sunday is 1), 2 (Monday is 1) or 3 (Monday is 0).")


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
        purpose="The day of the week: counted from Sunday = 1, or with 2 from Monday = 1, or with 3 from Monday = 0.",
        examples=(Example("WEEKDAY(DATE(2026, 11, 23), 2)", "1"),),
        call=_weekday,
    ),
)
