"""What waits for a person of a team, and how often they are told of it by mail."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("attention")


@dataclass(frozen=True, kw_only=True, slots=True)
class Waiting:
    """What waits in a form: responses that are held, follow-ups that failed, responses that a person has in hand."""

    form_id: UUID
    name: str
    held: int
    failed: int
    mine: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Due:
    """Somebody who is to be told now of what came to a team since a moment."""

    team_id: UUID
    person_id: UUID
    since: datetime


def waiting(connection: Connection, *, team: UUID, person: UUID) -> list[Waiting]:
    """Return what waits for a person in each form of a team, by the form's name."""
    return [Waiting(**row) for row in many(connection, _QUERIES["waiting"], team=team, person=person)]


def came(connection: Connection, *, team: UUID, since: datetime) -> dict[UUID, int]:
    """Return how many responses came to each form of a team since a moment, where any did."""
    return {row["form_id"]: int(row["count"]) for row in many(connection, _QUERIES["came"], team=team, since=since)}


def digest(connection: Connection, *, team: UUID, person: UUID) -> str:
    """Return how often a person is told of a team: none, daily, weekly."""
    row = one(connection, _QUERIES["digest"], team=team, person=person)
    return str(row["digest"]) if row else "none"


def set_digest(connection: Connection, *, team: UUID, person: UUID, digest: str) -> None:
    """Tell a person of a team so often, of what comes from now on."""
    connection.execute(_QUERIES["set_digest"], {"team": team, "person": person, "digest": digest})


def take_due(connection: Connection) -> list[Due]:
    """Return who is to be told now; each is returned once."""
    return [Due(**row) for row in many(connection, _QUERIES["take_due"])]
