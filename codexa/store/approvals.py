"""Approvals: who is asked about a response, step by step, and what they said."""

from collections.abc import Collection
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("approvals")
State = Literal["asked", "asked back", "approved", "denied", "withdrawn"]
Decision = Literal["none", "asked", "approved", "denied"]


@dataclass(frozen=True, kw_only=True, slots=True)
class Approval:
    """An approval as it stands: at which of so many steps, whether every one of it has to approve, and until when."""

    id: UUID
    form_id: UUID
    team_id: UUID
    number: int
    name: str
    subject: str
    state: State
    at_step: int
    steps: int
    step_name: str
    every: bool
    asked_at: datetime
    due_at: datetime | None


@dataclass(frozen=True, kw_only=True, slots=True)
class MayDecide:
    """Somebody who may decide now: for which decider, None for an owner where nobody else is left."""

    id: UUID
    name: str
    email: str
    decider: int | None
    stands_in: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class Waiting:
    """What waits for a decision."""

    id: UUID
    form_id: UUID
    form_name: str
    number: int
    name: str
    subject: str
    asked_at: datetime
    step_name: str
    due_at: datetime | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Decided:
    """What somebody has decided."""

    form_id: UUID
    form_name: str
    number: int
    kind: str
    at: datetime
    data: dict[str, Any]


@dataclass(frozen=True, kw_only=True, slots=True)
class Said:
    """What was said about a response, by whom."""

    kind: str
    at: datetime
    person: str | None
    data: dict[str, Any]


def insert(
    connection: Connection, *, form: UUID, number: int, follow_up: str, moment: str, name: str, subject: str
) -> UUID | None:
    """Ask for an approval, and return its id; None where that event has asked for it already."""
    known = {"form": form, "number": number, "follow_up": follow_up, "moment": moment}
    row = one(connection, _QUERIES["insert_approval"], **known, name=name, subject=subject)
    return None if row is None else row["id"]


def insert_step(connection: Connection, *, approval: UUID, position: int, step: dict[str, Any]) -> None:
    """Keep one of its steps with who decides there, as the core has worked it out."""
    known = {"approval": approval, "position": position}
    settings = {name: step[name] for name in ("name", "every", "hours", "remind")}
    connection.execute(_QUERIES["insert_step"], known | settings)
    deciders = [*((each, False) for each in step["deciders"]), *((each, True) for each in step["stand_in"])]
    for each, stands_in in deciders:
        who = {"person": each.get("person"), "group": each.get("group"), "address": each.get("address")}
        connection.execute(_QUERIES["insert_decider"], known | who | {"stands_in": stands_in})


def begin_step(connection: Connection, *, approval: UUID, position: int) -> tuple[datetime | None, int | None]:
    """Begin the turn of a step; return until when it is to be decided, and how many hours before to remind."""
    row = exactly_one(connection, _QUERIES["begin_step"], approval=approval, position=position)
    return row["due_at"], row["remind"]


def who_may(connection: Connection, *, approval: UUID) -> list[MayDecide]:
    """Return who may decide about an approval now, by name; once for each decider whom they decide for."""
    return [MayDecide(**row) for row in many(connection, _QUERIES["who_may"], approval=approval)]


def has_part(connection: Connection, *, approval: UUID, person: UUID) -> bool:
    """Whether a person is asked in any step of an approval, or has decided in it."""
    return bool(exactly_one(connection, _QUERIES["has_part"], approval=approval, person=person)["has_part"])


def lock(connection: Connection, *, approval: UUID) -> Approval | None:
    """Return an approval, kept from others until the transaction ends; None where it or its response is gone."""
    row = one(connection, _QUERIES["lock_approval"], approval=approval)
    return None if row is None else Approval(**row)


def find(connection: Connection, *, approval: UUID) -> Approval | None:
    """Return an approval as it stands; None where it or its response is gone."""
    row = one(connection, _QUERIES["find_approval"], approval=approval)
    return None if row is None else Approval(**row)


def approve_for(connection: Connection, *, person: UUID, deciders: Collection[int]) -> None:
    """Have a person approve for these deciders."""
    connection.execute(_QUERIES["approve_for"], {"person": person, "deciders": list(deciders)})


def still_to_approve(connection: Connection, *, approval: UUID, position: int) -> int:
    """Return how many of a step's deciders have not approved yet."""
    return int(exactly_one(connection, _QUERIES["still_to_approve"], approval=approval, position=position)["count"])


def set_state(connection: Connection, *, approval: UUID, state: State, step: int) -> None:
    """Keep how an approval stands, and at which step."""
    connection.execute(_QUERIES["set_state"], {"approval": approval, "state": state, "step": step})


def states_of(connection: Connection, *, form: UUID, number: int) -> list[State]:
    """Return how all approvals of a response stand."""
    return [row["state"] for row in many(connection, _QUERIES["states_of"], form=form, number=number)]


def open_of_response(connection: Connection, *, form: UUID, number: int) -> list[tuple[UUID, State, int]]:
    """Return the approvals of a response that are still open: each with its state and step."""
    rows = many(connection, _QUERIES["open_of_response"], form=form, number=number)
    return [(row["id"], row["state"], row["at_step"]) for row in rows]


def set_decision(connection: Connection, *, form: UUID, number: int, decision: Decision) -> None:
    """Keep what was decided of a response."""
    connection.execute(_QUERIES["set_decision"], {"form": form, "number": number, "decision": decision})


def waiting_for(connection: Connection, *, team: UUID, person: UUID, owner: bool, most: int) -> list[Waiting]:
    """Return what waits for a person; for an owner also what nobody else is left for."""
    rows = many(connection, _QUERIES["waiting_for"], team=team, person=person, most=most)
    rows += many(connection, _QUERIES["nobody_left"], team=team, most=most) if owner else []
    return [Waiting(**row) for row in rows[:most]]


def decided_by(connection: Connection, *, team: UUID, person: UUID, most: int) -> list[Decided]:
    """Return what a person has decided, the latest first."""
    return [Decided(**row) for row in many(connection, _QUERIES["decided_by"], team=team, person=person, most=most)]


def said_of(connection: Connection, *, form: UUID, number: int) -> list[Said]:
    """Return what was said about a response, in order."""
    return [Said(**row) for row in many(connection, _QUERIES["said_of"], form=form, number=number)]


def last_said(connection: Connection, *, form: UUID, number: int) -> tuple[str, str, str] | None:
    """Return what was said last about a response: the kind of it, the remark, and by whom; None for nothing yet."""
    row = one(connection, _QUERIES["last_said"], form=form, number=number)
    return None if row is None else (row["kind"], row["remark"] or "", row["person"] or "")
