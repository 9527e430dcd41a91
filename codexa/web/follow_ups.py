"""Follow-ups: what would follow from answers to a draft, and what followed from a response."""

from uuid import UUID

from flask import Blueprint, Response, current_app

from codexa.services.answering import Given
from codexa.services.drafts import require
from codexa.services.follow_ups import keeping, trying_out, webhooks
from codexa.services.roles import Right
from codexa.web.contract.follow_ups import (
    DueReply,
    FollowUpsReply,
    FollowUpsRequest,
    RunInFullReply,
    RunReply,
    RunsReply,
    SecretReply,
    TryRequest,
)
from codexa.web.database import compiled_drafts, connection
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted
from codexa.web.previews import as_visitor
from codexa.web.public import MOST_ANSWERS

blueprint = Blueprint("follow_ups", __name__, url_prefix="/api/forms/<uuid:form>")


@endpoint(blueprint, "POST", "/preview/follow-ups", body=FollowUpsRequest, reply=FollowUpsReply, most=MOST_ANSWERS)
def would_follow(asked: FollowUpsRequest, form: UUID) -> FollowUpsReply:
    """Return what would follow from these answers to the draft; nothing is sent."""
    program = compiled_drafts().program(who=may(Right.SEE_FORMS), form=form)
    found = trying_out.follow_ups_of(connection, program, form, _given(asked))
    return FollowUpsReply(due=[DueReply.model_validate(each) for each in found])


def _given(asked: FollowUpsRequest | TryRequest) -> Given:
    return Given(answers=asked.answers, link=asked.link, visitor=as_visitor(asked.visitor))


@endpoint(blueprint, "GET", "/follow-ups/secret", reply=SecretReply)
def secret(form: UUID) -> SecretReply:
    """Return what signs the form's webhooks, for whoever receives them."""
    require(connection, who=may(Right.EDIT_FORMS), form=form)
    return SecretReply(secret=webhooks.secret_of(form, current_app.config["SETTINGS"]))


@endpoint(blueprint, "POST", "/follow-ups/try", body=TryRequest, most=MOST_ANSWERS)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def try_it(asked: TryRequest, form: UUID) -> Response:
    """Send a mail of the draft to whoever asks, marked as a try, and to nobody else."""
    who = may(Right.EDIT_FORMS)
    program = compiled_drafts().program(who=who, form=form)
    tried = trying_out.Tried(follow_up=asked.follow_up, given=_given(asked))
    trying_out.send_try(connection, program, form, tried, who=who)
    return json_reply(None)


@endpoint(blueprint, "GET", "/responses/<number:number>/runs", reply=RunsReply)
def followed(form: UUID, number: int) -> RunsReply:
    """Return what followed from a response, and what still waits."""
    who = may(Right.SEE_RESPONSES)
    found = keeping.runs_of(connection, who=who, form=form, number=number)
    return RunsReply(runs=[RunReply.model_validate(each) for each in found])


@endpoint(blueprint, "GET", "/runs", reply=RunsReply)
def still_open(form: UUID) -> RunsReply:
    """Return what waits and what did not work: first what did not work."""
    found = keeping.open_runs(connection, who=may(Right.SEE_RESPONSES), form=form)
    return RunsReply(runs=[RunReply.model_validate(each) for each in found])


@endpoint(blueprint, "GET", "/runs/<number:run>", reply=RunInFullReply)
def in_full(form: UUID, run: int) -> RunInFullReply:
    """Return what a follow-up of a response sends, and what was answered."""
    found = keeping.run_in_full(connection, who=may(Right.SEE_RESPONSES), form=form, run=run)
    return RunInFullReply.model_validate(found)


@endpoint(blueprint, "POST", "/runs/<number:run>/again")
def again(form: UUID, run: int) -> Response:
    """Do a follow-up once more, with what was worked out when it was set off."""
    keeping.run_again(connection, who=may(Right.EDIT_FORMS), form=form, run=run)
    return json_reply(None)
