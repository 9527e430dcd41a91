"""Responses: what came back."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from types import MappingProxyType
from typing import Any, Literal
from uuid import UUID

from psycopg.rows import args_row
from psycopg.types.json import Jsonb

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("responses")
NOT_TOLD: Mapping[str, Any] = MappingProxyType({})

Booking = Literal["none", "booked", "waiting", "cancelled"]


# Not frozen: hundreds of thousands are made for an export, and that takes a frozen one several times as long.
@dataclass(slots=True)
class AnswersRow:
    """What a response says: answers and computed values by block id. A `test` is a try of the team's."""

    number: int
    edition: int
    received_at: datetime
    answers: dict[str, Any]
    computed: dict[str, Any]
    test: bool


@dataclass(kw_only=True, slots=True)
class ResponseRow(AnswersRow):
    """A response as it was kept, with what who handed it in was told, and how it stands."""

    told: dict[str, Any]
    stage: str
    payment: str
    decision: str
    booking: Booking
    at_part: str
    status: str | None
    tags: list[str]
    person_id: UUID | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Standing:
    """How a response stands: its stage and facets, and what it says."""

    stage: str
    payment: str
    decision: str
    booking: Booking
    answers: dict[str, Any]
    computed: dict[str, Any]


@dataclass(frozen=True, kw_only=True, slots=True)
class ReceivedRow:
    """A response for who handed it in, with the address of its form and the sites that may frame it."""

    number: int
    edition: int
    answers: dict[str, Any]
    told: dict[str, Any]
    slug: str
    sites: list[str]
    team_slug: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Kept:
    """The response that an idempotency key stands for: its answers and what it was told, as JSON."""

    number: int
    content_digest: bytes
    answers: dict[str, Any]
    told: dict[str, Any]


@dataclass(frozen=True, kw_only=True, slots=True)
class Event:
    """Something that happened to a response: by the visitor, a person of the team (by name), the bank or the clock."""

    kind: str
    key: str
    at: datetime
    who: str
    person: str | None
    data: dict[str, Any]


@dataclass(frozen=True, kw_only=True, slots=True)
class HeldRow:
    """A response that is suspected, for which reasons by name; `removed` ones come back for some time."""

    number: int
    received_at: datetime
    suspected: list[str]
    removed: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class HowItCame:
    """By which way a response came, from which page and in how many seconds, as JSON; and by which sealed link.

    `batch` is what the link was made with, "" where there is none; `visitor` is who was signed in, as formulas knew
    them.
    """

    came: dict[str, Any]
    batch: str
    visitor: dict[str, str]


@dataclass(frozen=True, kw_only=True, slots=True)
class After:
    """A place in the order of responses, newest first: those that come after this one."""

    received_at: datetime
    number: int


def find_by_key(connection: Connection, *, form: UUID, key: str) -> tuple[bool, Kept | None]:
    """Say whether a form can still be answered, and return the response that was kept under an idempotency key."""
    row = one(connection, _QUERIES["find_by_key"], form=form, key=key)
    if row is None:
        return False, None
    is_open = bool(row.pop("open"))
    return is_open, None if row["number"] is None else Kept(**row)


