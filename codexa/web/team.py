"""The people of a team, and the invitations by which they come."""

from uuid import UUID

from flask import Blueprint, Response, current_app, request

from codexa.services import moving, signing_in, team
from codexa.services.roles import Right
from codexa.services.team import Joining
from codexa.store import sessions as store
from codexa.web import guard
from codexa.web.contract.sessions import SignedInReply
from codexa.web.contract.team import (
    ExceptionReply,
    ExceptionRequest,
    ExceptionsReply,
    GoToTeamRequest,
    HangingReply,
    InvitationLookReply,
    InvitationLookRequest,
    InvitationReply,
    InviteRequest,
    JoinRequest,
    RoleRequest,
    TakenOutReply,
    TakeOutRequest,
    TeammateReply,
    TeamReply,
    TeamsReply,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.guard import may
from codexa.web.limits import LINK_RATE, limiter
from codexa.web.network import network

blueprint = Blueprint("team", __name__, url_prefix="/api/team")


@endpoint(blueprint, "GET", "", reply=TeamReply)
def show() -> TeamReply:
    """List the people of the team, and whom it has invited."""
    who = may(Right.SEE_FORMS)
    invited = team.list_invitations(connection, who=who)
    return TeamReply(
        people=[TeammateReply.model_validate(each) for each in team.list_people(connection, who=who)],
        invitations=[InvitationReply.model_validate(each) for each in invited],
    )


@endpoint(blueprint, "POST", "/invitations", body=InviteRequest)
@limiter.limit(LINK_RATE, key_func=network)
def invite(asked: InviteRequest) -> Response:
    """Invite somebody by mail, or once more."""
    team.invite(connection, who=may(Right.KEEP_PEOPLE), email=asked.email, role=asked.role)
    return json_reply(None)


@endpoint(blueprint, "DELETE", "/invitations/<uuid:invitation>")
def take_invitation_back(invitation: UUID) -> None:
    """Take an invitation back."""
    team.take_invitation_back(connection, who=may(Right.KEEP_PEOPLE), invitation=invitation)


@endpoint(blueprint, "PUT", "/people/<uuid:person>/role", body=RoleRequest)
def set_role(asked: RoleRequest, person: UUID) -> None:
    """Give a person of the team another role, at once."""
    team.set_role(connection, who=may(Right.KEEP_PEOPLE), person=person, role=asked.role)


@endpoint(blueprint, "GET", "/people/<uuid:person>/hanging", reply=HangingReply)
def hanging(person: UUID) -> HangingReply:
    """Say what hangs on a person, before they are taken out or leave."""
    found = team.hanging(connection, who=_may_take_out(person), person=person)

    def named(forms: list[tuple[UUID, str]]) -> list[dict[str, object]]:
        return [{"id": form, "name": name} for form, name in forms]

    known = {"forms": named(found.forms), "in_hand": found.in_hand, "waiting": found.waiting, "desk": named(found.desk)}
    return HangingReply.model_validate(known)


@endpoint(blueprint, "POST", "/people/<uuid:person>/out", body=TakeOutRequest, reply=TakenOutReply)
def take_out(asked: TakeOutRequest, person: UUID) -> TakenOutReply:
    """Take a person out of the team; anybody may leave."""
    who = _may_take_out(person)
    stayed = team.take_out(connection, who=who, person=person, successor=asked.successor, bring=asked.bring)
    return TakenOutReply(stayed=stayed)


def _may_take_out(person: UUID) -> store.SignedIn:
    who = guard.signed_in()
    return who if who.person_id == person else may(Right.KEEP_PEOPLE)


@endpoint(blueprint, "GET", "/exceptions", reply=ExceptionsReply)
def list_exceptions() -> ExceptionsReply:
    """List what people may do with single forms in the place of what their roles allow."""
    found = team.list_exceptions(connection, who=may(Right.KEEP_PEOPLE))
    return ExceptionsReply(exceptions=[ExceptionReply.model_validate(each) for each in found])


@endpoint(blueprint, "PUT", "/exceptions", body=ExceptionRequest)
def set_exception(asked: ExceptionRequest) -> None:
    """Give somebody another role for one form, at once, or take it away."""
    who = may(Right.KEEP_PEOPLE)
    team.set_exception(connection, who=who, form=asked.form, person=asked.person, role=asked.role)


@endpoint(blueprint, "POST", "/invitation/look", body=InvitationLookRequest, reply=InvitationLookReply)
@limiter.limit(LINK_RATE, key_func=network)
def look(asked: InvitationLookRequest) -> InvitationLookReply:
    """Say what an invitation is for; it changes nothing."""
    guard.refuse_foreign_origin()
    found = team.find_invitation(connection, asked.token)
    who = guard.anybody()
    return InvitationLookReply.model_validate(
        {
            "team_name": found.team_name,
            "email": found.email,
            "role": found.role,
            "invited_by": found.invited_by,
            "known": found.person_id is not None,
            "signed_in": who is not None and signing_in.folded(who.email) == found.email_folded,
        }
    )


@endpoint(blueprint, "POST", "/invitation/accept", body=JoinRequest, reply=SignedInReply)
@limiter.limit(LINK_RATE, key_func=network)
def accept(asked: JoinRequest) -> Response:
    """Join a team by an invitation, and be signed in there."""
    guard.refuse_foreign_origin()
    who = guard.anybody()
    if who is not None:
        guard.signed_in()  # with its CSRF token
        team.accept_signed_in(connection, asked.token, who=who, session=guard.token())
        return json_reply(SignedInReply.model_validate(guard.signed_in()))
    joining = Joining(
        name=asked.name, password=asked.password, network=network(), program=request.headers.get("User-Agent", "")
    )
    attempts = int(current_app.config["SETTINGS"].sign_in_attempts)
    session = team.accept(connection, asked.token, joining, attempts=attempts)
    return guard.signed_in_reply(session)


@endpoint(blueprint, "GET", "/mine", reply=TeamsReply)
def teams_of() -> TeamsReply:
    """List one's own teams."""
    found = team.teams_of(connection, who=guard.signed_in())
    return TeamsReply.model_validate({"teams": found}, from_attributes=True)


@endpoint(blueprint, "POST", "/mine/desk", reply=SignedInReply)
def go_to_own_desk() -> SignedInReply:
    """Go to one's personal desk; it is made where there is none."""
    who = guard.signed_in()
    desk = moving.own_desk(connection, who=who)
    team.go_to(connection, who=who, session=guard.token(), team_id=desk)
    return SignedInReply.model_validate(guard.signed_in())


@endpoint(blueprint, "POST", "/mine", body=GoToTeamRequest, reply=SignedInReply)
def go_to(asked: GoToTeamRequest) -> SignedInReply:
    """Go to another of one's own teams."""
    team.go_to(connection, who=guard.signed_in(), session=guard.token(), team_id=asked.team)
    return SignedInReply.model_validate(guard.signed_in())
