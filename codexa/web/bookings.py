"""Bookings of a form, for the team: the sheet of a day, closing slots, moving and cancelling what was booked."""

import csv
import io
from collections.abc import Iterator
from datetime import UTC, date, datetime
from uuid import UUID

from babel.dates import format_date
from flask import Blueprint, Response, request

from codexa.core.fields.slot import shown_times
from codexa.services.bookings import calendar_feed, changing
from codexa.services.bookings import sheet as sheets
from codexa.services.bookings.changing import Changer, Opened
from codexa.services.bookings.sheet import Sheet
from codexa.services.drafts import require
from codexa.services.response_csv import defused
from codexa.services.roles import Right
from codexa.web.contract.slots import (
    BookingReply,
    BookingSlotReply,
    CalendarReply,
    CalendarRequest,
    CancelBookingRequest,
    CloseSlotRequest,
    FreeSlotReply,
    MoveBookingRequest,
    SheetReply,
)
from codexa.web.database import connection, editions
from codexa.web.endpoint import endpoint
from codexa.web.files import streamed_file
from codexa.web.guard import may
from codexa.web.limits import limiter
from codexa.web.payments import way
from codexa.web.reading import BadRequestError

blueprint = Blueprint("bookings", __name__, url_prefix="/api/forms/<uuid:form>/bookings")
given = Blueprint("calendars", __name__)
_MOST_FREE = 200
_FEED_RATE = "60 per minute"


@endpoint(blueprint, "GET", "", reply=SheetReply)
def show(form: UUID) -> SheetReply:
    """Return the booking sheet of a `day` (ISO 8601; today where none is given) and a slot `block` (by its id)."""
    found = _sheet(form)
    return SheetReply.model_validate(
        {
            "blocks": [{"id": each, "label": label} for each, label in found.blocks],
            "columns": [{"id": each, "label": label} for each, label in found.columns],
            **{name: getattr(found, name) for name in ("block", "day", "slots", "before", "after")},
        }
    )


@endpoint(blueprint, "GET", "/sheet.csv")
def download(form: UUID) -> Response:
    """Download the same as CSV (UTF-8, RFC 4180), a line for each booking."""
    found = _sheet(form)
    return streamed_file(_lines(found), Right.SEE_RESPONSES, "text/csv", f"bookings-{found.day}.csv")


@endpoint(blueprint, "GET", "/calendar", reply=CalendarReply)
def calendar_address(form: UUID) -> CalendarReply:
    """Return where the bookings are a calendar that others subscribe to."""
    return CalendarReply(address=calendar_feed.address(way(), who=may(Right.SEE_RESPONSES), form=form))


@endpoint(blueprint, "POST", "/calendar", body=CalendarRequest, reply=CalendarReply)
def change_calendar(asked: CalendarRequest, form: UUID) -> CalendarReply:
    """Give the calendar another address, or none; the one before leads nowhere any more."""
    who = may(Right.EDIT_FORMS)
    return CalendarReply(address=calendar_feed.change(way(), who=who, form=form, is_open=asked.open))


@given.get("/calendar/<uuid:form>/<mark>.ics")
@limiter.limit(_FEED_RATE)
def calendar(form: UUID, mark: str) -> Response:
    """The bookings of a form as a calendar (RFC 5545), for whoever has its secret address."""
    response = Response(calendar_feed.calendar(way(), form=form, mark=mark), mimetype="text/calendar")
    response.headers["Cache-Control"] = "private, no-cache"
    response.headers["X-Robots-Tag"] = "noindex"
    return response


@endpoint(blueprint, "POST", "/closed", body=CloseSlotRequest)
def close(asked: CloseSlotRequest, form: UUID) -> None:
    """Close a slot for everybody, or open it again; who has it keeps it."""
    who = may(Right.MARK_RESPONSES)
    sheets.set_closed(connection, who=who, form=form, name=asked.name, closed=asked.closed)


@endpoint(blueprint, "GET", "/<number:number>", reply=BookingReply)
def booking(form: UUID, number: int) -> BookingReply:
    """Return the slots of a response; with the `address` of one, what could be had in its place `since` a day."""
    may(Right.SEE_RESPONSES)
    return _reply(_opened(form, number), request.args.get("address", ""), _day(request.args.get("since", "")))


@endpoint(blueprint, "POST", "/<number:number>/move", body=MoveBookingRequest, reply=BookingReply)
def move(asked: MoveBookingRequest, form: UUID, number: int) -> BookingReply:
    """Give a response another slot in the place of one; the visitor is told as the form's follow-ups say."""
    changer = Changer(person=may(Right.MARK_RESPONSES).person_id)
    return _reply(changing.rebook(way(), _opened(form, number), asked.address, asked.code, changer=changer), "", None)


@endpoint(blueprint, "POST", "/<number:number>/cancel", body=CancelBookingRequest, reply=BookingReply)
def cancel(asked: CancelBookingRequest, form: UUID, number: int) -> BookingReply:
    """Cancel what a response has booked; the visitor is told as the form's follow-ups say."""
    changer = Changer(person=may(Right.MARK_RESPONSES).person_id)
    found = changing.cancel(way(), _opened(form, number), changer=changer, because=asked.because)
    return _reply(found, "", None)


def _sheet(form: UUID) -> Sheet:
    who, block = may(Right.SEE_RESPONSES), request.args.get("block", "")
    require(connection, who=who, form=form)
    day = _day(request.args.get("day", "")) or datetime.now(UTC).date()
    return sheets.sheet(connection, editions(), who=who, form=form, block=block, day=day)


def _opened(form: UUID, number: int) -> Opened:
    # That it is the team's own is asked first.
    require(connection, who=may(Right.SEE_RESPONSES), form=form)
    return changing.opened(way(), form, number)


def _reply(found: Opened, address: str, since: date | None) -> BookingReply:
    locale, anybody = found.state.program.region.locale, Changer(person=may(Right.SEE_RESPONSES).person_id)
    free = (
        changing.free_instead(way(), found, address, changer=anybody, since=since, most=_MOST_FREE) if address else []
    )
    return BookingReply(
        booking=found.booking,
        slots=[BookingSlotReply.model_validate(each, extra="ignore") for each in found.slots],
        free=[
            FreeSlotReply(
                code=slot.code,
                told=f"{format_date(slot.start.date(), 'full', 'en_GB')}, {shown_times(slot.start, slot.end, locale)}",
                left=left,
            )
            for slot, left in free
        ],
    )


def _day(text: str) -> date | None:
    if not text:
        return None
    try:
        return date.fromisoformat(text)
    except ValueError:
        raise BadRequestError(f'"{text[:40]}" is no day; write one such as 2026-12-03.') from None


def _lines(found: Sheet) -> Iterator[bytes]:
    yield _line(["Day", "From", "To", "At", "Response", "Places", "Waiting", *(label for _, label in found.columns)])
    for slot in found.slots:
        for taker in slot.takers:
            told = [taker.cells.get(column, "") for column, _ in found.columns]
            waits = "yes" if taker.waiting else ""
            times = [slot.starts[:10], slot.starts[11:], slot.ends[11:]]
            yield _line([*times, slot.at_label, str(taker.number), str(taker.pieces), waits, *told])


def _line(cells: list[str]) -> bytes:
    written = io.StringIO()
    csv.writer(written).writerow([defused(each) for each in cells])
    return written.getvalue().encode()
