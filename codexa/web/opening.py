"""Opening a form: its page for a visitor, or what is read instead of it."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from flask import Response, current_app, g, redirect, request, url_for

from codexa.core.form.form import Form
from codexa.core.form.translating import in_language
from codexa.core.program.program import Program
from codexa.services import answering
from codexa.services.errors import MovedError, NotFoundError, SealError
from codexa.services.sealing import Sealed
from codexa.services.suspicion import opened_now
from codexa.services.told_moments import moment_words
from codexa.store.editions import LiveEdition
from codexa.store.kept_answers import KeptRow
from codexa.web import visiting
from codexa.web.database import admissions, connection, editions
from codexa.web.entrance import (
    LANGUAGE,
    NoticeError,
    came,
    language_of_request,
    link_of_request,
    notice,
    refuse_closed,
    sealed_of_request,
    set_frame_policy,
    shown_of_request,
)
from codexa.web.first_view import first_view
from codexa.web.form_page import form_page, page_data, page_response, shared_of
from codexa.web.guard import frame_policy


@dataclass(frozen=True, kw_only=True, slots=True)
class GoingOn:
    """A visitor goes on with what was kept under a private token."""

    token: str
    kept: KeptRow


def entered(team: str, slug: str, page: str, *, framed: bool, going_on: GoingOn | None = None) -> Response:
    """Return the form, or what visitors read instead of it."""
    if framed:
        g.frame_policy = frame_policy(["*"])
    live = None
    try:
        live = answering.find_live(connection, team_slug=team, slug=slug)
        return _with_session(_page(live, f"/{team}/{slug}", page, framed=framed, going_on=going_on), framed=framed)
    except MovedError as moved:
        return _moved(moved)
    except NoticeError as error:
        form = None if live is None else _form_of_request(live)
        return notice(error, form, framed=framed)
    except NotFoundError as error:
        return notice(NoticeError(error.message, status=404), None, framed=framed)


def _with_session(page: Response, *, framed: bool) -> Response:
    """Return the page for who has just signed in; one that is not framed is loaded anew, so that nothing is resent."""
    token = g.get("new_member_session", "")
    if not token:
        return page
    # Whoever has typed the form's password too would be asked for it again.
    if framed or request.form.get("entry"):
        return visiting.with_cookie(page, token)
    again = redirect(request.full_path.rstrip("?"), code=303)
    assert isinstance(again, Response)
    return visiting.with_cookie(again, token)


def _form_of_request(live: LiveEdition) -> Form:
    form = editions().form(live.form_id, live.number)
    return in_language(form, language_of_request(form))


def _page(live: LiveEdition, place: str, page: str, *, framed: bool, going_on: GoingOn | None) -> Response:
    how = came(framed=framed)
    shown = shown_of_request()
    language = language_of_request(editions().program(live.form_id, live.number, shown=shown).form)
    if going_on is not None and LANGUAGE not in request.args:
        language = going_on.kept.standing.get("language", "")
    program = editions().program(live.form_id, live.number, shown=shown, language=language)
    say = program.form.say
    if framed and not set_frame_policy(live.sites, how.origin):
        raise NoticeError(say("siteNotAllowed"), status=403, link=f"/f{place}")
    let_in = refuse_closed(live.form_id)
    link, seal, sealed = _brought(program, live.form_id, going_on)
    brought = answering.link_of(program, link, sealed)
    opened = answering.open_form(connection, program, live.form_id, brought, let_in.visitor)
    if opened.wrong is not None:
        raise NoticeError(opened.wrong, status=403)
    data = page_data(
        {
            "base": f"/api/public/{live.form_id}/{live.number}",
            "form": str(live.form_id),
            "edition": live.number,
            "framed": framed,
            "link": link,
            "seal": seal,
            "entry": let_in.entry,
            "came": {"way": how.way, "page": how.page},
            "opened": opened_now(live.form_id, current_app.config["SETTINGS"]),
            "host": how.origin,
            "address": f"/{'embed' if framed else 'f'}{place}",
            "page": page,
            "shown": shown,
            "later": let_in.kept_days is not None,
            "visitor": let_in.visitor.facts.get("name", "") if let_in.visitor.is_known else "",
            # Whoever is of the team has no page among the members.
            "members": "" if let_in.visitor.person_id else f"/m/{place.split('/')[1]}",
            "face": opened.face.model_dump(mode="json"),
            "state": opened.state,
            **({} if going_on is None else _gone_on(program, live, going_on)),
        }
    )
    shared = shared_of(live, place)
    first = first_view(opened.face, opened.state)
    page_of_form = form_page(opened.face, first, data, framed=framed, own_window=how.has_window, shared=shared)
    response = page_response(page_of_form)
    response.headers["Cache-Control"] = "private, no-store" if let_in.visitor.is_known else "no-cache"
    response.vary.add("Accept-Language")
    return response


def _brought(program: Program, form_id: UUID, going_on: GoingOn | None) -> tuple[Mapping[str, str], str, Sealed | None]:
    """Return the values of the link that led to the form, its seal and what that gives. Raises NoticeError."""
    if going_on is None:
        return (link_of_request(), *sealed_of_request(program, form_id))
    standing = going_on.kept.standing
    try:
        sealed = admissions().sealed(program.form, form_id, standing["seal"], fresh=True)
    except SealError as error:
        raise NoticeError(error.message, status=403) from None
    return standing["link"], standing["seal"], sealed


def _gone_on(program: Program, live: LiveEdition, going_on: GoingOn) -> dict[str, Any]:
    """Return what a page has more where a visitor goes on: under an address of its own, with the answers as kept."""
    kept = going_on.kept
    standing = {name: kept.standing[name] for name in ("page", "seed", "checked", "began")}
    return {
        "address": f"/kept/{going_on.token}",
        "came": kept.standing["came"],
        "kept": {
            "token": going_on.token,
            "version": kept.version,
            "edition": kept.edition,
            "visit": kept.visit,
            "answers": _as_typed(program, live, going_on),
            "when": moment_words(program.form, kept.kept_at),
            **standing,
        },
    }


def _as_typed(program: Program, live: LiveEdition, going_on: GoingOn) -> dict[str, Any]:
    """Return what was kept, as it is typed in the language in which the form is opened now."""
    language = going_on.kept.standing.get("language", "")
    before = editions().program(live.form_id, live.number, language=language)
    return answering.typed_in(before, program, going_on.kept.entered)


def _moved(moved: MovedError) -> Response:
    """Lead on to a form's present address, with the page and the values that the link asks for."""
    view = {**(request.view_args or {}), "team": moved.team_slug, "slug": moved.slug}
    response = redirect(url_for(request.endpoint or "", **view) + f"?{request.query_string.decode()}".rstrip("?"))
    # It may move back.
    response.headers["Cache-Control"] = "no-store"
    assert isinstance(response, Response)
    return response
