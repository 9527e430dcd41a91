"""Asking for an errand, in the transaction of what it follows from; and what owners see of them."""

import datetime
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.store import errands, queue
from codexa.store.database import Connect, Connection
from codexa.store.errands import ErrandRow, QueueState
from codexa.store.sessions import SignedIn

TASK = "run_errand"
_MOST_SHOWN = 50


def ask(
    connection: Connection,
    kind: str,
    about: dict[str, Any],
    *,
    team: UUID | None = None,
    at: datetime.datetime | None = None,
) -> int:
    """Have an errand done at once, or not before `at`, and return its id; `team` is whose owners may see it."""
    errand = errands.insert_errand(connection, team=team, kind=kind, about=about)
    queue.defer(connection, TASK, {"errand": errand}, at=at)
    return errand


@dataclass(frozen=True, kw_only=True, slots=True)
class Workings:
    """How the queue stands, and the latest errands."""

    queue: QueueState
    errands: list[ErrandRow]


def workings(connect: Connect, *, who: SignedIn) -> Workings:
    """Return how the queue stands, and the latest errands that this owner may see."""
    with connect() as connection:
        return Workings(
            queue=errands.queue_state(connection),
            errands=errands.list_errands(connection, team=who.team_id, most=_MOST_SHOWN),
        )
