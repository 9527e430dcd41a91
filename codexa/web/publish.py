"""Publish: who may fill in a form and when, how links to it look, and whether a website shows it."""

import io
from uuid import UUID

import segno
from flask import Blueprint, Response, current_app, request

from codexa.services import embed_check, who_and_when
from codexa.services.drafts import find
from codexa.services.embed_check import Wanted
from codexa.services.roles import Right
from codexa.services.who_and_when import WhoAndWhen
from codexa.settings import Settings
from codexa.web.contract.publish import (
    AccessRequest,
    FormPasswordRequest,
    LookReply,
    LookRequest,
    RemarkReply,
    SharingRequest,
    WhoAndWhenReply,
)
from codexa.web.database import connection, export_connection
from codexa.web.drafts import address_of
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.limits import LINK_RATE, limiter, who_is_counted

blueprint = Blueprint("publish", __name__, url_prefix="/api/forms/<uuid:form>")
_QR_SCALE = 12  # pixels a module


@endpoint(blueprint, "GET", "/access", reply=WhoAndWhenReply)
def show(form: UUID) -> WhoAndWhenReply:
    """Say who may fill in the form and when, and how links to it look."""
    return _reply(who_and_when.who_and_when(connection, who=may(Right.SEE_FORMS), form=form))


@endpoint(blueprint, "PUT", "/access", body=AccessRequest, reply=WhoAndWhenReply)
def set_access(asked: AccessRequest, form: UUID) -> WhoAndWhenReply:
    """Set who may fill in the form and when; it holds at once."""
    who = may(Right.EDIT_FORMS)
    # What is there already may be much to count.
    return _reply(who_and_when.set_access(export_connection, who=who, form=form, access=asked.access))


@endpoint(blueprint, "PUT", "/password", body=FormPasswordRequest, reply=WhoAndWhenReply)
def set_password(asked: FormPasswordRequest, form: UUID) -> WhoAndWhenReply:
    """Set or take away the form's password; it holds at once."""
    who = may(Right.EDIT_FORMS)
    return _reply(who_and_when.set_password(connection, who=who, form=form, password=asked.password))


@endpoint(blueprint, "PUT", "/sharing", body=SharingRequest, reply=WhoAndWhenReply)
def set_sharing(asked: SharingRequest, form: UUID) -> WhoAndWhenReply:
    """Set how links to the form look in other programs."""
    who = may(Right.EDIT_FORMS)
    return _reply(who_and_when.set_sharing(connection, who=who, form=form, sharing=asked.sharing))


def _reply(found: WhoAndWhen) -> WhoAndWhenReply:
    return WhoAndWhenReply.model_validate(found)


@blueprint.get("/qr.<any(svg, png):kind>")
def qr_code(form: UUID, kind: str) -> Response:
    """The form's address as a QR code (ISO/IEC 18004): a picture to print, as a file with `download` in the query."""
    who = may(Right.SEE_FORMS)
    found = find(connection, who=who, form=form)
    made = io.BytesIO()
    code = segno.make(address_of(who, found.slug), error="m", micro=False)
    if kind == "svg":
        code.save(made, kind="svg", scale=_QR_SCALE, border=4, xmldecl=True, svgns=True)
    else:
        code.save(made, kind="png", scale=_QR_SCALE, border=4)
    response = Response(made.getvalue(), mimetype="image/svg+xml" if kind == "svg" else "image/png")
    response.headers["Content-Security-Policy"] = "default-src 'none'; sandbox"
    if "download" in request.args:
        response.headers["Content-Disposition"] = f'attachment; filename="{found.slug}.{kind}"'
    return response


@endpoint(blueprint, "POST", "/look", body=LookRequest, reply=LookReply)
@limiter.limit(LINK_RATE, key_func=who_is_counted)
def look(asked: LookRequest, form: UUID) -> LookReply:
    """Fetch a page and say whether it shows the form, and what keeps it from that."""
    who = may(Right.EDIT_FORMS)
    settings: Settings = current_app.config["SETTINGS"]
    found = find(connection, who=who, form=form)
    wanted = Wanted(place=f"{who.team_slug}/{found.slug}", base=settings.public_address, sites=found.sites)
    page = asked.page.strip() if "://" in asked.page else f"https://{asked.page.strip()}"
    return LookReply(remarks=[RemarkReply.model_validate(each) for each in embed_check.look(page, wanted, settings)])
