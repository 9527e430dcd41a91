"""Slot: an appointment with so many places, chosen among those that are offered."""

import datetime
from functools import lru_cache
from typing import Annotated, Any, Literal

from annotated_types import Len
from babel.dates import format_date
from pydantic import Field as Setting

from codexa.core.definition.parts import FieldFace, FormulaText, OptionalIdentifier, Question
from codexa.core.definition.wording import usual_words
from codexa.core.errors import AnswerError
from codexa.core.fields.date_time import DateTimeField, DateTimeType
from codexa.core.fields.field_type import Facet, Family, FieldType, Medium, Region
from codexa.core.fields.moments import in_zone, shown_time
from codexa.core.fields.slot_times import (
    MAX_SLOTS,
    Appointment,
    DaysLeftOut,
    SingleSlot,
    SlotSeries,
    SlotTimes,
    code_of,
    is_there,
    slot_times,
)
from codexa.core.formula import convert
from codexa.core.formula.functions.function import Role
from codexa.core.formula.types import Kind, Type

_MOST_SERIES = 100
_MOST_DAYS_OUT = 1_000
_MOST_HOURS = 24 * 366
_BETWEEN = "/"  # the ends of an interval (ISO 8601-1)


class AskedSlot(str):
    """What was answered, before it was looked up among the slots: when it begins, by the clock."""

    __slots__ = ()


class SlotFace(FieldFace):
    """What the browser may know of a slot block; which slots there are comes with the state."""

    type: Literal["slot"] = "slot"


class SlotField(SlotFace, Question):
    """One of the slots of its `series` and `singles`, where `left_out` has no days.

    Where `by` is another field of one choice, by its id, only the slots at the chosen option are offered. A response
    takes one place, or as many as `taking` gives; with `waiting` it may wait for one of a slot that is full. Slots are
    offered that begin not within `notice` hours, and at most `ahead` days from now. What `each` is answered with, by
    its id, may have `most_each` places in all. Visitors may cancel and rebook until `change_until` hours before, where
    that is set.
    """

    series: Annotated[tuple[SlotSeries, ...], Len(max_length=_MOST_SERIES)] = ()
    singles: Annotated[tuple[SingleSlot, ...], Len(max_length=MAX_SLOTS)] = ()
    left_out: Annotated[tuple[DaysLeftOut, ...], Len(max_length=_MOST_DAYS_OUT)] = ()
    by: OptionalIdentifier = ""
    taking: Annotated[str, FormulaText(Role.VALUE, "taking")] = ""
    left_shown: bool = True
    waiting: bool = False
    notice: Annotated[int, Setting(ge=0, le=_MOST_HOURS)] = 0
    ahead: Annotated[int, Setting(ge=1, le=3_660)] | None = None
    each: OptionalIdentifier = ""
    most_each: Annotated[int, Setting(ge=1, le=1_000)] | None = None
    change_until: Annotated[int, Setting(ge=0, le=_MOST_HOURS)] | None = None

    def times(self, time_zone: str) -> SlotTimes:
        """Return its slots in a time zone (IANA); they are made once asked for."""
        return slot_times(self.series, self.singles, self.left_out, time_zone)


_MOMENTS = DateTimeType()
_AS_MOMENT = DateTimeField(id="moment", type="date_time", key="moment", label="")


@lru_cache(maxsize=4_096)
def shown_day(day: datetime.date, locale: str) -> str:
    """Return a day with its weekday, as people of that language write it."""
    return str(format_date(day, format="full", locale=locale))


def shown_times(start: datetime.datetime, end: datetime.datetime, locale: str) -> str:
    """Return from when to when, as the clock shows it."""
    return f"{shown_time(start.time(), locale)}\u2013{shown_time(end.time(), locale)}"


def loaded_appointment(stored: str) -> Appointment:
    """Return the appointment that was kept as an interval (ISO 8601)."""
    start, _, end = stored.partition(_BETWEEN)
    begins = datetime.datetime.fromisoformat(start)
    return Appointment.of(begins, datetime.datetime.fromisoformat(end) if end else begins)


