"""The bookings of a form as a calendar that others subscribe to (RFC 5545), at a secret address that can be changed."""

import hmac
from datetime import UTC, date, datetime, timedelta
from uuid import UUID

from codexa.core.fields.slot import SlotField
from codexa.core.program.claim_names import slot_in, slots_from
from codexa.services.audit import note_form
from codexa.services.bookings.sheet import place_labels
from codexa.services.calendars.entries import CalendarEntry, as_calendar
from codexa.services.drafts import require
from codexa.services.errors import NotFoundError
from codexa.services.marks import mark_of
from codexa.services.payments.settling import Way
from codexa.settings import Settings
from codexa.store import claims, forms
from codexa.store import editions as editions_store
from codexa.store.sessions import SignedIn

_MARK = 40  # signs
_BACK = timedelta(days=31)  # so long bookings that are over stay in sight
_GONE = "There is no calendar at this address any more. Ask whoever has the form for another one."


def address(way: Way, *, who: SignedIn, form: UUID) -> str:
    """Return where the bookings of a form are a calendar; "" where they are none. Raises NotFoundError."""
    require(way.connect, who=who, form=form)
    with way.connect() as connection:
        turn = forms.calendar_of(connection, form=form)
    return "" if turn is None else _address(form, turn, way.settings)


def change(way: Way, *, who: SignedIn, form: UUID, is_open: bool) -> str:
    """Give a form's calendar another address, or none, and return it: the one before leads nowhere any more."""
    with way.connect() as connection:
        turn = forms.open_calendar(connection, team=who.team_id, form=form, is_open=is_open)
        if turn is None:
            raise NotFoundError
        note_form(connection, who, "feed opened" if is_open else "feed ended", form)
    return _address(form, turn, way.settings) if is_open else ""


def _address(form: UUID, turn: int, settings: Settings) -> str:
    return f"{settings.public_address}/calendar/{form}/{_mark(form, turn, settings)}.ics"


def _mark(form: UUID, turn: int, settings: Settings) -> str:
    return mark_of(f"calendar {form} {turn}", settings)[:_MARK]


def calendar(way: Way, *, form: UUID, mark: str) -> bytes:
    """Return the calendar of a form's bookings, without anybody's name. Raises NotFoundError for a wrong address."""
    with way.connect() as connection:
        turn = forms.calendar_of(connection, form=form)
        live = editions_store.live_of_form(connection, form=form)
    if turn is None or live is None or not hmac.compare_digest(mark.encode(), _mark(form, turn, way.settings).encode()):
        raise NotFoundError(_GONE)
    edition, now = way.editions.form(form, live), datetime.now(UTC)
    entries: list[CalendarEntry] = []
    for block in (each for each in edition.blocks() if isinstance(each, SlotField)):
        times, labels = block.times(edition.time_zone), place_labels(edition, block)
        first, last = slots_from(block.id, (now - _BACK).date()), slots_from(block.id, date.max)
        with way.connect() as connection:
            taken = [
                each
                for each in claims.slots_between(connection, form=form, first=first, last=last)
                if each.taken or each.closed
            ]
            takers = claims.who_has_slots(connection, form=form, names=[each.name for each in taken])
        for each in taken:
            slot = times.find(*slot_in(each.name))
            if slot is None:
                continue
            booked = [f"{one.number}: {one.quantity}" for one in takers if one.name == each.name]
            host = way.settings.mail_from.rpartition("@")[2]
            entries.append(
                CalendarEntry(
                    uid=f"{form}.{each.name.replace(':', '.')}@{host}",
                    title=f"{edition.title or edition.name}: {each.taken} of {each.capacity}"
                    + (", closed" if each.closed else ""),
                    starts=slot.start,
                    ends=slot.end,
                    sequence=0,
                    place=labels.get(slot.at, slot.at),
                    text="\n".join(booked),
                )
            )
    return as_calendar(entries, "PUBLISH", now=now, name=edition.title or edition.name)
