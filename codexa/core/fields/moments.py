"""Dates and times: what the field types with a day or a time share."""

import datetime
import re
from abc import abstractmethod
from collections.abc import Mapping
from functools import lru_cache
from typing import Annotated, Any, Generic
from zoneinfo import ZoneInfo

from babel.dates import format_date, format_time, parse_date

from codexa.core.definition.parts import FormulaText, Question
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import NO_SETTINGS, FieldModel, FieldType, Medium, Region
from codexa.core.formula.functions.function import Role
from codexa.core.sentences import Sentence

_TIME = re.compile(r"(\d{1,2})(?:[:.h]\s*(\d{2}))?(?:[:.](\d{2}))?\s*(am|pm|a\.m\.|p\.m\.|uhr|h)?", re.IGNORECASE)
_MOST_TEXT = 60  # characters


@lru_cache(maxsize=4_096)
def read_date(text: str, locale: str) -> datetime.date:
    """Return the date of ISO 8601 text, or of text as people of that language write dates. Raises AnswerError."""
    try:
        return datetime.date.fromisoformat(text)
    except ValueError:
        pass
    try:
        if len(text) <= _MOST_TEXT:
            return _plausible(parse_date(text, locale=locale))
    except (ValueError, IndexError, KeyError):
        pass
    example = format_date(datetime.date(2026, 3, 25), format="short", locale=locale)
    raise AnswerError("not_a_date", Sentence("Enter a date such as {example}.", example=example))


def _plausible(date: datetime.date) -> datetime.date:
    if date.year < 100:
        raise ValueError("a year of two digits is not expanded here")
    return date


@lru_cache(maxsize=4_096)
def read_time(text: str, locale: str) -> datetime.time:
    """Return the time of text such as "15:30", "3 pm" or "15.30 Uhr". Raises AnswerError."""
    match = _TIME.fullmatch(text.strip()) if len(text) <= _MOST_TEXT else None
    if match:
        hour, minute, second, half = int(match[1]), int(match[2] or 0), int(match[3] or 0), (match[4] or "").lower()
        if half[:1] in ("a", "p"):
            hour = hour % 12 + 12 * (half[0] == "p") if 1 <= hour <= 12 else 99
        if hour < 24 and minute < 60 and second < 60:
            return datetime.time(hour, minute, second)
    raise AnswerError(
        "not_a_time", Sentence("Enter a time such as {example}.", example=shown_time(datetime.time(15, 30), locale))
    )


def shown_time(time: datetime.time, locale: str) -> str:
    """Return a time as people of that language write it."""
    return str(format_time(time, format="short", locale=locale))


@lru_cache(maxsize=4_096)
def shown_date(date: datetime.date, locale: str) -> str:
    """Return a date as people of that language write it in full."""
    return str(format_date(date, format="long", locale=locale))


def in_zone(moment: datetime.datetime, time_zone: str) -> datetime.datetime:
    """Return a moment in that time zone; a naive one is taken to be there already."""
    zone = ZoneInfo(time_zone)
    return moment.replace(tzinfo=zone) if moment.tzinfo is None else moment.astimezone(zone)


class MomentQuestion(Question):
    """A question whose answer lies from `earliest` to `latest`, both included; they are formulas ("TODAY() + 2")."""

    earliest: Annotated[str, FormulaText(Role.VALUE, "earliest")] = ""
    latest: Annotated[str, FormulaText(Role.VALUE, "latest")] = ""


class MomentType(FieldType[FieldModel], Generic[FieldModel]):
    """A field whose value lies on a line of time, between limits that are formulas ("TODAY()")."""

    can_be_wrong = True

    @abstractmethod
    def settle(self, value: Any, region: Region) -> Any:
        """Return a formula's result as a value of this kind. Raises AnswerError or a formula's failure."""

    @abstractmethod
    def read(self, text: str, region: Region) -> Any:
        """Return the value of a text. Raises AnswerError."""

    def parse(self, raw: Any, block: FieldModel, region: Region) -> Any:
        """Return the value of ISO 8601 text, or of text as the form's language writes it."""
        if not isinstance(raw, str):
            raise AnswerError("not_text", "Enter text here.")
        # What is longer is refused as it is; no more of it is remembered.
        text = raw.strip()[: _MOST_TEXT + 1]
        return self.read(text, region) if text else None

    def adopt(self, value: Any, block: FieldModel, region: Region) -> Any:
        """Return a formula's result as a value of this kind."""
        return self.settle(value, region)

    def check(
        self, value: Any, block: FieldModel, region: Region, settings: Mapping[str, Any] = NO_SETTINGS
    ) -> str | None:
        """The earliest and the latest."""
        for name, wrong in (("earliest", value.__lt__), ("latest", value.__gt__)):
            limit = settings.get(name)
            if limit is None:
                continue
            limit = self.settle(limit, region)
            if wrong(limit) is True:
                told = self.present(limit, block, region, Medium.PAGE)
                if name == "earliest":
                    return Sentence("Enter {limit} or later.", limit=told)
                return Sentence("Enter {limit} or earlier.", limit=told)
        return None
