"""The people of a team."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from pydantic import StringConstraints

from codexa.services.team import ExceptionRole, Role
from codexa.web.contract.accounts import Email, Password, Token
from codexa.web.contract.message import Message


class TeammateReply(Message):
    """Somebody of the team."""

    id: UUID
    name: str
    email: str
    role: Role


class InvitationReply(Message):
    """Whom the team has invited and who has not come yet."""

    id: UUID
    email: str
    role: Role
    invited_at: datetime
    expires_at: datetime
    invited_by: str | None


class TeamReply(Message):
    """The people of the team by name, and whom it has invited."""

    people: list[TeammateReply]
    invitations: list[InvitationReply]


class InviteRequest(Message):
    """Whom to invite, and in which role."""

    email: Email
    role: Role


class RoleRequest(Message):
    """Another role."""

    role: Role


class FormHangingReply(Message):
    """A form that writes to a person."""

    id: UUID
    name: str


class HangingReply(Message):
    """What hangs on a person: forms that write to them, and how many responses are in their hands.

    `waiting` counts the approvals they are asked for and the tasks they have not done; `desk` are the forms on
    their personal desk, where they are in no other team.
    """

    forms: list[FormHangingReply]
    in_hand: int
    waiting: int
    desk: list[FormHangingReply]


class TakeOutRequest(Message):
    """Who takes over what was a person's, None for nobody; with `bring` their own desk's forms come to the team."""

    successor: UUID | None
    bring: bool = False


class TakenOutReply(Message):
    """The forms of the person's own desk that could not be brought, by name."""

    stayed: list[str]


class InvitationLookRequest(Message):
    """The link that came by mail."""

    token: Token


class InvitationLookReply(Message):
    """An invitation: into which team, for which e-mail, in which role, by whom.

    `known` says that somebody signs in with that e-mail already, `signed_in` that this is who asks.
    """

    team_name: str
    email: str
    role: Role
    invited_by: str | None
    known: bool
    signed_in: bool


class JoinRequest(Message):
    """The link, with name and password of who is new, or the password of who is known; neither of who is signed in."""

    token: Token
    name: Annotated[str, StringConstraints(max_length=200)] = ""
    password: Password = ""


class TeamOfReply(Message):
    """A team of who is signed in."""

    id: UUID
    name: str
    role: Role
    personal: bool


class TeamsReply(Message):
    """The teams of who is signed in, by name."""

    teams: list[TeamOfReply]


class GoToTeamRequest(Message):
    """The team to go to."""

    team: UUID


class SessionReply(Message):
    """A session of who is signed in: by what program it was begun; `own` is this one."""

    id: UUID
    created_at: datetime
    seen_at: datetime
    program: str
    own: bool


class SessionsReply(Message):
    """The sessions of who is signed in, the last used first."""

    sessions: list[SessionReply]


class HindrancesReply(Message):
    """Why a form can't move to a team, in words; nothing where it can."""

    hindrances: list[str]


class ExceptionReply(Message):
    """What somebody may do with one form in the place of what their role allows; "none" hides it from them."""

    form_id: UUID
    form_name: str
    person_id: UUID
    person_name: str
    role: ExceptionRole


class ExceptionsReply(Message):
    """The exceptions of the team's forms, by form and person."""

    exceptions: list[ExceptionReply]


class ExceptionRequest(Message):
    """Another role for somebody and one form; None takes the exception away."""

    form: UUID
    person: UUID
    role: ExceptionRole | None
