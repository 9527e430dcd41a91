"""Orders of a ledger: what each column is compared by, and what comes after what, with blanks last."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Self

from psycopg import sql

from codexa.core.responses.holds import Holds
from codexa.store.ledgers import FACETS, TYPES, Ledger, compared

# An earlier edition may have asked in rows for something of another type: that is no value here.
_OF_ROW = "CASE WHEN {is_such} THEN (one ->> {name})::{type} END"
_TEXT_OF_ROW = '(one ->> {name}) COLLATE "C"'
_CODES_OF_ROW = (
    "CASE WHEN jsonb_typeof(one -> {name}) = 'array' THEN ARRAY(SELECT jsonb_array_elements_text(one -> {name})) END"
)
_IS_SUCH = {
    Holds.NUMBER: r"one ->> {name} ~ '^-?\d+(\.\d+)?([eE][+-]?\d+)?$'",
    Holds.YES_NO: "jsonb_typeof(one -> {name}) = 'boolean'",
    Holds.FILES: "jsonb_typeof(one -> {name}) = 'number'",
    Holds.GRID: "jsonb_typeof(one -> {name}) = 'object'",
    **{
        holds: f"jsonb_path_exists(one -> {{name}}, '$.datetime().type() ? (@ == \"{kind}\")', silent => true)"
        for holds, kind in (
            (Holds.DATE, "date"),
            (Holds.TIME, "time without time zone"),
            (Holds.MOMENT, "timestamp without time zone"),
        )
    },
}


def value_in_row(part: str, holds: Holds) -> sql.Composable:
    """Return the value of a field in `one` row of a repeat, by what it holds."""
    name = sql.Literal(part)
    if holds is Holds.CHOICES:
        return sql.SQL(_CODES_OF_ROW).format(name=name)
    if holds not in _IS_SUCH:
        return sql.SQL(_TEXT_OF_ROW).format(name=name)
    is_such = sql.SQL(_IS_SUCH[holds]).format(name=name)
    return sql.SQL(_OF_ROW).format(name=name, type=sql.SQL(TYPES[holds]), is_such=is_such)


def value_of(ledger: Ledger, column: str, part: str = "") -> sql.Composable:
    """Return the value of a column to compare or count: of rows how many, of a grid's question its answer."""
    holds, place = ledger.columns.get(column), ledger.place(column)
    if holds is Holds.ROWS:
        return sql.SQL("jsonb_array_length({})").format(place)
    return sql.SQL("({} ->> {})").format(place, sql.Literal(part)) if holds is Holds.GRID and part else place


@dataclass(frozen=True, slots=True)
class Sort:
    """An order by a column."""

    column: str
    descending: bool = False

    @classmethod
    def read(cls, name: str) -> Self:
        """Return the order that `name` gave."""
        return cls(name.removeprefix("-"), descending=name.startswith("-"))

    @property
    def name(self) -> str:
        """The column, with "-" before it where the order goes down."""
        return f"-{self.column}" if self.descending else self.column


@dataclass(frozen=True, slots=True)
class Key:
    """What an order goes by: its value in SQL, its type, whether it can be blank; blanks come last, or first."""

    value: sql.Composable
    type: str
    descending: bool
    nullable: bool
    blanks_first: bool = False

    @property
    def turned(self) -> "Key":
        """The same from its end."""
        return replace(self, descending=not self.descending, blanks_first=not self.blanks_first)

    def ordered(self, *, first: bool) -> sql.Composable:
        """Return it as a part of an order. The first key has none there, and is not told of any: an index fits."""
        blanks = "" if first or not self.nullable else f" NULLS {'FIRST' if self.blanks_first else 'LAST'}"
        return sql.SQL(f"{{}} {'DESC' if self.descending else 'ASC'}{blanks}").format(self.value)


def keys_of(ledger: Ledger, sorts: Sequence[Sort]) -> list[Key]:
    """Return the keys of an order, the number last: in the direction of the first, so that one index serves both."""
    keys = [_key(ledger, each) for each in sorts]
    number = Key(sql.Identifier("number"), "integer", keys[0].descending if keys else True, False)
    return [*keys, number]


def _key(ledger: Ledger, each: Sort) -> Key:
    if each.column in FACETS:
        facet = FACETS[each.column]
        return Key(ledger.place(each.column), facet.type.split(" ")[0], each.descending, facet.nullable)
    holds = ledger.columns[each.column]
    value = value_of(ledger, each.column) if holds is Holds.ROWS else compared(ledger, each.column)
    kind = "integer" if holds is Holds.ROWS else TYPES[holds]
    return Key(value, kind, each.descending, True)


def order_of(keys: Sequence[Key]) -> sql.Composed:
    """Return an order whose first key has no blanks."""
    return sql.SQL(", ").join(each.ordered(first=at == 0) for at, each in enumerate(keys))
