"""Asked back: the visitor changes what was asked about, and sends it once more; then it is decided further."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.core.context import FILLING_IN
from codexa.core.program.accept import Refused
from codexa.core.program.evaluate import State
from codexa.services.approvals.asking import begin_turn, keep_decision
from codexa.services.correcting import Correcting
from codexa.services.errors import BookingRefusedError, NotFoundError
from codexa.services.own_pages import OwnPages
from codexa.services.parts.handing_on import sent_again
from codexa.services.payments.settling import Way
from codexa.services.received import state_of_row
from codexa.store import approvals as store
from codexa.store import forms, responses, standings
from codexa.store.database import Connection


@dataclass(frozen=True, kw_only=True, slots=True)
class AskedBack:
    """What somebody of the team asks a visitor about a response."""

    remark: str
    by: str


def asked_back(way: Way, *, form: UUID, number: int) -> AskedBack | None:
    """Return what a visitor is asked; None where nothing is, or a response is not decided about."""
    with way.connect() as connection:
        standing = standings.find(connection, form=form, number=number)
        states = [state for _, state, _ in store.open_of_response(connection, form=form, number=number)]
        last = store.last_said(connection, form=form, number=number)
    if standing is not None and standing.part == FILLING_IN:
        return AskedBack(remark=standing.remark, by=standing.by_name)
    if "asked back" not in states or last is None:
        return None
    _, remark, by = last
    return AskedBack(remark=remark, by=by)


def correcting(way: Way, *, form: UUID, number: int) -> Correcting:
    """Return what a visitor corrects their own response with, where they were asked back.

    Raises NotFoundError where they were not.
    """
    if asked_back(way, form=form, number=number) is None:
        raise NotFoundError("Nothing is asked of you here any more.")
    with way.connect() as connection:
        team = forms.team_of(connection, form=form)
    if team is None:
        raise NotFoundError
    return Correcting(
        way=way,
        team=team,
        person=None,
        form=form,
        number=number,
        at_part=FILLING_IN,
    )


def send_again(way: Way, *, form: UUID, number: int, answers: Mapping[str, Any]) -> State | Refused:
    """Keep a visitor's changed answers, and let it be decided further; return the response, or what is wrong with it.

    Raises NotFoundError where they were not asked back.
    """
    mine = correcting(way, form=form, number=number)
    if (refused := mine.refused(answers)) is not None:
        return refused

    def then(connection: Connection, state: State) -> None:
        _decide_further(connection, form, number)
        sent_again(way, connection, state, form, number)

    difference = mine.save(answers, version=mine.opened().version, because="", then=then)
    if difference.wrong:
        raise BookingRefusedError(f"{difference.wrong[0].label}: {difference.wrong[0].message}")
    with way.connect() as connection:
        row = responses.find_received(connection, form=form, number=number)
    if row is None:
        raise NotFoundError
    return OwnPages(settings=way.settings).known_in(state_of_row(way, form, row), form, number)


def _decide_further(connection: Connection, form: UUID, number: int) -> None:
    for approval, state, step in store.open_of_response(connection, form=form, number=number):
        if state == "asked back":
            store.set_state(connection, approval=approval, state="asked", step=step)
            key = f"{approval} {len(store.said_of(connection, form=form, number=number))}"
            responses.add_event(
                connection, form=form, number=number, kind="sent again", key=key, who="visitor", data={}
            )
            begin_turn(connection, approval, step)
    keep_decision(connection, form, number)
