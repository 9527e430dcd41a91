"""A calendar entry, as it goes along with a mail or stands in a calendar: from when to when, called what, where."""

import datetime
from collections.abc import Iterator
from typing import Any

from codexa.core.fields.date import DateField
from codexa.core.fields.date_time import DateTimeField
from codexa.core.fields.slot import SlotField
from codexa.core.fields.slot_times import Appointment
from codexa.core.form.follow_ups import CalendarFollowUp, EmailFollowUp
from codexa.core.program.evaluate import State
from codexa.core.program.findings import Finding, error
from codexa.core.program.program import Program

WithEntry = EmailFollowUp | CalendarFollowUp
_DATED = (DateField, DateTimeField, SlotField)
_TAKES_OUT = ("cancelled", "denied", "refunded")
_MOST_TITLE = 200  # characters


def calendar_entry(state: State, follow_up: WithEntry) -> dict[str, Any] | None:
    """Return the entry as JSON: ISO 8601 moments, "ends" None for a whole day; None where none goes along."""
    place = state.program.questions.get(follow_up.entry)
    value = None if place is None or not isinstance(place.block, _DATED) else state.value(place)
    if place is None or not isinstance(value, datetime.date) or getattr(value, "waiting", False):
        return None
    ends = None
    if isinstance(value, Appointment):
        ends = value.end
    elif isinstance(value, datetime.datetime):
        ends = value.astimezone(datetime.UTC) + datetime.timedelta(minutes=follow_up.minutes)
    return {
        "field": place.block.id,
        "starts": value.isoformat(),
        "ends": None if ends is None else ends.isoformat(),
        "title": _text(state, follow_up, "entry_title", follow_up.entry_title) or state.program.form.title,
        "place": _text(state, follow_up, "entry_place", follow_up.entry_place),
        "cancelled": follow_up.on in _TAKES_OUT,
    }


def _text(state: State, follow_up: WithEntry, setting: str, written: str) -> str:
    return " ".join(state.text(follow_up.id, setting, written).split())[:_MOST_TITLE]


def entry_findings(program: Program, follow_up: WithEntry) -> Iterator[Finding]:
    """Yield what is wrong with an entry: its field is gone, or has no day."""
    place = program.questions.get(follow_up.entry)
    if follow_up.entry and (place is None or not isinstance(place.block, _DATED)):
        message = "A calendar entry goes along, and its field was removed, or has no day."
        yield error("no_day", message, "Choose a slot or a date, or none.", follow_up.id, "entry")
