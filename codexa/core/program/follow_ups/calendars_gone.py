"""What is wrong where a follow-up names a calendar that the team does not have."""

from collections.abc import Collection, Iterator

from codexa.core.form.follow_ups import CalendarFollowUp
from codexa.core.program.findings import Finding, error
from codexa.core.program.program import Program


def calendars_named(program: Program) -> set[str]:
    """Return the ids of the calendars in which entries of a form stand."""
    return {each.calendar for one in _with_calendars(program) for each in one.calendars if each.calendar}


def calendars_gone(program: Program, calendars: Collection[str]) -> Iterator[Finding]:
    """Yield an error for each follow-up that names a calendar whose id is not among the team's."""
    for follow_up in _with_calendars(program):
        if any(each.calendar and each.calendar not in calendars for each in follow_up.calendars):
            message = "The entry is to stand in a calendar that the team does not have."
            yield error("no_such_calendar", message, "Choose another, or add it in Team.", follow_up.id, "calendars")


def _with_calendars(program: Program) -> list[CalendarFollowUp]:
    return [each for each in program.form.follow_ups if isinstance(each, CalendarFollowUp)]
