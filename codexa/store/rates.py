"""How often who asked, counted for all web processes together."""

from codexa.store.database import Connection, exactly_one
from codexa.store.queries import queries

_QUERIES = queries("rates")


def add(connection: Connection, *, subject: str, count: int, seconds: float) -> tuple[int, float]:
    """Add to a subject's count; return the whole count, and the seconds for which it still counts.

    A count that has ended begins anew, and ends in so many `seconds`.
    """
    row = exactly_one(connection, _QUERIES["add"], subject=subject, count=count, seconds=max(seconds, 0.0))
    return int(row["count"]), float(row["seconds"])


def delete_ended(connection: Connection) -> None:
    """Forget counts that have ended."""
    connection.execute(_QUERIES["delete_ended"])
