"""Calendar entries as iCalendar (RFC 5545), for anybody's calendar; a change is the same entry anew (RFC 5546).

An entry is known again by its UID; of two with the same one the higher SEQUENCE counts.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, date, datetime
from typing import Literal

from icalendar import Calendar, Event, vCalAddress, vText

_PRODUCT = "-//Codexa//Bookings//EN"
Method = Literal["REQUEST", "CANCEL", "PUBLISH"]


@dataclass(frozen=True, kw_only=True, slots=True)
class CalendarEntry:
    """What stands in a calendar: aware moments, or a whole day where `ends` is None; cancelled or not.

    `sequence` counts its changes. `organiser` and `guests` are addresses, for an invitation.
    """

    uid: str
    title: str
    starts: datetime | date
    ends: datetime | None
    sequence: int
    place: str = ""
    text: str = ""
    cancelled: bool = False
    organiser: str = ""
    guests: tuple[str, ...] = ()


def as_calendar(entries: Iterable[CalendarEntry], method: Method | None, *, now: datetime, name: str = "") -> bytes:
    """Return entries as a calendar file; `now` is when they are written. In a calendar's server none has a method."""
    calendar = Calendar()
    calendar.add("prodid", _PRODUCT)
    calendar.add("version", "2.0")
    if method is not None:
        calendar.add("method", method)
    if name:
        calendar.add("name", name)
    for each in entries:
        calendar.add_component(_event(each, now))
    written: bytes = calendar.to_ical()
    return written


def _event(entry: CalendarEntry, now: datetime) -> Event:
    event = Event()
    event.add("uid", entry.uid)
    event.add("dtstamp", now.astimezone(UTC))
    event.add("sequence", entry.sequence)
    event.add("summary", entry.title)
    # As moments of UTC they mean the same wherever they are read, whatever the clocks there do.
    event.add("dtstart", entry.starts.astimezone(UTC) if isinstance(entry.starts, datetime) else entry.starts)
    if entry.ends is not None:
        event.add("dtend", entry.ends.astimezone(UTC))
    if entry.place:
        event.add("location", entry.place)
    if entry.text:
        event.add("description", entry.text)
    event.add("status", "CANCELLED" if entry.cancelled else "CONFIRMED")
    if entry.organiser:
        event["organizer"] = vCalAddress(f"mailto:{entry.organiser}")
    for each in entry.guests:
        guest = vCalAddress(f"mailto:{each}")
        guest.params["role"] = vText("REQ-PARTICIPANT")
        event.add("attendee", guest, encode=False)
    return event
