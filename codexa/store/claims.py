"""Claims: what responses have taken of things that run out."""

from collections.abc import Sequence
from dataclasses import replace
from uuid import UUID

from codexa.core.program.claims import Claim
from codexa.store.database import Connection, many
from codexa.store.queries import queries

_QUERIES = queries("claims")


def take(connection: Connection, *, form: UUID, claims: Sequence[Claim]) -> str | None:
    """Take all of it, in the order of names, or return the name of what is gone: then all must be rolled back."""
    # Everybody takes in the same order, so that nobody waits for each other.
    for claim in sorted(claims, key=lambda each: each.name):
        if claim.capacity is None:
            taken = _take_places(connection, claim)
        else:
            known = {"name": claim.name, "quantity": claim.quantity, "capacity": claim.capacity}
            taken = connection.execute(_QUERIES["take"], {"form": form, **known}).fetchone() is not None
        if not taken:
            return claim.name
    return None


def _take_places(connection: Connection, claim: Claim) -> bool:
    _, table, number, column = claim.name.split(":")
    known = {"table": UUID(table), "number": int(number), "column": column, "quantity": claim.quantity}
    return connection.execute(_QUERIES["take_places"], known).fetchone() is not None


def keep(connection: Connection, *, form: UUID, number: int, claims: Sequence[Claim]) -> None:
    """Keep with a response what it has taken."""
    for claim in claims:
        known = {"form": form, "number": number, "name": claim.name, "quantity": claim.quantity}
        connection.execute(_QUERIES["keep"], known)


def of_response(connection: Connection, *, form: UUID, number: int) -> dict[str, int]:
    """Return what a response has taken of what is ordered, by name, and has not given back."""
    rows = many(connection, _QUERIES["of_response"], form=form, number=number)
    return {row["name"]: int(row["quantity"]) for row in rows}


def move(connection: Connection, *, form: UUID, number: int, claims: Sequence[Claim]) -> str | None:
    """Have a response take this of what is ordered in the place of what it had; what is taken less is free again.

    Returns the name of what is gone, or None: then all must be rolled back, as with `take`.
    """
    had = of_response(connection, form=form, number=number)
    wanted = {each.name: each for each in claims}
    # Each thing in the order in which everybody takes it.
    for name in sorted(wanted.keys() | had.keys()):
        claim, more = wanted.get(name), -had.get(name, 0)
        if claim is not None and (more := more + claim.quantity) > 0:
            if take(connection, form=form, claims=[replace(claim, quantity=more)]) is not None:
                return name
        elif more < 0:
            connection.execute(_QUERIES["give_back"], {"form": form, "name": name, "quantity": -more})
    connection.execute(_QUERIES["forget_ordered"], {"form": form, "number": number})
    keep(connection, form=form, number=number, claims=claims)
    return None


def release(connection: Connection, *, form: UUID, number: int) -> None:
    """Give back what a response had taken; a second time gives nothing back."""
    connection.execute(_QUERIES["release"], {"form": form, "number": number})


def take_again(connection: Connection, *, form: UUID, number: int) -> None:
    """Take again what a response had given back, whatever is left: it is sold."""
    connection.execute(_QUERIES["take_again"], {"form": form, "number": number})


def taken(connection: Connection, *, form: UUID) -> dict[str, int]:
    """Return how much of each thing of a form is taken, by the thing's name."""
    return {row["name"]: int(row["taken"]) for row in many(connection, _QUERIES["taken"], form=form)}
