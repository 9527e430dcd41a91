"""What a form asks of the team's tables while it is worked out, and what it is told.

The core says what it wants to know as plain data; whoever keeps the tables answers (see `Tables`).
"""

import hashlib
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Any, Protocol

from codexa.core.formula.convert import text_of_number
from codexa.core.formula.values import Choices, ChosenRecord, ChosenRecords

MOST_LISTED = 200  # records that a list or a dropdown shows; more are searched by typing
MOST_TRIED = 5_000  # records that a formula is worked out for, one by one
MOST_FOUND = 30  # of a search
BETWEEN_KEYS = "\x1f"  # stands in no key
_LONGEST_KEY = 200


@dataclass(frozen=True, slots=True)
class Is:
    """Holds of a record that has one of these keys in a column (see `keys_of`)."""

    column: str
    keys: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class IsBlank:
    """Holds of a record that has nothing in a column."""

    column: str


@dataclass(frozen=True, slots=True)
class IsBetween:
    """Holds of a record whose number, or day, lies in a range; None is no bound, `open_` ones are not in it."""

    column: str
    least: Decimal | str | None = None
    most: Decimal | str | None = None
    open_: bool = False


@dataclass(frozen=True, slots=True)
class IsNumber:
    """Holds of the records with these numbers."""

    numbers: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Every:
    """Holds where all of its conditions hold; without any, always."""

    conditions: "tuple[Condition, ...]" = ()


@dataclass(frozen=True, slots=True)
class Some:
    """Holds where one of its conditions holds; without any, never."""

    conditions: "tuple[Condition, ...]" = ()


@dataclass(frozen=True, slots=True)
class Not:
    """Holds where its condition does not."""

    condition: "Condition"


@dataclass(frozen=True, slots=True)
class Tested:
    """Holds of a record for which this is true: what no other condition can say. It is asked of few at a time."""

    test: Callable[[ChosenRecord], bool]


Condition = Is | IsBlank | IsBetween | IsNumber | Every | Some | Not | Tested
ALL_RECORDS, NO_RECORDS = Every(), Some()


@dataclass(frozen=True, kw_only=True, slots=True)
class LookUp:
    """A question to a table: which records fit, and what is known of some that were chosen.

    `chosen` are numbers, or names as people write them, of records that are told only if they fit. At most `first`
    are listed, in the order of a column ("-" before it: downwards; "" by name), of those in which all `words` are
    found. `columns` are told of each; the records that a chosen one names are
    told along `paths` of columns, each with the table that it names records of. Where `places` is a column, records of
    which none are left by it don't fit; one that has nothing there has no end.
    """

    table: str
    condition: Condition = ALL_RECORDS
    chosen: tuple[int | str, ...] = ()
    first: int = 0
    order: str = ""
    words: str = ""
    columns: frozenset[str] = frozenset()
    paths: frozenset[tuple[tuple[str, str], ...]] = frozenset()
    places: str = ""


@dataclass(frozen=True, kw_only=True, slots=True)
class KeptRecord:
    """A record as its table keeps it; a record that it names is {"record", "shown", "values"}.

    `left` is how many of it are left where that was asked, None where it has no end.
    """

    number: int
    name: str
    values: Mapping[str, Any]
    left: int | None = None


@dataclass(frozen=True, kw_only=True, slots=True)
class Found:
    """The answer: those `listed`, whether there are `more`, and of each that was chosen what is known, if it fits."""

    listed: tuple[KeptRecord, ...] = ()
    more: bool = False
    chosen: tuple[KeptRecord | None, ...] = ()


class Tables(Protocol):
    """Answers questions about a team's records, all of them as they are at one moment."""

    def look_up(self, asked: LookUp) -> Found:
        """Return what is found; nothing in a table that is not the team's, or not there."""


class NoTables:
    """Where there are no tables, nothing is found."""

    def look_up(self, asked: LookUp) -> Found:
        """Return that nothing is found."""
        return Found(chosen=(None,) * len(asked.chosen))


NO_TABLES = NoTables()


def keys_of(value: Any) -> tuple[str, ...]:
    """Return what a value is compared by: two are equal in formulas where they share a key. Several have several."""
    if isinstance(value, Choices | ChosenRecords):
        return tuple(key for each in value for key in keys_of(each))
    if isinstance(value, ChosenRecord):
        return (str(value.number),)
    if isinstance(value, bool):
        return ("TRUE" if value else "FALSE",)
    if isinstance(value, Decimal):
        return (text_of_number(value),)
    if isinstance(value, str):
        folded = str(value).casefold().replace(BETWEEN_KEYS, " ")
        return (folded if len(folded) <= _LONGEST_KEY else hashlib.sha256(folded.encode()).hexdigest(),)
    return () if value is None else (value.isoformat(),)
