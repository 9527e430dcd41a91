"""Keeping what follows from an event, in the transaction of the event; and once more, by a person."""

from dataclasses import asdict, dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from codexa.core.form.follow_ups import Moment
from codexa.core.program.evaluate import State
from codexa.core.program.follow_ups import KINDS, due
from codexa.services.errors import NotFoundError
from codexa.store import queue, responses, runs
from codexa.store.database import Connect, Connection
from codexa.store.sessions import SignedIn

TASK = "carry_out"


@dataclass(frozen=True, kw_only=True, slots=True)
class ToldRun:
    """A run as the team sees it: what it does in one line, how often it was tried, and how it stands or ended.

    `again` counts those that a person asked for, `asked_by` is who did.
    """

    id: int
    name: str
    told: str
    state: str
    tries: int
    result: str
    again: int
    asked_by: str | None
    created_at: datetime
    ended_at: datetime | None


def keep_due(connection: Connection, state: State, *, form: UUID, number: int, moments: tuple[Moment, ...]) -> None:
    """Keep what these events set off, with a job for each."""
    if not state.program.form.follow_ups:
        return
    found = [asdict(each) | {"again": 0} for moment in moments for each in due(state, moment)]
    _keep(connection, form, number, found, asked_by=None)


def _keep(
    connection: Connection, form: UUID, number: int, found: list[dict[str, Any]], *, asked_by: UUID | None
) -> None:
    if not found:
        return
    for run in runs.insert_runs(connection, form=form, number=number, due=found, asked_by=asked_by):
        queue.defer(connection, TASK, run=run)


def runs_of(connect: Connect, *, who: SignedIn, form: UUID, number: int) -> list[ToldRun]:
    """Return what follows from a response, in order, each in one line. Raises NotFoundError."""
    with connect() as connection:
        found = runs.list_runs(connection, team=who.team_id, form=form, number=number)
        if not found and responses.find_response(connection, team=who.team_id, form=form, number=number) is None:
            raise NotFoundError
    return [
        ToldRun(
            id=each.id,
            name=each.name,
            told=_told(each.kind, each.content),
            state=each.state,
            tries=each.tries,
            result=each.result,
            again=each.again,
            asked_by=each.asked_by,
            created_at=each.created_at,
            ended_at=each.ended_at,
        )
        for each in found
    ]


def _told(kind: str, content: dict[str, Any]) -> str:
    known = {each.kind_name: each for each in KINDS.values()}
    return known[kind].told(content)


def run_again(connect: Connect, *, who: SignedIn, form: UUID, run: int) -> None:
    """Carry a follow-up out once more, with what was worked out when it was set off. Raises NotFoundError."""
    with connect() as connection:
        last = runs.last_run(connection, team=who.team_id, form=form, run=run)
        if last is None:
            raise NotFoundError
        once_more = {
            "follow_up": last.follow_up,
            "name": last.name,
            "moment": last.moment,
            "kind": last.kind,
            "content": last.content,
            "again": last.again + 1,
        }
        _keep(connection, form, last.number, [once_more], asked_by=who.person_id)
