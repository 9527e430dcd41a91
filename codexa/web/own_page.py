"""The visitor's own page of a response, behind a private address: what was booked, changed or cancelled there.

It works without a script. Opening it changes nothing, whoever opens it: a mail's scanner, too.
"""

from datetime import UTC, date, datetime
from itertools import groupby
from typing import Any
from uuid import UUID

from babel.dates import format_date
from flask import Blueprint, Response, current_app, g, redirect, render_template, request, url_for

from codexa.core.fields.slot import shown_times
from codexa.core.languages import direction_of
from codexa.core.program.accept import Refused
from codexa.core.program.public import confirmation_face
from codexa.core.program.told_answers import told_answers
from codexa.services.answering import Given
from codexa.services.approvals import sending_again
from codexa.services.bookings import changing
from codexa.services.bookings.changing import Booked, Changer, Opened
from codexa.services.correcting import Correcting
from codexa.services.errors import BookingRefusedError, CorrectedMeanwhileError, NotFoundError
from codexa.services.payments.settling import Way
from codexa.web.contract.public import (
    EvaluateReply,
    EvaluateRequest,
    FindOffersRequest,
    FoundOffersReply,
    ReceivedReply,
    SubmitRequest,
    UploadReply,
)
from codexa.web.database import connection, editions, own_pages
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.first_view import colours_of, first_view
from codexa.web.form_page import form_page, page_data
from codexa.web.limits import LINK_RATE, limiter
from codexa.web.network import network
from codexa.web.public import MOST_ANSWERS, refused_reply, sought_of, take_file

_PLACE = "<uuid:form>/<number:number>/<mark>"
blueprint = Blueprint("own_page", __name__, url_prefix=f"/r/{_PLACE}")
answering = Blueprint("own_answers", __name__, url_prefix=f"/api/public/own/{_PLACE}")
_GONE = "There is nothing at this address any more. Check the link, or ask whoever has the form."
_MOST_TIMES = 60  # shown at once
_VISITOR = Changer()


@blueprint.get("")
def show(form: UUID, number: int, mark: str) -> Response:
    """What was booked, with what can be done about it."""
    return _own(_opened(form, number, mark))


@blueprint.get("/other-times")
def other_times(form: UUID, number: int, mark: str) -> Response:
    """The times that could be had in the place of one."""
    found = _opened(form, number, mark)
    return _times(found, request.args.get("at", ""), _day(request.args.get("since", "")))


@blueprint.post("/other-times")
@limiter.limit(LINK_RATE, key_func=network)
def take(form: UUID, number: int, mark: str) -> Response:
    """Take another time in the place of one."""
    found = _opened(form, number, mark)
    address, code = request.form.get("at", "")[:140], request.form.get("time", "")[:20]
    try:
        changing.rebook(_way(), found, address, code, changer=_VISITOR)
    except (BookingRefusedError, CorrectedMeanwhileError) as refused:
        return _times(_opened(form, number, mark), address, None, str(refused.message), 409)
    return _back(form, number, mark)


@blueprint.get("/cancel")
def ask_to_cancel(form: UUID, number: int, mark: str) -> Response:
    """Ask whether it shall be cancelled for good."""
    return _page(_opened(form, number, mark), "own_page_cancel.html")


@blueprint.post("/cancel")
@limiter.limit(LINK_RATE, key_func=network)
def cancel(form: UUID, number: int, mark: str) -> Response:
    """Cancel what was booked."""
    try:
        changing.cancel(_way(), _opened(form, number, mark), changer=_VISITOR)
    except (BookingRefusedError, CorrectedMeanwhileError) as refused:
        return _own(_opened(form, number, mark), str(refused.message), 409)
    return _back(form, number, mark)


@blueprint.get("/answers")
def answers(form: UUID, number: int, mark: str) -> Response:
    """The form as it was filled in, to be changed and sent once more, where the team has asked back."""
    _require(form, number, mark)
    correcting = sending_again.correcting(_way(), form=form, number=number)
    face, state, edition = correcting.page()
    place = f"/r/{form}/{number}/{mark}/answers"
    standing = {"page": "", "seed": 1, "checked": [], "began": 0, "when": "", "version": 1}
    kept = {"token": f"own{number}", "edition": edition, "visit": f"own{number}", **standing}
    data = page_data(
        {
            "base": f"/api/public/own/{form}/{number}/{mark}",
            "form": str(form),
            "edition": edition,
            "framed": False,
            "link": {},
            "address": place,
            "page": "",
            "face": face.model_dump(mode="json"),
            "state": state,
            "kept": kept | {"answers": correcting.opened().answers},
        }
    )
    return _private(Response(form_page(face, first_view(face, state), data, framed=False)))


