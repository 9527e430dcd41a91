"""Who fills in a form, as a request says it: by the cookie of a member or of a person of the team, or by signing in.

A page in a frame of another website gets no cookies: there signing in gives the page a pass of its own, and a reload
asks again.
"""

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from flask import Response, current_app, g, request

from codexa.services.admission import Terms
from codexa.services.errors import LinkUsedError, TooManyAttemptsError, WrongSignInError
from codexa.services.members import own_page, signing_in
from codexa.services.members.signing_in import NewMemberSession
from codexa.services.signing_in import digest_of
from codexa.services.visitors import pass_of
from codexa.settings import Settings
from codexa.store import members as store
from codexa.store.members import SESSION_LIFETIME, SignedInMember
from codexa.web import guard
from codexa.web.database import connection
from codexa.web.network import network

_COOKIE = "codexa_member"
MOST_TYPED = 300  # characters
_BOX = ("email", "member_password", "asked", "code", "way")


@dataclass(frozen=True, kw_only=True, slots=True)
class SignInBox:
    """What the box to sign in has in it: who typed a form's password, the address, and which code is waited for."""

    entry: str = ""
    email: str = ""
    asked: str = ""


class SignInRefused(Exception):  # noqa: N818 - it is what a visitor reads, not an error of ours
    """Nobody was signed in, and why; or a code is on its way."""

    def __init__(self, words: str, *, status: int = 403, email: str = "", asked: str = "") -> None:
        self.words, self.status, self.email, self.asked = words, status, email, asked
        super().__init__(words)

    def box(self, entry: str) -> SignInBox:
        """Return the box to go on with."""
        return SignInBox(entry=entry, email=self.email, asked=self.asked)


def cookie_name() -> str:
    """Return the name of the cookie of members' sessions."""
    return f"__Host-{_COOKIE}" if _settings().secure else _COOKIE


def member_token() -> str:
    """Return what the browser sends as a member's session."""
    return request.cookies.get(cookie_name(), "")[:100]


def member_at(team_slug: str) -> SignedInMember | None:
    """Return the member who is signed in at a team; None where nobody is."""
    return own_page.signed_in(connection, token=member_token(), team_slug=team_slug)


def ticket(form: UUID, terms: Terms) -> str | None:
    """Return the pass of whoever opens a form: by what they sign in with, else by a cookie; None of a guest.

    Raises SignInRefused where somebody tries to sign in, and can't.
    """
    settings = _settings()
    if request.method == "POST" and request.form.get("way"):
        guard.refuse_foreign_origin()
        session = signed_in_by(terms)
        g.new_member_session = session.token
        return pass_of("m", session.id, form, settings)
    return ticket_at(form, terms.team_slug)


def ticket_at(form: UUID, team_slug: str) -> str | None:
    """Return the pass of whoever is signed in for a form, by a cookie of theirs; None of a guest."""
    settings, member = _settings(), member_at(team_slug)
    if member is not None:
        return pass_of("m", member.session_id, form, settings)
    sent = guard.token()
    if not sent:
        return None
    with connection() as database:
        person = store.session_of_person(database, digest=digest_of(sent))
    return None if person is None else pass_of("p", person, form, settings)


def signed_in_by(terms: Terms) -> NewMemberSession:
    """Return a new session by what the request's form has: a password, or the code of a mail. Raises SignInRefused."""
    return sign_in(
        terms.team, typed_to_sign_in(), say=terms.form.say, back=request.full_path.rstrip("?"), locale=terms.form.locale
    )


def typed_to_sign_in() -> dict[str, str]:
    """Return what a page's box to sign in sends."""
    return {name: request.form.get(name, "")[:MOST_TYPED] for name in _BOX}


def sign_in(team: UUID, typed: dict[str, str], *, say: Any, back: str, locale: str) -> NewMemberSession:
    """Return a new session by what was typed, or have a mail sent; `say` gives the words. Raises SignInRefused."""
    email, asked = typed["email"], typed["asked"]
    try:
        if typed["way"] == "code":
            return signing_in.by_code(connection, _settings(), team, asked=asked, code=typed["code"])
        if typed["way"] == "password":
            attempts = int(_settings().sign_in_attempts)
            password = typed["member_password"]
            return signing_in.sign_in(
                connection, team, email=email, password=password, network=network(), attempts=attempts
            )
    except WrongSignInError:
        words = say("signInWrongCode" if typed["way"] == "code" else "signInWrong")
        raise SignInRefused(words, email=email, asked=asked) from None
    except (TooManyAttemptsError, LinkUsedError):
        raise SignInRefused(say("signInWait"), status=429, email=email) from None
    asked = signing_in.ask_for_link(connection, team, email=email, back=back[:500], locale=locale)
    raise SignInRefused(say("signInMailed"), status=200, email=email, asked=asked)


def with_cookie(response: Response, token: str) -> Response:
    """Return a reply that signs a member in in this browser."""
    response.set_cookie(
        cookie_name(), token, max_age=SESSION_LIFETIME, secure=_settings().secure, httponly=True, samesite="Lax"
    )
    return response


def without_cookie(response: Response) -> Response:
    """Return a reply that signs a member out in this browser."""
    response.delete_cookie(cookie_name(), secure=_settings().secure, httponly=True)
    return response


def _settings() -> Settings:
    settings: Settings = current_app.config["SETTINGS"]
    return settings
