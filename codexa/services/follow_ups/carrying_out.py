"""Carrying out one run: nothing is held while something outside is waited for, and each outcome is kept."""

import datetime
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from codexa.services import tasks
from codexa.services.approvals import asking as approvals
from codexa.services.calendars import keeping as calendar_keeping
from codexa.services.errands.told_failures import tell_failure
from codexa.services.follow_ups import enrolling, mailing, recording, webhooks
from codexa.services.follow_ups.outcomes import Done, NeverError, TryLaterError
from codexa.settings import Settings
from codexa.store import queue, runs
from codexa.store.database import Connect, Connection
from codexa.store.runs import Run

TASK = "carry_out"
MOST_TRIES = 8
PAUSES = (10, 60, 300, 1_800, 7_200, 21_600, 43_200)  # seconds before each further try

# What a rehearsal does for real: it concerns its own responses alone.
_STAYS_HERE = ("approval", "task")
_TURN_SECONDS = 600  # till a mail that is one too many is looked at again

Send = Callable[[Connect, Run, Settings], Done]


@dataclass(frozen=True, kw_only=True, slots=True)
class Waits:
    """It is to be tried once more, in so many seconds."""

    seconds: int


def key_of(run: Run) -> str:
    """Return what is the same for every try of a run and for no other run."""
    return f"{run.form_id}.{run.number}.{run.follow_up}.{run.moment.replace(' ', '-')}.{run.again}"


SENDERS: dict[str, Send] = {
    "email": lambda _, run, settings: Done(result=mailing.send(run.content, key=key_of(run), settings=settings)),
    "webhook": lambda _, run, settings: webhooks.send(
        run.content, key=key_of(run), secret=webhooks.secret_of(run.form_id, settings), settings=settings
    ),
    "calendar": calendar_keeping.keep,
}


def _ask_for_approval(connection: Connection, run: Run, _folder: Path) -> str:
    """Ask for an approval that is set off by a day; all others are asked for with their event."""
    due = {"follow_up": run.follow_up, "moment": run.moment, "name": run.name, "content": run.content}
    approvals.begin(connection, form=run.form_id, number=run.number, due=due)
    return "asked for a decision"


# What is done in our own database.
KEEPERS: dict[str, Callable[[Connection, Run, Path], str]] = {
    "record": recording.keep,
    "account": enrolling.keep,
    "approval": _ask_for_approval,
    "task": tasks.keep,
}


def carry_out_all(connect: Connect, settings: Settings, run_ids: Sequence[int]) -> None:
    """Do what these runs say, one after the other; what one of them meets keeps none of the others back.

    Raises what nobody thought of, once all were tried.
    """
    unforeseen: Exception | None = None
    for run_id in run_ids:
        try:
            carry_out(connect, settings, run_id)
        except Exception as error:
            unforeseen = error
    if unforeseen is not None:
        raise unforeseen


def carry_out(connect: Connect, settings: Settings, run_id: int) -> Waits | None:
    """Do what a run says; return Waits where a job was kept to try it again, None where it has ended, well or not."""
    with connect() as connection:
        run = runs.take_run(connection, run=run_id)
        if run is None:
            return None
        most = int(settings.mails_per_hour)
        if run.kind == "email" and runs.count_mails(connection, form=run.form_id, most=most) >= most:
            # It has not been tried: waiting for its turn costs it none of its tries.
            return try_later(connection, TASK, {"runs": [run_id]}, _TURN_SECONDS)
        tries = runs.count_try(connection, run=run_id)
    if run.rehearsed and run.kind not in _STAYS_HERE:
        with connect() as connection:
            runs.end_run(connection, run=run.id, state="done", result="rehearsed: it stays here")
            _tell(connection, run, "done", "rehearsed: it stays here")
        return None
    if run.kind in KEEPERS:
        _keep(connect, run, Path(settings.files))
        return None
    state = "done"
    try:
        done = SENDERS[run.kind](connect, run, settings)
        result, delivery = done.result, done.delivery
    except NeverError as error:
        result, delivery, state = str(error), error.delivery, "failed"
    except TryLaterError as error:
        result, delivery, state = str(error), error.delivery, "failed" if tries >= MOST_TRIES else "waiting"
    with connect() as connection:
        if delivery is not None:
            runs.insert_delivery(connection, run=run.id, try_=tries, request=delivery.request, reply=delivery.reply)
        runs.end_run(connection, run=run_id, state=state, result=result[:1_000])
        if state != "waiting":
            _tell(connection, run, state, result)
            return None
        return try_later(connection, TASK, {"runs": [run_id]}, PAUSES[min(tries, len(PAUSES)) - 1])


def _keep(connect: Connect, run: Run, folder: Path) -> None:
    """Do what happens in our own database in the transaction that notes it: once, or not at all."""
    with connect() as connection:
        if not runs.lock_run(connection, run=run.id):
            return
        try:
            with connection.transaction():
                result, state = KEEPERS[run.kind](connection, run, folder), "done"
        except NeverError as error:
            result, state = str(error), "failed"
        runs.end_run(connection, run=run.id, state=state, result=result[:1_000])
        _tell(connection, run, state, result)


def _tell(connection: Connection, run: Run, state: str, result: str) -> None:
    runs.add_event(
        connection,
        form=run.form_id,
        number=run.number,
        kind=f"follow-up {state}",
        key=str(run.id),
        data={"name": run.name, "result": result[:1_000]},
    )
    if state == "failed":
        tell_failure(connection, form=run.form_id)


def try_later(connection: Connection, task: str, job: dict[str, Any], seconds: int) -> Waits:
    """Keep a job that tries something again in so many seconds, in the transaction that notes why."""
    at = datetime.datetime.now(datetime.UTC) + datetime.timedelta(seconds=seconds)
    queue.defer(connection, task, job, at=at)
    return Waits(seconds=seconds)
