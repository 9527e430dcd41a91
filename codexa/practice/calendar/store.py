"""What stands in the practice calendars, read as the CalDAV server keeps it: one file of iCalendar for each entry."""

import datetime
import json
import os
from dataclasses import dataclass
from pathlib import Path
from zoneinfo import ZoneInfo

from icalendar import Calendar, Event

FOLDER = Path(os.environ.get("PRACTICE_CALENDAR", "var/calendar"))
USER, PASSWORD = "alderlight", "practice"
CALENDARS = {"summit": "Summit Dome", "harbour": "Harbour Deck"}
ZONE = ZoneInfo("Europe/Berlin")
MODES = {
    "take": "take everything",
    "refuse": "refuse everything",
    "away": "are away",
    "slow": "answer slowly",
}


@dataclass(frozen=True)
class Entry:
    """An entry: in which calendar, from when to when (None: all day), and how often it was changed."""

    calendar: str
    title: str
    place: str
    text: str
    starts: datetime.datetime
    ends: datetime.datetime | None
    guests: list[str]
    sequence: int


def _collections() -> Path:
    return FOLDER / "collection-root" / USER


def prepare() -> None:
    """Make the calendars, and who may sign in."""
    for name, title in CALENDARS.items():
        place = _collections() / name
        place.mkdir(parents=True, exist_ok=True)
        (place / ".Radicale.props").write_text(json.dumps({"tag": "VCALENDAR", "D:displayname": title}))
    (FOLDER / "users").write_text(f"{USER}:{PASSWORD}\n")


def entries(first: datetime.date, days: int) -> list[Entry]:
    """Return what begins on these days, in order."""
    last = first + datetime.timedelta(days=days)
    found = (_read(name, path) for name in CALENDARS for path in (_collections() / name).glob("*.ics"))
    return sorted(
        (each for read in found for each in read if first <= each.starts.date() < last), key=lambda each: each.starts
    )


def _read(name: str, path: Path) -> list[Entry]:
    try:
        calendar = Calendar.from_ical(path.read_bytes())
    except (OSError, ValueError):
        return []  # taken out while we looked
    return [_entry(name, event) for event in calendar.events]


def _entry(name: str, event: Event) -> Entry:
    return Entry(
        calendar=name,
        title=str(event.get("SUMMARY", "")),
        place=str(event.get("LOCATION", "")),
        text=str(event.get("DESCRIPTION", "")),
        starts=_moment(event.start),
        ends=None if "DTEND" not in event else _moment(event.end),
        guests=[str(each).removeprefix("mailto:") for each in event.attendees],
        sequence=int(str(event.get("SEQUENCE", 0))),
    )


def _moment(value: datetime.date) -> datetime.datetime:
    """Return a moment where the calendars are at home; of a day its beginning."""
    if isinstance(value, datetime.datetime):
        return value.astimezone(ZONE)
    return datetime.datetime.combine(value, datetime.time(), ZONE)


def mode() -> str:
    """Return how the calendars answer just now."""
    path = FOLDER / "mode.json"
    chosen = json.loads(path.read_text()) if path.exists() else "take"
    return chosen if chosen in MODES else "take"


def set_mode(chosen: str) -> None:
    """Answer otherwise from now on."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    (FOLDER / "mode.json").write_text(json.dumps(chosen))
