"""Who is signed in, and who failed to."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from uuid import UUID

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("sessions")


SESSION_IDLE = timedelta(hours=2)


@dataclass(frozen=True, kw_only=True, slots=True)
class SignInLimit:
    """How often a subject may try to sign in: `free` tries at once, then pauses that grow to `longest` seconds."""

    subject: str
    free: int
    longest: int


@dataclass(frozen=True, kw_only=True, slots=True)
class SignedIn:
    """A person, signed in to a team in a role; every query that they cause is bound to `team_id`.

    `role` is what holds for the form that is asked about, `team_role` for all else of the team; `groups` are theirs,
    by code.
    """

    person_id: UUID
    person_name: str
    email: str
    team_id: UUID
    team_name: str
    team_slug: str
    role: str
    team_role: str
    csrf_token: str
    groups: Sequence[str] = ()


@dataclass(frozen=True, kw_only=True, slots=True)
class OwnSession:
    """A session as its person sees it: by what `program` it was begun; `own` is the one that asks."""

    id: UUID
    created_at: datetime
    seen_at: datetime
    program: str
    own: bool


def insert_session(
    connection: Connection,
    *,
    digest: bytes,
    person: UUID,
    team: UUID,
    csrf_token: str,
    lifetime: timedelta,
    program: str = "",
) -> None:
    """Sign a person in; `digest` is that of the cookie, `program` what the browser says it is."""
    values = {"digest": digest, "person": person, "team": team, "csrf_token": csrf_token, "lifetime": lifetime}
    connection.execute(_QUERIES["insert_session"], {**values, "program": program})
    connection.execute(_QUERIES["delete_expired"])


def find_session(
    connection: Connection,
    *,
    digest: bytes,
    idle: timedelta = SESSION_IDLE,
    used: bool = True,
    form: UUID | None = None,
) -> SignedIn | None:
    """Return who is signed in with the cookie of that digest; `used` says that a person did something just now.

    `form` is the one that is asked about: for it their role may be another one.
    """
    row = one(connection, _QUERIES["find_session"], digest=digest, idle=idle, used=used, form=form)
    return SignedIn(**row) if row else None


def list_sessions(connection: Connection, *, person: UUID, digest: bytes, idle: timedelta) -> list[OwnSession]:
    """Return the sessions of a person that count, the last used first; `digest` is of the one that asks."""
    rows = many(connection, _QUERIES["list_sessions"], person=person, digest=digest, idle=idle)
    return [OwnSession(**row) for row in rows]


def end_session(connection: Connection, *, person: UUID, session: UUID) -> bool:
    """End a session of a person; False where they have none such."""
    return one(connection, _QUERIES["end_session"], person=person, session=session) is not None


def move_session(connection: Connection, *, digest: bytes, team: UUID) -> None:
    """Take a session to another team of its person."""
    connection.execute(_QUERIES["move_session"], {"digest": digest, "team": team})


def delete_session(connection: Connection, *, digest: bytes) -> None:
    """Sign out."""
    connection.execute(_QUERIES["delete_session"], {"digest": digest})


def count_try(connection: Connection, limits: Sequence[SignInLimit]) -> float | None:
    """Count a try to sign in against each limit; return the seconds to wait where one of them refuses it, or None.

    What is refused is not counted against the limits after the one that refuses it.
    """
    for limit in limits:
        values = {"subject": limit.subject, "free": limit.free, "longest": limit.longest}
        if one(connection, _QUERIES["count_try"], **values) is None:
            return float(exactly_one(connection, _QUERIES["seconds_to_wait"], subject=limit.subject)["seconds"])
    return None


def forget_tries(connection: Connection, *, subjects: list[str]) -> None:
    """Forget the tries of these subjects after a right password."""
    connection.execute(_QUERIES["forget_tries"], {"subjects": subjects})


def is_known_network(connection: Connection, *, person: UUID, network: str) -> bool:
    """Say whether somebody has signed in from a network of late."""
    return bool(exactly_one(connection, _QUERIES["is_known_network"], person=person, network=network)["exists"])


def note_network(connection: Connection, *, person: UUID, network: str) -> None:
    """Note that somebody has signed in from a network."""
    connection.execute(_QUERIES["note_network"], {"person": person, "network": network})
