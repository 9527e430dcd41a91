"""Slot times: which appointments a slot block has, made of its series and of what was set by hand.

A slot is what begins at one time on one day for one place: the same slot in every edition that has it, so that what was
booked stays booked. Times are those of the clock where the form is at home. A time that the clock leaves out in spring
is no slot; one that comes twice in autumn is meant the first time.
"""

import datetime
from bisect import bisect_left
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import Annotated, NamedTuple, Self
from zoneinfo import ZoneInfo

from annotated_types import Len
from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.definition.parts import Identifier, Part
from codexa.core.fields.field_type import Weekday

MAX_SLOTS = 10_000  # of one block
MAX_PLACES = 100_000  # of one slot
_MOST_BREAKS = 30
_MOST_AT = 200
_DAY = 24 * 60  # minutes

TimeOfDay = Annotated[str, StringConstraints(pattern=r"^([01]\d|2[0-3]):[0-5]\d$")]
Minutes = Annotated[int, Setting(ge=1, le=7 * _DAY)]
Places = Annotated[int, Setting(ge=0, le=MAX_PLACES)]
# The code of an option of the field by which slots are offered, or none.
AtCode = Annotated[str, StringConstraints(max_length=100, pattern=r"^(\S(.*\S)?)?$")]
# A time on a day, by the clock: 2026-12-03T18:30.
SlotStart = Annotated[str, StringConstraints(pattern=r"^\d{4}-\d\d-\d\dT([01]\d|2[0-3]):[0-5]\d$")]


class SlotBreak(Part):
    """A time of day within a series in which nothing is offered."""

    begins: TimeOfDay
    ends: TimeOfDay


class SlotSeries(Part):
    """Slots by a pattern: on these weekdays (0 is Sunday) from the `first` day to the `last`, between two times.

    Each is `minutes` long and begins `every` so many after the one before, or as that ends. What ends before it begins
    ends on the next day. `at` are the places that each is offered at, each with `places` of its own.
    """

    id: Identifier
    weekdays: tuple[Weekday, ...] = (1, 2, 3, 4, 5)
    first: datetime.date
    last: datetime.date
    begins: TimeOfDay = "09:00"
    ends: TimeOfDay = "17:00"
    minutes: Minutes = 60
    every: Minutes | None = None
    breaks: Annotated[tuple[SlotBreak, ...], Len(max_length=_MOST_BREAKS)] = ()
    places: Places = 1
    at: Annotated[tuple[AtCode, ...], Len(max_length=_MOST_AT)] = ()


class SingleSlot(Part):
    """A slot that was set by hand; it stands in the place of one that a series has, and without places takes it out."""

    starts: SlotStart
    minutes: Minutes = 60
    places: Places = 1
    at: AtCode = ""


class DaysLeftOut(Part):
    """Days on which no series has slots, such as holidays; `name` is for the team."""

    first: datetime.date
    last: datetime.date
    name: Annotated[str, StringConstraints(max_length=100)] = ""


class Slot(NamedTuple):
    """A slot: when it begins and ends, where the form is at home, how many places it has, and what it is offered at.

    `series` is the id of the one that it is of, "" where it was set by hand.
    """

    start: datetime.datetime
    end: datetime.datetime
    places: int
    at: str = ""
    series: str = ""

    @property
    def code(self) -> str:
        """What names it beside its place: its beginning by the clock."""
        return code_of(self.start)


def code_of(start: datetime.datetime) -> str:
    """Return what names a slot that begins then: a time on a day, by the clock."""
    return start.isoformat()[:16]


@dataclass(frozen=True, kw_only=True)
class SlotTimes:
    """The slots of a block: by its series, what was set by hand, and days that are left out, in a time zone (IANA)."""

    series: Sequence[SlotSeries]
    singles: Sequence[SingleSlot]
    left_out: Sequence[DaysLeftOut]
    time_zone: str

    @cached_property
    def all(self) -> tuple[Slot, ...]:
        """All slots by time, at most MAX_SLOTS."""
        return tuple(sorted(self._found[0].values()))

    @property
    def too_many(self) -> bool:
        """Whether there are more than can be offered."""
        return self._found[1]

    @cached_property
    def doubled(self) -> tuple[Slot, ...]:
        """The slots that two series have, of which the first counts."""
        return self._found[2]

    @cached_property
    def _at(self) -> dict[str, tuple[tuple[Slot, ...], tuple[datetime.datetime, ...]]]:
        grouped: dict[str, list[Slot]] = defaultdict(list)
        for each in self.all:
            grouped[each.at].append(each)
        return {at: (tuple(slots), tuple(each.start for each in slots)) for at, slots in grouped.items()}

    def at(self, place: str) -> tuple[Slot, ...]:
        """Return the slots that are offered at a place, by time; "" for those that stand by themselves."""
        return self._at.get(place, ((), ()))[0]

    def since(self, place: str, moment: datetime.datetime) -> int:
        """Return the index of the first slot at a place that begins at a moment or after it."""
        return bisect_left(self._at.get(place, ((), ()))[1], moment)

    def find(self, code: str, place: str) -> Slot | None:
        """Return the slot of that code at that place."""
        return self._found[0].get((code, place))

    @cached_property
    def _found(self) -> tuple[dict[tuple[str, str], Slot], bool, tuple[Slot, ...]]:
        zone, found, doubled = ZoneInfo(self.time_zone), dict[tuple[str, str], Slot](), list[Slot]()
        singles = {(each.starts, each.at): _single(each, zone) for each in self.singles}
        for each in (slot for series in self.series for slot in self._of(series, zone)):
            named = each.code, each.at
            if named in found:
                doubled.append(each)
            elif named not in singles:
                found[named] = each
            if len(found) > MAX_SLOTS:
                break
        found |= {named: each for named, each in singles.items() if each is not None and each.places}
        too_many = len(found) > MAX_SLOTS
        return dict(list(found.items())[:MAX_SLOTS]), too_many, tuple(doubled)

    def _of(self, series: SlotSeries, zone: ZoneInfo) -> Iterator[Slot]:
        out = {day for each in self.left_out for day in _days(each.first, each.last)}
        for day in _days(series.first, series.last):
            if day.isoweekday() % 7 not in series.weekdays or day in out:
                continue
            for minute in _beginnings(series):
                start = _moment(day, minute, zone)
                if start is not None:
                    end = _after(start, series.minutes)
                    yield from (Slot(start, end, series.places, at, series.id) for at in series.at or ("",))


