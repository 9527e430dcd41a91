"""Signing in, signing out, and who is signed in."""

from urllib.parse import urlsplit

from flask import Blueprint, Response, current_app, request

from codexa.services import signing_in
from codexa.services.accounts import second_factors
from codexa.services.accounts.second_factors import Site, Whence
from codexa.services.audit import note
from codexa.services.signing_in import Attempt, Waiting
from codexa.settings import Settings
from codexa.store import sessions as store
from codexa.web import guard
from codexa.web.contract.sessions import (
    PasskeyOptionsReply,
    PasskeyRequest,
    SecondCodeRequest,
    SecondFactorReply,
    SignedInReply,
    SignInRequest,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.limits import LINK_RATE, limiter
from codexa.web.network import network

blueprint = Blueprint("sessions", __name__, url_prefix="/api/session")


@endpoint(blueprint, "POST", "", body=SignInRequest, reply=SignedInReply)
def sign_in(asked: SignInRequest) -> Response:
    """Sign in; sets the session cookie."""
    guard.refuse_foreign_origin()
    settings: Settings = current_app.config["SETTINGS"]
    attempt = Attempt(
        email=asked.email,
        password=asked.password,
        network=network(),
        program=request.headers.get("User-Agent", ""),
        old_token=guard.token(),
    )
    session = signing_in.sign_in(connection, attempt, attempts=int(settings.sign_in_attempts))
    if isinstance(session, Waiting):
        return guard.with_step(json_reply(SecondFactorReply(second_factor=True), 202), session)
    return guard.signed_in_reply(session)


@endpoint(blueprint, "POST", "/code", body=SecondCodeRequest, reply=SignedInReply)
def by_code(asked: SecondCodeRequest) -> Response:
    """Finish signing in by the code of an app, or one for recovery."""
    guard.refuse_foreign_origin()
    settings: Settings = current_app.config["SETTINGS"]
    session = second_factors.by_code(
        connection,
        settings,
        step=guard.step_token(),
        code=asked.code,
        whence=_whence(),
        attempts=int(settings.sign_in_attempts),
    )
    return guard.signed_in_reply(session)


@endpoint(blueprint, "POST", "/passkey/asked", reply=PasskeyOptionsReply)
@limiter.limit(LINK_RATE, key_func=network)
def ask_passkey() -> Response:
    """Say what a browser needs to ask for a passkey: one of who has typed a password, or anybody's."""
    guard.refuse_foreign_origin()
    step = guard.step_token()
    waiting = None
    if not step:
        with connection() as database:
            waiting = signing_in.begin_step(database, person=None, team=None)
        step = waiting.step
    options = second_factors.ask_passkey(connection, site(), step=step)
    reply = json_reply(PasskeyOptionsReply(options=options))
    return reply if waiting is None else guard.with_step(reply, waiting)


@endpoint(blueprint, "POST", "/passkey", body=PasskeyRequest, reply=SignedInReply)
@limiter.limit(LINK_RATE, key_func=network)
def by_passkey(asked: PasskeyRequest) -> Response:
    """Sign in by a passkey."""
    guard.refuse_foreign_origin()
    session = second_factors.by_passkey(
        connection, site(), step=guard.step_token(), credential=asked.credential, whence=_whence()
    )
    return guard.signed_in_reply(session)


def site() -> Site:
    """Return where passkeys are asked for: our own address, or this machine by its name."""
    settings: Settings = current_app.config["SETTINGS"]
    own = urlsplit(settings.origin)
    # A passkey can't belong to an address of numbers, such as the demo's.
    if not settings.secure and request.host.partition(":")[0] == "localhost":
        return Site(host="localhost", origin=f"{own.scheme}://{request.host}")
    return Site(host=own.hostname or "", origin=settings.origin)


def _whence() -> Whence:
    return Whence(network=network(), program=request.headers.get("User-Agent", ""))


@endpoint(blueprint, "GET", "", reply=SignedInReply)
def show() -> SignedInReply | None:
    """Tell who is signed in; 204 where nobody is."""
    try:
        return SignedInReply.model_validate(guard.signed_in())
    except guard.NotSignedInError:
        return None


@endpoint(blueprint, "DELETE", "")
def sign_out() -> Response:
    """Sign out; the session ends on the server."""
    who = guard.signed_in()
    with connection() as database:
        note(database, who, "signed out")
        store.delete_session(database, digest=signing_in.digest_of(guard.token()))
    response = Response(status=204)
    response.delete_cookie(guard.cookie_name(), secure=current_app.config["SETTINGS"].secure, httponly=True)
    return response
