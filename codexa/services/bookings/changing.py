"""Changing a booking: another slot in the place of one, or none; by the visitor until a time, by the team at any."""

import uuid
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, timedelta
from typing import Any
from uuid import UUID

from codexa.core.context import NOBODY
from codexa.core.fields.slot import SlotField
from codexa.core.fields.slot_times import Appointment, Slot
from codexa.core.program.accept import accepted_of
from codexa.core.program.evaluate import State
from codexa.core.program.kept import state_of_kept
from codexa.core.program.places import ROW_ADDRESS, Place
from codexa.core.program.slot_facts import Offering, SlotOffer
from codexa.core.program.slot_offers import pieces_wanted, slots_chosen
from codexa.services.bookings.booking import keep_changed, let_move_up
from codexa.services.errors import BookingRefusedError, CorrectedMeanwhileError, NotFoundError
from codexa.services.follow_ups.keeping import Happened, keep_days_anew, keep_due
from codexa.services.own_pages import OwnPages
from codexa.services.payments.settling import Way
from codexa.services.received import state_of_row
from codexa.store import claims, responses, runs
from codexa.store import editions as editions_store
from codexa.store.database import Connection
from codexa.store.responses import ReceivedRow


@dataclass(frozen=True, kw_only=True, slots=True)
class Booked:
    """A slot of a response: at which address, when in words, whether it is waited for, until when it may be changed.

    The address is a block's id, or "repeat/row/block"; the time is aware, None where visitors can't change it.
    """

    address: str
    label: str
    told: str
    start: datetime
    waiting: bool
    until: datetime | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Opened:
    """A response with its slots, as it stands."""

    form: UUID
    row: ReceivedRow
    state: State
    booking: str
    decision: str

    @property
    def slots(self) -> list[Booked]:
        """The slots that it has, or waits for, in the order of the form."""
        return [_booked(self.state, *each) for each in slots_chosen(self.state)] if self.booking != "cancelled" else []


def _booked(state: State, place: Place, row: Sequence[Any], offer: SlotOffer) -> Booked:
    block, chosen = place.block, offer.chosen
    assert isinstance(block, SlotField)
    assert chosen is not None
    hours = block.change_until
    return Booked(
        address=place.address(row),
        label=state.text(block.id, "label", block.label, row),
        told=state.presented(place, row) or "",
        start=chosen,
        waiting=chosen.waiting,
        until=None if hours is None else chosen.astimezone(UTC) - timedelta(hours=hours),
    )


def opened(way: Way, form: UUID, number: int) -> Opened:
    """Return a response with its slots. Raises NotFoundError where there is none."""
    with way.connect() as connection:
        row = responses.find_received(connection, form=form, number=number)
        facets = responses.facets(connection, form=form, number=number)
    if row is None or facets is None:
        raise NotFoundError
    booking, decision = facets
    return Opened(form=form, row=row, state=state_of_row(way, form, row), booking=booking, decision=decision)


def is_late(booked: Booked, now: datetime) -> bool:
    """Whether a visitor can't change a booking any more, or never could."""
    return booked.until is None or now > booked.until


@dataclass(frozen=True, kw_only=True, slots=True)
class Changer:
    """Who changes a booking: somebody of the team, or the visitor (None), for whom the times of the form hold."""

    person: UUID | None = None


def free_instead(
    way: Way, found: Opened, address: str, *, changer: Changer, since: date | None, most: int
) -> list[tuple[Slot, int]]:
    """Return the slots that could be had in the place of one, by time, and how many places are left of each.

    They are those of the live edition. Raises NotFoundError where there is no slot at the address.
    """
    place, row, offer = _at(found, address)
    offering = _live_offering(way, found.form, place)
    if offering is None or offer.at is None:
        return []
    with way.connect() as connection:
        taken = claims.taken(connection, form=found.form)
    context = replace(_now(found.state), taken=taken)
    pieces = max(1, pieces_wanted(found.state, place, row))
    shown = (
        offering.shown(context, offer.at, since, pieces)
        if changer.person is None
        else offering.all_free(context, offer.at, since or context.today, pieces)
    )
    chosen = [each for each in shown if each[1] >= pieces and not _is_same(each[0], offer)]
    return chosen[:most]


def rebook(way: Way, found: Opened, address: str, code: str, *, changer: Changer) -> Opened:
    """Give a response another slot in the place of one, and return it as it stands then.

    Raises NotFoundError, BookingRefusedError where that slot can't be had or it is too late, CorrectedMeanwhileError.
    """
    say = found.state.program.form.say
    place, row, offer = _at(found, address)
    _require_in_time(found, address, changer)
    free = free_instead(way, found, address, changer=changer, since=_day_of(code), most=10_000)
    slot = next((each for each, _ in free if each.code == code), None)
    if slot is None:
        raise BookingRefusedError(say("slot_gone"))
    before = found.state.presented(place, row) or ""
    answers = _with_slot(found.row.answers, place, row, Appointment.of(slot.start, slot.end))
    context = replace(found.state.context, waiting=found.state.context.waiting - {offer.name})
    state = state_of_kept(found.state.program, answers, context)
    if (error := state.error(place, _same_row(state, place, row))) is not None:
        raise BookingRefusedError(error.message)
    accepted = accepted_of(state)
    key = uuid.uuid4().hex
    with way.connect() as connection:
        _lock(connection, found)
        if claims.move(connection, form=found.form, number=found.row.number, claims=state.claims) is not None:
            raise BookingRefusedError(say("slot_gone"))
        keep_changed(connection, found.form, found.row.number, accepted)
        after = state.presented(place, _same_row(state, place, row)) or ""
        event = Happened(form=found.form, number=found.row.number, moments=("rebooked",), which=key)
        _tell(connection, way, accepted.state, event, {"before": before, "after": after, "person": changer.person})
    return opened(way, found.form, found.row.number)


