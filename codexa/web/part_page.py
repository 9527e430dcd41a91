"""A response at the part that one's groups change: the form as it was filled in so far, to be handed on or sent back.

Whoever opens it is signed in, as a member or in the workbench; its address alone opens nothing. The pass in the
addresses that it sends to is bound to that session, so that no other page can send in its name.
"""

from uuid import UUID

from flask import Blueprint, Response, current_app, g, redirect, render_template, request

from codexa.core.languages import direction_of
from codexa.core.program.accept import Refused
from codexa.core.program.faces import ConfirmationFace
from codexa.services.answering import Given
from codexa.services.errors import PartMovedError
from codexa.services.parts import handing_on
from codexa.services.parts.handing_on import AtPart
from codexa.services.visitors import visitor_of
from codexa.web import guard, visiting
from codexa.web.contract.public import (
    EvaluateReply,
    EvaluateRequest,
    FindOffersRequest,
    FoundOffersReply,
    ReceivedReply,
    SubmitRequest,
    UploadReply,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.first_view import colours_of, first_view
from codexa.web.form_page import form_page, page_data
from codexa.web.limits import LINK_RATE, limiter
from codexa.web.network import network
from codexa.web.payments import way
from codexa.web.public import MOST_ANSWERS, refused_reply, sought_of, take_file
from codexa.web.reading import BadRequestError

_PLACE = "<uuid:form>/<number:number>"
_MOST_SAID = 2_000  # characters of a remark
blueprint = Blueprint("part_page", __name__, url_prefix=f"/part/{_PLACE}")
answering = Blueprint("part_answers", __name__, url_prefix=f"/api/public/part/{_PLACE}/<ticket>")


@blueprint.get("")
def show(form: UUID, number: int) -> Response:
    """The form with all that was filled in so far, of which one part is open; nobody signed in is told where to."""
    team = handing_on.team_of(way(), form)
    ticket = visiting.ticket_at(form, team.slug)
    if ticket is None:
        return _private(Response(render_template("part_sign_in.html", team=team, nonce=g.nonce), 403))
    at = _opened(form, number, ticket)
    face, state, edition = at.correcting.page()
    words = at.form_of.say
    face = face.model_copy(update={"wording": face.wording.model_copy(update={"submit": words("partHandOn")})})
    data = page_data(
        {
            "base": f"/api/public/part/{form}/{number}/{ticket}",
            "form": str(form),
            "edition": edition,
            "framed": False,
            "link": {},
            "address": f"/part/{form}/{number}",
            "page": "",
            "face": face.model_dump(mode="json"),
            "state": state,
            "kept": {
                "token": f"part{number}",
                "edition": edition,
                "visit": f"part{number}",
                "page": "",
                "seed": 1,
                "checked": [],
                "began": 0,
                "when": "",
                "version": 1,
                "answers": at.correcting.opened().answers,
            },
        }
    )
    above = render_template("part_above.html", at=at, say=words, ticket=ticket, address=f"/part/{form}/{number}")
    return _private(Response(form_page(face, first_view(face, state), data, framed=False, above=above)))


@blueprint.post("/back")
@limiter.limit(LINK_RATE, key_func=network)
def send_back(form: UUID, number: int) -> Response:
    """Send a response back to who filled it in, or an earlier part, with what is asked there."""
    at = _opened(form, number, request.form.get("ticket", "")[:200])
    handing_on.hand_back(way(), at, to=request.form.get("to", "")[:60], remark=_remark())
    answer = redirect(f"/part/{form}/{number}/done", code=303)
    assert isinstance(answer, Response)
    return answer


@blueprint.get("/done")
def done(form: UUID, number: int) -> Response:
    """Say that a response was sent back; it says nothing else, so that whoever reads it may."""
    of = handing_on.form_of(way(), form, number)
    known = {"form": of, "say": of.say, "colours": colours_of(of.brand), "direction": direction_of(of.locale)}
    return _private(Response(render_template("part_sent_back.html", nonce=g.nonce, **known)))


@endpoint(answering, "POST", "/state", body=EvaluateRequest, reply=EvaluateReply, most=MOST_ANSWERS)
def state(asked: EvaluateRequest, form: UUID, number: int, ticket: str) -> Response:
    """Return the form's state with these answers in the part that is open, and everybody else's as they were given."""
    given = Given(answers=asked.answers, link={}, checked=asked.checked)
    return json_reply(
        {"turn": asked.turn, "state": _opened(form, number, ticket).correcting.state(given, asked.changed)}
    )


@endpoint(answering, "POST", "/offers", body=FindOffersRequest, reply=FoundOffersReply, most=MOST_ANSWERS)
def offers(asked: FindOffersRequest, form: UUID, number: int, ticket: str) -> FoundOffersReply:
    """Return what a question offers with these answers: records that words find, or slots from a day on."""
    given = Given(answers=asked.answers, link={})
    found = _opened(form, number, ticket).correcting.offers(given, sought_of(asked))
    return FoundOffersReply.model_validate(found)


@endpoint(answering, "POST", "/files/<block>", reply=UploadReply)
def upload(form: UUID, number: int, ticket: str, block: str) -> UploadReply:
    """Take a file that is added: the body is its content, the query's `name` its name."""
    correcting = _opened(form, number, ticket).correcting
    return take_file(correcting.program(), form, block, correcting.visit)


@endpoint(answering, "POST", "/responses", body=SubmitRequest, reply=ReceivedReply, most=MOST_ANSWERS)
def hand_on(asked: SubmitRequest, form: UUID, number: int, ticket: str) -> Response:
    """Keep what was filled in and hand the response on, or say what is wrong with it (422)."""
    at = _opened(form, number, ticket)
    found = handing_on.hand_on(way(), at, asked.answers)
    if isinstance(found, Refused):
        return json_reply(refused_reply(found), 422)
    to = found.context.handed_on.name if found.context.handed_on else ""
    title = at.form_of.say("partGoneOn" if to else "partEnded").replace("{part}", to)
    return json_reply(ReceivedReply(number=number, confirmation=ConfirmationFace(title=title, paragraphs=[])), 200)


def _remark() -> str:
    # A browser counts a line's end as one character, and sends two (HTML, "Form submission").
    remark = request.form.get("remark", "").replace("\r\n", "\n").strip()
    if len(remark) > _MOST_SAID:
        raise BadRequestError(f"The remark has {len(remark)} characters; it takes {_MOST_SAID}. Shorten it.")
    return remark


def _opened(form: UUID, number: int, ticket: str) -> AtPart:
    settings = current_app.config["SETTINGS"]
    with connection() as database:
        who = visitor_of(database, form, ticket, settings, guard.idle_time())
    if not who.is_known:
        raise PartMovedError("You were signed out meanwhile. Sign in again in another window, then load this page.")
    return handing_on.opened(way(), form=form, number=number, who=who)


def _private(response: Response) -> Response:
    response.headers["Cache-Control"] = "private, no-store"
    response.headers["X-Robots-Tag"] = "noindex"
    response.headers["Referrer-Policy"] = "same-origin"
    return response
