"""The page of a team's members: they sign in, find their answers again, and keep their account."""

import hmac
from typing import Any
from uuid import UUID

from babel import negotiate_locale
from babel.dates import format_date
from flask import Blueprint, Response, current_app, g, redirect, render_template, request

from codexa.core.definition.wording import Wording
from codexa.core.languages import LANGUAGES, direction_of
from codexa.core.sentences import Sentence, in_language
from codexa.services.errors import LinkUsedError, NotFoundError, ServiceError
from codexa.services.members import own_page, signing_in
from codexa.services.members.words import WORDS
from codexa.services.signing_in import SHORTEST_PASSWORD, digest_of
from codexa.settings import Settings
from codexa.store.database import Connection
from codexa.store.members import SignedInMember, Team, end_session
from codexa.web import guard, visiting
from codexa.web.database import connection, own_pages
from codexa.web.limits import SIGN_IN_RATE, limiter
from codexa.web.network import network
from codexa.web.payments import way
from codexa.web.visiting import MOST_TYPED, SignInBox, SignInRefused

blueprint = Blueprint("members", __name__, url_prefix="/m/<team>")


class _ForeignFormError(ServiceError):
    """This was not sent from your own page. Load the page and try again."""

    code = "foreign_request"


@blueprint.get("")
def show(team: str) -> Response:
    """A member's own page, or the box to sign in."""
    of = signing_in.team_at(connection, team)
    member = visiting.member_at(team)
    return _sign_in_page(of, "", SignInBox()) if member is None else _own_page(of, member, "")


@blueprint.post("")
@limiter.limit(SIGN_IN_RATE, key_func=network)
def sign_in(team: str) -> Response:
    """Sign a member in, or have a mail sent by which they can."""
    guard.refuse_foreign_origin()
    of = signing_in.team_at(connection, team)
    try:
        session = visiting.sign_in(of.id, visiting.typed_to_sign_in(), say=_say, back="", locale=_locale())
    except SignInRefused as refused:
        return _sign_in_page(of, refused.words, refused.box(""), refused.status)
    return visiting.with_cookie(_again(team), session.token)


@blueprint.get("/link/<token>")
def look_at_link(team: str, token: str) -> Response:
    """What a link of a mail is for; it changes nothing, so that mail scanners may look."""
    of = signing_in.team_at(connection, team)
    try:
        link = signing_in.look_at_link(connection, of.id, token)
    except LinkUsedError:
        return _sign_in_page(of, _word("link_over"), SignInBox(), 410)
    words = _word("link_sign_in") if link.kind == "sign in" else _word("link_address", email=link.email)
    return _page("member_link.html", of, words=words)


@blueprint.post("/link/<token>")
@limiter.limit(SIGN_IN_RATE, key_func=network)
def use_link(team: str, token: str) -> Response:
    """Sign in by a link, once."""
    guard.refuse_foreign_origin()
    of = signing_in.team_at(connection, team)
    try:
        link, session = own_page.use_link(connection, of.id, token)
    except LinkUsedError:
        return _sign_in_page(of, _word("link_over"), SignInBox(), 410)
    except ServiceError as error:
        return _sign_in_page(of, error.message, SignInBox(), 409)
    back = link.back.replace("/embed/", "/f/", 1)
    place = back if back.startswith(f"/f/{team}/") else f"/m/{team}"
    answer = redirect(place, code=303)
    assert isinstance(answer, Response)
    return visiting.with_cookie(answer, session.token)


@blueprint.get("/<uuid:form>")
def others(team: str, form: UUID) -> Response:
    """What others answered to a form, where its author lets members see it."""
    of, member = _member(team)
    found, seen = own_page.others(connection, member, form=form)
    shown = [(each, format_date(each.received_at, "long", _locale())) for each in seen]
    return _page("member_others.html", of, form=found, responses=shown)


@blueprint.get("/<uuid:form>/<number:number>")
def see(team: str, form: UUID, number: int) -> Response:
    """One of a member's responses."""
    of, member = _member(team)
    return _page("member_response.html", of, document=own_page.see(way(), member, form=form, number=number))


