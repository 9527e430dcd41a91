"""Teams and the people in them."""

from dataclasses import dataclass
from uuid import UUID

from codexa.store.database import Connection, exactly_one, one
from codexa.store.queries import queries

_QUERIES = queries("people")


@dataclass(frozen=True, kw_only=True, slots=True)
class Person:
    """Somebody who can sign in, and the team that they see first."""

    id: UUID
    name: str
    email: str
    password_hash: str
    team_id: UUID


def insert_team(connection: Connection, *, slug: str, name: str) -> UUID:
    """Make a team and return its id."""
    team_id: UUID = exactly_one(connection, _QUERIES["insert_team"], slug=slug, name=name)["id"]
    return team_id


def team_exists(connection: Connection, *, slug: str) -> bool:
    """Say whether there is a team of that slug."""
    return bool(exactly_one(connection, _QUERIES["team_exists"], slug=slug)["exists"])


def insert_person(connection: Connection, *, team: UUID, role: str, email: str, name: str, password_hash: str) -> UUID:
    """Make a person in a team and return their id."""
    row = exactly_one(connection, _QUERIES["insert_person"], email=email, name=name, password_hash=password_hash)
    connection.execute(_QUERIES["insert_membership"], {"team": team, "person": row["id"], "role": role})
    person_id: UUID = row["id"]
    return person_id


def find_person_by_email(connection: Connection, *, email: str) -> Person | None:
    """Return the person who signs in with that e-mail, in any case of letters."""
    row = one(connection, _QUERIES["find_person_by_email"], email=email)
    return Person(**row) if row else None