@endpoint(answering, "POST", "/state", body=EvaluateRequest, reply=EvaluateReply, most=MOST_ANSWERS)
def state(asked: EvaluateRequest, form: UUID, number: int, mark: str) -> Response:
    """Return the form's state with these answers, as it would have been when the response came."""
    given = Given(answers=asked.answers, link={}, checked=asked.checked)
    return json_reply({"turn": asked.turn, "state": _correcting(form, number, mark).state(given, asked.changed)})


@endpoint(answering, "POST", "/offers", body=FindOffersRequest, reply=FoundOffersReply, most=MOST_ANSWERS)
def offers(asked: FindOffersRequest, form: UUID, number: int, mark: str) -> FoundOffersReply:
    """Return what a question offers with these answers: records that words find, or slots from a day on."""
    given = Given(answers=asked.answers, link={})
    return FoundOffersReply.model_validate(_correcting(form, number, mark).offers(given, sought_of(asked)))


@endpoint(answering, "POST", "/files/<block>", reply=UploadReply)
def upload(form: UUID, number: int, mark: str, block: str) -> UploadReply:
    """Take a file that is added: the body is its content, the query's `name` its name."""
    correcting = _correcting(form, number, mark)
    return take_file(correcting.program(), form, block, correcting.visit)


@endpoint(answering, "POST", "/responses", body=SubmitRequest, reply=ReceivedReply, most=MOST_ANSWERS)
def send_again(asked: SubmitRequest, form: UUID, number: int, mark: str) -> Response:
    """Keep the changed answers, or say what is wrong with them (422); then it is decided further."""
    _require(form, number, mark)
    found = sending_again.send_again(_way(), form=form, number=number, answers=asked.answers)
    if isinstance(found, Refused):
        return json_reply(refused_reply(found), 422)
    return json_reply(ReceivedReply(number=number, confirmation=confirmation_face(found)), 200)


def _require(form: UUID, number: int, mark: str) -> None:
    if not own_pages().knows(form, number, mark):
        raise NotFoundError(_GONE)


def _correcting(form: UUID, number: int, mark: str) -> Correcting:
    _require(form, number, mark)
    return sending_again.correcting(_way(), form=form, number=number)


def _way() -> Way:
    return Way(connect=connection, editions=editions(), settings=current_app.config["SETTINGS"])


def _opened(form: UUID, number: int, mark: str) -> Opened:
    _require(form, number, mark)
    try:
        return changing.opened(_way(), form, number)
    except NotFoundError:
        raise NotFoundError(_GONE) from None


def _back(form: UUID, number: int, mark: str) -> Response:
    answer = redirect(url_for("own_page.show", form=form, number=number, mark=mark), code=303)
    assert isinstance(answer, Response)
    return answer


def _day(text: str) -> date | None:
    try:
        return date.fromisoformat(text)
    except ValueError:
        return None


def _times(found: Opened, address: str, since: date | None, said: str = "", status: int = 200) -> Response:
    booked = next((each for each in found.slots if each.address == address), None)
    if booked is None:
        raise NotFoundError(_GONE)
    if changing.is_late(booked, datetime.now(UTC)):
        return _own(found, found.state.program.form.say("bookingLate"), 409)
    free = changing.free_instead(_way(), found, address, changer=_VISITOR, since=since, most=_MOST_TIMES + 1)
    locale = found.state.program.region.locale
    days = [
        (
            format_date(day, "full", locale=locale),
            [(slot.code, shown_times(slot.start, slot.end, locale)) for slot, _ in slots],
        )
        for day, slots in groupby(free[:_MOST_TIMES], key=lambda each: each[0].start.date())
    ]
    later = free[_MOST_TIMES][0].start.date().isoformat() if len(free) > _MOST_TIMES else ""
    return _page(found, "own_page_times.html", said, status, booked=booked, days=days, later=later)


def _own(found: Opened, said: str = "", status: int = 200) -> Response:
    return _page(found, "own_page.html", said, status, pages=told_answers(found.state))


def _page(found: Opened, template: str, said: str = "", status: int = 200, **known: Any) -> Response:
    form, now = found.state.program.form, datetime.now(UTC)

    def is_late(booked: Booked) -> bool:
        return changing.is_late(booked, now)

    page = render_template(
        template,
        form=form,
        found=found,
        say=form.say,
        is_late=is_late,
        may_cancel=bool(found.slots) and not any(is_late(each) for each in found.slots),
        said=said,
        back=sending_again.asked_back(_way(), form=found.form, number=found.row.number),
        waits=found.decision == "asked",
        here=request.path.removesuffix("/other-times").removesuffix("/cancel"),
        direction=direction_of(form.locale),
        colours=colours_of(form.brand),
        nonce=g.nonce,
        **known,
    )
    return _private(Response(page, status))


def _private(response: Response) -> Response:
    response.headers["Cache-Control"] = "private, no-store"
    response.headers["X-Robots-Tag"] = "noindex"
    # Whoever is led on from here learns nothing of the link.
    response.headers["Referrer-Policy"] = "same-origin"
    return response
