"""Errands: jobs that follow from no response, such as notices by mail, and how the queue stands."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("errands")


@dataclass(frozen=True, kw_only=True, slots=True)
class Errand:
    """An errand to be done: whose it is, its kind, what it is about, and how often it was tried with this time."""

    id: int
    team_id: UUID | None
    kind: str
    about: dict[str, Any]
    tries: int


@dataclass(frozen=True, kw_only=True, slots=True)
class ErrandRow:
    """An errand as owners see it."""

    id: int
    kind: str
    state: str
    tries: int
    result: str
    created_at: datetime
    ended_at: datetime | None


@dataclass(frozen=True, kw_only=True, slots=True)
class QueueState:
    """How many jobs wait and are due, how many wait for a later day, how many are carried out, and living workers."""

    waiting: int
    later: int
    running: int
    workers: int


def insert_errand(connection: Connection, *, team: UUID | None, kind: str, about: dict[str, Any]) -> int:
    """Take up an errand and return its id; `team` is whose owners may see it, None for all."""
    return int(exactly_one(connection, _QUERIES["insert_errand"], team=team, kind=kind, about=Jsonb(about))["id"])


def take_errand(connection: Connection, *, errand: int) -> Errand | None:
    """Return an errand that waits, with this try counted; None where it has ended."""
    row = one(connection, _QUERIES["take_errand"], errand=errand)
    return Errand(**row) if row else None


def end_errand(connection: Connection, *, errand: int, state: str, result: str) -> None:
    """Note how an errand ended ("done", "failed"), or with "waiting" why it is tried once more."""
    connection.execute(_QUERIES["end_errand"], {"errand": errand, "state": state, "result": result})


def list_errands(connection: Connection, *, team: UUID, most: int) -> list[ErrandRow]:
    """Return the latest errands of a team and of the whole server, newest first."""
    return [ErrandRow(**row) for row in many(connection, _QUERIES["list_errands"], team=team, most=most)]


def queue_state(connection: Connection) -> QueueState:
    """Return how the queue stands."""
    return QueueState(**exactly_one(connection, _QUERIES["queue_state"]))


def forget_ended(connection: Connection, *, days: int) -> None:
    """Forget errands that ended so many days ago."""
    connection.execute(_QUERIES["forget_ended"], {"days": days})
