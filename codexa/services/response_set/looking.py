"""Looking at a form's responses: a page of a filtered and sorted set, how many there are, what numbers come to."""

import base64
import binascii
from dataclasses import dataclass
from decimal import Decimal
from typing import Any
from uuid import UUID

import orjson

from codexa.core.fields.field_type import Medium, Region
from codexa.core.formula.values import WIDE
from codexa.core.responses.conditions import Filter
from codexa.core.responses.holds import Holds
from codexa.services.editions import Editions
from codexa.services.errors import BehindError, PlaceUnknownError
from codexa.services.of_team import OfTeam
from codexa.services.response_columns import Column
from codexa.services.response_grid import ResponseTable, Row
from codexa.services.response_set.documents import document
from codexa.services.response_set.opening import ResponseSet, open_set, want_indexes
from codexa.store import ledger_queries, responses
from codexa.store.database import Connect
from codexa.store.ledger_queries import Place


@dataclass(frozen=True, kw_only=True, slots=True)
class Look:
    """What is looked at: a filter, an order as names of columns, "-" before one that goes down, and which columns.

    `columns` is None for all of them.
    """

    filter: Filter
    sorts: tuple[str, ...] = ()
    columns: frozenset[str] | None = None


@dataclass(frozen=True, kw_only=True, slots=True)
class Page:
    """A page of responses; `exact` where `count` is no estimate; `next` asks for the page after it, "" for none.

    `behind` is how many responses are still to be taken up, and so in no page yet.
    """

    columns: list[Column]
    rows: list[Row]
    count: int
    exact: bool
    next: str
    behind: int


def page(
    connect: Connect, editions: Editions, *, who: OfTeam, form: UUID, look: Look, limit: int, after: str = ""
) -> Page:
    """Return a page of what is looked at, from its beginning or after a place. Raises NotFoundError, ConditionError."""
    opened = open_set(connect, editions, who=who, form=form)
    chosen, sorts = opened.asking.chosen(look.filter), opened.asking.sorts(look.sorts)
    place = _place(after, len(sorts)) if after else None
    want_indexes(connect, opened, chosen, sorts)
    with connect() as connection:
        found = ledger_queries.page(connection, opened.ledger, chosen, sorts, most=limit, after=place)
        count, exact = ledger_queries.count(connection, opened.ledger, chosen)
        rows = responses.by_numbers(connection, form=form, numbers=[each.number for each in found])
    table = ResponseTable(editions, form=form, numbers=opened.numbers)
    return Page(
        columns=table.columns,
        rows=[table.row(rows[each.number], Medium.PAGE, look.columns) for each in found if each.number in rows],
        count=count,
        exact=exact,
        next=_written(found[-1]) if len(found) == limit else "",
        behind=opened.behind,
    )


@dataclass(frozen=True, kw_only=True, slots=True)
class DocumentPage:
    """A page of responses as programs read them; `next` asks for the page after it, "" for none."""

    responses: list[dict[str, Any]]
    next: str


def page_of_documents(
    connect: Connect, editions: Editions, *, who: OfTeam, form: UUID, look: Look, limit: int, after: str = ""
) -> DocumentPage:
    """Return a page of what is looked at by keys. Raises NotFoundError, ConditionError, BehindError."""
    opened = open_set(connect, editions, who=who, form=form)
    if opened.behind:
        raise BehindError
    chosen, sorts = opened.asking.chosen(look.filter), opened.asking.sorts(look.sorts)
    place = _place(after, len(sorts)) if after else None
    with connect() as connection:
        found = ledger_queries.page(connection, opened.ledger, chosen, sorts, most=limit, after=place)
        rows = responses.by_numbers(connection, form=form, numbers=[each.number for each in found])
    return DocumentPage(
        responses=[document(editions, form, rows[each.number]) for each in found if each.number in rows],
        next=_written(found[-1]) if len(found) == limit else "",
    )


def _written(place: Place) -> str:
    return base64.urlsafe_b64encode(orjson.dumps([place.number, *place.values])).decode()


def _place(text: str, sorts: int) -> Place:
    """Return the place that a page gave as its next. Raises PlaceUnknownError."""
    try:
        number, *values = orjson.loads(base64.urlsafe_b64decode(text))
    except (ValueError, binascii.Error, TypeError):
        raise PlaceUnknownError from None
    texts = all(each is None or isinstance(each, str) for each in values)
    if not isinstance(number, int) or not 0 <= number < 2**31 or len(values) != sorts or not texts:
        raise PlaceUnknownError
    return Place(number, tuple(values))


@dataclass(frozen=True, kw_only=True, slots=True)
class ColumnTotal:
    """What a column of numbers comes to: `count` numbers, their sum and average as plain decimals."""

    count: int
    sum: Decimal
    average: Decimal


def totals(
    connect: Connect, editions: Editions, *, who: OfTeam, form: UUID, filter_: Filter
) -> tuple[Region, dict[str, ColumnTotal]]:
    """Return what the columns of numbers come to over all that a filter chooses, and where the form is at home.

    Raises NotFoundError, ConditionError.
    """
    opened = open_set(connect, editions, who=who, form=form)
    chosen = opened.asking.chosen(filter_)
    numeric = [each.id for each in opened.columns if each.holds is Holds.NUMBER]
    with connect() as connection:
        found = ledger_queries.totals(connection, opened.ledger, chosen, numeric)
    return opened.region, {
        column: ColumnTotal(count=each.count, sum=each.sum, average=average(each.sum, each.count))
        for column, each in found.items()
        if each.count
    }


def average(total: Any, count: int) -> Decimal:
    """Return a sum divided by how many there are, rounded half up to four places."""
    return WIDE.quantize(WIDE.divide(Decimal(total), Decimal(count)), Decimal("0.0001"))


def neighbours(
    connect: Connect, editions: Editions, *, who: OfTeam, form: UUID, look: Look, number: int
) -> tuple[int | None, int | None]:
    """Return the numbers of the responses before and after one in what is looked at; None where there is none.

    Raises NotFoundError, ConditionError.
    """
    opened: ResponseSet = open_set(connect, editions, who=who, form=form)
    chosen, sorts = opened.asking.chosen(look.filter), opened.asking.sorts(look.sorts)
    with connect() as connection:
        return ledger_queries.neighbours(connection, opened.ledger, chosen, sorts, number=number)
