"""Time: a time of day."""

import datetime
from typing import Any, Literal

from codexa.core.definition.parts import FieldFace
from codexa.core.fields.field_type import Family, Medium, Region, Sampling
from codexa.core.fields.moments import MomentQuestion, MomentType, read_time, shown_time
from codexa.core.formula import convert
from codexa.core.formula.types import Kind, Type


class TimeFace(FieldFace):
    """What the browser may know of a time."""

    type: Literal["time"] = "time"


class TimeField(TimeFace, MomentQuestion):
    """A time of day; `earliest` and `latest` are formulas such as TIME(18, 0, 0), and are included."""


class TimeType(MomentType[TimeField]):
    """Time."""

    name = "time"
    title = "Time"
    family = Family.DATES
    purpose = "A time of day, typed as people write it."
    face = TimeFace
    block = TimeField

    def value_type(self, block: TimeField) -> Type:
        """A time, or blank."""
        return Type(kind=Kind.TIME, may_be_blank=True)

    def read(self, text: str, region: Region) -> datetime.time:
        """The time of a text."""
        return read_time(text, region.locale)

    def settle(self, value: Any, region: Region) -> datetime.time:
        """A time."""
        return convert.time(value)

    def present(self, value: datetime.time, block: TimeField, region: Region, medium: Medium) -> str:
        """As the form's language writes it for people, ISO 8601 for programs."""
        return self.dump(value) if medium is Medium.CSV else shown_time(value, region.locale)

    def dump(self, value: datetime.time) -> str:
        """ISO 8601."""
        return value.isoformat(timespec="seconds" if value.second else "minutes")

    def load(self, stored: str, block: TimeField) -> datetime.time:
        """The time of that text."""
        return datetime.time.fromisoformat(stored)

    def answer_schema(self, block: TimeField) -> dict[str, Any]:
        """An ISO 8601 time."""
        return {"type": "string", "pattern": r"^\d\d:\d\d(:\d\d)?$"}

    def sample(self, block: TimeField, how: Sampling) -> str:
        """An evening."""
        return f"{how.random.randint(18, 23)}:{how.random.choice(('00', '15', '30', '45'))}"
