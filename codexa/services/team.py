"""The people of a team: who is in it, invited by mail, in which role, and what becomes of what was somebody's."""

from dataclasses import dataclass
from typing import Literal
from uuid import UUID

from email_validator import EmailNotValidError, validate_email

from codexa.services import moving
from codexa.services.audit import note, note_form, note_of
from codexa.services.errands.asking import ask
from codexa.services.errors import (
    AddressRefusedError,
    InvitationUsedError,
    LastOwnerError,
    NameTakenError,
    NotFoundError,
    WrongPersonError,
)
from codexa.services.people import refuse_short
from codexa.services.signing_in import (
    Attempt,
    NewSession,
    Waiting,
    digest_of,
    folded,
    hash_password,
    new_session,
    sign_in,
)
from codexa.store import moving as moving_store
from codexa.store import people, sessions, team
from codexa.store.database import Connect, Connection
from codexa.store.people import TeamPerson
from codexa.store.sessions import SignedIn
from codexa.store.team import FormException, Invitation, InvitationFound, TeamOf

Role = Literal["owner", "editor", "reviewer", "viewer"]
INVITATION_DAYS = 14
_PERSON_GONE = "This person is not in the team any more."


def list_people(connect: Connect, *, who: SignedIn) -> list[TeamPerson]:
    """Return the people of the team, by name."""
    with connect() as connection:
        return people.list_people(connection, team=who.team_id)


def list_invitations(connect: Connect, *, who: SignedIn) -> list[Invitation]:
    """Return whom the team has invited and who has not come yet, the latest first."""
    with connect() as connection:
        return team.list_invitations(connection, team=who.team_id)


def invite(connect: Connect, *, who: SignedIn, email: str, role: Role) -> UUID:
    """Invite somebody by mail, or once more; an earlier link works no more. Returns the invitation's id.

    Raises AddressRefusedError, NameTakenError where they are in the team.
    """
    try:
        address = validate_email(email, check_deliverability=False).normalized
    except EmailNotValidError:
        raise AddressRefusedError(f"“{email[:80]}” can't receive mail. Type one such as name@example.org.") from None
    with connect() as connection:
        if moving_store.is_personal(connection, team=who.team_id):
            raise AddressRefusedError("This desk is your own. Move a form to a team to work on it with others.")
        if team.is_of_team(connection, team=who.team_id, folded=folded(address)):
            raise NameTakenError(f"{address} is in the team already.")
        invited = team.invite(
            connection,
            team=who.team_id,
            email=address,
            folded=folded(address),
            role=role,
            person=who.person_id,
            days=INVITATION_DAYS,
        )
        ask(connection, "invitation", {"invitation": str(invited)}, team=who.team_id)
        note(connection, who, "invited", name=address, role=role)
    return invited


def take_invitation_back(connect: Connect, *, who: SignedIn, invitation: UUID) -> None:
    """Take an invitation back: its link works no more. Raises NotFoundError."""
    with connect() as connection:
        email = team.take_invitation_back(connection, team=who.team_id, invitation=invitation)
        if email is None:
            raise NotFoundError("This invitation is gone: it was taken back, or accepted.")
        note(connection, who, "invitation taken back", name=email)


def set_role(connect: Connect, *, who: SignedIn, person: UUID, role: Role) -> None:
    """Give a person of the team another role, at once. Raises NotFoundError, LastOwnerError."""
    with connect() as connection:
        team.lock_team(connection, team=who.team_id)
        _keep_an_owner(connection, who.team_id, person, stays=role == "owner")
        before = team.role_of(connection, team=who.team_id, person=person)
        team.set_role(connection, team=who.team_id, person=person, role=role)
        name = people.name_of(connection, person=person)
        note(connection, who, "role given", name=name, role=role, before=before)


def _keep_an_owner(connection: Connection, team_id: UUID, person: UUID, *, stays: bool) -> None:
    """Raise LastOwnerError where nobody would be an owner any more, NotFoundError where the person is not there."""
    role = team.role_of(connection, team=team_id, person=person)
    if role is None:
        raise NotFoundError(_PERSON_GONE)
    if role == "owner" and not stays and team.count_owners(connection, team=team_id) == 1:
        raise LastOwnerError


@dataclass(frozen=True, kw_only=True, slots=True)
class Hanging:
    """What hangs on a person: forms that write to them, by id and name, and how many responses are in their hands.

    `waiting` is how many decisions and tasks wait for them alone.
    `desk` are the forms on their personal desk, where they are in no other team.
    """

    forms: list[tuple[UUID, str]]
    in_hand: int
    waiting: int
    desk: list[tuple[UUID, str]]


def hanging(connect: Connect, *, who: SignedIn, person: UUID) -> Hanging:
    """Return what hangs on a person of the team. Raises NotFoundError."""
    with connect() as connection:
        if team.role_of(connection, team=who.team_id, person=person) is None:
            raise NotFoundError(_PERSON_GONE)
        return Hanging(
            forms=team.forms_writing_to(connection, team=who.team_id, person=person),
            in_hand=team.count_in_hand(connection, team=who.team_id, person=person),
            waiting=team.count_waiting(connection, team=who.team_id, person=person),
            desk=_desk_that_hangs(connection, who, person),
        )


def _desk_that_hangs(connection: Connection, who: SignedIn, person: UUID) -> list[tuple[UUID, str]]:
    alone = moving_store.count_teams(connection, person=person) == 1
    is_own = moving_store.is_personal(connection, team=who.team_id)
    return moving_store.forms_of_desk(connection, person=person) if alone and not is_own else []


