"""Preview of a draft for the team: the public form itself, and why anything in it is as it is."""

from uuid import UUID

from flask import Blueprint, Response, g, render_template

from codexa.core.program.accept import Refused
from codexa.core.program.evaluate import evaluate
from codexa.core.program.program import Program
from codexa.core.program.public import confirmation_face, form_face, form_state
from codexa.core.program.trials import run_trials
from codexa.services import brands, previewing, trying
from codexa.services.drafts import context_of
from codexa.services.roles import Right
from codexa.web.built import entry
from codexa.web.contract.previews import (
    ExplainRequest,
    ExplanationReply,
    ExplanationsReply,
    OutcomeReply,
    OutcomeRequest,
    SampleReply,
    SampleRequest,
    TrialsReply,
    TriedResponseReply,
    TriedResponsesReply,
)
from codexa.web.contract.public import EvaluateReply, EvaluateRequest, ReceivedReply, SubmitRequest
from codexa.web.database import connection
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.guard import frame_policy, may
from codexa.web.public import link_of_request, page_data, refused_reply

blueprint = Blueprint("previews", __name__)


@blueprint.get("/preview/<uuid:form>")
@blueprint.get("/preview/<uuid:form>/<page>")
def page(form: UUID, page: str = "") -> Response:
    """The draft as visitors would see it, for a frame in the workbench."""
    who = may(Right.SEE_FORMS)
    with connection() as database:
        program = previewing.open_draft(database, who=who, form=form).program
        look = brands.as_it_looks_now(database, program.form, form_id=form)
    face = form_face(program).model_copy(update={"brand": look})
    link = link_of_request()
    state = form_state(evaluate(program, {}, context_of(program.form, link)))
    place = {"framed": True, "link": link, "address": f"/preview/{form}", "page": page, "token": who.csrf_token}
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


@endpoint(blueprint, "POST", "/api/forms/<uuid:form>/preview/explain", body=ExplainRequest, reply=ExplanationsReply)
def explain(asked: ExplainRequest, form: UUID) -> ExplanationsReply:
    """Say why everything about a part of the draft is as it is with these answers."""
    facts = previewing.why(_program(form), asked.answers, asked.link, asked.part)
    return ExplanationsReply(facts=[ExplanationReply.model_validate(each) for each in facts])


@endpoint(blueprint, "POST", "/api/forms/<uuid:form>/preview/outcome", body=OutcomeRequest, reply=OutcomeReply)
def outcome(asked: OutcomeRequest, form: UUID) -> OutcomeReply:
    """Say what comes out of answers to the draft, and which of its conditions hold."""
    return OutcomeReply.model_validate(trying.outcome(_program(form), asked.answers, asked.link, asked.day))


@endpoint(blueprint, "GET", "/api/forms/<uuid:form>/preview/trials", reply=TrialsReply)
def run_all_trials(form: UUID) -> TrialsReply:
    """Run all trials of the draft."""
    report = run_trials(_program(form))
    return TrialsReply(results=list(report.results), coverage=list(report.coverage))


@endpoint(blueprint, "GET", "/api/forms/<uuid:form>/preview/responses", reply=TriedResponsesReply)
def on_responses(form: UUID) -> TriedResponsesReply:
    """Return the newest responses with what the draft's figures make of them."""
    who = may(Right.SEE_RESPONSES)
    program = _program(form)
    with connection() as database:
        tried = trying.on_responses(database, program, who=who, form=form)
    return TriedResponsesReply(responses=[TriedResponseReply.model_validate(each) for each in tried])


@endpoint(blueprint, "POST", "/api/forms/<uuid:form>/preview/sample", body=SampleRequest, reply=SampleReply)
def sample(asked: SampleRequest, form: UUID) -> SampleReply:
    """Return plausible answers to the draft."""
    return SampleReply(answers=previewing.sample(_program(form), asked.seed))
