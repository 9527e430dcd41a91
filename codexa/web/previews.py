"""Preview of a draft for the team: the public form itself, and why anything in it is as it is."""

from dataclasses import asdict
from uuid import UUID

from flask import Blueprint, Response, g, request

from codexa.core.definition.trials import TrialVisitor
from codexa.core.program.accept import Refused
from codexa.core.program.faces import OrderFace
from codexa.core.program.follow_ups import as_if
from codexa.core.program.program import Program
from codexa.core.program.public import confirmation_face, order_face
from codexa.core.program.trials import run_trials
from codexa.services import answering, broken_trials, previewing, trying, who_and_when
from codexa.services.answering import Given
from codexa.services.people import written_to
from codexa.services.roles import Right
from codexa.services.tables.looking_up import tables_for
from codexa.services.visitors import GUEST, Visitor, visitor_named
from codexa.store.sessions import SignedIn
from codexa.web.contract.previews import (
    BrokenReply,
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
    UntriedReply,
)
from codexa.web.contract.public import (
    EvaluateReply,
    EvaluateRequest,
    FindOffersRequest,
    FoundOffersReply,
    ReceivedReply,
    SpokenReply,
    SpokenRequest,
    SubmitRequest,
)
from codexa.web.database import compiled_drafts, connection
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.entrance import LANGUAGE, NoticeError, link_of_request, notice, shown_of_request
from codexa.web.first_view import first_view
from codexa.web.form_page import form_page, page_data
from codexa.web.guard import frame_policy, may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted
from codexa.web.public import MOST_ANSWERS, refused_reply, sought_of, spoken_reply, to_pay_reply
from codexa.web.visiting import SignInBox

blueprint = Blueprint("previews", __name__)
VISITOR = "codexa-visitor"  # whom a draft is looked at as, in the query


@blueprint.get("/preview/<uuid:form>")
@blueprint.get("/preview/<uuid:form>/<page>")
def page(form: UUID, page: str = "") -> Response:
    """The draft as visitors would see it, for a frame in the workbench."""
    who = may(Right.SEE_FORMS)
    shown = shown_of_request()
    program = _program(form, who)
    link, wanted = link_of_request(), request.args.get(VISITOR, "")[:60]
    visitor = previewing.visitor_as(connection, who=who, wanted=wanted)
    with tables_for(connection, form) as tables:
        given = Given(answers={}, link=dict(link), visitor=visitor)
        found = previewing.page(connection, program, given, form=form, tables=tables)
    place = {"framed": True, "link": link, "address": f"/preview/{form}", "page": page, "token": who.csrf_token}
    place |= {"shown": shown, "entry": wanted, "visitor": visitor.facts.get("name", "")}
    known = {"face": found.face.model_dump(mode="json"), "state": found.state}
    data = page_data({"base": f"/api/forms/{form}/preview", "form": str(form), "edition": 0, **place, **known})
    g.frame_policy = frame_policy([])
    # It stands as on a page of its own, ground and width included, though it is in a frame.
    response = Response(form_page(found.face, first_view(found.face, found.state), data, framed=False))
    response.headers["Cache-Control"] = "no-store"
    return response


@blueprint.get('/preview/<uuid:form>/notice/<any(early, over, full, offline, password, "sign-in"):state>')
def notice_page(form: UUID, state: str) -> Response:
    """What visitors would read instead of the form, for a frame in the workbench."""
    words, of_form = who_and_when.words_instead(connection, who=may(Right.SEE_FORMS), form=form, state=state)
    g.frame_policy = frame_policy([])
    asks = state if state in ("password", "sign-in") else ""
    return notice(NoticeError(words, asks=asks, sign_in=SignInBox()), of_form, framed=True)


def _visitor(wanted: str) -> Visitor:
    """Return whom the draft is looked at as."""
    return previewing.visitor_as(connection, who=may(Right.SEE_FORMS), wanted=wanted)


def as_visitor(told: TrialVisitor) -> Visitor:
    """Return who is said to fill in."""
    return visitor_named(told.email, told.name, told.groups) if told.email else GUEST


def _program(form: UUID, who: SignedIn | None = None) -> Program:
    who = who or may(Right.SEE_FORMS)
    return compiled_drafts().program(
        who=who, form=form, shown=shown_of_request(), language=request.args.get(LANGUAGE, "")
    )


@endpoint(
    blueprint,
    "POST",
    "/api/forms/<uuid:form>/preview/state",
    body=EvaluateRequest,
    reply=EvaluateReply,
    most=MOST_ANSWERS,
)
def state(asked: EvaluateRequest, form: UUID) -> Response:
    """Return the draft's state with these answers; `codexa-shown` in the query is another way of presenting it."""
    given = Given(answers=asked.answers, link=asked.link, checked=asked.checked, visitor=_visitor(asked.entry))
    program = _program(form)
    with tables_for(connection, form) as tables:
        facts = answering.state_with(program, given, asked.changed, tables=tables)
    return json_reply({"turn": asked.turn, "state": facts})


@endpoint(
    blueprint,
    "POST",
    "/api/forms/<uuid:form>/preview/offers",
    body=FindOffersRequest,
    reply=FoundOffersReply,
    most=MOST_ANSWERS,
)
def offers(asked: FindOffersRequest, form: UUID) -> FoundOffersReply:
    """Return what a question of the draft offers with these answers: records that words find, or slots."""
    program = _program(form)
    with tables_for(connection, form) as tables:
        given = Given(answers=asked.answers, link=asked.link, visitor=_visitor(asked.entry))
        found = answering.offers_with(program, given, sought_of(asked), tables)
    return FoundOffersReply.model_validate(found)


