"""What is done to many responses at once: which, how far it has come, and to which of them it happened."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("bulks")


@dataclass(frozen=True, kw_only=True, slots=True)
class Part:
    """The next responses, by number, of `count` in all, of what is done for a person; `place` were before them."""

    form_id: UUID
    person_id: UUID | None
    team_id: UUID
    does: str
    value: str
    place: int
    count: int
    numbers: list[int]


@dataclass(frozen=True, kw_only=True, slots=True)
class BulkRow:
    """How far it has come: of `count` responses `place` were gone through, and it happened to `changed` of them."""

    id: UUID
    does: str
    value: str
    count: int
    place: int
    changed: int
    state: str
    person: str | None
    created_at: datetime
    ended_at: datetime | None


@dataclass(frozen=True, kw_only=True, slots=True)
class ChangedBy:
    """What was done, and to which responses it happened, by number."""

    does: str
    value: str
    changed: list[int]


def insert_bulk(
    connection: Connection, *, team: UUID, form: UUID, person: UUID, does: str, value: str, numbers: Sequence[int]
) -> UUID | None:
    """Take up what is to be done and return its id; None where the team has no such form."""
    values = {"team": team, "form": form, "person": person, "does": does, "value": value, "numbers": list(numbers)}
    row = one(connection, _QUERIES["insert_bulk"], **values)
    return row["id"] if row else None


def take_part(connection: Connection, *, bulk: UUID, most: int) -> Part | None:
    """Return the next part, kept from others until the transaction ends; None where it has ended."""
    row = one(connection, _QUERIES["take_part"], bulk=bulk, most=most)
    return Part(**row) if row else None


def end_part(connection: Connection, *, bulk: UUID, gone: int, changed: Sequence[int]) -> None:
    """Note that so many more were gone through, and to which of them it happened."""
    connection.execute(_QUERIES["end_part"], {"bulk": bulk, "gone": gone, "changed": list(changed)})


def stop_bulk(connection: Connection, *, team: UUID, form: UUID, bulk: UUID) -> bool:
    """End what is not done yet; False where it has ended, or the team has none of that id."""
    return one(connection, _QUERIES["stop_bulk"], team=team, form=form, bulk=bulk) is not None


def list_bulks(connection: Connection, *, team: UUID, form: UUID) -> list[BulkRow]:
    """Return what was done within a day, and what is being done, newest first."""
    return [BulkRow(**row) for row in many(connection, _QUERIES["list_bulks"], team=team, form=form)]


def changed_by(connection: Connection, *, team: UUID, form: UUID, bulk: UUID) -> ChangedBy | None:
    """Return to which responses it happened."""
    row = one(connection, _QUERIES["changed_by"], team=team, form=form, bulk=bulk)
    return ChangedBy(**row) if row else None


def insert_due(connection: Connection) -> list[tuple[UUID, UUID]]:
    """Take up what forms have asked for of responses that are too old; return each with its team."""
    return [(row["id"], row["team_id"]) for row in many(connection, _QUERIES["insert_due"])]


def retention(connection: Connection, *, team: UUID, form: UUID) -> dict[str, Any] | None:
    """Return {"days", "does"} of a form, {} where its responses are kept; None where the team has no such form."""
    row = one(connection, _QUERIES["retention"], team=team, form=form)
    return None if row is None else dict(row["retention"])


def set_retention(connection: Connection, *, team: UUID, form: UUID, retention: dict[str, Any]) -> bool:
    """Have a form's responses anonymised or removed after so many days; False where the team has no such form."""
    return one(connection, _QUERIES["set_retention"], team=team, form=form, retention=Jsonb(retention)) is not None


def forget_bulks(connection: Connection, *, days: int) -> None:
    """Forget what ended so many days ago."""
    connection.execute(_QUERIES["forget_bulks"], {"days": days})
