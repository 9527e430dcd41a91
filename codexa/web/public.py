"""What visitors reach without signing in: the form's page, its state, uploads, and handing in."""

from uuid import UUID

import orjson
from flask import Blueprint, Response, current_app, g, render_template, request, send_file, send_from_directory

from codexa.core.program.accept import Refused
from codexa.core.program.faces import ErrorFace
from codexa.services import answering, uploads
from codexa.services.answering import Given
from codexa.web.built import entry
from codexa.web.contract.public import (
    EvaluateReply,
    EvaluateRequest,
    ReceivedReply,
    RefusedReply,
    SubmitRequest,
    UploadReply,
)
from codexa.web.database import connection, files_folder, programs
from codexa.web.endpoint import BadRequestError, endpoint, json_reply
from codexa.web.guard import frame_policy
from codexa.web.limits import limiter, public_rate

blueprint = Blueprint("public", __name__)

_SCRIPT_SAFE = {ord("<"): "\\u003c", ord(">"): "\\u003e", ord("&"): "\\u0026"}
_MOST_LINK_VALUES, _MOST_LINK_TEXT = 50, 500


@blueprint.get("/f/<team>/<slug>")
@blueprint.get("/f/<team>/<slug>/<page>")
@limiter.limit(public_rate)
def page(team: str, slug: str, page: str = "") -> Response:
    """The form on a page of its own; `page` is the address of one of its pages."""
    return _page(team, slug, page, framed=False)


@blueprint.get("/embed/<team>/<slug>")
@blueprint.get("/embed/<team>/<slug>/<page>")
@limiter.limit(public_rate)
def framed_page(team: str, slug: str, page: str = "") -> Response:
    """The form for a frame on one of the websites that it lists."""
    return _page(team, slug, page, framed=True)


def link_of_request() -> dict[str, str]:
    """Return what came with the address, by name; what no formula could read is left out."""
    return {
        name: value[:_MOST_LINK_TEXT]
        for name, value in list(request.args.items())[:_MOST_LINK_VALUES]
        if name.replace("_", "").isalnum() and len(name) <= 60
    }


def _page(team: str, slug: str, page: str, *, framed: bool) -> Response:
    link = link_of_request()
    with connection() as database:
        opened = answering.open_form(database, programs(), team_slug=team, slug=slug, link=link)
    if framed:
        g.frame_policy = frame_policy(opened.sites)
    address = f"/{'embed' if framed else 'f'}/{team}/{slug}"
    data = page_data(
        {
            "form": str(opened.form_id),
            "edition": opened.edition,
            "framed": framed,
            "link": link,
            "address": address,
            "page": page,
            "face": opened.face.model_dump(mode="json"),
            "state": opened.state,
        }
    )
    html = render_template("form.html", face=opened.face, data=data, entry=entry("form"), framed=framed)
    response = Response(html)
    response.headers["Cache-Control"] = "no-cache"
    return response


def page_data(content: dict[str, object]) -> str:
    """Return the JSON of a PublicPage, safe inside a script element."""
    return orjson.dumps(content).decode().translate(_SCRIPT_SAFE)


@blueprint.get("/embed.js")
def embed_script() -> Response:
    """The script that websites include to show a form."""
    response = send_from_directory(current_app.static_folder or "", "embed.js", max_age=3600)
    # Websites that isolate themselves may still load it.
    response.headers["Cross-Origin-Resource-Policy"] = "cross-origin"
    return response


@endpoint(blueprint, "POST", "/api/public/<uuid:form>/<int:edition>/state", body=EvaluateRequest, reply=EvaluateReply)
@limiter.limit(public_rate)
def state(asked: EvaluateRequest, form: UUID, edition: int) -> Response:
    """Return the form's state with what the visitor has entered, or what of it hangs on the answers that changed."""
    program = programs().of(form, edition)
    given = Given(answers=asked.answers, link=asked.link)
    facts = answering.state_of(connection, program, form, given, asked.changed)
    return json_reply({"turn": asked.turn, "state": facts})


@endpoint(blueprint, "POST", "/api/public/<uuid:form>/<int:edition>/files/<block>", reply=UploadReply)
@limiter.limit(public_rate)
def upload(form: UUID, edition: int, block: str) -> UploadReply:
    """Take a file for a field: the body is its content, the query's `name` its name."""
    request.max_content_length = None  # the field's own limit counts, while the content is read
    program = programs().of(form, edition)
    with connection() as database:
        kept = uploads.store(
            database,
            program,
            files_folder(),
            form=form,
            block=block,
            name=request.args.get("name", "file"),
            content=request.stream,
        )
    thumbnail = f"/api/public/files/{kept.id}/small" if kept.has_thumbnail else None
    return UploadReply(id=str(kept.id), name=kept.name, size=kept.size, thumbnail=thumbnail)


@blueprint.get("/api/public/files/<uuid:upload_id>/small")
@limiter.limit(public_rate)
def thumbnail(upload_id: UUID) -> Response:
    """A small picture of a file, made by us; who knows its id is who sent it."""
    response = send_file(uploads.thumbnail(files_folder(), upload_id).absolute(), mimetype="image/jpeg", max_age=3600)
    response.headers["Content-Security-Policy"] = "default-src 'none'; sandbox"
    return response


@endpoint(blueprint, "POST", "/api/public/<uuid:form>/<int:edition>/responses", body=SubmitRequest, reply=ReceivedReply)
@limiter.limit(public_rate)
def submit(asked: SubmitRequest, form: UUID, edition: int) -> Response:
    """Keep a response once per Idempotency-Key, or say what is wrong with it (422)."""
    key = request.headers.get("Idempotency-Key", "")
    if not 8 <= len(key) <= 100 or not key.isprintable():
        raise BadRequestError("Send the header Idempotency-Key with 8 to 100 characters, new for each response.")
    program = programs().of(form, edition)
    given = Given(answers=asked.answers, link=asked.link)
    with connection() as database:
        result = answering.receive(database, program, form=form, edition=edition, key=key, given=given)
    if isinstance(result, Refused):
        return json_reply(refused_reply(result), 422)
    reply = ReceivedReply(number=result.number, confirmation=result.confirmation)
    return json_reply(reply, 200 if result.repeated else 201)


def refused_reply(refused: Refused) -> RefusedReply:
    """Return what is wrong with a response, for the form that sent it."""
    if refused.unknown:
        names = ", ".join(refused.unknown[:5])
        return RefusedReply(
            code="unknown_fields",
            message=f"This edition of the form has no field {names}. Send answers to its own fields only.",
            errors={},
        )
    errors = {address: ErrorFace.model_validate(error) for address, error in refused.errors.items()}
    return RefusedReply(code="answers_wrong", message="Some answers need another look.", errors=errors)
