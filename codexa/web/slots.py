"""Slots of a draft as they are being made: worked out, and nothing of it kept."""

from uuid import UUID

from flask import Blueprint

from codexa.core.fields.slot_times import SlotTimes, code_of
from codexa.core.fields.slot_words import series_told
from codexa.core.form.form import time_zones
from codexa.services.drafts import require
from codexa.services.roles import Right
from codexa.services.tables.slots import slots_of_table
from codexa.web.contract.slots import (
    NoSlotReply,
    ShownSlotReply,
    ShownSlotsReply,
    ShowSlotsRequest,
    SlotsOfTableReply,
    SlotsOfTableRequest,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.reading import BadRequestError

blueprint = Blueprint("slots", __name__, url_prefix="/api/forms/<uuid:form>/slots")
_MOST_SETTINGS = 2_000_000  # bytes
_MOST_DAYS = 62
_MOST_TOLD = 10  # records that make no slot


@endpoint(blueprint, "POST", "/shown", body=ShowSlotsRequest, reply=ShownSlotsReply, most=_MOST_SETTINGS)
def shown(asked: ShowSlotsRequest, form: UUID) -> ShownSlotsReply:
    """Return which slots a block's settings make in a span of days."""
    require(connection, who=may(Right.SEE_FORMS), form=form)
    _known_zone(asked.time_zone)
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


@endpoint(blueprint, "POST", "/of-table", body=SlotsOfTableRequest, reply=SlotsOfTableReply)
def of_table(asked: SlotsOfTableRequest, form: UUID) -> SlotsOfTableReply:
    """Return which slots a table's records make; nothing is kept."""
    require(connection, who=may(Right.EDIT_FORMS), form=form)
    _known_zone(asked.time_zone)
    found = slots_of_table(
        connection,
        who=may(Right.SEE_TABLES),
        table=asked.table,
        columns=asked.columns,
        usual=asked.usual,
        time_zone=asked.time_zone,
        places=asked.labels,
    )
    wrong = [NoSlotReply(number=number, message=message) for number, message in found.wrong.items()]
    return SlotsOfTableReply(slots=found.slots, wrong=wrong[:_MOST_TOLD], wrong_count=len(wrong))


def _known_zone(time_zone: str) -> None:
    if time_zone not in time_zones():
        raise BadRequestError(f'There is no time zone "{time_zone}". Write one such as Europe/Berlin.')
