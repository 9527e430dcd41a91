"""How a format such as `d mmmm yyyy` or `h:mm AM/PM` writes a date or a time, in a language's own names (Unicode CLDR).

`d dd ddd dddd` the day and its name, `m mm mmm mmmm` the month, `yy yyyy` the year, `h hh` the hour, `m mm` beside an
hour or a second the minute, `s ss` the second. Words stand in quotation marks, single signs after a backslash.
"""

import datetime
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import lru_cache, partial

from babel.dates import get_day_names, get_month_names, get_period_names

from codexa.core.formula.functions.format_pieces import FormatError, quoted

Part = Callable[[datetime.datetime, "Names"], str]

_HALF = "am/pm"


@dataclass(frozen=True, slots=True)
class Names:
    """A language's names: of months from 1, of days from Monday as 0, each short and long; of the halves of a day."""

    months: tuple[dict[int, str], dict[int, str]]
    days: tuple[dict[int, str], dict[int, str]]
    halves: tuple[str, str]


@dataclass(frozen=True, slots=True)
class DateFormat:
    """A format that was read: its parts, and whether it asks for a date."""

    parts: tuple[Part, ...]
    has_date: bool


@lru_cache(maxsize=128)
def names_in(locale: str) -> Names:
    """Return the names of a language."""
    halves = get_period_names("abbreviated", "format", locale)
    return Names(
        (dict(get_month_names("abbreviated", "format", locale)), dict(get_month_names("wide", "format", locale))),
        (dict(get_day_names("abbreviated", "format", locale)), dict(get_day_names("wide", "format", locale))),
        (halves["am"], halves["pm"]),
    )


def _number(unit: str, width: int) -> Part:
    return lambda moment, _: f"{getattr(moment, unit):0{width}}"


_PARTS: dict[str, Part] = {
    "d": _number("day", 1),
    "dd": _number("day", 2),
    "ddd": lambda moment, names: names.days[0][moment.weekday()],
    "dddd": lambda moment, names: names.days[1][moment.weekday()],
    "m": _number("month", 1),
    "mm": _number("month", 2),
    "mmm": lambda moment, names: names.months[0][moment.month],
    "mmmm": lambda moment, names: names.months[1][moment.month],
    "yy": lambda moment, _: f"{moment.year % 100:02}",
    "yyyy": _number("year", 4),
    "h": _number("hour", 1),
    "hh": _number("hour", 2),
    "s": _number("second", 1),
    "ss": _number("second", 2),
    _HALF: lambda moment, names: names.halves[moment.hour >= 12],
}
_MINUTES: dict[str, Part] = {"m": _number("minute", 1), "mm": _number("minute", 2)}
_TWELVE: dict[str, Part] = {
    "h": lambda moment, _: str((moment.hour - 1) % 12 + 1),
    "hh": lambda moment, _: f"{(moment.hour - 1) % 12 + 1:02}",
}


@lru_cache(maxsize=512)
def read_date_format(code: str) -> DateFormat:
    """Return a format of a date or time that was read. Raises FormatError."""
    pieces = list(_pieces(code))
    units = [text for text, is_unit in pieces if is_unit]
    twelve = _HALF in units
    parts: list[Part] = []
    has_date, at = False, 0
    for text, is_unit in pieces:
        if not is_unit:
            parts.append(partial(_as_it_is, text))
            continue
        before, after = units[at - 1] if at else "", units[at + 1] if at + 1 < len(units) else ""
        at += 1
        is_minute = text in _MINUTES and (before[:1] == "h" or after[:1] == "s")
        has_date |= text[0] in "dy" or (text[0] == "m" and not is_minute)
        parts.append(_MINUTES[text] if is_minute else _TWELVE[text] if twelve and text in _TWELVE else _PARTS[text])
    if not units:
        raise FormatError(0, 'This is no format of a date or time; write "d mmmm yyyy" or "hh:mm".')
    return DateFormat(tuple(parts), has_date)


def _as_it_is(text: str, _moment: datetime.datetime, _names: Names) -> str:
    return text


def _pieces(code: str) -> Iterator[tuple[str, bool]]:
    """Yield the pieces of a format, each with whether it is a unit."""
    at = 0
    while at < len(code):
        if code[at] in '"\\':
            text, at = quoted(code, at)
            yield text, False
        elif code[at : at + len(_HALF)].lower() == _HALF:
            yield _HALF, True
            at += len(_HALF)
        elif code[at].isalpha():
            end = at
            while end < len(code) and code[end].lower() == code[at].lower():
                end += 1
            unit = code[at:end].lower()
            if unit not in _PARTS:
                raise FormatError(at, f'"{code[at:end]}" is no part of a date; put words in quotation marks.')
            yield unit, True
            at = end
        elif code[at] in "0123456789#?;@[]":
            raise FormatError(at, f'"{code[at]}" says nothing of a date; put it in quotation marks if it is meant so.')
        else:
            yield code[at], False
            at += 1


def moment_in_format(value: datetime.date | datetime.time, code: str, locale: str) -> str:
    """Return a date, a time or a moment written by a format. Raises FormatError."""
    form = read_date_format(code)
    if isinstance(value, datetime.time):
        if form.has_date:
            raise FormatError(0, "A time of day has no day, month or year.")
        moment = datetime.datetime.combine(datetime.date.min, value)
    elif isinstance(value, datetime.datetime):
        moment = value
    else:
        moment = datetime.datetime.combine(value, datetime.time())
    names = names_in(locale)
    return "".join([part(moment, names) for part in form.parts])
