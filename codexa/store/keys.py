"""Keys of the API: what each may do, for a team or one of its forms."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("keys")


@dataclass(frozen=True, kw_only=True, slots=True)
class KeyRow:
    """A key as its team sees it; `form_id` None where it is for all forms."""

    id: UUID
    name: str
    rights: list[str]
    form_id: UUID | None
    form_name: str | None
    made_by: str | None
    made_at: datetime
    last_used_at: datetime | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Opens:
    """What a key opens; `stale` where its last use was noted more than a minute ago."""

    id: UUID
    team_id: UUID
    form_id: UUID | None
    rights: list[str]
    stale: bool


def insert_key(
    connection: Connection,
    *,
    team: UUID,
    form: UUID | None,
    person: UUID,
    name: str,
    digest: bytes,
    rights: Sequence[str],
) -> UUID | None:
    """Make a key and return its id; None where the team has no such form."""
    values = {"team": team, "form": form, "person": person, "name": name, "digest": digest, "rights": list(rights)}
    row = one(connection, _QUERIES["insert_key"], **values)
    return row["id"] if row else None


def list_keys(connection: Connection, *, team: UUID) -> list[KeyRow]:
    """Return the keys of a team that still open something, newest first."""
    return [KeyRow(**row) for row in many(connection, _QUERIES["list_keys"], team=team)]


def end_key(connection: Connection, *, team: UUID, key: UUID) -> bool:
    """End a key for ever; False where the team has none of that id."""
    return one(connection, _QUERIES["end_key"], team=team, key=key) is not None


def find_key(connection: Connection, *, digest: bytes) -> Opens | None:
    """Return what a key opens, None where it opens nothing (any more)."""
    row = one(connection, _QUERIES["find_key"], digest=digest)
    return Opens(**row) if row else None


def use_key(connection: Connection, *, key: UUID) -> None:
    """Note that a key was used now."""
    connection.execute(_QUERIES["use_key"], {"key": key})
