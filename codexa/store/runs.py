"""Runs of follow-ups: what is to be done for a response, how often it was tried, and how it ended."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("runs")


@dataclass(frozen=True, kw_only=True, slots=True)
class Run:
    """A follow-up to be carried out: what (`kind` and `content`), and how often it was asked for again.

    Of one that is `rehearsed` nothing leaves the machine.
    """

    id: int
    form_id: UUID
    number: int
    follow_up: str
    name: str
    moment: str
    again: int
    kind: str
    content: dict[str, Any]
    rehearsed: bool = False


@dataclass(frozen=True, kw_only=True, slots=True)
class RunRow(Run):
    """A run as the team sees it; `asked_by` is who wanted it once more, `due_at` when it is done, None for at once."""

    state: str
    tries: int
    result: str
    created_at: datetime
    ended_at: datetime | None
    due_at: datetime | None
    asked_by: str | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Delivery:
    """A try of a webhook: `request` {"address", "headers"}, `reply` {"status", "headers", "body"} or None."""

    try_: int
    at: datetime
    request: dict[str, Any]
    reply: dict[str, Any] | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Failure:
    """A follow-up that did not work: of which response, its name, and why."""

    number: int
    name: str
    result: str


def insert_runs(
    connection: Connection,
    *,
    form: UUID,
    number: int,
    due: Sequence[dict[str, Any]],
    task: str,
    asked_by: UUID | None = None,
) -> None:
    """Keep runs, each once, with a job of that task for those of each moment, there once the transaction is kept."""
    values = {"form": form, "number": number, "due": Jsonb(list(due)), "task": task, "asked_by": asked_by}
    connection.execute(_QUERIES["insert_runs"], values)


def take_run(connection: Connection, *, run: int) -> Run | None:
    """Return a run that waits, or None: it was done, or its response or form was removed."""
    row = one(connection, _QUERIES["take_run"], run=run)
    return Run(**row) if row else None


def lock_run(connection: Connection, *, run: int) -> bool:
    """Keep a run that still waits from everybody else until the transaction ends; False where it has ended."""
    return one(connection, _QUERIES["lock_run"], run=run) is not None


def count_try(connection: Connection, *, run: int) -> int:
    """Count a try before anything leaves; return how many there were with it."""
    row = one(connection, _QUERIES["count_try"], run=run)
    return int(row["tries"]) if row else 0


def count_mails(connection: Connection, *, form: UUID, most: int) -> int:
    """Return how many mails of a form have left within the last hour, counted up to `most`."""
    return int(exactly_one(connection, _QUERIES["count_mails"], form=form, most=most)["count"])


def end_run(connection: Connection, *, run: int, state: str, result: str) -> None:
    """Note how a run ended ("done", "failed"), or with "waiting" why it is tried once more."""
    connection.execute(_QUERIES["end_run"], {"run": run, "state": state, "result": result})


def withdraw_days(connection: Connection, *, form: UUID, number: int, why: str) -> None:
    """Have what was to be done on a day to come not done any more, and say why."""
    connection.execute(_QUERIES["withdraw_days"], {"form": form, "number": number, "why": why})


def add_event(connection: Connection, *, form: UUID, number: int, kind: str, key: str, data: dict[str, Any]) -> None:
    """Note something that happened to a response, once."""
    values = {"form": form, "number": number, "kind": kind, "key": key, "data": Jsonb(data)}
    connection.execute(_QUERIES["add_event"], values)


def list_runs(connection: Connection, *, team: UUID, form: UUID, number: int) -> list[RunRow]:
    """Return what follows from a response, in order."""
    return [RunRow(**row) for row in many(connection, _QUERIES["list_runs"], team=team, form=form, number=number)]


def list_open_runs(connection: Connection, *, team: UUID, form: UUID, most: int) -> list[RunRow]:
    """Return what waits and what did not work, of a form, at most so many."""
    found = many(connection, _QUERIES["list_open_runs"], team=team, form=form, most=most)
    return [RunRow(**row) for row in found]


def last_run(connection: Connection, *, team: UUID, form: UUID, run: int) -> Run | None:
    """Return a run of the team's form; `again` is the highest number that one of its kind has had."""
    row = one(connection, _QUERIES["last_run"], team=team, form=form, run=run)
    return Run(**row) if row else None


def last_runs(connection: Connection, *, team: UUID, form: UUID, numbers: Sequence[int], follow_up: str) -> list[Run]:
    """Return the last run that a follow-up had for each of these responses, where it had one."""
    values = {"team": team, "form": form, "numbers": list(numbers), "follow_up": follow_up}
    return [Run(**row) for row in many(connection, _QUERIES["last_runs"], **values)]


def insert_delivery(
    connection: Connection, *, run: int, try_: int, request: dict[str, Any], reply: dict[str, Any] | None
) -> None:
    """Keep what another system was sent at a try, and what it answered."""
    values = {"run": run, "try": try_, "request": Jsonb(request), "reply": None if reply is None else Jsonb(reply)}
    connection.execute(_QUERIES["insert_delivery"], values)


def list_deliveries(connection: Connection, *, run: int) -> list[Delivery]:
    """Return the tries of a run, first to last."""
    rows = many(connection, _QUERIES["list_deliveries"], run=run)
    return [Delivery(try_=row.pop("try"), **row) for row in rows]


def tell_failure(connection: Connection, *, form: UUID, hours: int) -> UUID | None:
    """Note that a form's team is told of failures; return the team, or None where it was told within these hours."""
    row = one(connection, _QUERIES["tell_failure"], form=form, hours=hours)
    return row["team_id"] if row else None


def list_failures(connection: Connection, *, form: UUID, most: int) -> list[Failure]:
    """Return what did not work of a form, latest first, at most so many."""
    return [Failure(**row) for row in many(connection, _QUERIES["list_failures"], form=form, most=most)]