def insert_response(
    connection: Connection,
    *,
    form: UUID,
    edition: int,
    answers: dict[str, Any],
    computed: dict[str, Any],
    path: Sequence[str],
    confirmation: str | None,
    key: str,
    digest: bytes,
    received_at: datetime,
    told: dict[str, Any],
    events: Sequence[str],
    stage: str = "complete",
    payment: str = "none",
    test: bool = False,
    held: bool = False,
    turn: int | None = None,
    came: Mapping[str, Any] = NOT_TOLD,
    sealed_link: int | None = None,
    member: UUID | None = None,
    filled_by: UUID | None = None,
    number: int | None = None,
    booking: Booking = "none",
) -> int | None:
    """Keep a response with what it was told and the events that it begins with, and return its number.

    `came` is how it came, `member` or `filled_by` whose it is, where somebody was signed in;
    `turn` is that of the access by which it was let in, None for whatever holds; `number` is
    that of a response that a visitor went on with. None is returned where the form can't be answered any more or not by
    that access or link, or one was kept under this key; no number is used up then.
    """
    # One value: this statement is on the way of every response, and each value of its own takes time.
    came_in = {
        "edition": edition,
        "received_at": received_at,
        "answers": answers,
        "computed": computed,
        "path": path,
        "confirmation": confirmation,
        "content_digest": f"\\x{digest.hex()}",
        "told": told,
        "stage": stage,
        "payment": payment,
        "test": test,
        "held": held,
        "came": dict(came),
        "member_id": member,
        "filled_by": filled_by,
        "booking": booking,
        "events": events,
    }
    row = exactly_one(
        connection,
        _QUERIES["insert_response" if number is None else "hand_in_kept"],
        number=number,
        form=form,
        turn=turn,
        sealed_link=sealed_link,
        key=key,
        came_in=Jsonb(came_in),
    )
    if row["number"] is None and row["took_one"]:
        connection.execute(_QUERIES["give_back_number"], {"form": form})
    return None if row["number"] is None else int(row["number"])


def set_booking(
    connection: Connection, *, form: UUID, number: int, booking: Booking, waiting: Collection[str] | None = None
) -> None:
    """Keep how the slots of a response stand, and for which it waits, by the names of their claims; None: as before."""
    known = {"form": form, "number": number, "booking": booking}
    known |= {"waiting": None if waiting is None else sorted(waiting)}
    connection.execute(_QUERIES["set_booking"], known)


def facets(connection: Connection, *, form: UUID, number: int) -> tuple[Booking, str] | None:
    """Return how the slots of a response stand, and what was decided of it; None where there is no such response."""
    row = one(connection, _QUERIES["facets_of"], form=form, number=number)
    return None if row is None else (row["booking"], row["decision"])


def lock_received(connection: Connection, *, form: UUID, number: int) -> Standing | None:
    """Return how a response stands, kept from others until the transaction ends; None where it was removed."""
    row = one(connection, _QUERIES["lock_received"], form=form, number=number)
    return None if row is None else Standing(**row)


def count_changes(connection: Connection, *, form: UUID, number: int) -> int:
    """Return how often a response was changed since it was handed in."""
    return int(exactly_one(connection, _QUERIES["count_changes"], form=form, number=number)["count"])


def add_event(
    connection: Connection,
    *,
    form: UUID,
    number: int,
    kind: str,
    key: str,
    who: str,
    data: dict[str, Any],
    person: UUID | None = None,
) -> bool:
    """Note something that happened to a response; False where that news had come before."""
    values = {"form": form, "number": number, "kind": kind, "key": key, "who": who, "person": person}
    return one(connection, _QUERIES["add_event"], data=Jsonb(data), **values) is not None


def set_numbered(
    connection: Connection,
    *,
    form: UUID,
    number: int,
    answers: dict[str, Any],
    computed: dict[str, Any],
    path: Sequence[str],
    confirmation: str | None,
) -> None:
    """Keep what could be worked out only once the response had its number."""
    values = {"form": form, "number": number, "answers": Jsonb(answers), "computed": Jsonb(computed)}
    connection.execute(_QUERIES["set_numbered"], {**values, "path": list(path), "confirmation": confirmation})


def list_events(connection: Connection, *, team: UUID, form: UUID, number: int) -> list[Event]:
    """Return what happened to a response, in order."""
    return [Event(**row) for row in many(connection, _QUERIES["list_events"], team=team, form=form, number=number)]


def page_of_responses(
    connection: Connection, *, team: UUID, form: UUID, limit: int, after: After | None = None
) -> list[ResponseRow]:
    """Return a page of complete responses, newest first: after a place in that order, or the first page."""
    place = {"received_at": after and after.received_at, "number": after and after.number}
    rows = many(connection, _QUERIES["page_of_responses"], team=team, form=form, limit=limit, **place)
    return [ResponseRow(**row) for row in rows]


