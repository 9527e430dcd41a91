"""Slots: those of a draft in a span of days, and the booking sheet of a form."""

import datetime
from typing import Annotated
from uuid import UUID

from annotated_types import Len
from pydantic import Field, StringConstraints

from codexa.core.fields.slot_times import DaysLeftOut, SingleSlot, SlotSeries
from codexa.core.tables.slots import SlotColumns, UsualSlot
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


class SlotsOfTableRequest(Message):
    """Which columns of a table say when slots begin, and what slots are like of which a record says nothing else.

    `labels` are what the block's places are called, by code.
    """

    table: UUID
    columns: SlotColumns
    usual: UsualSlot
    time_zone: str
    labels: Annotated[dict[str, str], Field(max_length=2_000)] = Field({})


class NoSlotReply(Message):
    """A record that makes no slot: its number, and why not."""

    number: int
    message: str


class SlotsOfTableReply(Message):
    """The slots that a table's records make, and the first of those that make none, of so many."""

    slots: list[SingleSlot]
    wrong: list[NoSlotReply]
    wrong_count: int


class BookedBlockReply(Message):
    """A slot block of the live edition."""

    id: str
    label: str


class SheetColumnReply(Message):
    """A field that tells who somebody is."""

    id: str
    label: str


class TakerReply(Message):
    """A response with places of a slot, or which waits for them; `cells` tell who it is, by column."""

    number: int
    pieces: int
    waiting: bool
    cells: dict[str, str]


class SheetSlotReply(Message):
    """A slot of a day: its name, when it begins and ends by the clock, where, its places, and who has them.

    One that the live edition has no more has 0 places and "" for an end. A closed one is given to nobody else.
    """

    name: str
    starts: str
    ends: str
    at: str
    at_label: str
    places: int
    taken: int
    closed: bool
    takers: list[TakerReply]


class SheetReply(Message):
    """The booking sheet of a day; `before` and `after` are the next days that have slots."""

    blocks: list[BookedBlockReply]
    block: str
    day: datetime.date
    columns: list[SheetColumnReply]
    slots: list[SheetSlotReply]
    before: datetime.date | None
    after: datetime.date | None


class CalendarReply(Message):
    """Where a form's bookings are a calendar; "" where they are none."""

    address: str


class CalendarRequest(Message):
    """Whether a form's calendar is to have an address, another one than before, or none."""

    open: bool


class CloseSlotRequest(Message):
    """A slot by its name, and whether it is to be closed or open."""

    name: Annotated[str, StringConstraints(max_length=200)]
    closed: bool


class BookingSlotReply(Message):
    """A slot of a response: its address ("id", or "repeat/row/id"), the field's label, when in words."""

    address: str
    label: str
    told: str
    waiting: bool


class FreeSlotReply(Message):
    """A slot that could be had: its beginning by the clock, in words, and how many places are left of it."""

    code: str
    told: str
    left: int


class BookingReply(Message):
    """How the slots of a response stand, and which of them it has; for one of them, what could be had instead."""

    booking: str
    slots: list[BookingSlotReply]
    free: list[FreeSlotReply]


class MoveBookingRequest(Message):
    """Another slot, by its beginning, in the place of the one at an address."""

    address: Annotated[str, StringConstraints(max_length=140)]
    code: Annotated[str, StringConstraints(max_length=20)]


class CancelBookingRequest(Message):
    """Why a booking is cancelled, for the team's trail."""

    because: Annotated[str, StringConstraints(max_length=500)] = ""