def take_out(
    connect: Connect, *, who: SignedIn, person: UUID, successor: UUID | None, bring: bool = False
) -> list[str]:
    """Take a person out of the team: their open windows lose their right at once; the successor gets what was theirs.

    That is mail that forms write to them, and responses in their hands; without one nobody gets it. With `bring` the
    forms of their personal desk come to the team; those that can't are returned, by name. The history keeps
    their name. Raises NotFoundError, LastOwnerError.
    """
    with connect() as connection:
        team.lock_team(connection, team=who.team_id)
        _keep_an_owner(connection, who.team_id, person, stays=False)
        is_there = successor is None or team.role_of(connection, team=who.team_id, person=successor) is not None
        if successor == person or not is_there:
            raise NotFoundError("Whoever takes over has to be in the team. Choose somebody else.")
        stayed = moving.bring(connection, who=who, person=person) if bring and person != who.person_id else []
        team.take_out(connection, team=who.team_id, person=person, successor=successor)
        kind = "left" if person == who.person_id else "taken out"
        note(connection, who, kind, name=people.name_of(connection, person=person))
    return stayed


def find_invitation(connect: Connect, token: str) -> InvitationFound:
    """Return the invitation of a link. Raises InvitationUsedError."""
    with connect() as connection:
        found = team.find_invitation(connection, digest=digest_of(token))
    if found is None:
        raise InvitationUsedError
    return found


def accept_signed_in(connect: Connect, token: str, *, who: SignedIn, session: str) -> None:
    """Join a team as who is signed in, and go there.

    Raises InvitationUsedError, and WrongPersonError where the invitation is for another e-mail.
    """
    found = find_invitation(connect, token)
    if folded(who.email) != found.email_folded:
        raise WrongPersonError(
            f"This invitation is for {found.email}, and you are signed in as {who.email}. "
            "Sign out to accept it, or ask for one to your own address."
        )
    with connect() as connection:
        _join(connection, found, digest_of(token), who.person_id)
        sessions.move_session(connection, digest=digest_of(session), team=found.team_id)


@dataclass(frozen=True, kw_only=True, slots=True)
class Joining:
    """Somebody who accepts an invitation without being signed in; the `name` is asked of who is new alone."""

    name: str
    password: str
    network: str
    program: str


def accept(connect: Connect, token: str, joining: Joining, *, attempts: int) -> NewSession:
    """Join a team by a link: as somebody new, or with the password of who signs in with that e-mail.

    Raises InvitationUsedError, PasswordRefusedError, WrongSignInError, TooManyAttemptsError, TooBusyError.
    """
    found = find_invitation(connect, token)
    if found.person_id is not None:
        return _accept_known(connect, token, found, joining, attempts)
    refuse_short(joining.password)
    hashed = hash_password(joining.password)
    name = " ".join(joining.name.split())[:200] or found.email
    with connect() as connection:
        made = team.insert_alone(
            connection, email=found.email, folded=found.email_folded, name=name, password_hash=hashed
        )
        if made is None:
            raise InvitationUsedError  # the same link, pressed twice at once
        _join(connection, found, digest_of(token), made)
        sessions.note_network(connection, person=made, network=joining.network)
        return new_session(connection, person=made, team=found.team_id, program=joining.program)


def _accept_known(connect: Connect, token: str, found: InvitationFound, joining: Joining, attempts: int) -> NewSession:
    attempt = Attempt(email=found.email, password=joining.password, network=joining.network, program=joining.program)
    # Who was taken out of all teams signs in nowhere yet: the password is looked at all the same.
    session = sign_in(connect, attempt, attempts=attempts, into=found.team_id)
    assert found.person_id is not None
    if isinstance(session, Waiting):
        raise WrongPersonError("You sign in with a second factor. Sign in first, then follow this link once more.")
    with connect() as connection:
        _join(connection, found, digest_of(token), found.person_id)
    return session


def _join(connection: Connection, found: InvitationFound, digest: bytes, person: UUID) -> None:
    role = team.use_invitation(connection, invitation=found.id, digest=digest)
    if role is None:
        raise InvitationUsedError
    team.join_team(connection, team=found.team_id, person=person, role=role)
    name = people.name_of(connection, person=person)
    note_of(connection, found.team_id, "joined", by=person, called=name, role=role)


def teams_of(connect: Connect, *, who: SignedIn) -> list[TeamOf]:
    """Return the teams of who is signed in, by name."""
    with connect() as connection:
        return team.teams_of(connection, person=who.person_id)


def go_to(connect: Connect, *, who: SignedIn, session: str, team_id: UUID) -> None:
    """Go to another of one's own teams with this session. Raises NotFoundError."""
    with connect() as connection:
        if team.role_of(connection, team=team_id, person=who.person_id) is None:
            raise NotFoundError("You are not in this team any more.")
        sessions.move_session(connection, digest=digest_of(session), team=team_id)


ExceptionRole = Literal["none", "viewer", "reviewer", "editor"]


def list_exceptions(connect: Connect, *, who: SignedIn) -> list[FormException]:
    """Return what people may do with single forms in the place of what their roles allow."""
    with connect() as connection:
        return team.list_exceptions(connection, team=who.team_id)


def set_exception(connect: Connect, *, who: SignedIn, form: UUID, person: UUID, role: ExceptionRole | None) -> None:
    """Give a person another role for one form, at once; None takes it away.

    "none" hides the form from them. Raises NotFoundError, also for owners, who may do everything.
    """
    with connect() as connection:
        if role is None:
            done = team.delete_exception(connection, team=who.team_id, form=form, person=person)
        else:
            done = team.set_exception(connection, team=who.team_id, form=form, person=person, role=role)
        if not done:
            raise NotFoundError("Choose a form of the team, and somebody of it who is no owner.")
        about = {"person": people.name_of(connection, person=person), "role": role or ""}
        note_form(connection, who, "exception made" if role else "exception taken away", form, **about)
