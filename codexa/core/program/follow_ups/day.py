"""Days that hang on a response: when a follow-up is done that is set off by one."""

import datetime
from collections.abc import Iterator

from codexa.core.fields.date import DateField
from codexa.core.fields.date_time import DateTimeField
from codexa.core.fields.slot import SlotField
from codexa.core.form.follow_ups import Day, FollowUp
from codexa.core.program.evaluate import State
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.names import name_of
from codexa.core.program.places import ALWAYS, NEVER
from codexa.core.program.program import Program

_DATED = (DateField, DateTimeField, SlotField)


def moment_of(state: State, day: Day) -> datetime.datetime | None:
    """Return when it is, aware, in the form's time zone; None where its date is blank or beyond the calendar."""
    given = state.context.now if not day.field else _date_in(state, day.field)
    if given is None:
        return None
    first = given.date() if isinstance(given, datetime.datetime) else given
    try:
        if day.hours is not None:
            begins = given if isinstance(given, datetime.datetime) else _at_midnight(first, state)
            # So many hours as they pass, whatever the clock does meanwhile.
            return (begins.astimezone(datetime.UTC) + datetime.timedelta(hours=day.hours)).astimezone(begins.tzinfo)
        date = first + datetime.timedelta(days=day.days)
    except OverflowError:
        return None
    return datetime.datetime.combine(date, datetime.time.fromisoformat(day.at), state.context.now.tzinfo)


def _date_in(state: State, field: str) -> datetime.date | None:
    place = state.program.questions.get(field)
    value = None if place is None or not isinstance(place.block, _DATED) else state.value(place)
    return value if isinstance(value, datetime.date) else None


def _at_midnight(day: datetime.date, state: State) -> datetime.datetime:
    return datetime.datetime.combine(day, datetime.time(), state.context.now.tzinfo)


def day_findings(program: Program, follow_up: FollowUp) -> Iterator[Finding]:
    """Yield what is wrong with the day of a follow-up: its field is gone, of another type, or may be blank."""
    field = follow_up.day.field
    if follow_up.on != "day" or not field:
        return
    place = program.questions.get(field)
    if place is None or not isinstance(place.block, _DATED):
        message = "The field of a date that it waits for was removed, or is another type now."
        yield error("no_day", message, "Pick another field.", follow_up.id, "day.field")
    elif place.conditions.shown is NEVER:
        message = f"{name_of(program, field)} is never shown: this would never be done."
        yield error("no_day", message, "Pick another field.", follow_up.id, "day.field")
    elif place.block.required.strip().upper() != "TRUE" or place.conditions.shown is not ALWAYS:
        message = f"{name_of(program, field)} may be blank or hidden; then this isn't done."
        remedy = "Require the field, or say when it is done."
        if not follow_up.only_when.strip():
            yield doubt("may_have_no_day", message, remedy, follow_up.id, "day.field")
