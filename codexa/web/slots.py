"""Slots of a draft as they are being made: worked out, and nothing of it kept."""

from uuid import UUID
from zoneinfo import available_timezones

from flask import Blueprint

from codexa.core.fields.slot_times import SlotTimes, code_of
from codexa.core.fields.slot_words import series_told
from codexa.services.drafts import require
from codexa.services.roles import Right
from codexa.web.contract.slots import ShownSlotReply, ShownSlotsReply, ShowSlotsRequest
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.reading import BadRequestError

blueprint = Blueprint("slots", __name__, url_prefix="/api/forms/<uuid:form>/slots")
_MOST_SETTINGS = 2_000_000  # bytes
_MOST_DAYS = 62


@endpoint(blueprint, "POST", "/shown", body=ShowSlotsRequest, reply=ShownSlotsReply, most=_MOST_SETTINGS)
def shown(asked: ShowSlotsRequest, form: UUID) -> ShownSlotsReply:
    """Return which slots a block's settings make in a span of days."""
    require(connection, who=may(Right.SEE_FORMS), form=form)
    if asked.time_zone not in available_timezones():
        raise BadRequestError(f'There is no time zone "{asked.time_zone}". Write one such as Europe/Berlin.')
    if not 0 <= (asked.last - asked.first).days < _MOST_DAYS:
        raise BadRequestError(f"Ask for {_MOST_DAYS} days at most, the first of them first.")
    times = SlotTimes(series=asked.series, singles=asked.singles, left_out=asked.left_out, time_zone=asked.time_zone)
    days = [each.start.date() for each in times.all]
    return ShownSlotsReply(
        slots=[
            ShownSlotReply(
                starts=each.code,
                ends=code_of(each.end),
                places=each.places,
                at=each.at,
                series=each.series,
            )
            for each in times.all
            if asked.first <= each.start.date() <= asked.last
        ],
        told={each.id: series_told(each, asked.labels) for each in asked.series},
        count=len(times.all),
        first_day=days[0] if days else None,
        last_day=days[-1] if days else None,
        too_many=times.too_many,
    )
