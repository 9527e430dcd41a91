"""Live feeds of views, and how a form's team keeps them."""

import datetime
from uuid import UUID

from flask import Blueprint, Response, current_app, request, stream_with_context

from codexa.services import feeds
from codexa.services.of_team import Team
from codexa.services.response_csv import CsvFashion
from codexa.services.response_set.exporting import Export
from codexa.services.response_set.looking import Look
from codexa.services.roles import Right
from codexa.web.contract.programs import FeedReply, FeedsReply, NewFeedRequest
from codexa.web.contract.response_set import BegunReply, ViewContent
from codexa.web.database import connection, editions, export_connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.limits import limiter
from codexa.web.reading import BadRequestError

blueprint = Blueprint("feeds", __name__, url_prefix="/api/forms/<uuid:form>/feeds")
given = Blueprint("given_feeds", __name__)

_FEED_RATE = "60 per minute"
_KINDS = {"csv": "text/csv", "json": "application/json"}


@endpoint(blueprint, "GET", "", reply=FeedsReply)
def list_feeds(form: UUID) -> FeedsReply:
    """List the live feeds of a form's views, with when each was fetched last."""
    who = may(Right.EDIT_FORMS)
    found = feeds.list_feeds(connection, current_app.config["SETTINGS"], who=who, form=form)
    return FeedsReply(feeds=[FeedReply.model_validate(each) for each in found])


@endpoint(blueprint, "POST", "", body=NewFeedRequest, reply=BegunReply)
def make_feed(asked: NewFeedRequest, form: UUID) -> BegunReply:
    """Make a live feed of a saved view: whoever has its address gets what the view shows."""
    who = may(Right.EDIT_FORMS)
    return BegunReply(id=feeds.make(connection, current_app.config["SETTINGS"], who=who, form=form, view=asked.view))


@endpoint(blueprint, "DELETE", "/<uuid:feed>")
def end_feed(form: UUID, feed: UUID) -> None:
    """End a live feed for ever: its address gives nothing any more."""
    feeds.end(connection, who=may(Right.EDIT_FORMS), form=form, feed=feed)


@given.get("/feed/<token>.<any(csv, json):kind>")
@limiter.limit(_FEED_RATE)
def feed(token: str, kind: str) -> Response:
    """Give what a view shows now, as CSV or JSON; with `since` (a date or moment, ISO 8601) what came from then on.

    An ETag tells whether anything has changed: who sends it as If-None-Match gets 304 where nothing has (RFC 9110).
    """
    since = _since()
    found, state = feeds.find(connection, secret=token)
    response = Response(mimetype=_KINDS[kind])
    response.set_etag(f"{state}-{kind}-{'' if since is None else since.timestamp()}")
    response.headers["Cache-Control"] = "private, no-cache"
    response.headers["X-Robots-Tag"] = "noindex"
    if request.if_none_match.contains(response.get_etag()[0] or ""):
        response.status_code = 304
        return response
    content = ViewContent.model_validate(found.content)
    look = Look(filter=content.filter, sorts=content.sorts)
    team = Team(found.team_id)
    export = Export(export_connection, editions(), who=team, form=found.form_id, look=look, tries=False)
    if since is not None:
        export.since(since)
    only = content.columns or None
    lines = export.as_csv(CsvFashion(), only) if kind == "csv" else export.as_json(only)
    response.response = stream_with_context(lines)
    response.headers["Content-Disposition"] = f'inline; filename="{found.slug}.{kind}"'
    return response


def _since() -> datetime.datetime | None:
    text = request.args.get("since", "")
    if not text:
        return None
    try:
        moment = datetime.datetime.fromisoformat(text)
    except ValueError:
        raise BadRequestError("since is a date or a moment as in ISO 8601, such as 2026-11-29.") from None
    return moment if moment.tzinfo is not None else moment.replace(tzinfo=datetime.UTC)