@lru_cache(maxsize=256)
def slot_times(
    series: tuple[SlotSeries, ...], singles: tuple[SingleSlot, ...], left_out: tuple[DaysLeftOut, ...], time_zone: str
) -> SlotTimes:
    """Return the slot times of a block's settings; the same of what is asked again, as drafts are proven often."""
    return SlotTimes(series=series, singles=singles, left_out=left_out, time_zone=time_zone)


def is_there(single: SingleSlot, zone: ZoneInfo | None = None) -> bool:
    """Whether the calendar has the day of a slot that was set by hand, and the clock of a zone its time."""
    return _single(single, zone or ZoneInfo("UTC")) is not None


class Appointment(datetime.datetime):
    """A slot that was chosen: the moment at which it begins, which knows when it ends, and whether it is waited for."""

    end: datetime.datetime
    waiting: bool

    @classmethod
    def of(cls, start: datetime.datetime, end: datetime.datetime, *, waiting: bool = False) -> Self:
        """Return the appointment from a moment to a moment."""
        begins = start
        made = cls(
            begins.year, begins.month, begins.day, begins.hour, begins.minute, tzinfo=begins.tzinfo, fold=begins.fold
        )
        made.end, made.waiting = end, waiting
        return made


def _days(first: datetime.date, last: datetime.date) -> Iterator[datetime.date]:
    # Ten years of days are more than anybody plans; what is longer is cut, and the proof tells of too many slots.
    for each in range(min((last - first).days + 1, 3_660)):
        yield first + datetime.timedelta(days=each)


def minute_of(time: str) -> int:
    """Return the minute of the day of a time such as 17:30."""
    return int(time[:2]) * 60 + int(time[3:])


def _beginnings(series: SlotSeries) -> Iterator[int]:
    """Yield at which minutes of its day the slots of a series begin; what is after midnight is more than a day."""
    begins, ends = minute_of(series.begins), minute_of(series.ends)
    ends += _DAY if ends <= begins else 0
    breaks = sorted(_breaks(series))
    while begins + series.minutes <= ends:
        # What would run into a break begins as that is over.
        broken = next((over for start, over in breaks if begins < over and begins + series.minutes > start), None)
        if broken is None:
            yield begins
            begins += series.every or series.minutes
        else:
            begins = broken


def _breaks(series: SlotSeries) -> Iterator[tuple[int, int]]:
    """Yield from which minute to which there is a break, on the day itself and on the next."""
    for each in series.breaks:
        start, over = minute_of(each.begins), minute_of(each.ends)
        over += _DAY if over <= start else 0
        yield start, over
        yield start + _DAY, over + _DAY


def _moment(day: datetime.date, minute: int, zone: ZoneInfo) -> datetime.datetime | None:
    """Return the moment at a minute of a day, or None where the clock leaves it out."""
    days, rest = divmod(minute, _DAY)
    time = datetime.time(rest // 60, rest % 60, tzinfo=zone)
    moment = datetime.datetime.combine(day + datetime.timedelta(days=days), time)
    known = moment.astimezone(datetime.UTC).astimezone(zone)
    return moment if code_of(known) == code_of(moment) else None


def _after(start: datetime.datetime, minutes: int) -> datetime.datetime:
    """Return the moment so many minutes later, as they pass: not as the clock shows them."""
    return (start.astimezone(datetime.UTC) + datetime.timedelta(minutes=minutes)).astimezone(start.tzinfo)


def _single(single: SingleSlot, zone: ZoneInfo) -> Slot | None:
    try:
        start = datetime.datetime.fromisoformat(single.starts)
    except ValueError:
        return None  # the proof tells of a day that there is not
    moment = _moment(start.date(), start.hour * 60 + start.minute, zone)
    return None if moment is None else Slot(moment, _after(moment, single.minutes), single.places, single.at)
