"""Teams and the people in them."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from uuid import UUID

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries
from codexa.store.sessions import SignedIn

_QUERIES = queries("people")


@dataclass(frozen=True, kw_only=True, slots=True)
class Person:
    """Somebody who can sign in, and the team that they see first; None where they are in none any more."""

    id: UUID
    name: str
    email: str
    password_hash: str
    team_id: UUID | None


@dataclass(frozen=True, kw_only=True, slots=True)
class TeamPerson:
    """Somebody of a team as their colleagues see them."""

    id: UUID
    name: str
    email: str
    role: str


def insert_team(connection: Connection, *, slug: str, name: str) -> UUID:
    """Make a team and return its id."""
    team_id: UUID = exactly_one(connection, _QUERIES["insert_team"], slug=slug, name=name)["id"]
    return team_id


def find_team(connection: Connection, *, slug: str) -> UUID | None:
    """Return the id of the team of that slug."""
    row = one(connection, _QUERIES["find_team"], slug=slug)
    return row["id"] if row else None


@dataclass(frozen=True, kw_only=True, slots=True)
class NamedTeam:
    """What a team is called, and the last part of its addresses."""

    name: str
    slug: str


def team_by_id(connection: Connection, *, team: UUID) -> NamedTeam:
    """Return what a team is called."""
    return NamedTeam(**exactly_one(connection, _QUERIES["team_by_id"], team=team))


def set_name(connection: Connection, *, person: UUID, name: str) -> None:
    """Give somebody another name."""
    connection.execute(_QUERIES["set_name"], {"person": person, "name": name})


def language_of(connection: Connection, *, person: UUID) -> str:
    """Return the language in which somebody is written to (ISO 639-1)."""
    return str(exactly_one(connection, _QUERIES["language_of"], person=person)["language"])


def set_language(connection: Connection, *, person: UUID, language: str) -> None:
    """Have somebody written to in another language (ISO 639-1)."""
    connection.execute(_QUERIES["set_language"], {"person": person, "language": language})


def languages(connection: Connection, *, emails: Sequence[str]) -> dict[str, str]:
    """Return the languages of those people who have one of these folded addresses, by it."""
    rows = many(connection, _QUERIES["languages"], emails=list(emails))
    return {row["email_folded"]: row["language"] for row in rows}


def name_of(connection: Connection, *, person: UUID) -> str:
    """Return what somebody is called."""
    return str(exactly_one(connection, _QUERIES["name_of"], person=person)["name"])


def as_signed_in(connection: Connection, *, person: UUID, team: UUID) -> SignedIn:
    """Return a person of a team as who they are when they have signed in there; without a session."""
    return SignedIn(**exactly_one(connection, _QUERIES["as_signed_in"], person=person, team=team))


def insert_person(
    connection: Connection, *, team: UUID, role: str, email: str, folded: str, name: str, password_hash: str
) -> UUID:
    """Make a person in a team and return their id; `folded` is the e-mail as it is compared."""
    values = {"email": email, "folded": folded, "name": name, "password_hash": password_hash}
    row = exactly_one(connection, _QUERIES["insert_person"], **values)
    connection.execute(_QUERIES["insert_membership"], {"team": team, "person": row["id"], "role": role})
    person_id: UUID = row["id"]
    return person_id


def find_person_by_email(connection: Connection, *, email: str) -> Person | None:
    """Return the person who signs in with that e-mail, folded."""
    row = one(connection, _QUERIES["find_person_by_email"], email=email)
    return Person(**row) if row else None


def addresses(connection: Connection, *, form: UUID, ids: Collection[str]) -> dict[str, str]:
    """Return the addresses of those of the form's team that have these ids, by id."""
    rows = many(connection, _QUERIES["addresses"], form=form, ids=list(ids))
    return {str(row["id"]): row["email"] for row in rows}


def list_people(connection: Connection, *, team: UUID) -> list[TeamPerson]:
    """Return the people of a team by name."""
    return [TeamPerson(**row) for row in many(connection, _QUERIES["list_people"], team=team)]


def set_password(connection: Connection, *, email: str, password_hash: str) -> bool:
    """Give the person of that folded e-mail another password and end their sessions; False where there is nobody."""
    return one(connection, _QUERIES["set_password"], email=email, password_hash=password_hash) is not None
