"""Letting a response stand with a part of its form, in the transaction of what brings it there."""

from dataclasses import dataclass
from typing import Literal
from uuid import UUID

from codexa.core.context import FILLING_IN
from codexa.core.form.form import FormPart
from codexa.core.program.evaluate import State
from codexa.core.program.handing_on import part_after
from codexa.services.errands.asking import ask
from codexa.store import responses
from codexa.store import standings as store
from codexa.store.database import Connection

ARRIVED = "part waits"
Whereto = FormPart | Literal[""] | None  # a part, who filled it in, or nobody any more
WHO_FILLED_IN = "who filled it in"
_DONE = "nobody any more"


@dataclass(frozen=True, kw_only=True, slots=True)
class Move:
    """A response that is handed on or back: by whom, with which remark; `sent_back_by` is the part that asks again.

    `who` and `person` are as an event has them, `by_name` as people read it.
    """

    kind: Literal["handed on", "handed back"] = "handed on"
    who: str = "visitor"
    person: UUID | None = None
    by_name: str = ""
    remark: str = ""
    sent_back_by: str | None = None


def called(to: Whereto) -> str:
    """Return what the team calls where a response went."""
    return _DONE if to is None else to.name if isinstance(to, FormPart) else WHO_FILLED_IN


def begin(connection: Connection, state: State, form: UUID, number: int) -> None:
    """Let a response that is complete stand with the first part of its form that applies, where there is one."""
    first = part_after(state, FILLING_IN)
    if first is not None:
        move_to(connection, form, number, first, Move())


def move_to(connection: Connection, form: UUID, number: int, to: Whereto, move: Move) -> str:
    """Let a response stand with a part, with who filled it in (""), or with nobody (None); return the turn's key."""
    turn = store.count_turns(connection, form=form, number=number) + 1
    name = called(to)
    if to is None:
        store.remove(connection, form=form, number=number)
    else:
        store.put(
            connection,
            form=form,
            number=number,
            part=to.id if isinstance(to, FormPart) else FILLING_IN,
            name=name,
            groups=to.groups if isinstance(to, FormPart) else (),
            sent_back_by=move.sent_back_by,
            remark=move.remark,
            by_name=move.by_name,
            turn=turn,
        )
    responses.add_event(
        connection,
        form=form,
        number=number,
        kind=move.kind,
        key=str(turn),
        who=move.who,
        person=move.person,
        data={"name": name, "remark": move.remark, **({"by": move.by_name} if move.by_name else {})},
    )
    if isinstance(to, FormPart):
        ask(connection, ARRIVED, {"form": str(form), "number": number, "turn": turn})
    return str(turn)
