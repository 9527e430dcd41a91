"""Where an e-mail address stands beside answers: as who paid, on links, in mails that belong to no response."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.store.database import Connection, like_literal, many
from codexa.store.queries import queries

_QUERIES = queries("about_person")


def by_payer_or_link(connection: Connection, *, form: UUID, email: str) -> list[int]:
    """Return the numbers of a form's responses whose payer, or whose link, has an address (in small letters)."""
    return [row["number"] for row in many(connection, _QUERIES["by_payer_or_link"], form=form, email=email)]


def forget_beside(connection: Connection, *, team: UUID, email: str) -> None:
    """Forget an address (in small letters) of a team's links and of mails that belong to no response."""
    for name in ("forget_links", "forget_errands"):
        connection.execute(_QUERIES[name], {"team": team, "email": email})


@dataclass(frozen=True, kw_only=True, slots=True)
class NamedRecord:
    """A record that has a text: of which table, with its definition; what it has now, and what it had `before`."""

    table_id: UUID
    table_name: str
    definition: dict[str, Any]
    number: int
    kept: dict[str, Any]
    before: list[dict[str, Any]]


def records_by_address(connection: Connection, *, team: UUID, email: str, most: int) -> list[NamedRecord]:
    """Return the team's records, removed ones too, that have an address somewhere, now or before."""
    rows = many(connection, _QUERIES["records_by_address"], team=team, pattern=f"%{like_literal(email)}%", most=most)
    return [NamedRecord(**row) for row in rows]


def forget_records(connection: Connection, *, team: UUID, table: UUID, numbers: Sequence[int]) -> None:
    """Forget records for good, with their history."""
    connection.execute(_QUERIES["forget_records"], {"team": team, "table": table, "numbers": list(numbers)})
