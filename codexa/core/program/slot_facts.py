"""The facts of a slot block: what it offers in this state, and what was chosen of it."""

import datetime
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from codexa.core.context import Context
from codexa.core.fields.slot import AskedSlot, SlotField, loaded_appointment
from codexa.core.fields.slot_times import MAX_PLACES, Appointment, Slot, SlotTimes, code_of
from codexa.core.program.claim_names import CLOSED, slot_name
from codexa.core.program.pieces import whole_pieces


@dataclass(frozen=True, kw_only=True, slots=True)
class SlotOffer:
    """What offers slots, at which place (None where that is still to be answered), and which was chosen.

    `lost` says that one was chosen that is not offered; `places` is how many the chosen one has in all.
    """

    offering: "Offering"
    at: str | None
    chosen: Appointment | None = None
    places: int = MAX_PLACES
    lost: bool = False

    @property
    def name(self) -> str:
        """The name under which places of the chosen slot are claimed; "" where none is chosen, or it has no place."""
        if self.chosen is None or self.at is None:
            return ""
        return slot_name(self.offering.block.id, code_of(self.chosen), self.at)


class Offering:
    """Finds what a slot block offers, by what the field is answered with by which it does."""

    def __init__(self, block: SlotField, time_zone: str) -> None:
        """Take in what stays the same in every state."""
        self.block = block
        self.times: SlotTimes = block.times(time_zone)

    def __call__(self, context: Context, answer: Any, place: Any, taking: Any) -> SlotOffer:
        """Return what is offered at a place, and what of it was answered, where so many places are wanted."""
        at = (None if place is None else str(place)) if self.block.by else ""
        if isinstance(answer, Appointment):
            return self._kept(context, answer, at)
        if not isinstance(answer, AskedSlot):
            return SlotOffer(offering=self, at=at)
        return self._asked(context, answer, at, taking)

    def _kept(self, context: Context, kept: Appointment, at: str | None) -> SlotOffer:
        """Return what was chosen as the response was taken; whether it still waits is what the context says."""
        waits = at is not None and slot_name(self.block.id, code_of(kept), at) in context.waiting
        known = None if at is None else self.times.find(code_of(kept), at)
        return SlotOffer(
            offering=self,
            at=at,
            chosen=Appointment.of(kept, kept.end, waiting=waits),
            places=MAX_PLACES if known is None else known.places,
        )

    def _asked(self, context: Context, asked: AskedSlot, at: str | None, taking: Any) -> SlotOffer:
        name = "" if at is None else slot_name(self.block.id, asked, at)
        slot = None if at is None else self.times.find(asked, at)
        held = context.held.get(name)
        if held is not None and (slot is None or not self.is_offered(slot, context)):
            # What a response has already stays its own, also where the form has no such slot any more.
            return self._kept(context, loaded_appointment(held), at)
        if slot is None or not self.is_offered(slot, context) or context.taken.get(name, 0) >= CLOSED:
            return SlotOffer(offering=self, at=at, lost=True)
        waits = self.block.waiting and self.left(slot, context) < whole_pieces(taking, MAX_PLACES)
        chosen = Appointment.of(slot.start, slot.end, waiting=waits)
        return SlotOffer(offering=self, at=at, chosen=chosen, places=slot.places)

    def left(self, slot: Slot, context: Context) -> int:
        """Return how many places are left of a slot; less than none where it is closed."""
        return slot.places - context.taken.get(slot_name(self.block.id, slot.code, slot.at), 0)

    def earliest(self, context: Context) -> datetime.datetime:
        """Return the first moment at which an offered slot may begin."""
        return context.now + datetime.timedelta(hours=self.block.notice)

    def is_offered(self, slot: Slot, context: Context) -> bool:
        """Whether a slot lies in the time for which slots are offered now."""
        return slot.start > self.earliest(context) and not self._is_beyond(slot, context)

    def _is_beyond(self, slot: Slot, context: Context) -> bool:
        ahead = self.block.ahead
        return ahead is not None and slot.start.date() > context.today + datetime.timedelta(days=ahead)

    def all_free(self, context: Context, at: str, since: datetime.date, pieces: int) -> Iterator[tuple[Slot, int]]:
        """Yield the slots at a place from a day on that have so many places left, whenever visitors may choose them."""
        first = datetime.datetime.combine(since, datetime.time(), tzinfo=context.now.tzinfo)
        slots = self.times.at(at)
        for each in slots[self.times.since(at, first) :]:
            if (left := self.left(each, context)) >= pieces:
                yield each, left

    def shown(self, context: Context, at: str, since: datetime.date | None, pieces: int) -> Iterator[tuple[Slot, int]]:
        """Yield the slots at a place that can be chosen, by time, and how many places are left of each.

        With `since`, those from that day on. What is full, or has not so many places left, is there where it can be
        waited for.
        """
        first = self.earliest(context)
        if since is not None:
            first = max(first, datetime.datetime.combine(since, datetime.time(), tzinfo=context.now.tzinfo))
        slots = self.times.at(at)
        for each in slots[self.times.since(at, first) :]:
            if self._is_beyond(each, context):
                return
            left = self.left(each, context)
            is_open = left > each.places - CLOSED
            if is_open and (left >= pieces or self.block.waiting) and self.is_offered(each, context):
                yield each, left
