"""Published records: at which address of a team, and which they are."""

from collections.abc import Sequence
from uuid import UUID

from codexa.core.tables.publication import KeptContent
from codexa.store.database import Connection, many, one
from codexa.store.queries import queries
from codexa.store.tables import TableRow

_QUERIES = queries("content")


def find_publication(connection: Connection, *, team: str, address: str) -> TableRow | None:
    """Return the table that a team publishes at an address."""
    row = one(connection, _QUERIES["find_publication"], team=team, address=address)
    return TableRow(**row) if row else None


def published_records(connection: Connection, *, table: UUID, first: int, most: int) -> list[KeptContent]:
    """Return published records from a place on, the newest first."""
    rows = many(connection, _QUERIES["published_records"], table=table, first=first, most=most)
    return [KeptContent(**row) for row in rows]


def is_taken(connection: Connection, *, team: UUID, table: UUID | None, address: str) -> bool:
    """Say whether another table of the team is published at an address; until the transaction ends nobody takes it."""
    connection.execute(_QUERIES["hold_addresses"], {"team": team})
    known = {"team": team, "table": table or UUID(int=0), "address": address}
    return one(connection, _QUERIES["is_taken"], **known) is not None


def publish(
    connection: Connection, *, table: UUID, numbers: Sequence[int], published: bool, person: UUID | None
) -> list[int]:
    """Publish records or take them back; return those that were not so before."""
    known = {"table": table, "numbers": list(numbers), "published": published, "person": person}
    return [row["number"] for row in many(connection, _QUERIES["publish"], **known)]
