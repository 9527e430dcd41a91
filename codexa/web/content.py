"""Published records, for anybody: as JSON, as an Atom feed (RFC 4287), and as a small list to be put into a page."""

from xml.etree import ElementTree

from flask import Blueprint, Response, current_app, g, render_template, request

from codexa.core.definition.wording import Wording
from codexa.core.fields.moments import in_zone, shown_date
from codexa.core.form.known_tables import label_of
from codexa.core.languages import direction_of, translated
from codexa.services.tables import content
from codexa.services.tables.content import AT_ONCE, Content
from codexa.web.contract.content import ContentColumnReply, ContentRecordReply, ContentReply
from codexa.web.database import connection
from codexa.web.guard import frame_policy
from codexa.web.limits import limiter
from codexa.web.reading import query_number

blueprint = Blueprint("content", __name__, url_prefix="/content")

_RATE = "120 per minute"
_MOST_PLACE = 1_000_000
_USUAL = Wording()
_SMALL = "/api/public/files/{}/small"
_ATOM = "http://www.w3.org/2005/Atom"


@blueprint.get("/<team>/<address>.json")
@limiter.limit(_RATE)
def as_json(team: str, address: str) -> Response:
    """Give published records from `first` on, the newest first, at most 50, and where the next ones are.

    An ETag tells whether anything has changed: who sends it as If-None-Match gets 304 where nothing has (RFC 9110).
    """
    found = _read(team, address)
    columns = [found.table.columns[each] for each in found.publication.columns]
    records = [
        ContentRecordReply(
            number=each.number,
            name=each.name,
            author=each.author,
            published=each.published_at,
            changed=each.changed_at,
            values={cell.key: cell.value for cell in each.cells},
            shown={cell.key: cell.text for cell in each.cells},
            pictures={
                cell.key: [_origin() + _SMALL.format(picture) for picture in cell.pictures]
                for cell in each.cells
                if cell.pictures
            },
        )
        for each in found.records
    ]
    reply = ContentReply(
        title=_title(found),
        columns=[ContentColumnReply(key=each.key, label=label_of(each)) for each in columns],
        records=records,
        next=f"{_place(team, address)}.json?first={found.first + AT_ONCE}" if found.more else None,
    )
    return _sent(reply.model_dump_json(), "application/json", found)


@blueprint.get("/<team>/<address>.atom")
@limiter.limit(_RATE)
def as_atom(team: str, address: str) -> Response:
    """Give the newest published records as an Atom feed."""
    return _sent(_atom(_read(team, address), _place(team, address)), "application/atom+xml", None)


@blueprint.get("/<team>/<address>")
@limiter.limit(_RATE)
def as_list(team: str, address: str) -> Response:
    """Show published records as a list, which any website may put into a page of its own."""
    found = _read(team, address)
    form = found.table.form
    g.frame_policy = frame_policy(["*"])
    page = render_template(
        "content.html",
        title=_title(found),
        language=form.locale.replace("_", "-"),
        direction=direction_of(form.locale),
        place=_place(team, address),
        records=[(each, shown_date(in_zone(each.published_at, form.time_zone), form.locale)) for each in found.records],
        back=max(0, found.first - AT_ONCE) if found.first else None,
        next=found.first + AT_ONCE if found.more else None,
        words={name: translated(getattr(_USUAL, name), form.locale, name) for name in ("back", "next")},
        none=form.say("noMatch"),
    )
    return _sent(page, "text/html", found)


def _read(team: str, address: str) -> Content:
    return content.read(connection, team=team, address=address, first=query_number("first", 0, _MOST_PLACE))


def _title(found: Content) -> str:
    return found.publication.title or found.table.definition.name


def _place(team: str, address: str) -> str:
    return f"{_origin()}/content/{team}/{address}"


def _origin() -> str:
    return str(current_app.config["SETTINGS"].public_address)


def _sent(content_: str | bytes, kind: str, found: Content | None) -> Response:
    response = Response(content_, mimetype=kind)
    # It is for anybody, whatever page asks for it.
    response.headers["Access-Control-Allow-Origin"] = "*"
    response.headers["Cache-Control"] = "public, no-cache"
    response.set_etag(found.state) if found is not None else response.add_etag()
    response.make_conditional(request)
    return response


def _atom(found: Content, place: str) -> bytes:
    ElementTree.register_namespace("", _ATOM)
    feed = ElementTree.Element(f"{{{_ATOM}}}feed")
    latest = max((each.changed_at for each in found.records), default=None)
    _add(feed, "title", _title(found))
    _add(feed, "id", place)
    _add(feed, "updated", latest.isoformat() if latest else "1970-01-01T00:00:00+00:00")
    _add(feed, "link", href=place, rel="alternate", type="text/html")
    _add(feed, "link", href=f"{place}.atom", rel="self", type="application/atom+xml")
    if not found.publication.author:
        _author(feed, _title(found))
    for each in found.records:
        entry = _add(feed, "entry")
        _add(entry, "title", each.name)
        _add(entry, "id", f"{place}#r{each.number}")
        _add(entry, "published", each.published_at.isoformat())
        _add(entry, "updated", each.changed_at.isoformat())
        _add(entry, "link", href=f"{place}#r{each.number}", rel="alternate", type="text/html")
        if found.publication.author:
            _author(entry, each.author or _title(found))
        _add(entry, "content", "\n".join(f"{cell.label}: {cell.text}" for cell in each.cells), type="text")
    written: bytes = ElementTree.tostring(feed, encoding="utf-8", xml_declaration=True)
    return written


def _author(element: ElementTree.Element, name: str) -> None:
    _add(_add(element, "author"), "name", name)


def _add(parent: ElementTree.Element, name: str, text: str = "", **attributes: str) -> ElementTree.Element:
    element = ElementTree.SubElement(parent, f"{{{_ATOM}}}{name}", attributes)
    element.text = "".join(each for each in text if each >= " " or each in "\n\t") or None  # XML has no other signs
    return element
