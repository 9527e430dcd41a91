"""Who is signed in, and who failed to."""

from dataclasses import dataclass
from datetime import timedelta
from uuid import UUID

from codexa.store.database import Connection, exactly_one, one
from codexa.store.queries import queries

_QUERIES = queries("sessions")


@dataclass(frozen=True, kw_only=True, slots=True)
class SignedIn:
    """A person, signed in to a team in a role; every query that they cause is bound to `team_id`."""

    person_id: UUID
    person_name: str
    email: str
    team_id: UUID
    team_name: str
    team_slug: str
    role: str
    csrf_token: str


def insert_session(
    connection: Connection, *, digest: bytes, person: UUID, team: UUID, csrf_token: str, lifetime: timedelta
) -> None:
    """Sign a person in; `digest` is that of the cookie."""
    values = {"digest": digest, "person": person, "team": team, "csrf_token": csrf_token, "lifetime": lifetime}
    connection.execute(_QUERIES["insert_session"], values)
    connection.execute(_QUERIES["delete_expired"])


def find_session(connection: Connection, *, digest: bytes) -> SignedIn | None:
    """Return who is signed in with the cookie of that digest."""
    row = one(connection, _QUERIES["find_session"], digest=digest)
    return SignedIn(**row) if row else None


def delete_session(connection: Connection, *, digest: bytes) -> None:
    """Sign out."""
    connection.execute(_QUERIES["delete_session"], {"digest": digest})


def count_failures(connection: Connection, *, subjects: list[str], window: timedelta) -> int:
    """Return the greatest number of wrong passwords that any of the subjects had within the window."""
    row = exactly_one(connection, _QUERIES["count_failures"], subjects=subjects, window=window)
    return int(row["coalesce"])


def insert_failure(connection: Connection, *, subjects: list[str]) -> None:
    """Count a wrong password against each subject."""
    connection.execute(_QUERIES["insert_failure"], {"subjects": subjects})


def delete_failures(connection: Connection, *, subject: str) -> None:
    """Forget a subject's wrong passwords."""
    connection.execute(_QUERIES["delete_failures"], {"subject": subject})
