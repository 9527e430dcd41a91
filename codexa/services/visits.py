"""Visits to a form: kept for a day as far as they have come, then counted and forgotten. Nobody can be told by them."""

import datetime
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.program.program import Program
from codexa.core.program.steps import steps_of
from codexa.core.responses.visits import bucket_of
from codexa.services.errors import NotFoundError
from codexa.store import visits
from codexa.store.database import Connect, Connection
from codexa.store.visits import Visit

_KEPT_HOURS = 23  # with the hour until the next counting that is a day
DAYS_TOLD_APART = 92
_AT_ONCE = 2_000
_MOST_ROUNDS = 500


@dataclass(frozen=True, kw_only=True, slots=True)
class Told:
    """What a browser tells of a visit: which one, the how-manieth time it tells, how wide its window is.

    Of the form: whether something was answered, whether it was sent; the step and the field where the visitor is or was
    at last ("" none); seconds by step that was reached; the fields where something was wrong; seconds in all.
    """

    id: UUID
    turn: int
    width: str
    started: bool
    sent: bool
    place: str
    field: str
    steps: Mapping[str, int]
    wrong: Sequence[str]
    seconds: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Whence:
    """To which edition visitors come, by which way, from which page of a website, by which links made together.

    A page, and the id of a batch of links, is "" for none.
    """

    edition: int
    way: str
    page: str
    link: str


def keep(
    connection: Connection,
    program: Program,
    form: UUID,
    told: Told,
    whence: Whence,
    *,
    at: datetime.datetime | None = None,
) -> None:
    """Keep how far a visit has come `at` a moment (now). Raises NotFoundError where its edition has no such parts."""
    at = at or datetime.datetime.now(datetime.UTC)
    shown = steps_of(program.form)
    steps = {each.id for each in shown} | {""}
    # What tells all answers before they are sent is a block of no page of the author's.
    fields = {block.id for step in shown for block in step.blocks}
    fields |= {block.id for block in program.form.blocks()} | {""}
    if not steps.issuperset((*told.steps, told.place)) or not fields.issuperset((*told.wrong, told.field)):
        raise NotFoundError
    visits.keep(
        connection,
        Visit(
            id=told.id,
            form=form,
            at=at,
            day=at.astimezone(ZoneInfo(program.form.time_zone)).date(),
            edition=whence.edition,
            presentation=program.form.presentation,
            way=whence.way,
            page=whence.page,
            link=whence.link,
            width=told.width,
            turn=told.turn,
            started=told.started,
            sent=told.sent,
            place=told.place,
            field=told.field,
            steps={step: bucket_of(seconds) for step, seconds in told.steps.items()},
            wrong=list(dict.fromkeys(told.wrong)),
            took=bucket_of(told.seconds) if told.sent else None,
        ),
    )


def count_over(connect: Connect) -> int:
    """Count the visits that began nearly a day ago, forget them, and return how many those were.

    What was counted of days long ago is told by month from then on.
    """
    before = datetime.datetime.now(datetime.UTC).date() - datetime.timedelta(days=DAYS_TOLD_APART)
    _all(connect, lambda connection: visits.count_by_month(connection, before=before, most=_AT_ONCE))
    return _all(connect, lambda connection: visits.count_over(connection, hours=_KEPT_HOURS, most=_AT_ONCE))


def _all(connect: Connect, some: Callable[[Connection], int]) -> int:
    """Do some at a time, each in a transaction of its own, until none are left, and return how many there were."""
    done = 0
    for _ in range(_MOST_ROUNDS):
        with connect() as connection:
            counted = some(connection)
        done += counted
        if counted < _AT_ONCE:
            break
    return done
