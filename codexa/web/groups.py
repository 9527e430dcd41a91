"""The groups of a team, and who of its people is in them."""

from uuid import UUID

from flask import Blueprint

from codexa.services import groups
from codexa.services.roles import Right
from codexa.web.contract.groups import (
    GroupHangingReply,
    GroupMadeReply,
    GroupReply,
    GroupRequest,
    GroupsReply,
    InGroupRequest,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may

blueprint = Blueprint("groups", __name__, url_prefix="/api/team/groups")


@endpoint(blueprint, "GET", "", reply=GroupsReply)
def list_groups() -> GroupsReply:
    """List the groups of the team, with who of its people is in each."""
    found = groups.list_groups(connection, who=may(Right.SEE_FORMS))
    return GroupsReply(groups=[GroupReply.model_validate(each) for each in found])


@endpoint(blueprint, "POST", "", body=GroupRequest, reply=GroupMadeReply)
def make(asked: GroupRequest) -> GroupMadeReply:
    """Make a group."""
    return GroupMadeReply(code=groups.make(connection, who=may(Right.KEEP_PEOPLE), name=asked.name))


@endpoint(blueprint, "PUT", "/<code>", body=GroupRequest)
def rename(asked: GroupRequest, code: str) -> None:
    """Give a group another name; formulas go on knowing it by its code."""
    groups.rename(connection, who=may(Right.KEEP_PEOPLE), code=code, name=asked.name)


@endpoint(blueprint, "GET", "/<code>/hanging", reply=GroupHangingReply)
def hanging(code: str) -> GroupHangingReply:
    """Say which forms name a group, before it is taken away."""
    return GroupHangingReply(forms=groups.hanging(connection, who=may(Right.KEEP_PEOPLE), code=code))


@endpoint(blueprint, "DELETE", "/<code>")
def take_away(code: str) -> None:
    """Take a group away; nobody is in it any more."""
    groups.take_away(connection, who=may(Right.KEEP_PEOPLE), code=code)


@endpoint(blueprint, "PUT", "/<code>/people/<uuid:person>", body=InGroupRequest)
def set_in(asked: InGroupRequest, code: str, person: UUID) -> None:
    """Put somebody of the team into a group, or take them out, at once."""
    groups.set_in(connection, who=may(Right.KEEP_PEOPLE), code=code, person=person, inside=asked.inside)
