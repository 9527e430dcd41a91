"""Who may fill in a form and when, as it holds now."""

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, exactly_one, one
from codexa.store.queries import queries

_QUERIES = queries("access")


@dataclass(frozen=True, kw_only=True, slots=True)
class AccessRow:
    """What holds for visitors: `turn` grows with each change, `taken` are responses counted against the limit."""

    access: dict[str, Any]
    password_hash: str | None
    live_edition: int
    turn: int
    taken: int
    team_id: UUID
    team_name: str
    team_slug: str
    rehearsed: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class AccessSettings:
    """What is set for a form, for the team; `sharing` is how links to it look elsewhere."""

    access: dict[str, Any]
    has_password: bool
    sites: list[str]
    sharing: dict[str, Any]


def find_access(connection: Connection, *, form: UUID) -> AccessRow | None:
    """Return who may fill in a form; None where it can't be answered at all."""
    row = one(connection, _QUERIES["find_access"], form=form)
    return AccessRow(**row) if row else None


def find_settings(connection: Connection, *, team: UUID, form: UUID) -> AccessSettings | None:
    """Return what is set for a form of the team."""
    row = one(connection, _QUERIES["find_settings"], team=team, form=form)
    return AccessSettings(**row) if row else None


def begin_change(connection: Connection, *, form: UUID) -> None:
    """Let nobody in by what held until now; no response is numbered until the transaction ends."""
    connection.execute(_QUERIES["begin_change"], {"form": form})


def set_access(connection: Connection, *, team: UUID, form: UUID, access: dict[str, Any]) -> bool:
    """Set who may fill in a form; False where there is no such form."""
    return one(connection, _QUERIES["set_access"], team=team, form=form, access=Jsonb(access)) is not None


def set_password(connection: Connection, *, team: UUID, form: UUID, password_hash: str | None) -> bool:
    """Set a form's password, or take it away; False where there is no such form."""
    return one(connection, _QUERIES["set_password"], team=team, form=form, password_hash=password_hash) is not None


def set_sharing(connection: Connection, *, team: UUID, form: UUID, sharing: dict[str, Any]) -> bool:
    """Set how links to a form look in other programs; False where there is no such form."""
    return one(connection, _QUERIES["set_sharing"], team=team, form=form, sharing=Jsonb(sharing)) is not None


def count_responses(connection: Connection, *, form: UUID) -> None:
    """Have each response that stands count against the limit of all."""
    connection.execute(_QUERIES["count_responses"], {"form": form})
    connection.execute(_QUERIES["recount"], {"form": form, "names": "responses"})


def count_people(connection: Connection, *, form: UUID, each: str) -> None:
    """Have each response that stands count against the limit of whoever gave this answer to the field `each`."""
    connection.execute(_QUERIES["count_people"], {"form": form, "each": each})
    connection.execute(_QUERIES["recount"], {"form": form, "names": f"person:{each}:%"})


def count_visitors(connection: Connection, *, form: UUID) -> None:
    """Have each response that stands count as that of whoever was signed in."""
    connection.execute(_QUERIES["count_visitors"], {"form": form})
    connection.execute(_QUERIES["recount"], {"form": form, "names": "visitor:%"})


def name_of_person(connection: Connection, *, each: str, answer: Any) -> str:
    """Return the name under which who gave this answer to the field `each` is counted."""
    return str(exactly_one(connection, _QUERIES["name_of_person"], each=each, answer=Jsonb(answer))["name"])
