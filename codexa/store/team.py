"""The people of a team: invited, given roles, taken out."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("team")


@dataclass(frozen=True, kw_only=True, slots=True)
class Invitation:
    """Whom a team has invited: in which role, by whom, and until when."""

    id: UUID
    email: str
    role: str
    invited_at: datetime
    expires_at: datetime
    invited_by: str | None


@dataclass(frozen=True, kw_only=True, slots=True)
class InvitationFound:
    """An invitation whose link works; `person_id` is who signs in with its e-mail already."""

    id: UUID
    team_id: UUID
    team_name: str
    email: str
    email_folded: str
    role: str
    invited_by: str | None
    person_id: UUID | None


@dataclass(frozen=True, kw_only=True, slots=True)
class InvitationSent:
    """What the mail of an invitation says; `language` is that of who invites."""

    email: str
    role: str
    team_name: str
    invited_by: str | None
    language: str | None


@dataclass(frozen=True, kw_only=True, slots=True)
class TeamOf:
    """A team of a person, and their role there."""

    id: UUID
    name: str
    role: str
    personal: bool


def lock_team(connection: Connection, *, team: UUID) -> None:
    """Let nobody else change the people of a team until the transaction ends."""
    exactly_one(connection, _QUERIES["lock_team"], team=team)


def role_of(connection: Connection, *, team: UUID, person: UUID) -> str | None:
    """Return a person's role in a team; None where they are not there."""
    row = one(connection, _QUERIES["role_of"], team=team, person=person)
    return row["role"] if row else None


def count_owners(connection: Connection, *, team: UUID) -> int:
    """Return how many owners a team has."""
    return int(exactly_one(connection, _QUERIES["count_owners"], team=team)["count"])


def set_role(connection: Connection, *, team: UUID, person: UUID, role: str) -> bool:
    """Give a person of a team another role; False where they are not there."""
    return one(connection, _QUERIES["set_role"], team=team, person=person, role=role) is not None


def take_out(connection: Connection, *, team: UUID, person: UUID, successor: UUID | None) -> bool:
    """Take a person out of a team, with who takes over; False where they are not there."""
    return one(connection, _QUERIES["take_out"], team=team, person=person, successor=successor) is not None


def forms_writing_to(connection: Connection, *, team: UUID, person: UUID) -> list[tuple[UUID, str]]:
    """Return the forms, by id and name, that write to a person."""
    rows = many(connection, _QUERIES["forms_writing_to"], team=team, person=person)
    return [(row["id"], row["name"]) for row in rows]


def count_in_hand(connection: Connection, *, team: UUID, person: UUID) -> int:
    """Return how many responses are in a person's hands."""
    return int(exactly_one(connection, _QUERIES["count_in_hand"], team=team, person=person)["count"])


def count_waiting(connection: Connection, *, team: UUID, person: UUID) -> int:
    """Return how many decisions and tasks wait for a person alone."""
    return int(exactly_one(connection, _QUERIES["count_waiting"], team=team, person=person)["count"])


def list_invitations(connection: Connection, *, team: UUID) -> list[Invitation]:
    """Return whom a team has invited and who has not come yet, the latest first."""
    return [Invitation(**row) for row in many(connection, _QUERIES["list_invitations"], team=team)]


def invite(connection: Connection, *, team: UUID, email: str, folded: str, role: str, person: UUID, days: int) -> UUID:
    """Invite somebody for so many days, and return the invitation's id; an earlier link of it works no more."""
    known = {"team": team, "email": email, "folded": folded, "role": role, "person": person, "days": days}
    invited: UUID = exactly_one(connection, _QUERIES["invite"], **known)["id"]
    return invited


def is_of_team(connection: Connection, *, team: UUID, folded: str) -> bool:
    """Say whether somebody with that folded e-mail is in a team."""
    return bool(exactly_one(connection, _QUERIES["is_of_team"], team=team, folded=folded)["is_there"])


def take_invitation_back(connection: Connection, *, team: UUID, invitation: UUID) -> str | None:
    """Take an invitation back, and return whose it was; None where there is none such."""
    row = one(connection, _QUERIES["take_invitation_back"], team=team, invitation=invitation)
    return row["email"] if row else None


def set_token(connection: Connection, *, invitation: UUID, digest: bytes) -> InvitationSent | None:
    """Note by what an invitation is accepted; return what its mail says, None where it was taken back or is over."""
    row = one(connection, _QUERIES["set_token"], invitation=invitation, digest=digest)
    return InvitationSent(**row) if row else None


def find_invitation(connection: Connection, *, digest: bytes) -> InvitationFound | None:
    """Return the invitation of a link that still works."""
    row = one(connection, _QUERIES["find_invitation"], digest=digest)
    return InvitationFound(**row) if row else None


def use_invitation(connection: Connection, *, invitation: UUID, digest: bytes) -> str | None:
    """Use an invitation up and return its role; None where somebody has just done so."""
    row = one(connection, _QUERIES["use_invitation"], invitation=invitation, digest=digest)
    return row["role"] if row else None


def join_team(connection: Connection, *, team: UUID, person: UUID, role: str) -> None:
    """Put a person into a team; who is there already keeps their role."""
    connection.execute(_QUERIES["join_team"], {"team": team, "person": person, "role": role})


def insert_alone(connection: Connection, *, email: str, folded: str, name: str, password_hash: str) -> UUID | None:
    """Make a person who is in no team yet, and return their id; None where somebody has the e-mail."""
    known = {"email": email, "folded": folded, "name": name, "password_hash": password_hash}
    row = one(connection, _QUERIES["insert_alone"], **known)
    return row["id"] if row else None


def teams_of(connection: Connection, *, person: UUID) -> list[TeamOf]:
    """Return the teams of a person, by name."""
    return [TeamOf(**row) for row in many(connection, _QUERIES["teams_of"], person=person)]


def forget_invitations(connection: Connection) -> None:
    """Forget invitations that nobody has taken."""
    connection.execute(_QUERIES["forget_invitations"])


@dataclass(frozen=True, kw_only=True, slots=True)
class FormException:
    """What somebody may do with one form in the place of what their role in the team allows."""

    form_id: UUID
    form_name: str
    person_id: UUID
    person_name: str
    role: str


def list_exceptions(connection: Connection, *, team: UUID) -> list[FormException]:
    """Return the exceptions of a team's forms, by form and person."""
    return [FormException(**row) for row in many(connection, _QUERIES["list_exceptions"], team=team)]


def set_exception(connection: Connection, *, team: UUID, form: UUID, person: UUID, role: str) -> bool:
    """Give a person another role for one form; False where either is not in the team, or they are an owner."""
    known = {"team": team, "form": form, "person": person, "role": role}
    return one(connection, _QUERIES["set_exception"], **known) is not None


def delete_exception(connection: Connection, *, team: UUID, form: UUID, person: UUID) -> bool:
    """Take an exception away; False where there is none such."""
    return one(connection, _QUERIES["delete_exception"], team=team, form=form, person=person) is not None
