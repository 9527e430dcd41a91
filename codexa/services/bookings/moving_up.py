"""Moving up: who waits longest for a slot gets it once there is room, and is told."""

from dataclasses import replace
from uuid import UUID

from codexa.core.program.accept import accepted_of, kept_of
from codexa.core.program.evaluate import State
from codexa.core.program.kept import state_of_kept
from codexa.services.bookings.booking import keep_changed
from codexa.services.follow_ups.keeping import Happened, keep_days_anew, keep_due
from codexa.services.own_pages import OwnPages
from codexa.services.payments.settling import Way
from codexa.services.received import state_of_row
from codexa.store import claims, responses
from codexa.store.database import Connection


def move_up(way: Way, form: UUID, name: str) -> str:
    """Give a slot to those who wait for it, as far as there is room, and return how that ended in one line.

    Who wants more places than are left is passed over, and waits on.
    """
    with way.connect() as connection:
        waiting = claims.in_line(connection, form=form, name=name)
        rows = [responses.find_received(connection, form=form, number=number) for number, _ in waiting]
    # Compiled, if need be, before anything is locked.
    states = {row.number: state_of_row(way, form, row) for row in rows if row is not None}
    with way.connect() as connection:
        slot = claims.lock_slot(connection, form=form, name=name)
        if slot is None or slot.closed:
            return "there is nothing to move up to"
        left, moved = slot.capacity - slot.taken, []
        for number, quantity in claims.in_line(connection, form=form, name=name):
            if quantity <= left and number in states:
                left -= quantity
                _give(connection, way, form, name, states[number])
                moved.append(str(number))
    return f"moved up: {', '.join(moved)}" if moved else "nobody moved up"


def _give(connection: Connection, way: Way, form: UUID, name: str, state: State) -> None:
    number = state.context.number
    assert number is not None
    claims.get_slot(connection, form=form, number=number, name=name)
    context = replace(state.context, waiting=state.context.waiting - {name})
    accepted = accepted_of(state_of_kept(state.program, kept_of(state), context))
    keep_changed(connection, form, number, accepted)
    responses.add_event(
        connection, form=form, number=number, kind="moved up", key=name, who="clock", data={"slot": name}
    )
    event = Happened(form=form, number=number, moments=("moved up",), which=name)
    pages = OwnPages(settings=way.settings)
    keep_due(connection, accepted.state, event, pages)
    keep_days_anew(connection, accepted.state, event, pages)
