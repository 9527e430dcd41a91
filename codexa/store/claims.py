"""Claims: what responses have taken of things that run out, and what they wait for."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from uuid import UUID

from codexa.core.program.claims import Claim
from codexa.store.database import Connection, many
from codexa.store.queries import queries

_QUERIES = queries("claims")


@dataclass(frozen=True, kw_only=True, slots=True)
class Had:
    """So many of something that a response has, or waits for since then."""

    quantity: int
    waiting_since: datetime | None


@dataclass(frozen=True, kw_only=True, slots=True)
class SlotRow:
    """A slot of the live edition: its name, how many of its places are taken, and whether the team has closed it.

    The capacity is 0 where the live edition has it no more.
    """

    name: str
    taken: int
    capacity: int
    closed: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class SlotTaker:
    """Which response has so many places of a slot, or waits for them since then."""

    name: str
    number: int
    quantity: int
    waiting_since: datetime | None


def take(connection: Connection, *, form: UUID, claims: Sequence[Claim]) -> str | None:
    """Take all of it, in the order of names, or return the name of what is gone: then all must be rolled back.

    What is to be waited for and is free is returned, too: it is to be looked at again.
    """
    # Everybody takes in the same order, so that nobody waits for each other.
    for claim in sorted(claims, key=lambda each: each.name):
        known = {"name": claim.name, "quantity": claim.quantity, "capacity": claim.capacity}
        if claim.waiting:
            row = connection.execute(_QUERIES["wait_for"], {"form": form, **known}).fetchone()
            taken = row is not None and row["full"]
        elif claim.capacity is None:
            taken = _take_places(connection, claim)
        else:
            taken = connection.execute(_QUERIES["take"], {"form": form, **known}).fetchone() is not None
        if not taken:
            return claim.name
    return None


def _take_places(connection: Connection, claim: Claim) -> bool:
    _, table, number, column = claim.name.split(":")
    known = {"table": UUID(table), "number": int(number), "column": column, "quantity": claim.quantity}
    return connection.execute(_QUERIES["take_places"], known).fetchone() is not None


def keep(
    connection: Connection,
    *,
    form: UUID,
    number: int,
    claims: Sequence[Claim],
    since: Mapping[str, datetime] | None = None,
) -> None:
    """Keep with a response what it has taken, and what it waits for: by its name `since` then, else from now on."""
    for claim in claims:
        known = {"form": form, "number": number, "name": claim.name, "quantity": claim.quantity}
        waiting = {"waiting": claim.waiting, "since": (since or {}).get(claim.name)}
        connection.execute(_QUERIES["keep"], known | waiting)


def of_response(connection: Connection, *, form: UUID, number: int) -> dict[str, Had]:
    """Return what a response has of what is ordered, or waits for, by name, and has not given back."""
    rows = many(connection, _QUERIES["of_response"], form=form, number=number)
    return {row["name"]: Had(quantity=row["quantity"], waiting_since=row["waiting_since"]) for row in rows}


def move(connection: Connection, *, form: UUID, number: int, claims: Sequence[Claim]) -> str | None:
    """Have a response take this of what is ordered in the place of what it had; what is taken less is free again.

    Returns the name of what is gone, or None: then all must be rolled back, as with `take`.
    """
    had = of_response(connection, form=form, number=number)
    waited = {name: each.waiting_since for name, each in had.items() if each.waiting_since is not None}
    owned = {name: each.quantity for name, each in had.items() if each.waiting_since is None}
    wanted = {each.name: each for each in claims}
    # Each thing in the order in which everybody takes it.
    for name in sorted(wanted.keys() | owned.keys()):
        claim, more = wanted.get(name), -owned.get(name, 0)
        if claim is not None and claim.waiting:
            if name not in waited and take(connection, form=form, claims=[claim]) is not None:
                return name
        elif claim is not None and (more := more + claim.quantity) > 0:
            if name in waited:
                connection.execute(_QUERIES["forget_waiting"], {"form": form, "number": number, "name": name})
            if take(connection, form=form, claims=[replace(claim, quantity=more)]) is not None:
                return name
        elif more < 0:
            connection.execute(_QUERIES["give_back"], {"form": form, "name": name, "quantity": -more})
    connection.execute(_QUERIES["forget_ordered"], {"form": form, "number": number})
    keep(connection, form=form, number=number, claims=claims, since=waited)
    return None


def release(connection: Connection, *, form: UUID, number: int) -> None:
    """Give back what a response had taken; a second time gives nothing back."""
    connection.execute(_QUERIES["release"], {"form": form, "number": number})


def release_slots(connection: Connection, *, form: UUID, number: int) -> None:
    """Give back the slots that a response had; it waits for none any more."""
    connection.execute(_QUERIES["release_slots"], {"form": form, "number": number})


def take_again(connection: Connection, *, form: UUID, number: int) -> list[str]:
    """Take again what a response had given back, whatever is left: it is sold.

    Of slots only what is still free: nobody is booked twice. Returns the names of the slots that it did not get.
    """
    known = {"form": form, "number": number}
    connection.execute(_QUERIES["take_again"], known)
    lost = []
    for row in many(connection, _QUERIES["given_back"], **known):
        claim = Claim(name=row["name"], quantity=row["quantity"], capacity=row["quantity"], block="")
        slot = lock_slot(connection, form=form, name=claim.name)
        if row["waiting_since"] is None and slot is not None:
            claim = replace(claim, capacity=slot.capacity)
            if take(connection, form=form, claims=[claim]) is not None:
                lost.append(claim.name)
                continue
        connection.execute(_QUERIES["has_again"], known | {"name": claim.name})
    return lost


def taken(connection: Connection, *, form: UUID, at: datetime | None = None) -> dict[str, int]:
    """Return how much of each thing of a form is taken, by the thing's name; of slots those that are not over then.

    Then is `at` where that is given, else now.
    """
    # The day before, wherever the form is at home.
    since = ((at or datetime.now(UTC)) - timedelta(days=1)).date().isoformat()
    return {row["name"]: int(row["taken"]) for row in many(connection, _QUERIES["taken"], form=form, since=since)}


def plan_slots(connection: Connection, *, form: UUID, places: Mapping[str, int]) -> None:
    """Keep how many places each slot has in the live edition, by name; all others have none."""
    known = {"form": form, "names": list(places), "places": list(places.values())}
    connection.execute(_QUERIES["plan_slots"], known)


def waited_for(connection: Connection, *, form: UUID) -> list[str]:
    """Return the slots, by name, in which there is room for somebody who waits for them."""
    return [row["name"] for row in many(connection, _QUERIES["waited_for"], form=form)]


def lock_slot(connection: Connection, *, form: UUID, name: str) -> SlotRow | None:
    """Return a slot, kept from others until the transaction ends; None where there never was one."""
    row = connection.execute(_QUERIES["lock_slot"], {"form": form, "name": name}).fetchone()
    if row is None:
        return None
    return SlotRow(name=name, taken=row["taken"], capacity=row["capacity"] or 0, closed=row["closed"])


def in_line(connection: Connection, *, form: UUID, name: str) -> list[tuple[int, int]]:
    """Return who waits for a slot, who waits longest first: the response's number, and how many places it wants."""
    return [(row["number"], row["quantity"]) for row in many(connection, _QUERIES["in_line"], form=form, name=name)]


def get_slot(connection: Connection, *, form: UUID, number: int, name: str) -> None:
    """Give a slot to a response that waited for it; whoever calls has it locked, and has seen that there is room."""
    connection.execute(_QUERIES["get_slot"], {"form": form, "number": number, "name": name})


def close_slot(connection: Connection, *, form: UUID, name: str, closed: bool) -> bool:
    """Close a slot of the live edition for everybody, or open it again; False where there is no such slot."""
    known = {"form": form, "name": name, "closed": closed}
    return connection.execute(_QUERIES["close_slot"], known).fetchone() is not None


def slots_between(connection: Connection, *, form: UUID, first: str, last: str) -> list[SlotRow]:
    """Return the slots whose names lie from `first` to before `last`, in order of time."""
    rows = many(connection, _QUERIES["slots_between"], form=form, first=first, last=last)
    return [SlotRow(**{**row, "capacity": row["capacity"] or 0}) for row in rows]


def who_has_slots(connection: Connection, *, form: UUID, names: Collection[str]) -> list[SlotTaker]:
    """Return which responses have these slots, or wait for them, in that order."""
    rows = many(connection, _QUERIES["who_has_slots"], form=form, names=list(names))
    return [SlotTaker(**row) for row in rows]
