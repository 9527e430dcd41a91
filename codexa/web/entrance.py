"""The way in to a published form: what keeps visitors out, told on a page of plain words, and what they come with."""

from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import get_args
from uuid import UUID

from babel import negotiate_locale
from flask import Response, current_app, g, render_template, request

from codexa.core.form.form import SEAL, Form, Presentation
from codexa.core.form.translating import in_language
from codexa.core.languages import direction_of
from codexa.core.program.link_values import sealed_names
from codexa.core.program.program import Program
from codexa.core.web_addresses import parts_of
from codexa.services.admission import Terms, closed_words, entry_with, require_admitted
from codexa.services.errors import NotAdmittedError, NotFoundError, SealError, SignInNeededError
from codexa.services.sealing import Sealed
from codexa.services.visitors import Visitor
from codexa.settings import Settings
from codexa.web import visiting
from codexa.web.database import admissions, editions
from codexa.web.first_view import colours_of
from codexa.web.guard import frame_policy
from codexa.web.visiting import SignInBox

_MOST_LINK_VALUES, _MOST_LINK_TEXT = 50, 2_000
_MOST_PASSWORD = 200
_MOST_LANGUAGES = 20  # that a browser may name
# What a frame's address says beside the form's own values; no name of a value has a hyphen.
_AS, _FROM, _SHOWN, LANGUAGE = "codexa-as", "codexa-from", "codexa-shown", "codexa-language"
_WAYS = ("script", "frame", "pop-up", "tab", "corner")


class NoticeError(Exception):
    """Visitors read something instead of the form: `words`, with a link to the form's own page or a box beside."""

    def __init__(
        self, words: str, *, status: int = 200, link: str = "", asks: str = "", sign_in: SignInBox | None = None
    ) -> None:
        self.words, self.status, self.link, self.asks, self.sign_in = words, status, link, asks, sign_in
        super().__init__(words)


@dataclass(frozen=True, kw_only=True, slots=True)
class Came:
    """How a visitor came: by which way, on which page of a website ("" unknown), and that website's origin."""

    way: str
    page: str
    origin: str

    @property
    def has_window(self) -> bool:
        """Whether the form stands in a window of its own on a website."""
        return self.way in ("pop-up", "tab", "corner")


def came(*, framed: bool) -> Came:
    """Return how the visitor came, by what the frame's address tells, or the browser."""
    told = request.args.get(_FROM, "") or (request.headers.get("Referer", "") if framed else "")
    page = page_of(told)
    origin = "/".join(page.split("/")[:3])
    if not framed:
        return Came(way="link", page="", origin="")
    way = request.args.get(_AS, "")
    return Came(way=way if way in _WAYS else "frame", page=page, origin=origin)


def shown_of_request() -> str:
    """Return in which way of presenting the form is wanted, "" for its own."""
    if not request.query_string:
        return ""
    wanted = request.args.get(_SHOWN, "")
    return wanted if wanted in get_args(Presentation) else ""


def language_of_request(form: Form) -> str:
    """Return in which of its languages a form is wanted: by the address, else by the browser where the form goes by it.

    "" for its own.
    """
    if len(form.locales) == 1:
        return ""
    wanted = [request.args.get(LANGUAGE, "")]
    if form.language_by_browser:
        wanted += list(request.accept_languages.values())[:_MOST_LANGUAGES]
    return negotiate_locale([each.replace("-", "_") for each in wanted if each], form.locales) or ""


def program_of_request(form: UUID, edition: int) -> Program:
    """Return an edition as the request wants it: in which way of presenting, and in which language."""
    shown = shown_of_request()
    own = editions().program(form, edition, shown=shown)
    language = language_of_request(own.form)
    return editions().program(form, edition, shown=shown, language=language) if language else own


def page_of(address: str) -> str:
    """Return the origin and path of a web address, without what may name a person; "" where it is none."""
    if not address:
        return ""
    parts = parts_of(address[:2_000])
    if parts.scheme not in ("http", "https") or not parts.netloc or "@" in parts.netloc:
        return ""
    return f"{parts.scheme}://{parts.netloc}{parts.path}"[:500].replace("\x00", "")


def set_frame_policy(sites: list[str], origin: str) -> bool:
    """Say which websites may frame the reply, and return whether the one that does may, as far as it is known."""
    settings: Settings = current_app.config["SETTINGS"]
    ours = {settings.origin, f"{request.scheme}://{request.host}", settings.practice_website}
    allowed = not sites or not origin or origin in sites or origin in ours
    # Where the website may not show the form, it is our words that it shows; they can be framed by anybody.
    practice = [settings.practice_website] if settings.practice_website else []
    g.frame_policy = frame_policy(list(dict.fromkeys([*sites, *practice])) if sites and allowed else ["*"])
    return allowed


