"""Date: a day of the calendar."""

import datetime
from typing import Any, Literal

from codexa.core.definition.parts import FieldFace
from codexa.core.fields.field_type import Family, Medium, Region, Sampling
from codexa.core.fields.moments import MomentQuestion, MomentType, read_date, shown_date
from codexa.core.formula import convert
from codexa.core.formula.types import Kind, Type


class DateFace(FieldFace):
    """What the browser may know of a date."""

    type: Literal["date"] = "date"


class DateField(DateFace, MomentQuestion):
    """A date; `earliest` and `latest` are formulas that give a date, such as TODAY() + 2, and are included."""


class DateType(MomentType[DateField]):
    """Date."""

    name = "date"
    title = "Date"
    family = Family.DATES
    purpose = "A day; its limits may move with today or another answer."
    face = DateFace
    block = DateField

    def value_type(self, block: DateField) -> Type:
        """A date, or blank."""
        return Type(kind=Kind.DATE, may_be_blank=True)

    def read(self, text: str, region: Region) -> datetime.date:
        """The date of a text."""
        return read_date(text, region.locale)

    def settle(self, value: Any, region: Region) -> datetime.date:
        """A date."""
        return convert.date(value)

    def present(self, value: datetime.date, block: DateField, region: Region, medium: Medium) -> str:
        """In full for people, ISO 8601 for programs."""
        return value.isoformat() if medium is Medium.CSV else shown_date(value, region.locale)

    def dump(self, value: datetime.date) -> str:
        """ISO 8601."""
        return value.isoformat()

    def load(self, stored: str, block: DateField) -> datetime.date:
        """The date of that text."""
        return datetime.date.fromisoformat(stored)

    def answer_schema(self, block: DateField) -> dict[str, Any]:
        """An ISO 8601 date."""
        return {"type": "string", "format": "date"}

    def sample(self, block: DateField, how: Sampling) -> str:
        """A day of these weeks."""
        now = how.now.date()
        return (
            now + datetime.timedelta(days=how.random.choice((how.random.randint(3, 120), -how.random.randint(1, 20))))
        ).isoformat()
