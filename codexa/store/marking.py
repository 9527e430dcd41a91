"""What a team marks its responses with: a status, tags, who has them in hand. Each change is an event."""

from collections.abc import Sequence
from typing import Literal
from uuid import UUID

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("marking")
Mark = Literal["status", "tag", "untag", "person"]
MOST_TAGS = 30
_BY_MARK: dict[Mark, bytes] = {
    "status": _QUERIES["mark_status"],
    "tag": _QUERIES["mark_tag"],
    "untag": _QUERIES["mark_untag"],
    "person": _QUERIES["mark_person"],
}


def move(connection: Connection, *, team: UUID, form: UUID, person: UUID, number: int, was: str, status: str) -> bool:
    """Move a response from a status to another ("" is none); False where it is not there (any more), or gone."""
    values = {"team": team, "form": form, "person": person, "number": number, "was": was, "status": status}
    return one(connection, _QUERIES["move"], **values) is not None


def status_now(connection: Connection, *, team: UUID, form: UUID, number: int) -> tuple[str, str | None] | None:
    """Return a response's status, and who moved it there; None where there is no such response."""
    row = one(connection, _QUERIES["status_now"], team=team, form=form, number=number)
    return None if row is None else (row["status"], row["by"])


def note(connection: Connection, *, team: UUID, form: UUID, person: UUID, number: int, note: str) -> bool:
    """Keep a note with a response; False where there is no such response."""
    values = {"team": team, "form": form, "person": person, "number": number, "note": note}
    return one(connection, _QUERIES["note"], **values) is not None


def mark(
    connection: Connection,
    *,
    team: UUID,
    form: UUID,
    actor: UUID | None,
    numbers: Sequence[int],
    kind: Mark,
    value: str,
) -> list[int]:
    """Mark responses, and return the numbers of those that were changed by it."""
    values = {"team": team, "form": form, "actor": actor, "numbers": list(numbers), "value": value, "most": MOST_TAGS}
    return [row["number"] for row in many(connection, _BY_MARK[kind], **values)]


def remove(connection: Connection, *, team: UUID, form: UUID, actor: UUID | None, numbers: Sequence[int]) -> list[int]:
    """Remove responses, and return the numbers of those that were; not what waits for money, or is paid by a plan."""
    values = {"team": team, "form": form, "actor": actor, "numbers": list(numbers)}
    return [row["number"] for row in many(connection, _QUERIES["remove"], **values)]


def bring_back(
    connection: Connection, *, team: UUID, form: UUID, actor: UUID | None, numbers: Sequence[int]
) -> list[int]:
    """Bring responses back that were removed, and return the numbers of those that were."""
    values = {"team": team, "form": form, "actor": actor, "numbers": list(numbers)}
    return [row["number"] for row in many(connection, _QUERIES["bring_back"], **values)]
