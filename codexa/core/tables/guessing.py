"""What the columns of a file are likely to hold, and its cells as somebody would type them into a table."""

import datetime
import re
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal, InvalidOperation
from typing import Literal

from codexa.core.definition.parts import Field
from codexa.core.fields import field_type_of
from codexa.core.fields.decimals import DecimalType
from codexa.core.fields.field_type import Region

Days = Literal["day", "month"]  # which of the two comes first where a day is written with numbers
_WITH_COMMA = re.compile(r"-?\d{1,3}(\.\d{3})*,\d+|-?\d+,\d+", re.ASCII)
_WITH_POINT = re.compile(r"-?\d+(\.\d+)?|-?\d{1,3}(,\d{3})+(\.\d+)?", re.ASCII)
_NUMBERED_DAY = re.compile(r"(\d{1,2})[./-](\d{1,2})[./-](\d{4}|\d{2})", re.ASCII)
_EMAIL = re.compile(r"[^@\s]+@[^@\s]+\.[^@\s]+")
_YES_NO = frozenset({"yes", "no", "true", "false"})
_MOST_OPTIONS, _LONGEST_OPTION, _SHORT, _CENTURY = 12, 40, 200, 2000


@dataclass(frozen=True, kw_only=True, slots=True)
class Writing:
    """How a file writes: decimals with a comma or a point, the day or the month first."""

    comma: bool = False
    days: Days = "day"


def writing_of(columns: Sequence[Sequence[str]]) -> Writing:
    """Return how the cells of a file are likely written, by those that leave no doubt."""
    cells = [cell.strip() for column in columns for cell in column]
    comma = any(_WITH_COMMA.fullmatch(cell) and not _WITH_POINT.fullmatch(cell) for cell in cells)
    found = [each for cell in cells if (each := _NUMBERED_DAY.fullmatch(cell))]
    month_first = any(int(each[2]) > 12 for each in found) and not any(int(each[1]) > 12 for each in found)
    return Writing(comma=comma, days="month" if month_first else "day")


@dataclass(frozen=True, kw_only=True, slots=True)
class Guess:
    """What a new column would be: its type, and for a choice the labels of its options; of a number its decimals."""

    type: str
    options: tuple[str, ...] = ()
    decimals: int = 0


def guess(cells: Sequence[str], writing: Writing) -> Guess:
    """Return what a column with these cells is likely to hold; blanks say nothing."""
    there = [cell.strip() for cell in cells if cell.strip()]
    if not there:
        return Guess(type="short_text")
    if all(each.lower() in _YES_NO for each in there):
        return Guess(type="yes_no")
    numbers = [_number(each, writing) for each in there]
    if None not in numbers and not any(_is_code(each) for each in there):
        return Guess(type="number", decimals=max(_places(each) for each in numbers if each is not None))
    for type_, read in (("date", _day), ("date_time", _moment), ("time", _time)):
        if all(read(each, writing) is not None for each in there):
            return Guess(type=type_)
    if all(_EMAIL.fullmatch(each) for each in there):
        return Guess(type="email")
    if any(len(each) > _SHORT or "\n" in each for each in there):
        return Guess(type="long_text")
    options = tuple(dict.fromkeys(there))
    if len(options) <= _MOST_OPTIONS and len(there) >= 3 * len(options) and max(map(len, options)) <= _LONGEST_OPTION:
        return Guess(type="dropdown", options=options)
    return Guess(type="short_text")


def _is_code(text: str) -> bool:
    """Whether a number is one that nobody counts with: a postal code, a number of a member."""
    return len(text) > 1 and text.startswith("0") and text[1].isdigit()


def _number(text: str, writing: Writing) -> Decimal | None:
    if not (_WITH_COMMA if writing.comma and "," in text else _WITH_POINT).fullmatch(text):
        return None
    try:
        return Decimal(_plain(text, writing))
    except InvalidOperation:
        return None


def _plain(text: str, writing: Writing) -> str:
    return text.replace(".", "").replace(",", ".") if writing.comma and "," in text else text.replace(",", "")


def _places(number: Decimal) -> int:
    exponent = number.normalize().as_tuple().exponent
    return max(0, -exponent) if isinstance(exponent, int) else 0


def _day(text: str, writing: Writing) -> datetime.date | None:
    found = _NUMBERED_DAY.fullmatch(text)
    try:
        if found is None:
            return datetime.date.fromisoformat(text) if "-" in text else None
        first, second, year = (int(each) for each in found.groups())
        day, month = (first, second) if writing.days == "day" else (second, first)
        return datetime.date(year if year >= 100 else _CENTURY + year, month, day)
    except ValueError:
        return None


def _moment(text: str, writing: Writing) -> datetime.datetime | None:
    day, _, time = text.replace("T", " ").partition(" ")
    on, at = _day(day, writing), _time(time, writing)
    return None if on is None or at is None else datetime.datetime.combine(on, at)


def _time(text: str, _writing: Writing) -> datetime.time | None:
    try:
        return datetime.time.fromisoformat(text) if ":" in text else None
    except ValueError:
        return None


def as_typed(column: Field, cell: str, writing: Writing, region: Region) -> str:
    """Return a file's cell as somebody would type it into a column; what can't be read stays as it is, to be told."""
    text = cell.strip()
    kind = field_type_of(column)
    if isinstance(kind, DecimalType):
        number = _number(text, writing)
        return text if number is None else str(kind.from_link(_plain(text, writing), column, region))
    for type_, read in (("date", _day), ("date_time", _moment)):
        if column.type == type_ and (value := read(text, writing)) is not None:
            return value.isoformat()
    return cell
