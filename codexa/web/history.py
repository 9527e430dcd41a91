"""What was, and who is here: saved states, what changed between them, and presence."""

from uuid import UUID

from flask import Blueprint, Response, render_template

from codexa.services import history
from codexa.services.roles import Right
from codexa.web.contract.drafts import MOST_REVISION, DraftReply
from codexa.web.contract.history import (
    ChangesReply,
    LeaveRequest,
    NameStateRequest,
    PresenceReply,
    PresenceRequest,
    PresentReply,
    StateReply,
    StatesReply,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted
from codexa.web.reading import query_number

blueprint = Blueprint("history", __name__, url_prefix="/api/forms/<uuid:form>")


@endpoint(blueprint, "GET", "/states", reply=StatesReply)
def list_all(form: UUID) -> StatesReply:
    """List saved states, newest first; the query's `before` is a revision to go on below."""
    who = may(Right.SEE_FORMS)
    before = query_number("before", MOST_REVISION, MOST_REVISION)
    with connection() as database:
        states = history.list_states(database, who=who, form=form, before=before)
    return StatesReply(states=[StateReply.model_validate(each) for each in states])


@endpoint(blueprint, "GET", "/states/<number:revision>", reply=DraftReply)
def show(form: UUID, revision: int) -> DraftReply:
    """Return the draft as it was saved once."""
    who = may(Right.SEE_FORMS)
    return DraftReply(draft=history.find_state(connection, who=who, form=form, revision=revision))


@endpoint(blueprint, "PUT", "/states/<number:revision>/name", body=NameStateRequest)
def name_state(asked: NameStateRequest, form: UUID, revision: int) -> None:
    """Give a saved state a name; "" takes it away."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        history.name_state(database, who=who, form=form, revision=revision, name=asked.name)


@blueprint.get("/states/<number:revision>/text")
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def as_text(form: UUID, revision: int) -> Response:
    """A saved state as words, to be read and printed; with `against`, what differs from another state is marked."""
    against = query_number("against", 0, MOST_REVISION) or None
    who = may(Right.SEE_FORMS)
    shown, lines = history.text_of_state(connection, who=who, form=form, revision=revision, against=against)
    return Response(render_template("form_text.html", form=shown, lines=lines, revision=revision, against=against))


@endpoint(blueprint, "GET", "/states/<number:before>/changes/<number:after>", reply=ChangesReply)
def compare(form: UUID, before: int, after: int) -> ChangesReply:
    """Say what changed between two saved states."""
    who = may(Right.SEE_FORMS)
    return ChangesReply(changes=history.compare(connection, who=who, form=form, before=before, after=after))


@endpoint(blueprint, "POST", "/presence", body=PresenceRequest, reply=PresenceReply)
def here(asked: PresenceRequest, form: UUID) -> PresenceReply:
    """Say that a tab shows the form, and hear who else does."""
    # A page that stands open by itself keeps nobody signed in.
    who = may(Right.SEE_FORMS, used=False)
    with connection() as database:
        found = history.here(database, who=who, form=form, tab=asked.tab, area=asked.area, part=asked.part)
    return PresenceReply(
        people=[PresentReply.model_validate(each) for each in found.people],
        revision=found.revision,
        live_edition=found.live_edition,
    )


@endpoint(blueprint, "POST", "/presence/end", body=LeaveRequest)
def leave(asked: LeaveRequest, form: UUID) -> None:
    """Say that a tab was closed."""
    who = may(Right.SEE_FORMS)
    with connection() as database:
        history.leave(database, who=who, form=form, tab=asked.tab)
