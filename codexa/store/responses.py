"""Responses: what came back."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("responses")
_ROWS_AT_ONCE = 500


@dataclass(frozen=True, kw_only=True, slots=True)
class ResponseRow:
    """A response as it was kept; answers and computed values by block id."""

    number: int
    edition: int
    received_at: datetime
    answers: dict[str, Any]
    computed: dict[str, Any]


@dataclass(frozen=True, kw_only=True, slots=True)
class Kept:
    """The response that an idempotency key stands for."""

    number: int
    content_digest: bytes


def find_by_key(connection: Connection, *, form: UUID, key: str) -> Kept | None:
    """Return the response that was kept under an idempotency key."""
    row = one(connection, _QUERIES["find_by_key"], form=form, key=key)
    return Kept(**row) if row else None


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
    received_at: datetime | None = None,
) -> int:
    """Keep a response and return its number; `received_at` only for demo data, now otherwise."""
    row = exactly_one(
        connection,
        _QUERIES["insert_response"],
        form=form,
        edition=edition,
        answers=Jsonb(answers),
        computed=Jsonb(computed),
        path=list(path),
        confirmation=confirmation,
        key=key,
        digest=digest,
        received_at=received_at,
    )
    return int(row["number"])


def set_computed(connection: Connection, *, form: UUID, number: int, computed: dict[str, Any]) -> None:
    """Keep what could be worked out only once the response had its number."""
    connection.execute(_QUERIES["set_computed"], {"form": form, "number": number, "computed": Jsonb(computed)})


def page_of_responses(
    connection: Connection, *, team: UUID, form: UUID, limit: int, offset: int
) -> tuple[list[ResponseRow], int]:
    """Return a page of responses, newest first, and how many there are in all."""
    values = {"team": team, "form": form}
    rows = many(connection, _QUERIES["page_of_responses"], **values, limit=limit, offset=offset)
    count = exactly_one(connection, _QUERIES["count_responses"], **values)["count"]
    return [ResponseRow(**row) for row in rows], int(count)


def all_responses(connection: Connection, *, team: UUID, form: UUID) -> Iterator[ResponseRow]:
    """Yield all responses, newest first, fetching a few at a time: memory stays the same however many there are."""
    with connection.cursor(name="export") as cursor:
        cursor.itersize = _ROWS_AT_ONCE
        cursor.execute(_QUERIES["all_responses"], {"team": team, "form": form})
        for row in cursor:
            yield ResponseRow(**row)


def find_response(connection: Connection, *, team: UUID, form: UUID, number: int) -> ResponseRow | None:
    """Return one response."""
    row = one(connection, _QUERIES["find_response"], team=team, form=form, number=number)
    return ResponseRow(**row) if row else None
