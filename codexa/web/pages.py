"""The workbench's page, and whether the server is well."""

from uuid import UUID

from flask import Blueprint, Response, current_app, g, render_template

from codexa.web.built import entry, piece
from codexa.web.database import connection

_WORKBENCH = "src/app/workbench/Workbench.tsx"

blueprint = Blueprint("pages", __name__)
health = Blueprint("health", __name__)


@blueprint.get("/")
@blueprint.get("/sign-in")
@blueprint.get("/password")
@blueprint.get("/address")
@blueprint.get("/account")
@blueprint.get("/team")
@blueprint.get("/team/<_area>")
@blueprint.get("/join")
@blueprint.get("/jobs")
@blueprint.get("/person")
@blueprint.get("/programs")
@blueprint.get("/decisions")
@blueprint.get("/decisions/<_area>")
@blueprint.get("/payments")
@blueprint.get("/tables")
@blueprint.get("/tables/<path:_area>")
@blueprint.get("/start/<_area>")
@blueprint.get("/forms/<path:_area>")
def app(_area: str = "") -> Response:
    """The workbench; which part of it the browser shows hangs on the address."""
    return _page(ahead=(), form=None)


@blueprint.get("/forms/<uuid:form>/<path:_area>")
def of_form(form: UUID, _area: str) -> Response:
    """One form's workbench. What it will ask for is asked for with the page: the form itself, and its scripts."""
    return _page(ahead=piece(_WORKBENCH), form=form)


def _page(*, ahead: tuple[str, ...], form: UUID | None) -> Response:
    g.shown_frames = f" {current_app.config['SETTINGS'].practice_website}".rstrip()
    response = Response(render_template("app.html", entry=entry("app"), ahead=ahead, form=form, nonce=g.nonce))
    response.headers["Cache-Control"] = "no-cache"
    return response


@health.get("/health")
def alive() -> Response:
    """Say that the process runs; asks nothing of anything else."""
    return Response("well\n", mimetype="text/plain")


@health.get("/ready")
def ready() -> Response:
    """Say that requests can be answered: the database is there."""
    with connection() as database:
        database.execute("SELECT 1")
    return Response("ready\n", mimetype="text/plain")
