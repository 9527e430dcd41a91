"""What visitors reach without signing in: the form's page, its state, and handing in."""

from uuid import UUID

import orjson
from flask import Blueprint, Response, current_app, g, render_template, request, send_from_directory

from codexa.core.program.accept import Refused
from codexa.core.program.public import ErrorFace
from codexa.services import answering
from codexa.web.built import entry
from codexa.web.contract import (
    EvaluateReply,
    EvaluateRequest,
    PublicPage,
    ReceivedReply,
    RefusedReply,
    SubmitRequest,
)
from codexa.web.database import connection, programs
from codexa.web.endpoint import BadRequestError, endpoint, json_reply
from codexa.web.guard import frame_policy
from codexa.web.limits import limiter, public_rate

blueprint = Blueprint("public", __name__)

_SCRIPT_SAFE = {ord("<"): "\\u003c", ord(">"): "\\u003e", ord("&"): "\\u0026"}


@blueprint.get("/f/<team>/<slug>")
@limiter.limit(public_rate)
def page(team: str, slug: str) -> Response:
    """The form on a page of its own."""
    return _page(team, slug, framed=False)


@blueprint.get("/embed/<team>/<slug>")
@limiter.limit(public_rate)
def framed_page(team: str, slug: str) -> Response:
    """The form for a frame on one of the websites that it lists."""
    return _page(team, slug, framed=True)


def _page(team: str, slug: str, *, framed: bool) -> Response:
    with connection() as database:
        opened = answering.open_form(database, programs(), team_slug=team, slug=slug)
    if framed:
        g.frame_policy = frame_policy(opened.sites)
    content = PublicPage(
        form=opened.form_id, edition=opened.edition, framed=framed, face=opened.face, state=opened.state
    )
    data = orjson.dumps(content.model_dump(mode="json")).decode().translate(_SCRIPT_SAFE)
    html = render_template("form.html", face=opened.face, data=data, entry=entry("form"), framed=framed)
    response = Response(html)
    response.headers["Cache-Control"] = "no-cache"
    return response


@blueprint.get("/embed.js")
def embed_script() -> Response:
    """The script that websites include to show a form."""
    response = send_from_directory(current_app.static_folder or "", "embed.js", max_age=3600)
    # Websites that isolate themselves may still load it.
    response.headers["Cross-Origin-Resource-Policy"] = "cross-origin"
    return response


@endpoint(blueprint, "POST", "/api/public/<uuid:form>/<int:edition>/state", body=EvaluateRequest, reply=EvaluateReply)
@limiter.limit(public_rate)
def state(asked: EvaluateRequest, form: UUID, edition: int) -> EvaluateReply:
    """Return the form's state with what the visitor has entered."""
    program = programs().of(form, edition)
    return EvaluateReply(turn=asked.turn, state=answering.state_of(program, asked.answers))


@endpoint(blueprint, "POST", "/api/public/<uuid:form>/<int:edition>/responses", body=SubmitRequest, reply=ReceivedReply)
@limiter.limit(public_rate)
def submit(asked: SubmitRequest, form: UUID, edition: int) -> Response:
    """Keep a response once per Idempotency-Key, or say what is wrong with it (422)."""
    key = request.headers.get("Idempotency-Key", "")
    if not 8 <= len(key) <= 100 or not key.isprintable():
        raise BadRequestError("Send the header Idempotency-Key with 8 to 100 characters, new for each response.")
    program = programs().of(form, edition)
    with connection() as database:
        result = answering.receive(database, program, form=form, edition=edition, key=key, answers=asked.answers)
    if isinstance(result, Refused):
        return json_reply(_refused(result), 422)
    return json_reply(ReceivedReply(number=result.number), 200 if result.repeated else 201)


def _refused(refused: Refused) -> RefusedReply:
    if refused.unknown:
        names = ", ".join(refused.unknown[:5])
        return RefusedReply(
            code="unknown_fields",
            message=f"This edition of the form has no field {names}. Send answers to its own fields only.",
            errors={},
        )
    errors = {block_id: ErrorFace.model_validate(error) for block_id, error in refused.errors.items()}
    return RefusedReply(code="answers_wrong", message="Some answers need another look.", errors=errors)
