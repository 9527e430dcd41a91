"""Rehearsals: forms tried the whole way, each in a team of its own that nobody is in."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("rehearsals")


@dataclass(frozen=True, kw_only=True, slots=True)
class RehearsalRow:
    """A rehearsal: its team and form, since when, and how many days its clock was moved on.

    `filled_in_by` is the number of a member's record, 0 for a guest, None for whoever rehearses.
    """

    team_id: UUID
    team_slug: str
    form_id: UUID
    slug: str
    created_at: datetime
    days: int
    filled_in_by: int | None


@dataclass(frozen=True, kw_only=True, slots=True)
class OpenApproval:
    """What is to be decided about a response of a rehearsal."""

    id: UUID
    number: int
    name: str
    subject: str
    step: int
    step_name: str


def insert_team(connection: Connection, *, form: UUID, person: UUID, slug: str) -> UUID | None:
    """Make the team of a person's rehearsal of a form; None where they have one."""
    row = one(connection, _QUERIES["insert_team"], form=form, person=person, slug=slug)
    return None if row is None else row["id"]


def delete_team(connection: Connection, *, form: UUID, person: UUID) -> list[UUID]:
    """Take a person's rehearsal of a form away, and return the uploads whose files are left."""
    return [row["id"] for row in many(connection, _QUERIES["delete_team"], form=form, person=person)]


def delete_old(connection: Connection, *, days: int) -> list[UUID]:
    """Take rehearsals away that were begun so many days ago; return the uploads whose files are left."""
    return [row["id"] for row in many(connection, _QUERIES["delete_old"], days=days)]


def find(connection: Connection, *, form: UUID, person: UUID) -> RehearsalRow | None:
    """Return a person's rehearsal of a form."""
    row = one(connection, _QUERIES["find"], form=form, person=person)
    return None if row is None else RehearsalRow(**row)


def is_rehearsal(connection: Connection, *, team: UUID) -> bool:
    """Whether a team is that of a rehearsal, of which nothing leaves the machine."""
    return bool(exactly_one(connection, _QUERIES["is_rehearsal"], team=team)["is_rehearsal"])


def numbers(connection: Connection, *, form: UUID, most: int) -> list[int]:
    """Return the numbers of what was handed in, the latest first."""
    return [row["number"] for row in many(connection, _QUERIES["numbers"], form=form, most=most)]


def open_approvals(connection: Connection, *, form: UUID) -> list[OpenApproval]:
    """Return what is to be decided about."""
    return [OpenApproval(**row) for row in many(connection, _QUERIES["open_approvals"], form=form)]


def move_on(connection: Connection, *, original: UUID, person: UUID, form: UUID, days: int) -> None:
    """Let so many days pass for a rehearsal: what is due on a day, runs out or is over is so that much earlier."""
    for name in ("move_jobs", "move_runs", "move_payments", "move_approvals", "move_kept"):
        connection.execute(_QUERIES[name], {"form": form, "days": days})
    connection.execute(_QUERIES["count_days"], {"original": original, "person": person, "days": days})


def fill_in_as(connection: Connection, *, original: UUID, person: UUID, number: int | None) -> None:
    """Set as whom a rehearsal is filled in: a member's record, 0 for a guest, None for whoever rehearses."""
    connection.execute(_QUERIES["fill_in_as"], {"original": original, "person": person, "number": number})
