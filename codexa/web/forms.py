"""The desk: the team's forms."""

from uuid import UUID

from flask import Blueprint

from codexa.services import desk
from codexa.services.roles import Right
from codexa.store import forms as store
from codexa.web.contract import DeskReply, FormRowReply, MadeReply, NewFormRequest
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may

blueprint = Blueprint("forms", __name__, url_prefix="/api/forms")


@endpoint(blueprint, "GET", "", reply=DeskReply)
def list_all() -> DeskReply:
    """List the team's forms, latest change first."""
    who = may(Right.SEE_FORMS)
    with connection() as database:
        rows = store.list_forms(database, team=who.team_id)
    return DeskReply(forms=[FormRowReply.model_validate(row) for row in rows])


@endpoint(blueprint, "POST", "", body=NewFormRequest, reply=MadeReply)
def make(asked: NewFormRequest) -> MadeReply:
    """Make a blank form, or the form of a JSON document."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        if asked.document is not None:
            return MadeReply(id=desk.import_form(database, who=who, document=asked.document))
        return MadeReply(id=desk.make_form(database, who=who, name=asked.name))


@endpoint(blueprint, "POST", "/<uuid:form>/copies", reply=MadeReply)
def duplicate(form: UUID) -> MadeReply:
    """Make a copy of a form's draft."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        return MadeReply(id=desk.duplicate_form(database, who=who, form=form))


@endpoint(blueprint, "DELETE", "/<uuid:form>")
def delete(form: UUID) -> None:
    """Delete a form; it can be brought back."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        desk.set_deleted(database, who=who, form=form, deleted=True)


@endpoint(blueprint, "POST", "/<uuid:form>/restore")
def restore(form: UUID) -> None:
    """Bring a deleted form back."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        desk.set_deleted(database, who=who, form=form, deleted=False)
