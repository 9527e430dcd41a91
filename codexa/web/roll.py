"""The roll of a team's members, for the team: begun, and invited by mail."""

from flask import Blueprint, current_app

from codexa.services.members import roll
from codexa.services.roles import Right
from codexa.web.contract.roll import InviteMembersRequest, MembersInvitedReply, RollBegunReply, RollReply
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.limits import LINK_RATE, limiter, who_is_counted

blueprint = Blueprint("roll", __name__, url_prefix="/api/team/members")


@endpoint(blueprint, "GET", "", reply=RollReply)
def show() -> RollReply:
    """Say where the team's members stand, and how their accounts do."""
    who = may(Right.SEE_TABLES)
    page = f"{current_app.config['SETTINGS'].public_address}/m/{who.team_slug}"
    found = roll.find(connection, who=who)
    if found is None:
        return RollReply(table=None, members=0, confirmed=0, invited=0, page=page)
    table, stand = found
    return RollReply(table=table, members=stand.members, confirmed=stand.confirmed, invited=stand.invited, page=page)


@endpoint(blueprint, "POST", "", reply=RollBegunReply)
def begin() -> RollBegunReply:
    """Begin with members: a table by which they sign in."""
    return RollBegunReply(table=roll.begin(connection, who=may(Right.EDIT_TABLES)))


@endpoint(blueprint, "POST", "/invitations", body=InviteMembersRequest, reply=MembersInvitedReply)
@limiter.limit(LINK_RATE, key_func=who_is_counted)
def invite(asked: InviteMembersRequest) -> MembersInvitedReply:
    """Write to members that they have an account."""
    count = roll.invite(connection, who=may(Right.EDIT_TABLES), numbers=asked.numbers)
    return MembersInvitedReply(count=count)
