"""Saved states of drafts, and who works on them just now."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("history")


@dataclass(frozen=True, kw_only=True, slots=True)
class SavedState:
    """A draft as it was saved once: what it is called, how many changes it made of the state before.

    `edition` is its number where it was published.
    """

    revision: int
    saved_at: datetime
    saved_by: str | None
    edition: int | None
    name: str
    changes: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Present:
    """A person with the form open: the area of the workbench and the part that is selected there."""

    name: str
    area: str
    part: str | None


def list_states(connection: Connection, *, team: UUID, form: UUID, before: int, limit: int) -> list[SavedState]:
    """Return saved states of a revision below `before`, newest first, at most `limit`."""
    rows = many(connection, _QUERIES["list_states"], team=team, form=form, before=before, limit=limit)
    return [SavedState(**row) for row in rows]


def find_state(connection: Connection, *, team: UUID, form: UUID, revision: int) -> dict[str, Any] | None:
    """Return the draft of one saved state as JSON."""
    row = one(connection, _QUERIES["find_state"], team=team, form=form, revision=revision)
    return row["draft"] if row else None


def find_state_at(connection: Connection, *, team: UUID, form: UUID, revision: int) -> dict[str, Any] | None:
    """Return the draft as it stood at a revision as JSON: that state, or the newest before it that is left."""
    row = one(connection, _QUERIES["find_state_at"], team=team, form=form, revision=revision)
    return row["draft"] if row else None


def name_state(connection: Connection, *, team: UUID, form: UUID, revision: int, name: str) -> bool:
    """Give a saved state a name, "" for none; False where there is none of that revision."""
    return one(connection, _QUERIES["name_state"], team=team, form=form, revision=revision, name=name) is not None


def thin_states(connection: Connection, *, days: int) -> int:
    """Delete states older than so many days that the same person followed up soon; return how many."""
    return connection.execute(_QUERIES["thin_states"], {"days": days}).rowcount


def note_presence(
    connection: Connection, *, team: UUID, form: UUID, person: UUID, tab: str, area: str, part: str | None
) -> bool:
    """Note that a tab shows the form; False where the team has no such form."""
    values = {"team": team, "form": form, "person": person, "tab": tab, "area": area, "part": part}
    return one(connection, _QUERIES["note_presence"], **values) is not None


def forget_presence(connection: Connection, *, form: UUID, tab: str) -> None:
    """Forget a tab that was closed, and those that were not heard of for long."""
    connection.execute(_QUERIES["forget_presence"], {"form": form, "tab": tab})


def list_present(connection: Connection, *, form: UUID, person: UUID, seconds: int) -> list[Present]:
    """Return who else than that person was heard of in the last seconds."""
    rows = many(connection, _QUERIES["list_present"], form=form, person=person, seconds=seconds)
    return [Present(**row) for row in rows]
