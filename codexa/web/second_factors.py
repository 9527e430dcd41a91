"""One's own second factors: set up, taken away, and the codes for recovery."""

from uuid import UUID

from flask import Blueprint, Response, current_app

from codexa.services import signing_in
from codexa.services.accounts import second_factors
from codexa.web import guard
from codexa.web.contract.sessions import (
    BeginFactorRequest,
    BegunCodesReply,
    FactorsReply,
    PasskeyOptionsReply,
    PasskeyRequest,
    RecoveryCodesReply,
    SecondCodeRequest,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.limits import LINK_RATE, limiter, who_is_counted
from codexa.web.sessions import site

blueprint = Blueprint("second_factors", __name__, url_prefix="/api/account/factors")


@endpoint(blueprint, "GET", "", reply=FactorsReply)
def show() -> FactorsReply:
    """List one's own second factors."""
    return FactorsReply.model_validate(second_factors.own_factors(connection, who=guard.signed_in()))


@endpoint(blueprint, "POST", "/codes", body=BeginFactorRequest, reply=BegunCodesReply)
@limiter.limit(LINK_RATE, key_func=who_is_counted)
def begin_codes(asked: BeginFactorRequest) -> BegunCodesReply:
    """Begin with the codes of an app."""
    settings, who = current_app.config["SETTINGS"], guard.signed_in()
    begun = second_factors.begin_codes(connection, settings, who=who, password=asked.password, name=asked.name)
    return BegunCodesReply.model_validate(begun)


@endpoint(blueprint, "POST", "/codes/<uuid:factor>", body=SecondCodeRequest, reply=RecoveryCodesReply)
@limiter.limit(LINK_RATE, key_func=who_is_counted)
def confirm_codes(asked: SecondCodeRequest, factor: UUID) -> RecoveryCodesReply:
    """Confirm them by one."""
    settings, who = current_app.config["SETTINGS"], guard.signed_in()
    codes = second_factors.confirm_codes(connection, settings, who=who, factor=factor, code=asked.code)
    return RecoveryCodesReply(codes=codes)


@endpoint(blueprint, "POST", "/passkeys/asked", body=BeginFactorRequest, reply=PasskeyOptionsReply)
@limiter.limit(LINK_RATE, key_func=who_is_counted)
def begin_passkey(asked: BeginFactorRequest) -> Response:
    """Say what a browser needs to make a passkey."""
    who = guard.signed_in()
    with connection() as database:
        waiting = signing_in.begin_step(database, person=who.person_id, team=who.team_id)
    options = second_factors.begin_passkey(connection, site(), who=who, password=asked.password, step=waiting.step)
    return guard.with_step(json_reply(PasskeyOptionsReply(options=options)), waiting)


@endpoint(blueprint, "POST", "/passkeys", body=PasskeyRequest, reply=RecoveryCodesReply)
@limiter.limit(LINK_RATE, key_func=who_is_counted)
def keep_passkey(asked: PasskeyRequest) -> RecoveryCodesReply:
    """Keep a passkey that the browser has made."""
    codes = second_factors.keep_passkey(
        connection,
        current_app.config["SETTINGS"],
        site(),
        who=guard.signed_in(),
        step=guard.step_token(),
        name=asked.name,
        credential=asked.credential,
    )
    return RecoveryCodesReply(codes=codes)


@endpoint(blueprint, "POST", "/<uuid:factor>/away", body=BeginFactorRequest)
@limiter.limit(LINK_RATE, key_func=who_is_counted)
def take_away(asked: BeginFactorRequest, factor: UUID) -> None:
    """Take a second factor away."""
    second_factors.take_away(connection, who=guard.signed_in(), factor=factor, password=asked.password)


@endpoint(blueprint, "POST", "/recovery", body=BeginFactorRequest, reply=RecoveryCodesReply)
@limiter.limit(LINK_RATE, key_func=who_is_counted)
def new_recovery_codes(asked: BeginFactorRequest) -> RecoveryCodesReply:
    """Return other codes for recovery."""
    settings, who = current_app.config["SETTINGS"], guard.signed_in()
    return RecoveryCodesReply(
        codes=second_factors.new_recovery_codes(connection, settings, who=who, password=asked.password)
    )
