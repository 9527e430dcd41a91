"""Signing in, signing out, and who is signed in."""

from flask import Blueprint, Response, current_app, request

from codexa.services import signing_in
from codexa.services.audit import note
from codexa.services.signing_in import Attempt
from codexa.settings import Settings
from codexa.store import sessions as store
from codexa.web import guard
from codexa.web.contract.sessions import SignedInReply, SignInRequest
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
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
    return guard.signed_in_reply(session)


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
