"""Everything about a person: found, given out, forgotten. The address stands in bodies, so that no log has it."""

from flask import Blueprint, Response

from codexa.services import about_person
from codexa.services.roles import Right
from codexa.web.contract.about_person import (
    ForgetPersonRequest,
    ForgottenReply,
    PersonReply,
    PersonRequest,
)
from codexa.web.database import editions, export_connection
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted

blueprint = Blueprint("about_person", __name__, url_prefix="/api/person")


@endpoint(blueprint, "POST", "/find", body=PersonRequest, reply=PersonReply)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def find(asked: PersonRequest) -> PersonReply:
    """Say where the team's forms name an e-mail address."""
    who = may(Right.ANSWER_PEOPLE)
    found = about_person.find(export_connection, editions(), who=who, email=asked.email)
    return PersonReply.model_validate(found)


@endpoint(blueprint, "POST", "/export", body=PersonRequest)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def export(asked: PersonRequest) -> Response:
    """Return all of it as one JSON document, for the person."""
    who = may(Right.ANSWER_PEOPLE)
    return json_reply(about_person.export(export_connection, editions(), who=who, email=asked.email))


@endpoint(blueprint, "POST", "/forget", body=ForgetPersonRequest, reply=ForgottenReply)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def forget(asked: ForgetPersonRequest) -> ForgottenReply:
    """Have all responses that name an address anonymised or removed."""
    who = may(Right.ANSWER_PEOPLE)
    found = about_person.forget(export_connection, editions(), who=who, email=asked.email, does=asked.does)
    return ForgottenReply.model_validate(found)
