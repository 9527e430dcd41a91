"""Who asks, and whether they may: sessions, CSRF protection and security headers, in one place."""

import secrets
from datetime import timedelta
from uuid import UUID

from flask import Flask, Response, abort, current_app, g, request

from codexa.core.web_addresses import parts_of
from codexa.services.errors import NotFoundError, ServiceError
from codexa.services.roles import HIDDEN, Right, require
from codexa.services.signing_in import SESSION_LIFETIME, NewSession, Waiting, digest_of
from codexa.settings import Settings
from codexa.store import sessions
from codexa.store.sessions import SignedIn
from codexa.web.contract.sessions import SignedInReply
from codexa.web.database import connection
from codexa.web.endpoint import json_reply

_COOKIE = "codexa_session"
_SAFE_METHODS = frozenset({"GET", "HEAD", "OPTIONS"})


class NotSignedInError(ServiceError):
    """You are not signed in, or were signed out after a while. Sign in to go on; nothing is lost."""

    code = "not_signed_in"


class ForeignRequestError(ServiceError):
    """This request did not come from Codexa's own pages. Reload the page and try again."""

    code = "foreign_request"


def cookie_name() -> str:
    """Return the name of the session's cookie; over TLS browsers hold it to this very host (RFC 6265bis, 4.1.3.2)."""
    settings: Settings = current_app.config["SETTINGS"]
    return f"__Host-{_COOKIE}" if settings.secure else _COOKIE


def token() -> str:
    """Return what the browser sends as its session."""
    return request.cookies.get(cookie_name(), "")[:100]


def idle_time() -> timedelta:
    """Return how long a session may be without use."""
    return timedelta(minutes=int(current_app.config["SETTINGS"].session_idle))


def signed_in(*, used: bool = True) -> SignedIn:
    """Return who asks; `used` says that a person did something, not a page by itself.

    Raises NotSignedInError, or ForeignRequestError for a changing request of another site.
    """
    sent = token()
    idle = idle_time()
    if not sent:
        raise NotSignedInError
    with connection() as database:
        found = sessions.find_session(database, digest=digest_of(sent), idle=idle, used=used, form=_form_asked())
    if found is None:
        raise NotSignedInError
    if request.method not in _SAFE_METHODS and not secrets.compare_digest(
        request.headers.get("X-CSRF-Token", "").encode(), found.csrf_token.encode()
    ):
        raise ForeignRequestError
    return found


def anybody() -> SignedIn | None:
    """Return who asks, if somebody is signed in, whatever the request would change."""
    if not token():
        return None
    with connection() as database:
        return sessions.find_session(database, digest=digest_of(token()), idle=idle_time())


def signed_in_reply(session: NewSession) -> Response:
    """Return who is signed in with a new session, which the browser keeps in a cookie."""
    settings: Settings = current_app.config["SETTINGS"]
    with connection() as database:
        who = sessions.find_session(database, digest=digest_of(session.token))
    response = json_reply(SignedInReply.model_validate(who))
    response.set_cookie(
        cookie_name(),
        session.token,
        max_age=SESSION_LIFETIME,
        secure=settings.secure,
        httponly=True,
        samesite="Lax",
    )
    return response


def _form_asked() -> UUID | None:
    """Return the form that a request is about."""
    form = (request.view_args or {}).get("form")
    return form if isinstance(form, UUID) else None


def step_name() -> str:
    """Return the name of the cookie of who is on the way in."""
    return f"{cookie_name()}_step"


def step_token() -> str:
    """Return what the browser sends as its way in."""
    return request.cookies.get(step_name(), "")[:100]


def with_step(response: Response, waiting: Waiting) -> Response:
    """Return a reply by which a browser is on its way in."""
    settings: Settings = current_app.config["SETTINGS"]
    response.set_cookie(
        step_name(), waiting.step, max_age=600, secure=settings.secure, httponly=True, samesite="Strict"
    )
    return response


def may(right: Right, *, used: bool = True) -> SignedIn:
    """Return who asks, if their role has the right. Raises NotAllowedError and what `signed_in` raises."""
    who = signed_in(used=used)
    if who.role == HIDDEN:
        raise NotFoundError
    require(who, right)
    return who


def refuse_foreign_origin() -> None:
    """Raise ForeignRequestError where a browser says that another site sent this; for before there is a session."""
    settings: Settings = current_app.config["SETTINGS"]
    origin = request.headers.get("Origin")
    if origin is not None and origin != settings.origin and parts_of(origin).netloc != request.host:
        raise ForeignRequestError


def install(app: Flask) -> None:
    """Give every reply its security headers."""
    app.before_request(_refuse_impossible)
    app.before_request(_make_nonce)
    app.after_request(_set_headers)


def frame_policy(origins: list[str] | None) -> str:
    """Return the directive that says who may frame a page: nobody, or these origins; "*" is any."""
    return "frame-ancestors " + (" ".join(["'self'", *origins]) if origins is not None else "'none'")


def _refuse_impossible() -> None:
    # NUL stands in no address of ours, and in no text of the database; files that begin with a dot are the build's own.
    if "\x00" in request.path or "/." in request.path:
        abort(404)


def _make_nonce() -> None:
    g.nonce = secrets.token_urlsafe(16)


def _set_headers(response: Response) -> Response:
    policy = (
        "default-src 'none'; script-src 'self'; font-src 'self'; img-src 'self' data:; connect-src 'self'; "
        f"frame-src 'self'{g.get('shown_frames', '')}; "
        f"style-src 'self' 'nonce-{g.get('nonce', '')}'; base-uri 'none'; form-action 'self'; "
    )
    response.headers.setdefault("Content-Security-Policy", policy + g.get("frame_policy", frame_policy(None)))
    response.headers.setdefault("X-Content-Type-Options", "nosniff")
    response.headers.setdefault("Referrer-Policy", "strict-origin-when-cross-origin")
    response.headers.setdefault("Permissions-Policy", "camera=(), microphone=(), geolocation=()")
    response.headers.setdefault("Cross-Origin-Opener-Policy", "same-origin")
    if current_app.config["SETTINGS"].secure:
        response.headers.setdefault("Strict-Transport-Security", "max-age=31536000")
    if request.path.startswith("/api/"):
        # Set, not by default: what a view serves from disk comes with a cache header of its own.
        response.headers["Cache-Control"] = "private, no-store"
    return response
