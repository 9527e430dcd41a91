"""Preview of a draft for the team: the public form itself, and why anything in it is as it is."""

from uuid import UUID

from flask import Blueprint, Response, g, render_template

from codexa.core.program.accept import Refused
from codexa.core.program.evaluate import evaluate
from codexa.core.program.explain import NoSuchFactError
from codexa.core.program.program import Program
from codexa.core.program.public import confirmation_face, form_face, form_state
from codexa.services import previewing
from codexa.services.drafts import context_of
from codexa.services.errors import NotFoundError
from codexa.services.roles import Right
from codexa.web.built import entry
from codexa.web.contract import (
    EvaluateReply,
    EvaluateRequest,
    ExplainRequest,
    ExplanationReply,
    ReceivedReply,
    SampleReply,
    SampleRequest,
    SubmitRequest,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.guard import frame_policy, may
from codexa.web.public import page_data, refused_reply

blueprint = Blueprint("previews", __name__)


@blueprint.get("/preview/<uuid:form>")
@blueprint.get("/preview/<uuid:form>/<page>")
def page(form: UUID, page: str = "") -> Response:
    """The draft as visitors would see it, for a frame in the workbench."""
    who = may(Right.SEE_FORMS)
    with connection() as database:
        program = previewing.open_draft(database, who=who, form=form).program
    face = form_face(program)
    state = form_state(evaluate(program, {}, context_of(program.form)))
    place = {"framed": True, "link": {}, "address": f"/preview/{form}", "page": page, "token": who.csrf_token}
    data = page_data({"form": str(form), "edition": 0, **place, "face": face.model_dump(mode="json"), "state": state})
    g.frame_policy = frame_policy([])
    response = Response(render_template("form.html", face=face, data=data, entry=entry("form"), framed=True))
    response.headers["Cache-Control"] = "no-store"
    return response


def _program(form: UUID) -> Program:
    who = may(Right.SEE_FORMS)
    with connection() as database:
        return previewing.open_draft(database, who=who, form=form).program


@endpoint(blueprint, "POST", "/api/forms/<uuid:form>/preview/state", body=EvaluateRequest, reply=EvaluateReply)
def state(asked: EvaluateRequest, form: UUID) -> Response:
    """Return the draft's state with these answers."""
    program = _program(form)
    evaluated = evaluate(program, asked.answers, context_of(program.form, asked.link))
    only = None if asked.changed is None else program.affected(asked.changed)
    return json_reply({"turn": asked.turn, "state": form_state(evaluated, only)})


@endpoint(blueprint, "POST", "/api/forms/<uuid:form>/preview/responses", body=SubmitRequest, reply=ReceivedReply)
def hand_in(asked: SubmitRequest, form: UUID) -> Response:
    """Say what a visitor would read after handing in; nothing is kept."""
    result = previewing.hand_in(_program(form), asked.answers, asked.link)
    if isinstance(result, Refused):
        return json_reply(refused_reply(result), 422)
    return json_reply(ReceivedReply(number=1, confirmation=confirmation_face(result.state)))


@endpoint(blueprint, "POST", "/api/forms/<uuid:form>/preview/explain", body=ExplainRequest, reply=ExplanationReply)
def explain(asked: ExplainRequest, form: UUID) -> ExplanationReply:
    """Say why a fact of the draft is as it is with these answers."""
    program = _program(form)
    try:
        return ExplanationReply.model_validate(previewing.why(program, asked.answers, asked.fact))
    except NoSuchFactError as error:
        raise NotFoundError(str(error)) from None


@endpoint(blueprint, "POST", "/api/forms/<uuid:form>/preview/sample", body=SampleRequest, reply=SampleReply)
def sample(asked: SampleRequest, form: UUID) -> SampleReply:
    """Return plausible answers to the draft."""
    return SampleReply(answers=previewing.sample(_program(form), asked.seed))
