"""Asking for an approval, in the transaction of what it follows from; and the turn of each of its steps."""

from datetime import timedelta
from typing import Any
from uuid import UUID

from codexa.services.errands.asking import ask
from codexa.store import approvals as store
from codexa.store import responses
from codexa.store.approvals import Decision
from codexa.store.database import Connection

ASKED = "decision asked for"
REMINDER = "decision reminded of"
OVERDUE = "decision overdue"


def begin(connection: Connection, *, form: UUID, number: int, due: dict[str, Any]) -> None:
    """Ask for an approval as the core has worked it out; once for each event that asks for it."""
    content = due["content"]
    approval = store.insert(
        connection,
        form=form,
        number=number,
        follow_up=due["follow_up"],
        moment=due["moment"],
        name=due["name"],
        subject=content["subject"],
    )
    if approval is None:
        return
    for position, step in enumerate(content["steps"]):
        store.insert_step(connection, approval=approval, position=position, step=step)
    responses.add_event(
        connection,
        form=form,
        number=number,
        kind="decision asked",
        key=str(approval),
        who="clock",
        data={"name": due["name"], "subject": content["subject"]},
    )
    begin_turn(connection, approval, 0)
    keep_decision(connection, form, number)


def begin_turn(connection: Connection, approval: UUID, position: int) -> None:
    """Let a step be decided from now on: who decides there is told, and reminded in time."""
    due_at, remind = store.begin_step(connection, approval=approval, position=position)
    about = {"approval": str(approval), "step": position}
    ask(connection, ASKED, about)
    if due_at is not None:
        ask(connection, OVERDUE, about, at=due_at)
        if remind is not None:
            ask(connection, REMINDER, about, at=due_at - timedelta(hours=remind))


def keep_decision(connection: Connection, form: UUID, number: int) -> Decision:
    """Keep true what a response says of its approvals, and return it: one denial is enough, and all must approve."""
    states = [each for each in store.states_of(connection, form=form, number=number) if each != "withdrawn"]
    decision: Decision = "none"
    if "denied" in states:
        decision = "denied"
    elif "asked" in states or "asked back" in states:
        decision = "asked"
    elif states:
        decision = "approved"
    store.set_decision(connection, form=form, number=number, decision=decision)
    return decision
