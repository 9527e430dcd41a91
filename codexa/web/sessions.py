"""Signing in, signing out, and who is signed in."""

from flask import Blueprint, Response, current_app, request

from codexa.services import signing_in
from codexa.services.errors import WrongSignInError
from codexa.settings import Settings
from codexa.store import sessions as store
from codexa.web import guard
from codexa.web.contract.sessions import SignedInReply, SignInRequest
from codexa.web.database import connection
from codexa.web.endpoint import endpoint, json_reply

blueprint = Blueprint("sessions", __name__, url_prefix="/api/session")


@endpoint(blueprint, "POST", "", body=SignInRequest, reply=SignedInReply)
def sign_in(asked: SignInRequest) -> Response:
    """Sign in; sets the session cookie."""
    guard.refuse_foreign_origin()
    settings: Settings = current_app.config["SETTINGS"]
    address = request.remote_addr or ""
    with connection() as database:
        signing_in.refuse_guessing(
            database, email=asked.email, address=address, attempts=int(settings.sign_in_attempts)
        )
    try:
        with connection() as database:
            session = signing_in.sign_in(database, email=asked.email, password=asked.password)
            who = store.find_session(database, digest=signing_in.digest_of(session.token))
    except WrongSignInError:
        with connection() as database:
            signing_in.count_failure(database, email=asked.email, address=address)
        raise
    response = json_reply(SignedInReply.model_validate(who))
    response.set_cookie(
        guard.COOKIE,
        session.token,
        max_age=signing_in.SESSION_LIFETIME,
        secure=settings.secure,
        httponly=True,
        samesite="Lax",
    )
    return response


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
    guard.signed_in()
    with connection() as database:
        store.delete_session(database, digest=signing_in.digest_of(request.cookies[guard.COOKIE]))
    response = Response(status=204)
    response.delete_cookie(guard.COOKIE)
    return response