@blueprint.post("/<uuid:form>/<number:number>")
def go_on(team: str, form: UUID, number: int) -> Response:
    """Go on with what a member kept."""
    _, member = _member(team, changes=True)
    token = own_page.go_on(connection, _settings(), member, form=form, number=number)
    answer = redirect(f"/kept/{token}", code=303)
    assert isinstance(answer, Response)
    return answer


@blueprint.post("/account")
@limiter.limit(SIGN_IN_RATE, key_func=network)
def change(team: str) -> Response:
    """Change a member's name, password or address, sign out, or leave."""
    of, member = _member(team, changes=True)
    typed = {name: request.form.get(name, "")[:MOST_TYPED] for name in ("what", "name", "password", "email")}
    try:
        match typed["what"]:
            case "name":
                own_page.set_name(connection, member, typed["name"])
                said = _word("saved")
            case "password":
                own_page.set_password(connection, member, typed["password"], token=visiting.member_token())
                said = _word("saved")
            case "address":
                own_page.ask_address(connection, member, typed["email"], locale=_locale())
                said = _word("address_mailed", email=typed["email"])
            case "out":
                with connection() as database:
                    _end(database)
                return visiting.without_cookie(_again(team))
            case "leave":
                own_page.leave(connection, member)
                return visiting.without_cookie(_sign_in_page(of, _word("left"), SignInBox()))
            case _:
                raise NotFoundError
    except ServiceError as error:
        return _own_page(of, member, str(in_language(error.message, _locale())), 422)
    found = visiting.member_at(team)
    return _own_page(of, found or member, said)


def _end(database: Connection) -> None:
    end_session(database, digest=digest_of(visiting.member_token()))


def _member(team: str, *, changes: bool = False) -> tuple[Team, SignedInMember]:
    """Return the member who asks. Raises NotFoundError where nobody is signed in, _ForeignFormError."""
    of = signing_in.team_at(connection, team)
    member = visiting.member_at(team)
    if member is None:
        raise NotFoundError("Sign in first, on the page of your account.")
    sent = request.form.get("csrf", "")
    if changes and not hmac.compare_digest(sent.encode(), member.csrf_token.encode()):
        raise _ForeignFormError
    return of, member


def _own_page(of: Team, member: SignedInMember, said: str, status: int = 200) -> Response:
    found = own_page.show(connection, member)
    shown = [(each, format_date(each.received_at, "long", _locale())) for each in found.responses]
    waiting = [
        (each, f"/part/{each.form_id}/{each.number}" if each.part else own_pages().address(each.form_id, each.number))
        for each in found.waiting
    ]
    known = {
        "member": member,
        "responses": shown,
        "forms": found.forms,
        "waiting": waiting,
        "seen": found.seen,
        "least": SHORTEST_PASSWORD,
    }
    return _page("member.html", of, status, said=said, **known)


def _sign_in_page(of: Team, words: str, box: SignInBox, status: int = 200) -> Response:
    return _page("member_sign_in.html", of, status, words=words or _word("lead"), box=box)


def _page(template: str, of: Team, status: int = 200, **known: Any) -> Response:
    locale = _locale()
    page = render_template(
        template,
        team=of,
        say=_say,
        word=_word,
        language=locale,
        direction=direction_of(locale),
        nonce=g.nonce,
        **known,
    )
    response = Response(page, status)
    response.headers["Cache-Control"] = "private, no-store"
    response.headers["X-Robots-Tag"] = "noindex"
    # Whoever is led on from here learns nothing of a link.
    response.headers["Referrer-Policy"] = "same-origin"
    return response


def _again(team: str) -> Response:
    answer = redirect(f"/m/{team}", code=303)
    assert isinstance(answer, Response)
    return answer


def _locale() -> str:
    wanted = [each.replace("-", "_") for each in list(request.accept_languages.values())[:20]]
    return negotiate_locale(wanted, list(LANGUAGES)) or "en"


def _say(name: str) -> str:
    return Wording().say(name, _locale())


def _word(name: str, **values: Any) -> str:
    return Sentence(WORDS[name].template, **values).said_in(_locale())


def _settings() -> Settings:
    settings: Settings = current_app.config["SETTINGS"]
    return settings
