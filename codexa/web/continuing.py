"""Going on later: keeping what was entered so far, its link by mail, and the page that the link opens."""

from uuid import UUID

from flask import Blueprint, Response, current_app

from codexa.core.form.translating import in_language
from codexa.core.program.accept import Refused
from codexa.services import answering, continuing
from codexa.services.answering import Given
from codexa.services.continuing import Keeping
from codexa.services.errors import ClosedError, KeepingRefusedError
from codexa.settings import Settings
from codexa.web.contract.public import KeepReply, KeepRequest, KeptMailRequest
from codexa.web.database import admissions, connection, editions, own_pages
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.entrance import NoticeError, notice, page_of, program_of_request
from codexa.web.limits import KEEP_RATE, LINK_RATE, entry_rate, limiter
from codexa.web.opening import GoingOn, entered
from codexa.web.public import MOST_ANSWERS, refused_reply

blueprint = Blueprint("continuing", __name__)
_EDITION = "/api/public/<uuid:form>/<number:edition>/kept"


@blueprint.get("/kept/<token>")
@blueprint.get("/kept/<token>/<page>")
def page(token: str, page: str = "") -> Response:
    """The form with what was kept under a private link."""
    return _page(token, page)


@blueprint.post("/kept/<token>")
@blueprint.post("/kept/<token>/<page>")
@limiter.limit(entry_rate)
def page_by_password(token: str, page: str = "") -> Response:
    """The same, for whoever has typed the form's password."""
    return _page(token, page)


def _page(token: str, page: str) -> Response:
    found = continuing.find_kept(connection, token=token)
    if found is None:
        words = "Nothing is kept under this link any more. Check it, or open the form anew."
        return notice(NoticeError(words, status=404), None, framed=False)
    if found.stage != "kept":
        form = in_language(editions().form(found.form_id, found.edition), found.standing.get("language", ""))
        place = f"/f/{found.team_slug}/{found.slug}"
        return notice(NoticeError(form.say("laterHandedIn"), link=place), form, framed=False)
    response = entered(found.team_slug, found.slug, page, framed=False, going_on=GoingOn(token=token, kept=found))
    response.headers["Cache-Control"] = "no-store"
    response.headers["X-Robots-Tag"] = "noindex"
    # Whoever is led on from here learns nothing of the link.
    response.headers["Referrer-Policy"] = "same-origin"
    return response


@endpoint(blueprint, "POST", _EDITION, body=KeepRequest, reply=KeepReply, most=MOST_ANSWERS)
@limiter.limit(KEEP_RATE)
def keep(asked: KeepRequest, form: UUID, edition: int) -> Response:
    """Keep what was entered so far, or say what the edition does not know of it (422)."""
    program = program_of_request(form, edition)
    visitor = admissions().let_in(form, asked.entry)
    terms = admissions().terms(form)
    if terms is None:
        raise ClosedError
    if terms.access.kept_days is None:
        raise KeepingRefusedError(program.form.say("laterOff"))
    sealed = admissions().sealed(program.form, form, asked.seal)
    link = answering.link_of(program, asked.link, sealed)
    keeping = Keeping(
        form=form,
        edition=edition,
        token=asked.token,
        given=Given(answers=asked.answers, link=link, visit=asked.visit, visitor=visitor),
        standing={
            "language": program.form.locale,
            "page": asked.page,
            "seed": asked.seed,
            "checked": asked.checked,
            "began": asked.began,
            "link": asked.link,
            "seal": asked.seal,
            "came": {"way": asked.came.way, "page": page_of(asked.came.page), "seconds": None},
        },
        version=asked.version,
        days=terms.access.kept_days,
        pages=own_pages(),
    )
    with connection() as database:
        kept = continuing.keep(database, program, keeping)
    if isinstance(kept, Refused):
        return json_reply(refused_reply(kept), 422)
    settings: Settings = current_app.config["SETTINGS"]
    address = continuing.address_of(asked.token, settings)
    return json_reply(KeepReply(number=kept.number, address=address, version=kept.version, until=kept.until))


@endpoint(blueprint, "POST", f"{_EDITION}/mail", body=KeptMailRequest, reply=None)
@limiter.limit(LINK_RATE)
def mail(asked: KeptMailRequest, form: UUID, edition: int) -> None:
    """Have the private link sent by mail."""
    settings: Settings = current_app.config["SETTINGS"]
    of_form = program_of_request(form, edition).form
    continuing.ask_mail(connection, settings, of_form, form_id=form, token=asked.token, email=asked.email.strip())
