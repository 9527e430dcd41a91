"""Asking a ledger: which responses meet some conditions, in an order, and what they come to together.

Statements are put together of the constants here and of names of columns; what was typed is always bound.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from typing import Any, NamedTuple

from psycopg import sql
from psycopg.rows import tuple_row

from codexa.core.responses.holds import Holds
from codexa.store.database import Connection, Cursor, like_literal
from codexa.store.ledger_orders import Key, Sort, keys_of, value_in_row, value_of
from codexa.store.ledgers import INDEXED, Ledger

# Up to here counts are exact.
EXACT = 10_000
_COUNT = "SELECT count(*) AS count FROM (SELECT FROM {table} WHERE {where} LIMIT {most}) AS found"
_ABOUT = "EXPLAIN (FORMAT JSON) SELECT FROM {table} WHERE {where}"
_PAGE = "SELECT number, {keys} FROM {table} WHERE {where} ORDER BY {order} LIMIT {most}"
_OWN_PLACE = "SELECT {keys} FROM {table} WHERE number = %s"
_TOTALS = "SELECT {totals} FROM {table} WHERE {where}"
_TOTALS_OF = "count({value}) AS {count}, sum({value}) AS {sum}"

# What rows are asked for: any of them has it so.
_ANY_ROW = "EXISTS (SELECT FROM jsonb_array_elements({rows}) AS one WHERE {condition})"
_IN_WORDS = "number IN (SELECT number FROM {words} WHERE {condition})"
_NUMBERS = "SELECT number FROM {table} WHERE {where} ORDER BY number LIMIT {most}"
_WHOLE_WORDS = "searched @@ {query}"


@dataclass(frozen=True, kw_only=True, slots=True)
class Asked:
    """A condition with its values as they are compared.

    `stretch` is a half-open one of days or moments, open where None. `part` is a question of a grid, or a field in
    rows; `holds` what it holds.
    """

    column: str
    holds: Holds
    how: str
    values: tuple[Any, ...] = ()
    part: str = ""
    stretch: tuple[Any, Any] | None = None


@dataclass(frozen=True, kw_only=True, slots=True)
class Term:
    """Something to search for, folded: a part of words, or with `whole` whole words in a row."""

    text: str
    whole: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class Chosen:
    """Which responses: of these stages, practice or not (None: either), that meet all conditions or any, and all terms.

    What is asked `besides` must hold in any case.
    """

    stages: tuple[str, ...]
    practice: bool | None
    match_all: bool = True
    asked: tuple[Asked, ...] = ()
    terms: tuple[Term, ...] = ()
    besides: tuple[Asked, ...] = ()

    def with_practice(self) -> "Chosen":
        """The same, with what was handed in for practice too."""
        return replace(self, practice=None)


@dataclass(slots=True)
class Where:
    """A condition of a statement with what is bound to it, in order."""

    text: sql.Composable
    values: list[Any] = field(default_factory=list)


def where_of(ledger: Ledger, chosen: Chosen) -> Where:
    """Return the condition that chooses responses."""
    parts = [Where(sql.SQL("stage = ANY(%s)"), [list(chosen.stages)])]
    if chosen.practice is not None:
        parts.append(Where(sql.SQL("practice = %s"), [chosen.practice]))
    parts += [condition(ledger, each) for each in chosen.besides]
    conditions = [condition(ledger, each) for each in chosen.asked]
    if conditions:
        parts.append(joined(conditions, " AND " if chosen.match_all else " OR "))
    if chosen.terms:
        found = joined([_term(each) for each in chosen.terms], " AND ")
        parts.append(Where(sql.SQL(_IN_WORDS).format(words=ledger.words, condition=found.text), found.values))
    return joined(parts, " AND ")


def joined(parts: Sequence[Where], between: str) -> Where:
    """Return conditions as one, with AND or OR between them."""
    text = sql.SQL(between).join(sql.SQL("({})").format(each.text) for each in parts)
    return Where(text, [value for each in parts for value in each.values])


def _term(term: Term) -> Where:
    """A part of a word by its groups of three letters; what is shorter, as the beginning of a word; whole words."""
    if term.whole:
        query = sql.SQL("phraseto_tsquery('simple', %s)")
        return Where(sql.SQL(_WHOLE_WORDS).format(query=query), [term.text])
    if len(term.text) < 3 and term.text.isalnum():
        return Where(sql.SQL(_WHOLE_WORDS).format(query=sql.SQL("%s::tsquery")), [f"'{term.text}':*"])
    return Where(sql.SQL("words LIKE %s"), [f"%{like_literal(term.text)}%"])


def condition(ledger: Ledger, asked: Asked) -> Where:
    """Return one condition."""
    if ledger.columns.get(asked.column) is Holds.ROWS and asked.part:
        inner = compared(value_in_row(asked.part, asked.holds), asked)
        text = sql.SQL(_ANY_ROW).format(rows=ledger.place(asked.column), condition=inner.text)
        return Where(text, inner.values)
    return compared(value_of(ledger, asked.column, asked.part), asked)


def compared(value: sql.Composable, asked: Asked) -> Where:
    """Return what is asked of a value, as a condition."""
    if asked.stretch is not None:
        return _stretch(value, asked.stretch)
    if asked.holds is Holds.TEXT and asked.how in ("is", "begins", "contains"):
        return _text(value, asked)
    template, many = _COMPARISONS[(asked.how, asked.holds is Holds.CHOICES)]
    values = [list(asked.values)] if many else list(asked.values)
    return Where(sql.SQL(template).format(value=value), values)


# A template for each comparison, by whether the value is a list of codes; and whether all values are bound as one list.
_COMPARISONS: dict[tuple[str, bool], tuple[str, bool]] = {
    ("is", False): ("{value} = %s", False),
    ("at_least", False): ("{value} >= %s", False),
    ("at_most", False): ("{value} <= %s", False),
    ("between", False): ("{value} BETWEEN %s AND %s", False),
    ("any_of", False): ("{value} = ANY(%s)", True),
    ("none_of", False): ("({value} = ANY(%s)) IS NOT TRUE", True),
    ("any_of", True): ("{value} && %s::text[]", True),
    ("all_of", True): ("{value} @> %s::text[]", True),
    ("none_of", True): ("({value} && %s::text[]) IS NOT TRUE", True),
    ("blank", False): ("{value} IS NULL", False),
    ("answered", False): ("{value} IS NOT NULL", False),
    # Rows have an empty list where nothing was chosen.
    ("blank", True): ("coalesce(cardinality({value}), 0) = 0", False),
    ("answered", True): ("cardinality({value}) > 0", False),
}


def _stretch(value: sql.Composable, stretch: tuple[Any, Any]) -> Where:
    start, end = stretch
    parts = [Where(sql.SQL("{} IS NOT NULL").format(value))]
    if start is not None:
        parts.append(Where(sql.SQL("{} >= %s").format(value), [start]))
    if end is not None:
        parts.append(Where(sql.SQL("{} < %s").format(value), [end]))
    return joined(parts, " AND ")


def _text(value: sql.Composable, asked: Asked) -> Where:
    """An index holds the beginning of a text: what is or begins with something is found by it, then looked at whole."""
    beginning = sql.SQL("left({}, {})").format(value, sql.Literal(INDEXED))
    wanted: str = asked.values[0]
    match asked.how:
        case "is":
            return Where(sql.SQL("{} = %s AND {} = %s").format(beginning, value), [wanted[:INDEXED], wanted])
        case "begins":
            text = sql.SQL("{} LIKE %s AND {} LIKE %s").format(beginning, value)
            return Where(text, [f"{like_literal(wanted[:INDEXED])}%", f"{like_literal(wanted)}%"])
        case _:
            likes = sql.SQL(" AND ").join(sql.SQL("{} LIKE %s").format(value) for _ in wanted.split())
            return Where(likes, [f"%{like_literal(word)}%" for word in wanted.split()])


def _query(ledger: Ledger, query: str, where: Where, **names: Any) -> sql.Composed:
    return sql.SQL(query).format(table=ledger.table, where=where.text, **names)


def run(connection: Connection, query: sql.Composed, values: Sequence[Any]) -> Cursor:
    """Run a statement that is planned for just these values: for any it would be planned for none of them well."""
    return connection.execute(query, values, prepare=False)


def count(connection: Connection, ledger: Ledger, chosen: Chosen) -> tuple[int, bool]:
    """Return how many are chosen, and whether that is exact: beyond 10,000 it is about what the planner expects."""
    where = where_of(ledger, chosen)
    query = _query(ledger, _COUNT, where, most=sql.Literal(EXACT + 1))
    row = run(connection, query, where.values).fetchone()
    assert row is not None
    found = int(row["count"])
    if found <= EXACT:
        return found, True
    plan = run(connection, _query(ledger, _ABOUT, where), where.values).fetchone()
    assert plan is not None
    return max(EXACT, int(plan["QUERY PLAN"][0]["Plan"]["Plan Rows"])), False


class Place(NamedTuple):
    """A response in an order: its number, and the values that the order goes by, as text."""

    number: int
    values: tuple[str | None, ...]


def numbers(connection: Connection, ledger: Ledger, chosen: Chosen, *, most: int) -> list[int]:
    """Return the numbers of what is chosen, at most so many of the first."""
    where = where_of(ledger, chosen)
    found = run(connection, _query(ledger, _NUMBERS, where, most=sql.Literal(most)), where.values)
    return [row["number"] for row in found]


def page(
    connection: Connection, ledger: Ledger, chosen: Chosen, sorts: Sequence[Sort], *, most: int, after: Place | None
) -> list[Place]:
    """Return the next so many of what is chosen, in an order with blanks last, after a place."""
    return _page(connection, ledger, where_of(ledger, chosen), keys_of(ledger, sorts), most=most, after=after)


def _page(
    connection: Connection, ledger: Ledger, where: Where, keys: Sequence[Key], *, most: int, after: Place | None
) -> list[Place]:
    """What is blank by the first key and what is not are asked for apart, so that each is read off an index."""
    values = None if after is None else [*after.values, str(after.number)]
    # Which halves are read: all of one that comes later, and of the one with the place what comes after it.
    halves = [True, False] if keys[0].blanks_first else [False, True]
    if values is not None:
        halves = halves[halves.index(values[0] is None) :]
    found: list[Place] = []
    for blank in halves if keys[0].nullable else [False]:
        begins = values if values is not None and (values[0] is None) is blank else None
        later = _blank(keys, begins) if blank else _answered(keys, begins)
        if len(found) < most:
            found += _read(connection, ledger, keys, _with(where, later), most - len(found), blank=blank)
    return found


def _blank(keys: Sequence[Key], values: Sequence[str | None] | None) -> list[Where]:
    """Return what holds where the first key is blank and the others come after these values, or anywhere."""
    there = Where(sql.SQL("{} IS NULL").format(keys[0].value))
    return [there] if values is None else [there, _after(keys[1:], values[1:])]


def _with(where: Where, more: Sequence[Where]) -> Where:
    return joined([where, *more], " AND ") if more else where


def _answered(keys: Sequence[Key], values: Sequence[str | None] | None) -> list[Where]:
    """Return what holds where the first key is not blank and comes after these values, or anywhere."""
    first = keys[0]
    there = [Where(sql.SQL("{} IS NOT NULL").format(first.value))] if first.nullable else []
    if values is None:
        return there
    if len(keys) <= 2 and not any(each.nullable for each in keys[1:]):
        sign = sql.SQL("<" if first.descending else ">")
        left = sql.SQL(", ").join(each.value for each in keys)
        right = sql.SQL(", ").join(sql.SQL(f"%s::{each.type}") for each in keys)
        return [*there, Where(sql.SQL("({}) {} ({})").format(left, sign, right), list(values))]
    sign = sql.SQL("<=" if first.descending else ">=")
    bound = Where(sql.SQL("{} {} " + f"%s::{first.type}").format(first.value, sign), [values[0]])
    return [*there, bound, _after(keys, values)]


def _after(keys: Sequence[Key], values: Sequence[str | None]) -> Where:
    """Return what holds after these values: by the first key, or where that is the same by the next."""
    key, value = keys[0], values[0]
    sign = sql.SQL("<" if key.descending else ">")
    if value is None:
        same = Where(sql.SQL("{} IS NULL").format(key.value))
        later = Where(sql.SQL("{} IS NOT NULL").format(key.value)) if key.blanks_first else None
    else:
        same = Where(sql.SQL("{} = " + f"%s::{key.type}").format(key.value), [value])
        text = sql.SQL("{} {} " + f"%s::{key.type}").format(key.value, sign)
        blanks_later = key.nullable and not key.blanks_first
        nulls = sql.SQL(" OR {} IS NULL").format(key.value) if blanks_later else sql.SQL("")
        later = Where(text + nulls, [value])
    if len(keys) == 1:
        return later or Where(sql.SQL("false"))
    next_ones = joined([same, _after(keys[1:], values[1:])], " AND ")
    return next_ones if later is None else joined([later, next_ones], " OR ")


def _read(
    connection: Connection, ledger: Ledger, keys: Sequence[Key], where: Where, most: int, *, blank: bool = False
) -> list[Place]:
    shown = sql.SQL(", ").join(
        sql.SQL("{}::text AS {}").format(each.value, sql.Identifier(f"k{at}")) for at, each in enumerate(keys)
    )
    ordered = keys[1:] if blank else keys
    order = sql.SQL(", ").join(each.ordered(first=each is keys[0]) for each in ordered)
    query = _query(ledger, _PAGE, where, keys=shown, order=order, most=sql.Literal(most))
    with connection.cursor(row_factory=tuple_row) as cursor:
        return [Place(row[0], row[1:-1]) for row in cursor.execute(query, where.values, prepare=False)]


def neighbours(
    connection: Connection, ledger: Ledger, chosen: Chosen, sorts: Sequence[Sort], *, number: int
) -> tuple[int | None, int | None]:
    """Return the numbers before and after a response in an order; None at an end, or where the response is not in it.

    What comes before is what comes after in the order turned round.
    """
    keys = keys_of(ledger, sorts)
    own = sql.SQL(_OWN_PLACE).format(
        table=ledger.table,
        keys=sql.SQL(", ").join(
            sql.SQL("{}::text AS {}").format(each.value, sql.Identifier(f"k{at}")) for at, each in enumerate(keys)
        ),
    )
    row = connection.execute(own, (number,)).fetchone()
    if row is None:
        return None, None
    place = Place(number, tuple(row[f"k{at}"] for at in range(len(keys) - 1)))
    where, turned = where_of(ledger, chosen), [each.turned for each in keys]
    after = _page(connection, ledger, where, keys, most=1, after=place)
    before = _page(connection, ledger, where, turned, most=1, after=place)
    return (before[0].number if before else None, after[0].number if after else None)


@dataclass(frozen=True, kw_only=True, slots=True)
class Total:
    """What the numbers of a column come to: how many there are, and their sum."""

    count: int
    sum: Any


def totals(connection: Connection, ledger: Ledger, chosen: Chosen, columns: Sequence[str]) -> dict[str, Total]:
    """Return what columns of numbers come to, over all that is chosen."""
    if not columns:
        return {}
    where = where_of(ledger, chosen)
    asked = sql.SQL(", ").join(_totals_of(ledger, columns))
    row = run(connection, _query(ledger, _TOTALS, where, totals=asked), where.values).fetchone()
    assert row is not None
    return {column: Total(count=int(row[f"n{at}"]), sum=row[f"s{at}"] or 0) for at, column in enumerate(columns)}


def _totals_of(ledger: Ledger, columns: Sequence[str]) -> Iterator[sql.Composable]:
    for at, column in enumerate(columns):
        yield sql.SQL(_TOTALS_OF).format(
            value=value_of(ledger, column), count=sql.Identifier(f"n{at}"), sum=sql.Identifier(f"s{at}")
        )
