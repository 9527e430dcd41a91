"""Slots: those of a draft in a span of days, and the booking sheet of a form."""

import datetime
from typing import Annotated

from annotated_types import Len
from pydantic import Field

from codexa.core.fields.slot_times import DaysLeftOut, SingleSlot, SlotSeries
from codexa.web.contract.message import Message


class ShowSlotsRequest(Message):
    """The settings of a slot block as they are being made, and of which days its slots are wanted, both included.

    `labels` are what its places are called, by code.
    """

    series: Annotated[tuple[SlotSeries, ...], Len(max_length=100)]
    singles: Annotated[tuple[SingleSlot, ...], Len(max_length=10_000)]
    left_out: Annotated[tuple[DaysLeftOut, ...], Len(max_length=1_000)]
    time_zone: str
    first: datetime.date
    last: datetime.date
    labels: dict[str, str] = Field({})


class ShownSlotReply(Message):
    """A slot: when it begins and ends by the clock ("2026-12-03T18:30"), its places, at what, and of which series.

    `series` is that one's id, "" where it was set by hand.
    """

    starts: str
    ends: str
    places: int
    at: str
    series: str


class ShownSlotsReply(Message):
    """The slots of those days; each series in words, by id; how many there are in all, from which day to which."""

    slots: list[ShownSlotReply]
    told: dict[str, str]
    count: int
    first_day: datetime.date | None
    last_day: datetime.date | None
    too_many: bool
