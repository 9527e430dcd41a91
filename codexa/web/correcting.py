"""Correcting a response: the form that was filled in, for a frame in the workbench, and what its answers change."""

from uuid import UUID

from flask import Blueprint, Response, g

from codexa.services.answering import Given
from codexa.services.correcting import Correcting
from codexa.services.roles import Right
from codexa.web.contract.correcting import (
    CompareRequest,
    CorrectedReply,
    CorrectionReply,
    CorrectionRequest,
)
from codexa.web.contract.public import (
    EvaluateReply,
    EvaluateRequest,
    FindOffersRequest,
    FoundOffersReply,
    RefusedReply,
    SubmitRequest,
    UploadReply,
)
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.first_view import first_view
from codexa.web.form_page import form_page, page_data
from codexa.web.guard import frame_policy, may
from codexa.web.payments import way
from codexa.web.public import MOST_ANSWERS, sought_of, take_file

blueprint = Blueprint("correcting", __name__)

_PLACE = "/api/forms/<uuid:form>/responses/<number:number>/correction"


def _correcting(form: UUID, number: int) -> Correcting:
    who = may(Right.EDIT_FORMS)
    return Correcting(way=way(), team=who.team_id, person=who.person_id, form=form, number=number)


@blueprint.get("/correct/<uuid:form>/<number:number>")
def page(form: UUID, number: int) -> Response:
    """The form that a response was given to, whole and with nothing to send by, for a frame in the workbench."""
    correcting = _correcting(form, number)
    face, state, edition = correcting.page()
    data = page_data(
        {
            "base": f"/api/forms/{form}/responses/{number}/correction",
            "form": str(form),
            "edition": edition,
            "framed": True,
            "link": {},
            "address": f"/correct/{form}/{number}",
            "page": "",
            "token": may(Right.EDIT_FORMS).csrf_token,
            "takes_files": True,
            "face": face.model_dump(mode="json"),
            "state": state,
        }
    )
    g.frame_policy = frame_policy([])
    response = Response(form_page(face, first_view(face, state), data, framed=True, own_window=True, sends=False))
    response.headers["Cache-Control"] = "no-store"
    return response


@endpoint(blueprint, "GET", _PLACE, reply=CorrectionReply)
def show(form: UUID, number: int) -> CorrectionReply:
    """Return a response's answers as they were entered."""
    return CorrectionReply.model_validate(_correcting(form, number).opened())


@endpoint(blueprint, "POST", f"{_PLACE}/state", body=EvaluateRequest, reply=EvaluateReply, most=MOST_ANSWERS)
def state(asked: EvaluateRequest, form: UUID, number: int) -> Response:
    """Return the form's state with these answers, as it would have been when the response came."""
    given = Given(answers=asked.answers, link={}, checked=asked.checked)
    return json_reply({"turn": asked.turn, "state": _correcting(form, number).state(given, asked.changed)})


@endpoint(blueprint, "POST", f"{_PLACE}/offers", body=FindOffersRequest, reply=FoundOffersReply, most=MOST_ANSWERS)
def offers(asked: FindOffersRequest, form: UUID, number: int) -> FoundOffersReply:
    """Return what a question offers with these answers: records that words find, or slots from a day on."""
    found = _correcting(form, number).offers(Given(answers=asked.answers, link={}), sought_of(asked))
    return FoundOffersReply.model_validate(found)


@endpoint(blueprint, "POST", f"{_PLACE}/responses", body=SubmitRequest, reply=RefusedReply, most=MOST_ANSWERS)
def hand_in(asked: SubmitRequest, form: UUID, number: int) -> Response:
    """Refuse: a correction is saved beside the form, by whoever has seen what it changes."""
    _correcting(form, number).compare(asked.answers)
    message = "Nothing is sent from here. Look at what changes beside the form, and save it there."
    return json_reply(RefusedReply(code="correcting", message=message, errors={}), 422)


@endpoint(blueprint, "POST", f"{_PLACE}/files/<block>", reply=UploadReply)
def upload(form: UUID, number: int, block: str) -> UploadReply:
    """Take a file that is added: the body is its content, the query's `name` its name."""
    correcting = _correcting(form, number)
    return take_file(correcting.program(), form, block, correcting.visit)


@endpoint(blueprint, "POST", f"{_PLACE}/compare", body=CompareRequest, reply=CorrectedReply, most=MOST_ANSWERS)
def compare(asked: CompareRequest, form: UUID, number: int) -> CorrectedReply:
    """Say what these answers would change; nothing is kept."""
    return CorrectedReply.model_validate(_correcting(form, number).compare(asked.answers))


@endpoint(blueprint, "POST", _PLACE, body=CorrectionRequest, reply=CorrectedReply, most=MOST_ANSWERS)
def save(asked: CorrectionRequest, form: UUID, number: int) -> CorrectedReply:
    """Keep these answers in the place of the former ones; nothing is kept where something is wrong with them."""
    found = _correcting(form, number).save(asked.answers, version=asked.version, because=asked.because)
    return CorrectedReply.model_validate(found)
