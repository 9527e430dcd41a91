"""Lists of options that forms share."""

from uuid import UUID

from flask import Blueprint

from codexa.services import lists
from codexa.services.lists import OpenedList
from codexa.services.roles import Right
from codexa.web.contract.forms import MadeReply
from codexa.web.contract.lists import (
    ListFaceReply,
    ListReply,
    ListsReply,
    NewListRequest,
    SaveListRequest,
)
from codexa.web.contract.tables import FormNamedReply
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may

blueprint = Blueprint("lists", __name__, url_prefix="/api/lists")

_MOST = 2_000_000  # bytes of a list


@endpoint(blueprint, "GET", "", reply=ListsReply)
def list_all() -> ListsReply:
    """List the team's lists."""
    found = lists.list_lists(connection, who=may(Right.SEE_FORMS))
    return ListsReply(lists=[ListFaceReply.model_validate(each) for each in found])


@endpoint(blueprint, "POST", "", body=NewListRequest, reply=MadeReply, most=_MOST)
def create(asked: NewListRequest) -> MadeReply:
    """Make a list."""
    return MadeReply(id=lists.create(connection, who=may(Right.EDIT_FORMS), document=asked.document))


@endpoint(blueprint, "GET", "/<uuid:options>", reply=ListReply)
def show(options: UUID) -> ListReply:
    """Return a list, and the forms that have options from it."""
    return _reply(lists.show(connection, who=may(Right.SEE_FORMS), list_id=options))


@endpoint(blueprint, "PUT", "/<uuid:options>", body=SaveListRequest, reply=ListReply, most=_MOST)
def save(asked: SaveListRequest, options: UUID) -> ListReply:
    """Change a list, and the drafts of all forms that have options from it."""
    who = may(Right.EDIT_FORMS)
    changed = lists.change(connection, who=who, list_id=options, revision=asked.revision, document=asked.document)
    return _reply(changed)


@endpoint(blueprint, "DELETE", "/<uuid:options>")
def delete(options: UUID) -> None:
    """Delete a list; choices keep the options that they had from it."""
    lists.delete(connection, who=may(Right.EDIT_FORMS), list_id=options)


def _reply(opened: OpenedList) -> ListReply:
    return ListReply(
        id=opened.id,
        revision=opened.revision,
        name=opened.shared.name,
        options=list(opened.shared.options),
        forms=[FormNamedReply(id=each.id, name=each.name) for each in opened.forms],
        behind=opened.behind,
    )
