"""What a chosen set of responses comes to by a column: each value, spread, groups, time."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Any

from psycopg import sql

from codexa.core.responses.holds import Holds
from codexa.store.database import Connection
from codexa.store.ledger_orders import value_in_row, value_of
from codexa.store.ledger_queries import Chosen, run, where_of
from codexa.store.ledgers import FACETS, Ledger

# Each is one pass over what is chosen wherever that is possible: at a million responses a pass is half a second.
_ALL = "SELECT count(*) AS all, count(*) FILTER (WHERE {there}) AS answered FROM {table} WHERE {where}"
_GROUPS_OF_ALL = (
    "SELECT value, count, example, sum(count) OVER () AS all, sum(count) FILTER (WHERE value IS NOT NULL) OVER ()"
    " AS answered FROM (SELECT {value}::text AS value, count(*) AS count, min(number) AS example"
    " FROM {table} WHERE {where} GROUP BY 1) AS found ORDER BY value IS NULL, count DESC, value LIMIT {most}"
)
# What was ticked together is counted first: there are far fewer such sets than responses.
_TICKS = (
    "WITH sets AS MATERIALIZED (SELECT {value} AS codes, count(*) AS count, min(number) AS example"
    " FROM {table} WHERE {where} GROUP BY 1)"
    " SELECT ticked.code AS value, sum(sets.count)::bigint AS count, min(sets.example) AS example,"
    " (SELECT sum(count) FROM sets) AS all, (SELECT sum(count) FROM sets WHERE codes IS NOT NULL) AS answered"
    " FROM sets LEFT JOIN LATERAL unnest(sets.codes) AS ticked(code) ON true GROUP BY 1"
    " ORDER BY 1 IS NULL, 2 DESC, 1 LIMIT {most}"
)
_FEW = "SELECT n_distinct FROM pg_stats WHERE schemaname = 'ledgers' AND tablename = %s AND attname = %s"
_EACH_NUMBER = "SELECT {value} AS value, count(*) AS count FROM {table} WHERE {where} GROUP BY 1"
_SPREAD = (
    "SELECT count(*) AS all, count({value}) AS count, sum({value}) AS sum, min({value}) AS least,"
    " max({value}) AS greatest, bool_and({value} = trunc({value})) AS whole FROM {table} WHERE {where}"
)
_BINS = (
    "SELECT floor({value} / {width}) AS bin, count(*) AS count FROM {table}"
    " WHERE {where} AND {value} IS NOT NULL GROUP BY 1 ORDER BY 1"
)
_DAYS = "SELECT {value}::date AS day, count(*) AS count FROM {table} WHERE {where} GROUP BY 1 ORDER BY 1"
# A day's beginning in a time zone is some quarter of an hour: far fewer of these are converted than responses.
_DAYS_IN_ZONE = (
    "SELECT (quarter AT TIME ZONE {zone})::date AS day, sum(count)::bigint AS count FROM"
    " (SELECT date_bin('15 minutes', {value}, '2000-01-01 00:00+00') AS quarter, count(*) AS count"
    " FROM {table} WHERE {where} GROUP BY 1) AS found GROUP BY 1 ORDER BY 1"
)
_HOURS = (
    "SELECT extract(hour FROM {value})::integer AS hour, count(*) AS count FROM {table} WHERE {where}"
    " GROUP BY 1 ORDER BY 1"
)
_COMPARED = (
    "SELECT {group}::text AS value, count({value}) AS count, sum({value}) AS sum, min({value}) AS least,"
    " max({value}) AS greatest, min(number) AS example FROM {table}{each} WHERE {where} GROUP BY 1"
    " HAVING count({value}) > 0 ORDER BY count({value}) DESC, 1 LIMIT {most}"
)
_COMPARED_OF_ALL = (
    "SELECT value, count, sum, example, sum(all_of) OVER () AS all, sum(count) OVER () AS answered,"
    " sum(sum) OVER () AS whole, min(least) OVER () AS least, max(greatest) OVER () AS greatest"
    " FROM (SELECT {group}::text AS value, count(*) AS all_of, count({value}) AS count, sum({value}) AS sum,"
    " min({value}) AS least, max({value}) AS greatest, min(number) AS example"
    " FROM {table} WHERE {where} GROUP BY 1) AS found ORDER BY count DESC, value LIMIT {most}"
)
_CROSSED = (
    "SELECT {group}::text AS value, {crossed}::text AS crossed, count(*) AS count, min(number) AS example"
    " FROM {table}{each} WHERE {where} AND {group} IS NOT NULL GROUP BY 1, 2 ORDER BY 3 DESC, 1, 2 LIMIT {most}"
)
_GRID = (
    "SELECT answer.key AS question, answer.value AS code, count(*) AS count"
    " FROM {table}, jsonb_each_text({value}) AS answer WHERE {where} GROUP BY 1, 2"
)
_ROWS = "{table} CROSS JOIN LATERAL jsonb_array_elements({rows}) AS one"
_FEW_NUMBERS = 20_000  # that are counted one by one
_UNNESTED = " CROSS JOIN LATERAL unnest({value}) AS {name}(code)"


@dataclass(frozen=True, kw_only=True, slots=True)
class Measured:
    """What is measured: a column, a question of a grid in it, or a field in its rows; and what that holds.

    Of a field in rows each row counts as responses do elsewhere.
    """

    column: str
    holds: Holds
    part: str = ""

    def is_in_rows(self, ledger: Ledger) -> bool:
        """Whether it is a field in rows."""
        return self.part != "" and ledger.columns.get(self.column) is Holds.ROWS

    def value(self, ledger: Ledger) -> sql.Composable:
        """Return its value."""
        if self.is_in_rows(ledger):
            return value_in_row(self.part, self.holds)
        return value_of(ledger, self.column, self.part)

    def table(self, ledger: Ledger) -> sql.Composable:
        """Return where it is found: among the responses, or their rows."""
        if self.is_in_rows(ledger):
            return sql.SQL(_ROWS).format(table=ledger.table, rows=ledger.place(self.column))
        return ledger.table


@dataclass(frozen=True, kw_only=True, slots=True)
class Group:
    """How many have a value; `example` is the number of one of them. Of a comparison `sum` is what is measured."""

    value: str | None
    count: int
    example: int
    sum: Decimal | None = None
    crossed: str | None = None


@dataclass(frozen=True, kw_only=True, slots=True)
class Spread:
    """How numbers are spread, of `all` those that there are: None for what no number has; `whole` where all are."""

    all: int
    count: int
    sum: Decimal | None
    least: Decimal | None
    greatest: Decimal | None
    whole: bool


NO_SPREAD = Spread(all=0, count=0, sum=None, least=None, greatest=None, whole=False)


@dataclass(frozen=True, slots=True)
class _By:
    """What is grouped by: its value, and what is joined for it where a response has several."""

    value: sql.Composable
    each: sql.Composable
    whole: sql.Composable
    is_several: bool


def _by(ledger: Ledger, by: Measured, name: str) -> _By:
    value, is_several = by.value(ledger), by.holds is Holds.CHOICES
    if not is_several:
        return _By(value, sql.SQL(""), value, is_several=False)
    alias = sql.Identifier(name)
    each = sql.SQL(_UNNESTED).format(value=value, name=alias)
    return _By(sql.SQL("{}.code").format(alias), each, value, is_several=True)


def answered(connection: Connection, ledger: Ledger, chosen: Chosen, what: Measured) -> tuple[int, int]:
    """Return how many are chosen, and how many of them have a value."""
    there = sql.SQL("{} IS NOT NULL").format(what.value(ledger))
    row = _rows(connection, ledger, chosen, what, _ALL, there=there)[0]
    return row["all"], row["answered"]


@dataclass(frozen=True, kw_only=True, slots=True)
class Groups:
    """How often each value is there, the most frequent first; of how many, and how many of them have any."""

    groups: list[Group]
    all: int
    answered: int


def groups(connection: Connection, ledger: Ledger, chosen: Chosen, what: Measured, *, most: int) -> Groups:
    """Return how often each value is there, not counting blanks; of several, each is counted."""
    by = _by(ledger, what, "ticked")
    names = {"value": by.whole, "most": sql.Literal(most)}
    rows = _rows(connection, ledger, chosen, what, _TICKS if by.is_several else _GROUPS_OF_ALL, **names)
    found = [
        Group(value=row["value"], count=row["count"], example=row["example"])
        for row in rows
        if row["value"] is not None
    ]
    if not rows:
        return Groups(groups=[], all=0, answered=0)
    return Groups(groups=found, all=int(rows[0]["all"] or 0), answered=int(rows[0]["answered"] or 0))


def each_number(
    connection: Connection, ledger: Ledger, chosen: Chosen, what: Measured
) -> dict[Decimal | None, int] | None:
    """Return how often each number is there, None for blank; None where there are too many different ones for that."""
    if what.part:
        return None
    known = connection.execute(_FEW.encode(), (f"f_{ledger.form.hex}", ledger.place_name(what.column))).fetchone()
    if (known is None and ledger.upto > _FEW_NUMBERS) or (
        known is not None and not 0 < known["n_distinct"] <= _FEW_NUMBERS
    ):
        return None
    rows = _rows(connection, ledger, chosen, what, _EACH_NUMBER, value=what.value(ledger))
    return {row["value"]: row["count"] for row in rows}


def spread(connection: Connection, ledger: Ledger, chosen: Chosen, what: Measured) -> Spread:
    """Return how numbers are spread."""
    row = _rows(connection, ledger, chosen, what, _SPREAD, value=what.value(ledger))[0]
    return Spread(**{**row, "whole": bool(row["whole"])})


def bins(connection: Connection, ledger: Ledger, chosen: Chosen, what: Measured, width: Decimal) -> dict[int, int]:
    """Return how many numbers lie in each bin: the first is from 0 to below the width."""
    rows = _rows(connection, ledger, chosen, what, _BINS, value=what.value(ledger), width=sql.Literal(width))
    return {int(row["bin"]): row["count"] for row in rows}


def days(
    connection: Connection, ledger: Ledger, chosen: Chosen, what: Measured, zone: str
) -> tuple[dict[date, int], int]:
    """Return how many fall on each day, in order, and how many on none."""
    value = what.value(ledger)
    if what.column in FACETS:
        rows = _rows(connection, ledger, chosen, what, _DAYS_IN_ZONE, value=value, zone=sql.Literal(zone))
    else:
        rows = _rows(connection, ledger, chosen, what, _DAYS, value=value)
    blank = next((row["count"] for row in rows if row["day"] is None), 0)
    return {row["day"]: row["count"] for row in rows if row["day"] is not None}, blank


def by_hour(connection: Connection, ledger: Ledger, chosen: Chosen, what: Measured) -> tuple[dict[int, int], int]:
    """Return how many times fall into each hour of the day, and how many are blank."""
    rows = _rows(connection, ledger, chosen, what, _HOURS, value=what.value(ledger))
    blank = next((row["count"] for row in rows if row["hour"] is None), 0)
    return {row["hour"]: row["count"] for row in rows if row["hour"] is not None}, blank


@dataclass(frozen=True, kw_only=True, slots=True)
class Compared:
    """What numbers come to in each group, and how they are spread in all."""

    groups: list[Group]
    spread: Spread


def compared(
    connection: Connection, ledger: Ledger, chosen: Chosen, what: Measured, by: Measured, *, most: int
) -> Compared:
    """Return what numbers come to in each group, the largest groups first."""
    group = _by(ledger, by, "ticked")
    names = {"group": group.value, "value": what.value(ledger), "most": sql.Literal(most)}
    if group.is_several:
        rows = _rows(connection, ledger, chosen, what, _COMPARED, each=group.each, **names)
        whole = spread(connection, ledger, chosen, what)
    else:
        rows = _rows(connection, ledger, chosen, what, _COMPARED_OF_ALL, **names)
        whole = _spread_of(rows[0]) if rows else NO_SPREAD
    found = [
        Group(value=row["value"], count=row["count"], example=row["example"], sum=row["sum"])
        for row in rows
        if row["count"]
    ]
    return Compared(groups=found, spread=whole)


def _spread_of(row: dict[str, Any]) -> Spread:
    return Spread(
        all=int(row["all"]),
        count=int(row["answered"]),
        sum=row["whole"],
        least=row["least"],
        greatest=row["greatest"],
        whole=False,
    )


def crossed(
    connection: Connection, ledger: Ledger, chosen: Chosen, what: Measured, by: Measured, *, most: int
) -> list[Group]:
    """Return how often each value is there in each group."""
    group, value = _by(ledger, by, "ticked"), _by(ledger, what, "other")
    names = {"group": group.value, "crossed": value.value, "each": group.each + value.each}
    rows = _rows(connection, ledger, chosen, what, _CROSSED, most=sql.Literal(most), **names)
    return [Group(**row) for row in rows]


def grid(connection: Connection, ledger: Ledger, chosen: Chosen, what: Measured) -> list[tuple[str, str, int]]:
    """Return how often each question of a grid was answered with each option: codes and counts."""
    rows = _rows(connection, ledger, chosen, what, _GRID, value=what.value(ledger))
    return [(row["question"], row["code"], row["count"]) for row in rows]


def _rows(
    connection: Connection, ledger: Ledger, chosen: Chosen, what: Measured, query: str, **names: sql.Composable
) -> Sequence[dict[str, Any]]:
    where = where_of(ledger, chosen)
    whole = sql.SQL(query).format(table=what.table(ledger), where=where.text, **names)
    return run(connection, whole, where.values).fetchall()
