"""Claims: what responses have taken of things that run out."""

from collections.abc import Sequence
from uuid import UUID

from codexa.core.program.claims import Claim
from codexa.store.database import Connection, many
from codexa.store.queries import queries

_QUERIES = queries("claims")


def take(connection: Connection, *, form: UUID, claims: Sequence[Claim]) -> str | None:
    """Take all of it, in the order of names, or return the name of what is gone: then all must be rolled back."""
    # Everybody takes in the same order, so that nobody waits for each other.
    for claim in sorted(claims, key=lambda each: each.name):
        known = {"name": claim.name, "quantity": claim.quantity, "capacity": claim.capacity}
        if connection.execute(_QUERIES["take"], {"form": form, **known}).fetchone() is None:
            return claim.name
    return None


def keep(connection: Connection, *, form: UUID, number: int, claims: Sequence[Claim]) -> None:
    """Keep with a response what it has taken."""
    for claim in claims:
        known = {"form": form, "number": number, "name": claim.name, "quantity": claim.quantity}
        connection.execute(_QUERIES["keep"], known)


def release(connection: Connection, *, form: UUID, number: int) -> None:
    """Give back what a response had taken; a second time gives nothing back."""
    connection.execute(_QUERIES["release"], {"form": form, "number": number})


def take_again(connection: Connection, *, form: UUID, number: int) -> None:
    """Take again what a response had given back, whatever is left: it is sold."""
    connection.execute(_QUERIES["take_again"], {"form": form, "number": number})


def taken(connection: Connection, *, form: UUID) -> dict[str, int]:
    """Return how much of each thing of a form is taken, by the thing's name."""
    return {row["name"]: int(row["taken"]) for row in many(connection, _QUERIES["taken"], form=form)}