def cancel(way: Way, found: Opened, *, changer: Changer, because: str = "") -> Opened:
    """Give back all slots of a response for good, and return it as it stands then; once more changes nothing.

    Raises BookingRefusedError where a visitor comes too late, or the response waits for money.
    """
    for each in found.slots:
        _require_in_time(found, each.address, changer)
    if found.booking == "cancelled":
        return found
    with way.connect() as connection:
        _lock(connection, found)
        claims.release_slots(connection, form=found.form, number=found.row.number)
        responses.set_booking(connection, form=found.form, number=found.row.number, booking="cancelled")
        event = Happened(form=found.form, number=found.row.number, moments=("cancelled",))
        _tell(connection, way, found.state, event, {"because": because, "person": changer.person})
    return opened(way, found.form, found.row.number)


def _at(found: Opened, address: str) -> tuple[Place, Sequence[Any], SlotOffer]:
    for place, row, offer in slots_chosen(found.state):
        if place.address(row) == address:
            return place, row, offer
    raise NotFoundError


def _live_offering(way: Way, form: UUID, place: Place) -> Offering | None:
    """Return what offers the slots of a block in the live edition; None where that has no such block."""
    with way.connect() as connection:
        live = editions_store.live_of_form(connection, form=form)
    if live is None:
        return None
    edition = way.editions.form(form, live)
    block = next((each for each in edition.blocks() if each.id == place.block.id and isinstance(each, SlotField)), None)
    return None if block is None else Offering(block, edition.time_zone)


def _now(state: State) -> Any:
    now = datetime.now(UTC).astimezone(state.context.now.tzinfo)
    return replace(state.context, now=now, held=NOBODY)


def _is_same(slot: Slot, offer: SlotOffer) -> bool:
    return offer.chosen is not None and not offer.chosen.waiting and slot.start == offer.chosen


def _require_in_time(found: Opened, address: str, changer: Changer) -> None:
    booked = next((each for each in found.slots if each.address == address), None)
    if booked is None:
        raise BookingRefusedError(found.state.program.form.say("bookingOff"))
    if changer.person is None and is_late(booked, datetime.now(UTC)):
        raise BookingRefusedError(found.state.program.form.say("bookingLate"))


def _day_of(code: str) -> date:
    try:
        return datetime.fromisoformat(code).date()
    except ValueError:
        raise BookingRefusedError("There is no such time. Choose one of those that are shown.") from None


def _with_slot(kept: dict[str, Any], place: Place, row: Sequence[Any], slot: Appointment) -> dict[str, Any]:
    assert place.field_type is not None
    stored = place.field_type.dump(slot)
    if not row or place.repeat is None:
        return {**kept, place.block.id: stored}
    row_id = row[ROW_ADDRESS].split("/")[1]
    rows = [
        {**each, "values": {**each["values"], place.block.id: stored}} if each["id"] == row_id else each
        for each in kept[place.repeat.id]
    ]
    return {**kept, place.repeat.id: rows}


def _same_row(state: State, place: Place, row: Sequence[Any]) -> Sequence[Any]:
    if not row or place.repeat is None:
        return ()
    rows = state.rows(state.program.repeats[place.repeat.id])
    return next(each for each in rows if each[ROW_ADDRESS] == row[ROW_ADDRESS])


def _lock(connection: Connection, found: Opened) -> None:
    """Keep a response from others. Raises CorrectedMeanwhileError, BookingRefusedError where it waits for money."""
    now = responses.lock_received(connection, form=found.form, number=found.row.number)
    if now is None or now.answers != found.row.answers or now.booking != found.booking:
        raise CorrectedMeanwhileError
    if now.stage != "complete":
        raise BookingRefusedError(found.state.program.form.say("bookingLate"))


def _tell(connection: Connection, way: Way, state: State, event: Happened, data: dict[str, Any]) -> None:
    """Note what happened, keep what follows from it, and let those who wait move up."""
    [kind] = event.moments
    person, form, number = data.pop("person"), event.form, event.number
    who = "visitor" if person is None else "person"
    responses.add_event(
        connection, form=form, number=number, kind=kind, key=event.which, who=who, person=person, data=data
    )
    pages = OwnPages(settings=way.settings)
    keep_due(connection, state, event, pages)
    if kind == "cancelled":
        runs.withdraw_days(connection, form=form, number=number, why="not done: the booking was cancelled")
    else:
        keep_days_anew(connection, state, event, pages)
    let_move_up(connection, form)
