"""What was done in a team that others may have to answer for."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("audit")


@dataclass(frozen=True, kw_only=True, slots=True)
class Entry:
    """What somebody did, as they were called then; `about` is what it was done to, by name."""

    id: int
    at: datetime
    person_id: UUID | None
    person_name: str
    kind: str
    about: dict[str, Any]


@dataclass(frozen=True, kw_only=True, slots=True)
class Wanted:
    """Which entries are wanted: of these kinds (None for all), by whom, from a moment to one that is not in it."""

    kinds: Sequence[str] | None = None
    person: UUID | None = None
    since: datetime | None = None
    until: datetime | None = None


def insert_entry(
    connection: Connection, *, team: UUID, person: UUID | None, name: str, kind: str, about: Mapping[str, Any]
) -> None:
    """Note what somebody did in a team."""
    known = {"team": team, "person": person, "name": name, "kind": kind, "about": Jsonb(dict(about))}
    connection.execute(_QUERIES["insert_entry"], known)


def form_name(connection: Connection, *, team: UUID, form: UUID) -> str:
    """Return what a form of a team is called, "" where it has none such."""
    row = one(connection, _QUERIES["form_name"], team=team, form=form)
    return row["name"] if row else ""


def list_entries(connection: Connection, *, team: UUID, wanted: Wanted, before: int | None, most: int) -> list[Entry]:
    """Return what was done in a team, the latest first, before an entry by its id."""
    kinds = None if wanted.kinds is None else list(wanted.kinds)
    known = {"kinds": kinds, "person": wanted.person, "since": wanted.since, "until": wanted.until}
    return [
        Entry(**row) for row in many(connection, _QUERIES["list_entries"], team=team, before=before, most=most, **known)
    ]