@endpoint(blueprint, "POST", "/api/forms/<uuid:form>/preview/spoken", body=SpokenRequest, reply=SpokenReply)
def spoken(asked: SpokenRequest, form: UUID) -> SpokenReply:
    """Return the answer to a question of the draft that words give, or what is wrong with them."""
    return spoken_reply(_program(form), asked)


@endpoint(
    blueprint,
    "POST",
    "/api/forms/<uuid:form>/preview/responses",
    body=SubmitRequest,
    reply=ReceivedReply,
    most=MOST_ANSWERS,
)
def hand_in(asked: SubmitRequest, form: UUID) -> Response:
    """Say what a visitor would read after handing in; nothing is kept."""
    program = _program(form)
    with tables_for(connection, form) as tables:
        given = Given(answers=asked.answers, link=asked.link, visitor=_visitor(asked.entry))
        result = previewing.hand_in(program, given, tables)
    if isinstance(result, Refused):
        return json_reply(refused_reply(result), 422)
    order = order_face(result.state)
    reply = ReceivedReply(
        number=1,
        confirmation=confirmation_face(as_if(result.state, "paid") or result.state),
        payment=to_pay_reply(previewing.to_pay(result.state)),
        order=None if order is None else OrderFace.model_validate(order),
    )
    return json_reply(reply)


@endpoint(
    blueprint,
    "POST",
    "/api/forms/<uuid:form>/preview/explain",
    body=ExplainRequest,
    reply=ExplanationsReply,
    most=MOST_ANSWERS,
)
def explain(asked: ExplainRequest, form: UUID) -> ExplanationsReply:
    """Say why everything about a part of the draft is as it is with these answers."""
    program = _program(form)
    with tables_for(connection, form) as tables:
        given = Given(answers=asked.answers, link=asked.link, visitor=as_visitor(asked.visitor))
        facts = previewing.why(program, given, asked.part, tables)
    return ExplanationsReply(facts=[ExplanationReply.model_validate(each) for each in facts])


@endpoint(
    blueprint,
    "POST",
    "/api/forms/<uuid:form>/preview/outcome",
    body=OutcomeRequest,
    reply=OutcomeReply,
    most=MOST_ANSWERS,
)
def outcome(asked: OutcomeRequest, form: UUID) -> OutcomeReply:
    """Say what comes out of answers to the draft, and which of its conditions hold."""
    program = _program(form)
    team = written_to(connection, program.form, form)
    with tables_for(connection, form) as tables:
        given = Given(answers=asked.answers, link=asked.link, visitor=as_visitor(asked.visitor))
        found = trying.outcome(program, given, asked.day, team, tables=tables)
    return OutcomeReply.model_validate(found)


@endpoint(blueprint, "GET", "/api/forms/<uuid:form>/preview/trials", reply=TrialsReply)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def run_all_trials(form: UUID) -> TrialsReply:
    """Run all trials of the draft."""
    program = _program(form)
    team = written_to(connection, program.form, form)
    with tables_for(connection, form) as tables:
        report = run_trials(program, team, tables)
    return TrialsReply(results=list(report.results), coverage=list(report.coverage))


@endpoint(blueprint, "GET", "/api/forms/<uuid:form>/preview/trials/<trial>/broken", reply=BrokenReply)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def what_broke(form: UUID, trial: str) -> BrokenReply:
    """Find the saved state that broke a trial, and what in it leads to the difference."""
    broken = broken_trials.what_broke(connection, who=may(Right.SEE_FORMS), form=form, trial=trial)
    if broken is None:
        return BrokenReply(fails=False, passed=None, failed=None, changes=[])
    return BrokenReply.model_validate({"fails": True, **asdict(broken)})


@endpoint(blueprint, "POST", "/api/forms/<uuid:form>/preview/untried", body=SampleRequest, reply=UntriedReply)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def untried(asked: SampleRequest, form: UUID) -> UntriedReply:
    """Return sample answers with which the draft does what none of its trials has tried."""
    program = _program(form)
    team = written_to(connection, program.form, form)
    with tables_for(connection, form) as tables:
        return UntriedReply.model_validate(trying.untried(program, asked.seed, team, tables=tables))


@endpoint(blueprint, "GET", "/api/forms/<uuid:form>/preview/responses", reply=TriedResponsesReply)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def on_responses(form: UUID) -> TriedResponsesReply:
    """Return the newest responses with what the draft's figures make of them."""
    who = may(Right.SEE_RESPONSES)
    tried = trying.on_responses(connection, _program(form), who=who, form=form)
    return TriedResponsesReply(responses=[TriedResponseReply.model_validate(each) for each in tried])


@endpoint(blueprint, "GET", "/api/forms/<uuid:form>/preview/responses/<number:number>", reply=TriedResponseReply)
def on_response(form: UUID, number: int) -> TriedResponseReply:
    """Return one response with all that the draft works out of it; nothing is kept."""
    who = may(Right.SEE_RESPONSES)
    tried = trying.on_response(connection, _program(form), who=who, form=form, number=number)
    return TriedResponseReply.model_validate(tried)


@endpoint(blueprint, "POST", "/api/forms/<uuid:form>/preview/sample", body=SampleRequest, reply=SampleReply)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def sample(asked: SampleRequest, form: UUID) -> SampleReply:
    """Return plausible answers to the draft."""
    program = _program(form)
    with tables_for(connection, form) as tables:
        return SampleReply(answers=previewing.sample(program, asked.seed, tables))
