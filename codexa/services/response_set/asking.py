"""What can be asked of a form's responses, and a filter as the ledger is asked: values read, days as moments."""

import datetime
import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any
from zoneinfo import ZoneInfo

from codexa.core.fields.field_type import Region
from codexa.core.responses.conditions import Condition, ConditionError, Filter, days_of, read_values
from codexa.core.responses.folding import folded
from codexa.core.responses.holds import Holds
from codexa.services.response_columns import Column, Option
from codexa.store.ledger_orders import Sort
from codexa.store.ledger_queries import Asked, Chosen, Term

# What every response has is a column too; its id begins so.
FACET = "response."
RECEIVED, STAGE, PRACTICE, STATUS = "response.received", "response.stage", "response.practice", "response.status"
_STAGES = {"kept": "kept for later", "waiting": "waiting", "complete": "complete", "expired": "expired"}
_STAGES_ALL = {**_STAGES, "removed": "removed"}
STAGES = tuple(_STAGES_ALL)
_PAYMENTS = ("none", "due", "pending", "paid", "failed", "part refunded", "refunded")
_DECISIONS = ("none", "asked", "approved", "denied")
_BOOKINGS = ("none", "booked", "waiting", "cancelled")
_WAYS = {
    "link": "the form’s own page",
    "script": "a website",
    "frame": "a frame on a website",
    "pop-up": "a pop-up",
    "tab": "a side tab",
    "corner": "a corner window",
    "program": "a program",
    "table": "a table",
}
# By these nothing is found faster: an index is there, or nearly all have the same.
_INDEXED = frozenset({f"{FACET}number", f"{FACET}held", RECEIVED, STAGE, PRACTICE})
_TERM = re.compile(r'"([^"]*)"?|([^\s"]+)')


@dataclass(frozen=True, kw_only=True, slots=True)
class Known:
    """What the facets of a form's responses can be, each as code and label."""

    statuses: Sequence[Option] = ()
    tags: Sequence[Option] = ()
    people: Sequence[Option] = ()
    links: Sequence[Option] = ()
    languages: Sequence[Option] = ()
    parts: Sequence[Option] = ()


def facets(known: Known) -> list[Column]:
    """Return what every response has beside its answers, as columns."""
    said = {
        "number": ("Number", Holds.NUMBER, ()),
        "received": ("Received", Holds.MOMENT, ()),
        "status": ("Status", Holds.CHOICE, known.statuses),
        "tags": ("Tags", Holds.CHOICES, known.tags),
        "person": ("Person", Holds.CHOICE, known.people),
        "stage": ("Stage", Holds.CHOICE, _options(_STAGES_ALL)),
        "payment": ("Payment", Holds.CHOICE, _options(dict.fromkeys(_PAYMENTS))),
        "decision": ("Decision", Holds.CHOICE, _options(dict.fromkeys(_DECISIONS))),
        "booking": ("Booking", Holds.CHOICE, _options(dict.fromkeys(_BOOKINGS))),
        "at_part": ("Stands with", Holds.CHOICE, known.parts),
        "edition": ("Edition", Holds.NUMBER, ()),
        "way": ("Came by", Holds.CHOICE, _options(_WAYS)),
        "page": ("Came from page", Holds.TEXT, ()),
        "link": ("Links made with", Holds.CHOICE, known.links),
        "sealed_link": ("Sealed link", Holds.CHOICE, ()),
        "language": ("Language", Holds.CHOICE, known.languages),
        "held": ("Suspected", Holds.YES_NO, ()),
        "practice": ("Practice", Holds.YES_NO, ()),
    }
    return [
        Column(
            id=FACET + name,
            label=label,
            number="",
            calculated=False,
            numeric=holds is Holds.NUMBER,
            holds=holds,
            options=tuple(options),
        )
        for name, (label, holds, options) in said.items()
    ]