@dataclass(frozen=True, kw_only=True, slots=True)
class LetIn:
    """A visitor was let in: `entry` says that the password was typed; what is kept for later is, for so many days."""

    entry: str
    kept_days: int | None
    visitor: Visitor


def refuse_closed(form_id: UUID) -> LetIn:
    """Let a visitor in. Raises NoticeError where the form can't be filled in just now, or asks for a password."""
    terms = admissions().terms(form_id, fresh=True)
    if terms is None:
        raise NotFoundError
    terms = replace(terms, form=in_language(terms.form, language_of_request(terms.form)))
    words = closed_words(terms, datetime.now(UTC))
    if words is not None:
        raise NoticeError(words)
    entry = "" if terms.password_hash is None else _entry_by_password(form_id, terms)
    visitor, ticket = _visitor(form_id, terms, entry)
    return LetIn(entry=entry_with(entry, ticket), kept_days=terms.access.kept_days, visitor=visitor)


def _entry_by_password(form_id: UUID, terms: Terms) -> str:
    """Return what says that the form's password was typed, now or a moment ago. Raises NoticeError."""
    before = request.form.get("entry", "")[:200]
    if before and admissions().is_entry(form_id, terms, before):
        return before
    # Who signs in may do so more often than a password may be tried.
    is_tried = request.method == "POST" and not request.form.get("way")
    typed = request.form.get("password", "")[:_MOST_PASSWORD] if is_tried else ""
    entry = admissions().entry_by_password(form_id, terms, typed) if typed else None
    if entry is None:
        status = 403 if typed else 200
        words = terms.form.say("wrongPassword" if typed else "askPassword")
        raise NoticeError(words, status=status, asks="password")
    return entry


def _visitor(form_id: UUID, terms: Terms, entry: str) -> tuple[Visitor, str]:
    """Return who fills in, with their pass. Raises NoticeError where a guest has to sign in, or it is for others."""
    box = SignInBox(entry=entry)
    try:
        ticket = visiting.ticket(form_id, terms) or ""
        visitor = admissions().visitor(form_id, ticket, fresh=True)
        require_admitted(terms, visitor)
    except visiting.SignInRefused as refused:
        raise NoticeError(refused.words, status=refused.status, asks="sign-in", sign_in=refused.box(entry)) from None
    except SignInNeededError as error:
        raise NoticeError(error.message, asks="sign-in", sign_in=box) from None
    except NotAdmittedError as error:
        raise NoticeError(error.message, status=403) from None
    return visitor, ticket


def link_of_request() -> dict[str, str]:
    """Return what came with the address, by name; what no formula could read is left out."""
    return {
        name: value[:_MOST_LINK_TEXT]
        for name, value in list(request.args.items())[:_MOST_LINK_VALUES]
        if name != SEAL and name.replace("_", "").isalnum() and len(name) <= 60 and "\x00" not in value
    }


def sealed_of_request(program: Program, form_id: UUID) -> tuple[str, Sealed | None]:
    """Return the seal of the address and what it gives. Raises NoticeError where it does not open the form.

    What is sealed can't be told beside the seal, and nothing can be told twice.
    """
    form = program.form
    seals = request.args.getlist(SEAL)
    named = {each.name for each in form.links}
    doubled = len(seals) > 1 or any(len(request.args.getlist(name)) > 1 for name in named)
    if doubled or sealed_names(form) & request.args.keys():
        raise NoticeError(form.say("linkBroken"), status=403)
    seal = seals[0] if seals else ""
    try:
        sealed = admissions().sealed(form, form_id, seal, fresh=True)
    except SealError as error:
        raise NoticeError(error.message, status=403) from None
    if sealed is not None and any(name in request.args for name in sealed.given):
        raise NoticeError(form.say("linkBroken"), status=403)
    return seal, sealed


def notice(error: NoticeError, form: Form | None, *, framed: bool) -> Response:
    """Return the page that says it, in the form's own colours."""
    page = render_template(
        "notice.html",
        error=error,
        form=form,
        say=None if form is None else form.say,
        direction=direction_of(form.locale if form else "en"),
        colours={} if form is None else colours_of(form.brand),
        nonce=g.nonce,
        framed=framed,
    )
    response = Response(page, error.status)
    response.headers["Cache-Control"] = "no-store"
    response.headers["X-Robots-Tag"] = "noindex"
    return response