def by_numbers(connection: Connection, *, form: UUID, numbers: Sequence[int]) -> dict[int, ResponseRow]:
    """Return responses of a form by their numbers, those that are there."""
    rows = many(connection, _QUERIES["by_numbers"], form=form, numbers=list(numbers))
    return {row["number"]: ResponseRow(**row) for row in rows}


def answers_by_numbers(connection: Connection, *, form: UUID, numbers: Sequence[int]) -> dict[int, AnswersRow]:
    """Return the same with no more than they say, which takes a third of the time to read."""
    with connection.cursor(row_factory=args_row(AnswersRow)) as cursor:
        rows = cursor.execute(_QUERIES["answers_by_numbers"], {"form": form, "numbers": list(numbers)})
        return {row.number: row for row in rows}


def find_response(connection: Connection, *, team: UUID, form: UUID, number: int) -> ResponseRow | None:
    """Return one response."""
    row = one(connection, _QUERIES["find_response"], team=team, form=form, number=number)
    return ResponseRow(**row) if row else None


def lock_response(connection: Connection, *, team: UUID, form: UUID, number: int) -> ResponseRow | None:
    """Return one response, which nobody else changes until the transaction ends."""
    row = one(connection, _QUERIES["lock_response"], team=team, form=form, number=number)
    return ResponseRow(**row) if row else None


def correct(
    connection: Connection,
    *,
    form: UUID,
    number: int,
    answers: dict[str, Any],
    computed: dict[str, Any],
    path: Sequence[str],
    confirmation: str | None,
    person: UUID | None,
    trail: dict[str, Any],
) -> None:
    """Keep other answers of a response, and in its events who corrected it and what it was before."""
    set_numbered(
        connection,
        form=form,
        number=number,
        answers=answers,
        computed=computed,
        path=path,
        confirmation=confirmation,
    )
    known = {"form": form, "number": number, "person": person, "trail": Jsonb(trail)}
    connection.execute(_QUERIES["corrected"], known)


def list_held(connection: Connection, *, team: UUID, form: UUID) -> list[HeldRow]:
    """Return the responses of a form that are suspected, newest first."""
    return [HeldRow(**row) for row in many(connection, _QUERIES["list_held"], team=team, form=form)]


def let_through(connection: Connection, *, team: UUID, form: UUID, number: int, person: UUID) -> bool:
    """Take a response that is held for a person's; False where none of that number is held."""
    return one(connection, _QUERIES["let_through"], team=team, form=form, number=number, person=person) is not None


def remove_held(connection: Connection, *, team: UUID, form: UUID, number: int, person: UUID) -> bool:
    """Remove a response that is held; False where none of that number is."""
    known = {"team": team, "form": form, "number": number, "person": person}
    how = {"from": "waiting", "to": "removed", "kind": "removed"}
    return one(connection, _QUERIES["move_held"], **known, **how) is not None


def bring_back_held(connection: Connection, *, team: UUID, form: UUID, number: int, person: UUID) -> bool:
    """Hold a response again that was removed; False where none of that number was."""
    known = {"team": team, "form": form, "number": number, "person": person}
    how = {"from": "removed", "to": "waiting", "kind": "brought back"}
    return one(connection, _QUERIES["move_held"], **known, **how) is not None


def forget_removed(connection: Connection, *, days: int) -> None:
    """Forget for ever what was removed as suspected so many days ago."""
    connection.execute(_QUERIES["forget_removed"], {"days": days})


def how_it_came(connection: Connection, *, team: UUID, form: UUID, number: int) -> HowItCame | None:
    """Return how a response came."""
    row = one(connection, _QUERIES["how_it_came"], team=team, form=form, number=number)
    return HowItCame(**row) if row else None


def find_received(connection: Connection, *, form: UUID, number: int) -> ReceivedRow | None:
    """Return a response for who handed it in; None where it or its form was removed."""
    row = one(connection, _QUERIES["find_received"], form=form, number=number)
    return ReceivedRow(**row) if row else None
