"""Keeping what follows from an event, in the transaction of the event; and once more, by a person."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any
from uuid import UUID

from codexa.core.form.follow_ups import Moment
from codexa.core.program.evaluate import State
from codexa.core.program.follow_ups import KINDS_BY_NAME, Due, corrected_due, due
from codexa.core.program.follow_ups.approval import ApprovalKind
from codexa.services.approvals import asking as approvals
from codexa.services.drafts import require
from codexa.services.errors import NotFoundError
from codexa.services.follow_ups.carrying_out import TASK
from codexa.services.follow_ups.mail_layout import shown_mail
from codexa.services.own_pages import OwnPages
from codexa.services.parts import standing
from codexa.store import responses, runs
from codexa.store.database import Connect, Connection
from codexa.store.runs import Delivery, Run, RunRow
from codexa.store.sessions import SignedIn

MOST_OPEN = 100
APPROVAL = ApprovalKind.kind_name


@dataclass(frozen=True, kw_only=True, slots=True)
class ToldRun:
    """A run as the team sees it: what it does in one line, how often it was tried, and how it stands or ended.

    `number` is the response's. `again` counts those that a person asked for, `asked_by` is who did; `due_at` is when it
    is done, None for at once.
    """

    id: int
    number: int
    name: str
    told: str
    state: str
    tries: int
    result: str
    again: int
    asked_by: str | None
    created_at: datetime
    ended_at: datetime | None
    due_at: datetime | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Happened:
    """What has happened to a response; `which` tells events apart that come more than once to one."""

    form: UUID
    number: int
    moments: tuple[Moment, ...]
    which: str = ""


def keep_due(connection: Connection, state: State, event: Happened, pages: OwnPages | None) -> None:
    """Keep what an event sets off, with a job for what each of its moments does; what is complete goes to its parts."""
    if "complete" in event.moments and state.program.form.parts:
        standing.begin(connection, state, event.form, event.number)
    if not state.program.form.follow_ups:
        return
    known = state if pages is None else pages.known_in(state, event.form, event.number)
    _keep(connection, event, [each for moment in event.moments for each in due(known, moment, event.which)])


def _keep(connection: Connection, event: Happened, due_now: Sequence[Due]) -> None:
    found = [_as_run(each) for each in due_now]
    for each in found:
        if (entry := each["content"].get("entry")) is not None:
            # The same entry in every mail about it; of two the later one counts.
            entry["uid"] = f"{event.form}.{event.number}.{entry['field']}"
            entry["sequence"] = responses.count_changes(connection, form=event.form, number=event.number)
    # Who is to decide is asked at once: what waits for a decision is known from the first moment.
    for each in found:
        if each["kind"] == APPROVAL and each["at"] is None:
            approvals.begin(connection, form=event.form, number=event.number, due=each)
    done_by_jobs = [each for each in found if each["kind"] != APPROVAL or each["at"] is not None]
    if done_by_jobs:
        runs.insert_runs(connection, form=event.form, number=event.number, due=done_by_jobs, task=TASK)


def keep_days_anew(connection: Connection, state: State, event: Happened, pages: OwnPages | None) -> None:
    """Keep what hangs on a day of a response as it stands now, in the place of what was kept of that before."""
    if any(each.on == "day" for each in state.program.form.follow_ups):
        runs.withdraw_days(connection, form=event.form, number=event.number, why="not done: its day is another one now")
        keep_due(connection, state, replace(event, moments=("day",)), pages)


def keep_corrected(connection: Connection, before: State, after: State, event: Happened, pages: OwnPages) -> None:
    """Let reminders and entries in calendars follow the answers of a response, which were changed by hand."""
    days = {each.day.field for each in after.program.form.follow_ups if each.on == "day"}
    if any(_answer(before, each) != _answer(after, each) for each in days):
        keep_days_anew(connection, after, event, pages)
    _keep(connection, event, corrected_due(before, after, event.which))


def _answer(state: State, field: str) -> Any:
    place = state.program.questions.get(field)
    return None if place is None else state.value(place)


def _as_run(each: Due) -> dict[str, Any]:
    return {
        "follow_up": each.follow_up,
        "name": each.name,
        "moment": each.moment,
        "kind": each.kind,
        "content": each.content,
        "at": each.at,
        "again": 0,
    }


def runs_of(connect: Connect, *, who: SignedIn, form: UUID, number: int) -> list[ToldRun]:
    """Return what follows from a response, in order, each in one line. Raises NotFoundError."""
    with connect() as connection:
        found = runs.list_runs(connection, team=who.team_id, form=form, number=number)
        if not found and responses.find_response(connection, team=who.team_id, form=form, number=number) is None:
            raise NotFoundError
    return [_as_told(each) for each in found]


def open_runs(connect: Connect, *, who: SignedIn, form: UUID) -> list[ToldRun]:
    """Return what waits and what did not work, of a form: first what did not work, at most MOST_OPEN.

    Raises NotFoundError.
    """
    require(connect, who=who, form=form)
    with connect() as connection:
        found = runs.list_open_runs(connection, team=who.team_id, form=form, most=MOST_OPEN)
    return [_as_told(each) for each in found]


def _as_told(row: RunRow) -> ToldRun:
    return ToldRun(
        id=row.id,
        number=row.number,
        name=row.name,
        told=KINDS_BY_NAME[row.kind].told(row.content),
        state=row.state,
        tries=row.tries,
        result=row.result,
        again=row.again,
        asked_by=row.asked_by,
        created_at=row.created_at,
        ended_at=row.ended_at,
        due_at=row.due_at,
    )


@dataclass(frozen=True, kw_only=True, slots=True)
class RunInFull:
    """What a run sends: of a mail its HTML and text, of a webhook its body and every try."""

    html: str
    text: str
    body: dict[str, Any] | None
    deliveries: list[Delivery]


def run_in_full(connect: Connect, *, who: SignedIn, form: UUID, run: int) -> RunInFull:
    """Return what a run of a response sends, and what was answered. Raises NotFoundError."""
    with connect() as connection:
        found = runs.last_run(connection, team=who.team_id, form=form, run=run)
        if found is None:
            raise NotFoundError
        deliveries = runs.list_deliveries(connection, run=run)
    mail = shown_mail(found.content) if found.kind == "email" else None
    return RunInFull(
        html=mail.html if mail else "",
        text=mail.text if mail else "",
        body=found.content.get("body"),
        deliveries=deliveries,
    )


def run_again(connect: Connect, *, who: SignedIn, form: UUID, run: int) -> None:
    """Carry a follow-up out once more, with what was worked out when it was set off. Raises NotFoundError."""
    with connect() as connection:
        last = runs.last_run(connection, team=who.team_id, form=form, run=run)
        if last is None:
            raise NotFoundError
        _once_more(connection, last, person=who.person_id)


def run_last_again(
    connection: Connection, *, team: UUID, form: UUID, person: UUID | None, numbers: Sequence[int], follow_up: str
) -> list[int]:
    """Carry a follow-up of responses out once more, as its last run had it; return the numbers of those with one."""
    found = runs.last_runs(connection, team=team, form=form, numbers=numbers, follow_up=follow_up)
    for last in found:
        _once_more(connection, last, person=person)
    return [each.number for each in found]


def _once_more(connection: Connection, last: Run, *, person: UUID | None) -> None:
    once_more = {
        "follow_up": last.follow_up,
        "name": last.name,
        "moment": last.moment,
        "kind": last.kind,
        "content": last.content,
        "at": None,
        "again": last.again + 1,
    }
    runs.insert_runs(connection, form=last.form_id, number=last.number, due=[once_more], task=TASK, asked_by=person)