def _options(labels: Mapping[str, str | None]) -> tuple[Option, ...]:
    return tuple(Option(code=code, label=label or code) for code, label in labels.items())


class Asking:
    """Reads filters and orders for a form with these columns."""

    def __init__(self, columns: Sequence[Column], region: Region, now: datetime.datetime) -> None:
        """`now` is aware; days are those of the region's time zone."""
        self._region, self._zone = region, ZoneInfo(region.time_zone)
        self._today = now.astimezone(self._zone).date()
        self._columns = {each.id: each for each in columns} | {part.id: part for each in columns for part in each.parts}

    def column(self, column: str) -> Column | None:
        """Return a column, or a part of one, by its id."""
        return self._columns.get(column)

    def chosen(self, filter_: Filter) -> Chosen:
        """Return what a filter chooses: of what is complete and no practice, unless it asks for others.

        Raises ConditionError.
        """
        asked = {each.column for each in filter_.conditions}
        return Chosen(
            stages=tuple(_STAGES_ALL) if STAGE in asked else ("complete",),
            practice=None if PRACTICE in asked else False,
            match_all=filter_.match == "all",
            asked=tuple(self._asked(each, at) for at, each in enumerate(filter_.conditions)),
            terms=tuple(terms(filter_.words)),
        )

    def _asked(self, condition: Condition, at: int) -> Asked:
        column = self._columns.get(condition.column)
        if column is None:
            raise ConditionError(at, "This asks for a field that is gone. Remove it, or choose another field.")
        values = read_values(condition, column.holds, at, column.label)
        whole, _, part = condition.column.partition("/")
        asked = Asked(column=whole, holds=column.holds, how=condition.how, values=values, part=part)
        if column.holds not in (Holds.DATE, Holds.MOMENT) or condition.how in ("blank", "answered"):
            return asked
        days = days_of(condition.how, values, self._today, self._region.first_weekday)
        return replace(asked, stretch=self._stretch(days, condition.column, column.holds))

    def _stretch(self, days: tuple[Any, Any], column: str, holds: Holds) -> tuple[Any, Any]:
        """Return a stretch of days, both included, as its beginning and the beginning of what comes after it."""
        first, last = days
        after = None if last is None or last == datetime.date.max else last + datetime.timedelta(days=1)
        if holds is Holds.DATE:
            return first, after
        zone = self._zone if column == RECEIVED else None
        moments = [
            None if day is None else datetime.datetime.combine(day, datetime.time(), zone) for day in (first, after)
        ]
        return moments[0], moments[1]

    def sorts(self, names: Sequence[str]) -> list[Sort]:
        """Return an order by names of columns, "-" before one that goes down; newest first where none is named.

        Raises ConditionError where one is gone, or has no order.
        """
        found = [self._sort(name, at) for at, name in enumerate(names)]
        return found or [Sort(RECEIVED, descending=True)]

    def _sort(self, name: str, at: int) -> Sort:
        column = self._columns.get(name.removeprefix("-"))
        if column is None or "/" in column.id or column.holds is Holds.GRID:
            raise ConditionError(at, "The order goes by a field that is gone, or has none. Choose another order.")
        return Sort(column.id, descending=name.startswith("-"))


def terms(words: str) -> Iterator[Term]:
    """Yield what is searched for: each word wherever it stands in another, and what is in quotes as whole words."""
    for quoted, bare in _TERM.findall(words):
        text = folded(quoted or bare)
        if text:
            yield Term(text=text, whole=bool(quoted))


def used(chosen: Chosen, sorts: Sequence[Sort]) -> list[str]:
    """Return by what a ledger is filtered or sorted: columns, and orders by several; not what has an index anyhow."""
    names = [each.column for each in chosen.asked if not each.part] + [each.column for each in sorts]
    if len(sorts) > 1:
        names.append(",".join(each.name for each in sorts))
    return [name for name in dict.fromkeys(names) if name not in _INDEXED]
