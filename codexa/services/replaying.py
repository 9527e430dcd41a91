"""Replay: the latest responses put through the draft before it is published."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from codexa.core.errors import DefinitionError
from codexa.core.form.comparing import describe_changes
from codexa.core.form.form import FORM, Form
from codexa.core.program.program import Program
from codexa.core.program.replay import Difference, Replaying, replay
from codexa.services.editions import Editions
from codexa.services.errors import NotFoundError
from codexa.store import forms, responses
from codexa.store.database import Connect
from codexa.store.responses import After, ResponseRow
from codexa.store.sessions import SignedIn

AT_ONCE = 50  # responses for one request, so that there is progress to see


@dataclass(frozen=True, kw_only=True, slots=True)
class Replayed:
    """A response that would come out otherwise."""

    number: int
    received_at: datetime
    edition: int
    differences: tuple[Difference, ...]


@dataclass(frozen=True, kw_only=True, slots=True)
class ReplayedPage:
    """Some responses, newest first: how many were looked at, what differs, and where to go on (None: all are done).

    `unreadable` counts those of editions that this version can't read any more.
    """

    looked_at: int
    differing: tuple[Replayed, ...]
    unreadable: int
    next: After | None


def replay_page(
    connect: Connect, editions: Editions, draft: Program, *, who: SignedIn, form: UUID, after: After | None
) -> ReplayedPage:
    """Put some responses through the draft. Raises NotFoundError."""
    with connect() as connection:
        found = forms.find_form(connection, team=who.team_id, form=form)
        if found is None:
            raise NotFoundError
        rows = responses.page_of_responses(connection, team=who.team_id, form=form, limit=AT_ONCE, after=after)
    hows: dict[int, tuple[Replaying, Program] | None] = {}
    differing, unreadable = [], 0
    for row in rows:
        if row.edition not in hows:
            hows[row.edition] = _how(editions, draft, form, row.edition)
        how = hows[row.edition]
        if how is None:
            unreadable += 1
        elif differences := _differences(how, row):
            differing.append(_replayed(row, differences))
    last = rows[-1] if len(rows) == AT_ONCE else None
    return ReplayedPage(
        looked_at=len(rows),
        differing=tuple(differing),
        unreadable=unreadable,
        next=None if last is None else After(received_at=last.received_at, number=last.number),
    )


def _replayed(row: ResponseRow, differences: tuple[Difference, ...]) -> Replayed:
    return Replayed(number=row.number, received_at=row.received_at, edition=row.edition, differences=differences)


def _how(editions: Editions, draft: Program, form: UUID, edition: int) -> tuple[Replaying, Program] | None:
    try:
        own = editions.program(form, edition)
    except DefinitionError:
        return None
    return Replaying(program=draft, changed=_changed(own.form, draft.form)), own


def _changed(before: Form, after: Form) -> dict[str, str]:
    """Return what was changed between two forms, by id, with what people call it."""
    changes = describe_changes(before, after.model_copy(update={"trials": before.trials}))
    return {each.part or FORM: each.name for each in reversed(changes)}


def _differences(how: tuple[Replaying, Program], row: ResponseRow) -> tuple[Difference, ...]:
    found = replay(how[0], how[1], answers=row.answers, told=row.told, number=row.number)
    return tuple(found)
