"""Times of day and moments, in the form's time zone."""

import datetime
import math
from decimal import Decimal
from typing import Any

from codexa.core.formula import convert
from codexa.core.formula.functions.function import Function, Parameter, Role, function
from codexa.core.formula.types import DATE, DATE_TIME, NUMBER, TIME
from codexa.core.formula.values import ErrorCode, compared, fail

_VALUE = Parameter("time", Role.VALUE)
_MOST = 10**9


def _now(context: Any) -> datetime.datetime:
    now: datetime.datetime = context.now
    return now


def _time(hour: Decimal, minute: Decimal, second: Decimal) -> datetime.time:
    if max(abs(hour), abs(minute), abs(second)) > _MOST:
        fail(ErrorCode.NUMBER, "There is no such time.")
    # Half an hour is thirty minutes (OpenFormula 6.10.17); a clock shows the second that has begun.
    seconds = math.floor(compared(hour * 3600 + minute * 60 + second)) % 86_400
    return datetime.time(seconds // 3600, seconds // 60 % 60, seconds % 60)


FUNCTIONS: tuple[Function, ...] = (
    function(
        "NOW", (), DATE_TIME, "This moment where the form is at home.", _now, ("NOW() - NOW()", "0"), needs_context=True
    ),
    function(
        "TIME",
        (Parameter("hour", Role.NUMBER), Parameter("minute", Role.NUMBER), Parameter("second", Role.NUMBER)),
        TIME,
        "A time of day; past midnight it starts anew.",
        _time,
        ("TIME(19, 30, 0)", "19:30"),
        ("TIME(25, 0, 0)", "01:00"),
    ),
    function(
        "DATEVALUE",
        (Parameter("text", Role.VALUE),),
        DATE,
        "The date of ISO 8601 text.",
        convert.date,
        ('DATEVALUE("2026-03-05") + 1', "2026-03-06"),
    ),
    function(
        "TIMEVALUE",
        (Parameter("text", Role.VALUE),),
        TIME,
        "The time of ISO 8601 text.",
        convert.time,
        ('TIMEVALUE("19:30")', "19:30"),
    ),
    function(
        "HOUR",
        (_VALUE,),
        NUMBER,
        "The hour, 0 to 23.",
        lambda value: Decimal(convert.time(value).hour),
        ("HOUR(TIME(19, 30, 0))", "19"),
    ),
    function(
        "MINUTE",
        (_VALUE,),
        NUMBER,
        "The minute, 0 to 59.",
        lambda value: Decimal(convert.time(value).minute),
        ('MINUTE("19:30")', "30"),
    ),
    function(
        "SECOND",
        (_VALUE,),
        NUMBER,
        "The second, 0 to 59.",
        lambda value: Decimal(convert.time(value).second),
        ('SECOND("19:30:15")', "15"),
    ),
)
