"""TEXT: a value written by a format code ("#,##0.00", "d mmmm yyyy"), in the form's language (Unicode CLDR)."""

import datetime
import re
from decimal import Decimal
from functools import lru_cache
from typing import Any

from babel.dates import format_datetime
from babel.numbers import format_decimal

from codexa.core.formula import convert
from codexa.core.formula.functions.function import Function, Parameter, Role, function
from codexa.core.formula.types import TEXT
from codexa.core.formula.values import ErrorCode, fail, seen

_NUMBER_CODE = re.compile(r"([#,]*0*)(\.(0*)(#*))?(%?)")
_DATE_PIECE = re.compile(r"yyyy|yy|mmmm|mmm|mm|m|dddd|ddd|dd|d|hh|h|ss|s|AM/PM|[^a-zA-Z]+|\"[^\"]*\"", re.IGNORECASE)
_CLDR = {"yyyy": "yyyy", "yy": "yy", "mmmm": "MMMM", "mmm": "MMM", "mm": "MM", "m": "M"}
_CLDR |= {"dddd": "EEEE", "ddd": "EEE", "dd": "dd", "d": "d", "ss": "ss", "s": "s", "am/pm": "a"}
_MOST = 60  # characters of a format code


@lru_cache(maxsize=512)
def _date_pattern(code: str) -> str:
    pieces = _DATE_PIECE.findall(code)
    if "".join(pieces) != code:
        fail(ErrorCode.VALUE, f'"{code}" is no format of a date; write d, m, y, h and s, such as "d mmmm yyyy".')
    twelve = any(piece.lower() == "am/pm" for piece in pieces)
    pattern, before = "", ""
    for index, piece in enumerate(pieces):
        small = piece.lower()
        if small in ("h", "hh"):
            pattern += small if twelve else small.upper()
        elif small in ("m", "mm") and (before.startswith("h") or _next_unit(pieces[index + 1 :]).startswith("s")):
            pattern += small  # minutes: beside hours or seconds
        else:
            pattern += _CLDR.get(small) or "'" + piece.strip('"').replace("'", "''") + "'"
        before = small if small[0].isalpha() else before
    return pattern


def _next_unit(pieces: list[str]) -> str:
    return next((piece.lower() for piece in pieces if piece[0].isalpha()), "")


def _number_text(value: Decimal, code: str, locale: str) -> str:
    literal = re.search(r"[#0][#0,.]*%?", code)
    match = _NUMBER_CODE.fullmatch(literal[0]) if literal else None
    if literal is None or match is None or not match[0]:
        return fail(ErrorCode.VALUE, f'"{code}" is no format of a number; write "0.00", "#,##0" or "0%".')
    grouped = "," in match[1]
    whole = "0" * max(1, match[1].count("0"))
    pattern = ("#,##" if grouped else "#") + whole + (match[2] or "") + match[5]
    decimals = max(0, len(match[2] or "") - 1) + 2 * len(match[5])
    before, after = (piece.replace('"', "") for piece in (code[: literal.start()], code[literal.end() :]))
    return before + format_decimal(seen(value, decimals), format=pattern, locale=locale) + after


def written(context: Any, value: Any, code: str) -> str:
    """Return a number, date or time as text by a format code; text stays as it is, blank is ""."""
    if len(code) > _MOST:
        fail(ErrorCode.VALUE, f"A format has at most {_MOST} characters.")
    if isinstance(value, bool) or value is None or isinstance(value, str):
        return convert.text(value)
    if isinstance(value, datetime.date | datetime.time):
        return _moment_text(value, code, context.locale)
    return _number_text(convert.number(value), code, context.locale)


def _moment_text(value: datetime.date | datetime.time, code: str, locale: str) -> str:
    if isinstance(value, datetime.time):
        moment = datetime.datetime.combine(datetime.date(2000, 1, 1), value)
    elif isinstance(value, datetime.datetime):
        moment = value.replace(tzinfo=None)
    else:
        moment = datetime.datetime.combine(value, datetime.time())
    return str(format_datetime(moment, format=_date_pattern(code), locale=locale))


FUNCTIONS: tuple[Function, ...] = (
    function(
        "TEXT",
        (Parameter("value", Role.VALUE), Parameter("format", Role.TEXT)),
        TEXT,
        'The value written by a format: "0.00", "#,##0", "0%", "d mmmm yyyy", "hh:mm".',
        written,
        ('TEXT(1234.5, "#,##0.00")', "1,234.50"),
        ('TEXT(DATE(2026, 3, 5), "d mmmm yyyy")', "5 March 2026"),
        ('TEXT(25%, "0%")', "25%"),
        needs_context=True,
        steps=32,
    ),
)
