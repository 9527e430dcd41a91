"""A form's funnel: visits of all who came, by step, by what they are told apart by, and by day."""

from collections.abc import Mapping
from uuid import UUID

from flask import Blueprint, request

from codexa.services.response_set.funnel import Funnel, funnel
from codexa.services.roles import Right
from codexa.store.visits import DIMENSIONS, OTHER_PAGES, Sums
from codexa.web.contract.response_set import FieldCountReply, FunnelReply, StepCountReply, VisitSumsReply
from codexa.web.database import connection, editions
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.reading import BadRequestError
from codexa.web.response_set import filter_of_query

blueprint = Blueprint("funnel", __name__, url_prefix="/api/forms/<uuid:form>/responses")

_LABELS: Mapping[tuple[str, str], str] = {
    ("page", ""): "the form’s own page",
    ("page", OTHER_PAGES): "other pages",
    ("link", ""): "no sealed link",
    ("width", "narrow"): "narrow (phones)",
    ("width", "medium"): "medium (tablets)",
    ("width", "wide"): "wide (computers)",
}


@endpoint(blueprint, "GET", "/funnel", reply=FunnelReply)
def show(form: UUID) -> FunnelReply:
    """Return the funnel of visits that the query chooses, told apart `by` edition, way, page, link or width.

    `width` leaves only windows of that width, `presentation` says whose steps are told ("" those of the way most seen).
    """
    who = may(Right.SEE_RESPONSES)
    by, width = request.args.get("by", "width"), request.args.get("width", "")
    if by not in DIMENSIONS:
        raise BadRequestError(f"by is one of {', '.join(DIMENSIONS)}.")
    if width not in ("", "narrow", "medium", "wide"):
        raise BadRequestError("width is narrow, medium or wide.")
    found = funnel(
        connection,
        editions(),
        who=who,
        form=form,
        filter_=filter_of_query(),
        by=by,
        width=width,
        shown=request.args.get("presentation", ""),
    )
    return _reply(found, by)


def _reply(found: Funnel, by: str) -> FunnelReply:
    return FunnelReply(
        presentation=found.presentation,
        presentations=[_sums(each) for each in found.presentations],
        all=_sums(found.all),
        seconds=found.seconds,
        steps=[StepCountReply.model_validate(each) for each in found.steps],
        left_at=[FieldCountReply.model_validate(each) for each in found.left_at],
        wrong=[FieldCountReply.model_validate(each) for each in found.wrong],
        groups=[_sums(each, _group_label(by, each.value, found.group_labels)) for each in found.groups],
        days=[_sums(each) for each in found.days],
        by_month=found.by_month,
        unheeded=found.unheeded,
        words_unheeded=found.words_unheeded,
    )


def _group_label(by: str, value: str, known: Mapping[str, str]) -> str:
    if by == "edition":
        return f"Edition {value}"
    return known.get(value) or _LABELS.get((by, value), value)


def _sums(sums: Sums, label: str = "") -> VisitSumsReply:
    return VisitSumsReply(
        value=sums.value,
        label=label,
        choosable=sums.value not in ("", OTHER_PAGES),
        seen=sums.seen,
        started=sums.started,
        sent=sums.sent,
    )
