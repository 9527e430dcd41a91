"""Standings: with which part of its form a response stands, from its first part to its last."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("standings")
NOBODY = "none"  # what a response says that stands with nobody


@dataclass(frozen=True, kw_only=True, slots=True)
class Standing:
    """With which part a response stands ("" for who filled it in), and the codes of the groups that change it.

    `sent_back_by` is the part that sent it back, None where it was handed on; `turn` counts how often it moved.
    """

    part: str
    name: str
    groups: list[str]
    sent_back_by: str | None
    remark: str
    by_name: str
    turn: int
    since: datetime
    form_name: str
    team_id: UUID


@dataclass(frozen=True, kw_only=True, slots=True)
class WaitingPart:
    """A response that waits for somebody at a part ("" where it is back with who filled it in)."""

    form_id: UUID
    form_name: str
    number: int
    part: str
    name: str
    since: datetime
    remark: str
    by_name: str


def find(connection: Connection, *, form: UUID, number: int) -> Standing | None:
    """Return where a response stands; None where with nobody, or it is complete no more."""
    row = one(connection, _QUERIES["find"], form=form, number=number)
    return None if row is None else Standing(**row)


def count_turns(connection: Connection, *, form: UUID, number: int) -> int:
    """Return how often a response was handed on or back."""
    return int(exactly_one(connection, _QUERIES["count_turns"], form=form, number=number)["count"])


def put(
    connection: Connection,
    *,
    form: UUID,
    number: int,
    part: str,
    name: str,
    groups: Sequence[str],
    sent_back_by: str | None,
    remark: str,
    by_name: str,
    turn: int,
) -> None:
    """Let a response stand with a part."""
    known = {"form": form, "number": number, "part": part, "name": name, "groups": list(groups), "turn": turn}
    said = {"sent_back_by": sent_back_by, "remark": remark, "by_name": by_name}
    connection.execute(_QUERIES["put"], known | said)
    connection.execute(_QUERIES["set_facet"], {"form": form, "number": number, "name": name})


def remove(connection: Connection, *, form: UUID, number: int) -> None:
    """Let a response stand with nobody."""
    known = {"form": form, "number": number}
    connection.execute(_QUERIES["remove"], known)
    connection.execute(_QUERIES["set_facet"], known | {"name": NOBODY})


def names(connection: Connection, *, form: UUID) -> list[str]:
    """Return the names of the parts with which responses of a form stand now."""
    return [row["name"] for row in many(connection, _QUERIES["names"], form=form)]


def may_change(connection: Connection, *, team: UUID, person: UUID, groups: Sequence[str]) -> bool:
    """Whether somebody of a team may change a part of these groups; an owner may where nobody is in them."""
    known = {"team": team, "person": person, "groups": list(groups)}
    return bool(exactly_one(connection, _QUERIES["may_change"], **known)["may"])


def waiting_for_person(
    connection: Connection, *, team: UUID, person: UUID, owner: bool, most: int
) -> list[WaitingPart]:
    """Return what waits for somebody of the team; for an owner also what nobody else is left for."""
    rows = many(connection, _QUERIES["waiting_for_person"], team=team, person=person, owner=owner, most=most)
    return [WaitingPart(**row) for row in rows]


def waiting_for_member(
    connection: Connection, *, team: UUID, member: UUID, groups: Sequence[str], most: int
) -> list[WaitingPart]:
    """Return what waits for a member, by their groups or because they filled it in."""
    rows = many(connection, _QUERIES["waiting_for_member"], team=team, member=member, groups=list(groups), most=most)
    return [WaitingPart(**row) for row in rows]


def addresses(connection: Connection, *, team: UUID, groups: Sequence[str]) -> list[tuple[str, str]]:
    """Return the names and addresses of whoever changes a part; of the owners where nobody does."""
    rows = many(connection, _QUERIES["addresses"], team=team, groups=list(groups))
    return [(row["name"] or "", row["email"]) for row in rows]
