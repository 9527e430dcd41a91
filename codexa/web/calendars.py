"""The calendars of a team, in which follow-ups keep entries."""

from uuid import UUID

from flask import Blueprint, current_app

from codexa.services.calendars import calendars
from codexa.services.calendars.calendars import NewCalendar
from codexa.services.roles import Right
from codexa.web.contract.calendars import CalendarNameReply, CalendarsReply, NewCalendarRequest
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted

blueprint = Blueprint("team_calendars", __name__, url_prefix="/api/calendars")


@endpoint(blueprint, "GET", "", reply=CalendarsReply)
def list_calendars() -> CalendarsReply:
    """List the calendars of the team."""
    found = calendars.list_calendars(connection, who=may(Right.EDIT_FORMS))
    return CalendarsReply(calendars=[CalendarNameReply.model_validate(each) for each in found])


@endpoint(blueprint, "POST", "", body=NewCalendarRequest)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def add_calendar(asked: NewCalendarRequest) -> None:
    """Take up a calendar, once it answers."""
    new = NewCalendar(name=asked.name, address=asked.address, user_name=asked.user_name, password=asked.password)
    calendars.add_calendar(connection, current_app.config["SETTINGS"], who=may(Right.KEEP_ACCOUNTS), new=new)


@endpoint(blueprint, "POST", "/<uuid:calendar>/try")
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def try_calendar(calendar: UUID) -> None:
    """See whether a calendar answers."""
    calendars.try_calendar(connection, current_app.config["SETTINGS"], who=may(Right.KEEP_ACCOUNTS), calendar=calendar)


@endpoint(blueprint, "DELETE", "/<uuid:calendar>")
def remove_calendar(calendar: UUID) -> None:
    """Remove a calendar that no form keeps entries in."""
    calendars.remove_calendar(connection, who=may(Right.KEEP_ACCOUNTS), calendar=calendar)
