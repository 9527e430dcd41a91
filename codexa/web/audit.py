"""The audit log of a team: filtered by area, person and days; as CSV too."""

import csv
import io
from collections.abc import Iterator
from uuid import UUID

from flask import Blueprint, Response, request

from codexa.services import audit
from codexa.services.response_csv import defused
from codexa.services.roles import Right
from codexa.store.audit import Entry, Wanted
from codexa.web.contract.audit import AuditEntryReply, AuditReply
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.files import streamed_file
from codexa.web.guard import may
from codexa.web.reading import BadRequestError

blueprint = Blueprint("audit", __name__, url_prefix="/api/team")
_AT_ONCE = 100


@endpoint(blueprint, "GET", "/audit", reply=AuditReply)
def show() -> AuditReply:
    """List what was done in the team, the latest first.

    In the query: `area`, `person` (an id), `since` and `until` (moments with offset), and `before` (an entry's id).
    """
    who, before = may(Right.SEE_AUDIT), request.args.get("before", "")
    first = int(before) if before.isdigit() and len(before) < 19 else None
    found = audit.page(connection, who=who, wanted=_wanted(), before=first, most=_AT_ONCE + 1)
    return AuditReply(entries=[_reply(each) for each in found[:_AT_ONCE]], more=len(found) > _AT_ONCE)


@endpoint(blueprint, "GET", "/audit.csv")
def export() -> Response:
    """Download all of it as CSV (UTF-8, RFC 4180), filtered in the same way."""
    lines = _lines(audit.every(connection, who=may(Right.SEE_AUDIT), wanted=_wanted()))
    return streamed_file(lines, Right.SEE_AUDIT, "text/csv", "audit.csv")


def _wanted() -> Wanted:
    area, person = request.args.get("area", ""), request.args.get("person", "")
    kinds = audit.kinds_of(area)
    if area and kinds is None:
        raise BadRequestError(f"There is no area {area[:40]}; take one of {', '.join(audit.AREAS)}.")
    try:
        person_id = UUID(person) if person else None
    except ValueError:
        raise BadRequestError("person is the id of somebody of the team.") from None
    moments = {}
    for name in ("since", "until"):
        text = request.args.get(name, "")
        moments[name] = audit.moment(text) if text else None
        if text and moments[name] is None:
            raise BadRequestError(f"{name} is a moment with its offset, such as 2026-11-29T00:00:00Z.")
    return Wanted(kinds=kinds, person=person_id, **moments)


def _reply(entry: Entry) -> AuditEntryReply:
    return AuditEntryReply.model_validate(
        {
            "id": entry.id,
            "at": entry.at,
            "person_id": entry.person_id,
            "person_name": entry.person_name,
            "area": audit.area_of(entry.kind),
            "told": audit.told(entry),
        }
    )


def _lines(entries: Iterator[Entry]) -> Iterator[str]:
    yield _line(("at", "person", "area", "kind", "told"))
    for each in entries:
        cells = (each.at.isoformat(), each.person_name, audit.area_of(each.kind), each.kind, audit.told(each))
        yield _line(tuple(defused(cell) for cell in cells))


def _line(cells: tuple[str, ...]) -> str:
    written = io.StringIO()
    csv.writer(written).writerow(cells)
    return written.getvalue()