class SlotType(FieldType[SlotField]):
    """Slot."""

    name = "slot"
    title = "Slot"
    family = Family.DATES
    purpose = "An appointment with places: by a pattern of days and times, counted down, never given twice."
    face = SlotFace
    block = SlotField
    can_be_wrong = True

    def findings(self, block: SlotField) -> list[tuple[str, str, str]]:
        """No slots, too many, two that are one, a series that has none, a limit of nobody."""
        times = block.times("UTC")
        if times.too_many:
            message = f"These are more than {MAX_SLOTS:,} slots; what is beyond is not offered."
            return [("series", message, "End a series earlier, or make two blocks of it.")]
        unknown = next((each.starts for each in block.singles if not is_there(each)), None)
        if unknown is not None:
            return [("singles", f"There is no such day: {unknown}.", "Write another day, or take it out.")]
        if not times.all:
            return [("series", "There is no slot to choose.", "Add a series, or paint slots into the week.")]
        found = []
        if times.doubled:
            first = times.doubled[0]
            message = (
                f"Two series have a slot on {first.start.day} {first.start:%B %Y at %H:%M}; the first of them counts."
            )
            found.append(("series", message, "Let one of them begin at other times, or be at another place."))
        if block.most_each is not None and not block.each:
            message = "So many per person is set, and not by what a person is known."
            found.append(("each", message, "Choose the field, such as the e-mail address."))
        return found

    def value_type(self, block: SlotField) -> Type:
        """The moment at which it begins, or blank."""
        return Type(kind=Kind.DATE_TIME, may_be_blank=True)

    def facets(self, block: SlotField) -> dict[str, Facet]:
        """When it ends, its day, and whether it is only waited for."""
        return {
            "end": Facet(Type(kind=Kind.DATE_TIME, may_be_blank=True), lambda value: value.end),
            "day": Facet(Type(kind=Kind.DATE, may_be_blank=True), lambda value: value.date()),
            "waiting": Facet(Type(kind=Kind.YES_NO, may_be_blank=True), lambda value: value.waiting),
        }

    def parse(self, raw: Any, block: SlotField, region: Region) -> AskedSlot | None:
        """Return which slot is meant, by its beginning; whether it is offered is found out where its place is known."""
        try:
            moment = _MOMENTS.parse(raw, _AS_MOMENT, region)
        except AnswerError:
            raise AnswerError("not_a_slot", "Choose one of the times.") from None
        return None if moment is None else AskedSlot(code_of(moment))

    def adopt(self, value: Any, block: SlotField, region: Region) -> AskedSlot | None:
        """The slot that begins at the moment which a formula gives."""
        if isinstance(value, datetime.datetime):
            return AskedSlot(code_of(in_zone(value, region.time_zone)))
        return self.parse(convert.text(value), block, region)

    def from_link(self, text: str, block: SlotField, region: Region) -> Any:
        """The moment as it stands."""
        return text

    def enter(self, value: Any, block: SlotField, region: Region) -> str:
        """Its beginning by the clock."""
        return code_of(value) if isinstance(value, datetime.datetime) else str(value)

    def present(self, value: Appointment, block: SlotField, region: Region, medium: Medium) -> str:
        """Day and times for people, its beginning in ISO 8601 for programs."""
        if medium is Medium.CSV:
            return value.isoformat(timespec="minutes")
        told = f"{shown_day(value.date(), region.locale)}, {shown_times(value, value.end, region.locale)}"
        return f"{told} ({usual_words('slotWaits', region.locale)})" if value.waiting else told

    def dump(self, value: Appointment) -> str:
        """From when to when, as an interval of ISO 8601."""
        return _BETWEEN.join(each.isoformat(timespec="minutes") for each in (value, value.end))

    def load(self, stored: str, block: SlotField) -> Appointment:
        """The appointment of that interval."""
        return loaded_appointment(stored)

    def answer_schema(self, block: SlotField) -> dict[str, Any]:
        """An interval of two ISO 8601 moments."""
        moment = r"\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d)?([+-]\d\d:\d\d|Z)?"
        return {"type": "string", "pattern": f"^{moment}/{moment}$"}
