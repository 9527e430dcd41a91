"""Visits to forms: those of the last day one by one, those before counted; and what of them a funnel is made of."""

import datetime
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from psycopg import sql
from psycopg.types.json import Jsonb

from codexa.store.database import Connection, exactly_one, many
from codexa.store.ledger_queries import Asked, Where, compared, joined, run
from codexa.store.queries import queries

_QUERIES = queries("visits")
# By which of them visits can be told apart.
DIMENSIONS = ("edition", "way", "page", "link", "width")
MOST_PAGES, OTHER_PAGES = 100, "…"

_SUMS = (
    "SELECT {by}::text AS value, sum(seen)::bigint AS seen, sum(started)::bigint AS started, sum(sent)::bigint AS sent"
    " FROM (SELECT {by}, seen, started, sent FROM visit_slice WHERE {where}"
    " UNION ALL SELECT {by}, 1, started::integer, sent::integer FROM visit WHERE {where}) AS told"
    " GROUP BY 1 ORDER BY 2 DESC, 1 LIMIT {most}"
)
_COUNTS = (
    "SELECT what, part, bucket, sum(number)::bigint AS number FROM"
    " (SELECT what, part, bucket, number FROM visit_count JOIN visit_slice ON visit_slice.id = slice_id WHERE {where}"
    " UNION ALL SELECT what, part, bucket, 1 FROM visit_fact JOIN visit USING (id) WHERE {where}) AS told"
    " GROUP BY what, part, bucket"
)


@dataclass(frozen=True, kw_only=True, slots=True)
class Visit:
    """How far a visit has come `at` a moment, by the columns of migration 0020; `steps` are classes of time by step."""

    id: UUID
    form: UUID
    at: datetime.datetime
    day: datetime.date
    edition: int
    presentation: str
    way: str
    page: str
    link: str
    width: str
    turn: int
    started: bool
    sent: bool
    place: str
    field: str
    steps: dict[str, int]
    wrong: list[str]
    took: int | None


def keep(connection: Connection, visit: Visit) -> None:
    """Keep how far a visit has come, unless something newer is known."""
    known = {name: getattr(visit, name) for name in Visit.__slots__}
    connection.execute(_QUERIES["keep"], known | {"steps": Jsonb(visit.steps)})


def count_over(connection: Connection, *, hours: int, most: int) -> int:
    """Count so many visits that began so long ago, forget them, and return how many there were."""
    values = {"hours": hours, "most": most, "pages": MOST_PAGES, "others": OTHER_PAGES}
    return int(exactly_one(connection, _QUERIES["count_over"], **values)["count"])


def count_by_month(connection: Connection, *, before: datetime.date, most: int) -> int:
    """Add up to so many counts of days before a day to those of their months, and return how many there were."""
    return int(exactly_one(connection, _QUERIES["count_by_month"], before=before, most=most)["count"])


@dataclass(frozen=True, kw_only=True, slots=True)
class Sums:
    """Of visits that have something in common: how many came, answered something, and sent."""

    value: str
    seen: int
    started: int
    sent: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Count:
    """How often something was there at a part of the form, in a class of time."""

    what: str
    part: str
    bucket: int
    number: int


def finished(connection: Connection, *, team: UUID, since: datetime.date) -> dict[UUID, tuple[int, int]]:
    """Return of the team's forms how many came and how many sent since a day, by form."""
    found = many(connection, _QUERIES["finished"], team=team, since=since)
    return {row["form_id"]: (row["seen"], row["sent"]) for row in found}


def where_of(form: UUID, asked: Sequence[tuple[str, Asked]], *, match_all: bool, besides: Mapping[str, str]) -> Where:
    """Return the condition that chooses a form's visits: by what is asked of their columns, all of it or any.

    What columns are `besides` holds in any case.
    """
    parts = [Where(sql.SQL("form_id = %s"), [form])]
    parts += [Where(sql.SQL("{} = %s").format(sql.Identifier(column)), [value]) for column, value in besides.items()]
    if asked:
        conditions = [compared(_value(column), each) for column, each in asked]
        parts.append(joined(conditions, " AND " if match_all else " OR "))
    return joined(parts, " AND ")


def _value(column: str) -> sql.Composable:
    """Return what a column is compared by: a page in small letters, as what texts are compared with is folded."""
    return sql.SQL("lower(page)" if column == "page" else "{}").format(sql.Identifier(column))


def sums(connection: Connection, where: Where, *, by: str, most: int) -> list[Sums]:
    """Return visits by what they have in common in a column, those that are most first."""
    query = sql.SQL(_SUMS).format(by=sql.Identifier(by), where=where.text, most=sql.Literal(most))
    return [Sums(**row) for row in run(connection, query, _twice(where))]


def counts(connection: Connection, where: Where) -> list[Count]:
    """Return what was counted of visits."""
    query = sql.SQL(_COUNTS).format(where=where.text)
    return [Count(**row) for row in run(connection, query, _twice(where))]


def _twice(where: Where) -> list[Any]:
    return [*where.values, *where.values]
