"""How the slots of a response stand: booked, waited for, cancelled; kept with it, and what follows from a change."""

from uuid import UUID

from codexa.core.form.form import Form
from codexa.core.program.accept import Accepted
from codexa.core.program.evaluate import State
from codexa.core.program.slot_offers import slots_held, slots_waited_for
from codexa.core.program.slot_plan import slot_plan
from codexa.services.errands.asking import ask
from codexa.store import claims, responses, runs
from codexa.store.database import Connection
from codexa.store.responses import Booking

MOVE_UP = "move up on a waiting list"


def booking_of(state: State) -> Booking:
    """Return how the slots of a response stand as it is accepted."""
    if not slots_held(state):
        return "none"
    return "waiting" if slots_waited_for(state) else "booked"


def keep_changed(connection: Connection, form: UUID, number: int, accepted: Accepted) -> None:
    """Keep what a response is worked out to anew, and how its slots stand."""
    responses.set_numbered(
        connection,
        form=form,
        number=number,
        answers=accepted.answers,
        computed=accepted.computed,
        path=accepted.path,
        confirmation=accepted.confirmation,
    )
    _set_booking(connection, form, number, accepted.state)


def keep_booking(connection: Connection, form: UUID, number: int, state: State) -> None:
    """Keep how the slots of a response stand, and let those who wait move up, after its slots have changed."""
    if state.program.has_slots:
        _set_booking(connection, form, number, state)
        let_move_up(connection, form)


def _set_booking(connection: Connection, form: UUID, number: int, state: State) -> None:
    waiting = slots_waited_for(state)
    responses.set_booking(connection, form=form, number=number, booking=booking_of(state), waiting=waiting)


def let_move_up(connection: Connection, form: UUID) -> None:
    """Have those who wait move up, where there is room for them; in the transaction that has made the room."""
    for name in claims.waited_for(connection, form=form):
        ask(connection, MOVE_UP, {"form": str(form), "name": name})


def plan(connection: Connection, form: UUID, edition: Form) -> None:
    """Keep which slots the live edition has, with their places; who waits for one of them may move up."""
    claims.plan_slots(connection, form=form, places=slot_plan(edition))
    let_move_up(connection, form)


def release(connection: Connection, form: UUID, number: int) -> None:
    """Give back what a response has claimed, slots too; who waits for them may move up."""
    claims.release(connection, form=form, number=number)
    if _has_slots(connection, form, number):
        responses.set_booking(connection, form=form, number=number, booking="cancelled")
        runs.withdraw_days(connection, form=form, number=number, why="not done: its booking was given back")
        let_move_up(connection, form)


def take_again(connection: Connection, form: UUID, number: int) -> None:
    """Take again what a response has given back; a slot that somebody else has got is not given twice."""
    lost = claims.take_again(connection, form=form, number=number)
    if lost:
        responses.add_event(
            connection, form=form, number=number, kind="cancelled", key="given away", who="clock", data={"slots": lost}
        )
    elif _has_slots(connection, form, number):
        had = claims.of_response(connection, form=form, number=number)
        waits = any(each.waiting_since is not None for each in had.values())
        responses.set_booking(connection, form=form, number=number, booking="waiting" if waits else "booked")


def _has_slots(connection: Connection, form: UUID, number: int) -> bool:
    facets = responses.facets(connection, form=form, number=number)
    return facets is not None and facets[0] != "none"
