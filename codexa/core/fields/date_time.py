"""Date and time: a moment in the form's time zone."""

import datetime
from contextlib import suppress
from typing import Any, Literal

from codexa.core.definition.parts import FieldFace
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Family, Medium, Region, Sampling
from codexa.core.fields.moments import MomentQuestion, MomentType, in_zone, read_date, read_time, shown_date, shown_time
from codexa.core.formula import convert
from codexa.core.formula.types import Kind, Type


class DateTimeFace(FieldFace):
    """What the browser may know of a date and time."""

    type: Literal["date_time"] = "date_time"


class DateTimeField(DateTimeFace, MomentQuestion):
    """A moment in the form's time zone; `earliest` and `latest` are formulas such as NOW(), and are included."""


def _moment(words: list[str], at: int, region: Region) -> datetime.datetime:
    day, time = " ".join(words[:at]), " ".join(words[at:])
    return datetime.datetime.combine(read_date(day, region.locale), read_time(time, region.locale))


class DateTimeType(MomentType[DateTimeField]):
    """Date and time."""

    name = "date_time"
    title = "Date and time"
    family = Family.DATES
    purpose = "A day with a time, where the form is at home."
    face = DateTimeFace
    block = DateTimeField

    def value_type(self, block: DateTimeField) -> Type:
        """A moment, or blank."""
        return Type(kind=Kind.DATE_TIME, may_be_blank=True)

    def read(self, text: str, region: Region) -> datetime.datetime:
        """The moment of ISO 8601 text, or of a date and a time with a space between."""
        try:
            return self._in_zone(datetime.datetime.fromisoformat(text), region)
        except ValueError:
            pass
        words = text.replace(",", " ").split()
        if len(words) < 2:
            raise AnswerError("no_time", "Enter a date and a time.")
        # Some languages write a date in several words, some a time.
        for at in range(2, len(words)):
            with suppress(AnswerError):
                return self._in_zone(_moment(words, at, region), region)
        return self._in_zone(_moment(words, 1, region), region)

    def _in_zone(self, moment: datetime.datetime, region: Region) -> datetime.datetime:
        try:
            return in_zone(moment, region.time_zone)
        except OverflowError:
            raise AnswerError("not_a_date", "Enter a date that is not so far away.") from None

    def settle(self, value: Any, region: Region) -> datetime.datetime:
        """A moment; a date is its first."""
        if isinstance(value, datetime.datetime):
            return self._in_zone(value, region)
        return self._in_zone(datetime.datetime.combine(convert.date(value), datetime.time()), region)

    def present(self, value: datetime.datetime, block: DateTimeField, region: Region, medium: Medium) -> str:
        """As the form's language writes it for people, ISO 8601 for programs."""
        if medium is Medium.CSV:
            return self.dump(value)
        return f"{shown_date(value.date(), region.locale)}, {shown_time(value.time(), region.locale)}"

    def dump(self, value: datetime.datetime) -> str:
        """ISO 8601 with the distance from UTC."""
        return value.isoformat(timespec="seconds" if value.second else "minutes")

    def enter(self, value: datetime.datetime, block: DateTimeField, region: Region) -> str:
        """ISO 8601 without a zone, as a browser's control has it."""
        return value.replace(tzinfo=None).isoformat(timespec="minutes")

    def load(self, stored: str, block: DateTimeField) -> datetime.datetime:
        """The moment of that text."""
        return datetime.datetime.fromisoformat(stored)

    def answer_schema(self, block: DateTimeField) -> dict[str, Any]:
        """An ISO 8601 moment."""
        return {"type": "string", "pattern": r"^\d{4}-\d\d-\d\dT\d\d:\d\d"}

    def sample(self, block: DateTimeField, how: Sampling) -> str:
        """An evening of these weeks."""
        now = how.now.date()
        day = now + datetime.timedelta(days=how.random.choice((how.random.randint(3, 120), -how.random.randint(1, 20))))
        return f"{day.isoformat()}T{how.random.randint(18, 23)}:{how.random.choice(('00', '30'))}"
