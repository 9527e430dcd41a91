"""Responses on a board: in columns by status or by a single choice, each with how many, sums, and its first cards."""

from dataclasses import dataclass, replace
from decimal import Decimal
from uuid import UUID

from codexa.core.fields.field_type import Medium, Region
from codexa.core.responses.conditions import ConditionError
from codexa.core.responses.holds import Holds
from codexa.services.editions import Editions
from codexa.services.errors import NotFoundError
from codexa.services.response_columns import Column
from codexa.services.response_grid import ResponseTable, Row
from codexa.services.response_set.asking import STATUS
from codexa.services.response_set.looking import Look
from codexa.services.response_set.opening import ResponseSet, open_set
from codexa.store import ledger_queries, ledgers, responses, views
from codexa.store.database import Connect, Connection
from codexa.store.ledger_queries import Asked, Chosen
from codexa.store.sessions import SignedIn

_MOST_LANES, _MOST_SUMS = 30, 3
NONE = ""


@dataclass(frozen=True, kw_only=True, slots=True)
class Lane:
    """A column of a board: `code` is that of a status or an option, "" where a response has none."""

    code: str
    label: str
    count: int
    exact: bool
    sums: dict[str, Decimal]
    rows: list[Row]


@dataclass(frozen=True, kw_only=True, slots=True)
class Board:
    """A board with the columns to read its cards by; `turn` tells whether something has changed since."""

    columns: list[Column]
    lanes: list[Lane]
    region: Region
    turn: int


def turn(connect: Connect, *, who: SignedIn, form: UUID) -> int:
    """Return what grows with each change of a form's responses. Raises NotFoundError."""
    with connect() as connection:
        if views.statuses(connection, team=who.team_id, form=form) is None:
            raise NotFoundError
        return ledgers.turn(connection, form=form)


def board(connect: Connect, editions: Editions, *, who: SignedIn, form: UUID, look: Look, by: str, most: int) -> Board:
    """Return what is looked at as a board with at most so many cards in each column.

    Raises NotFoundError, and ConditionError where there is nothing to make columns by.
    """
    with connect() as connection:
        now = ledgers.turn(connection, form=form)
    opened = open_set(connect, editions, who=who, form=form)
    column = opened.asking.column(by)
    if column is None or column.holds is not Holds.CHOICE or "/" in by:
        raise ConditionError(0, "A board goes by status, or by a field with one choice. Choose another.")
    chosen, sorts = opened.asking.chosen(look.filter), opened.asking.sorts(look.sorts)
    table = ResponseTable(editions, form=form, numbers=opened.numbers)
    lanes = []
    for code, label in _lanes(column):
        of_lane = _within(chosen, column, code)
        with connect() as connection:
            found = ledger_queries.page(connection, opened.ledger, of_lane, sorts, most=most, after=None)
            count, exact = ledger_queries.count(connection, opened.ledger, of_lane)
            rows = responses.by_numbers(connection, form=form, numbers=[each.number for each in found])
            sums = _sums(connection, opened, of_lane) if exact else {}
        cards = [table.row(rows[each.number], Medium.PAGE, look.columns) for each in found if each.number in rows]
        lanes.append(Lane(code=code, label=label, count=count, exact=exact, sums=sums, rows=cards))
    return Board(columns=table.columns, lanes=lanes, region=opened.region, turn=now)


def _lanes(column: Column) -> list[tuple[str, str]]:
    """Return the columns of a board: those without first, as that is where what comes begins."""
    blank = "No status" if column.id == STATUS else "Not answered"
    return [(NONE, blank), *((each.code, each.label) for each in column.options[:_MOST_LANES])]


def _within(chosen: Chosen, column: Column, code: str) -> Chosen:
    """Return what of a choice is in one column of the board: a condition that holds beside all others."""
    asked = Asked(
        column=column.id,
        holds=Holds.CHOICE,
        how="any_of" if code else "blank",
        values=(code,) if code else (),
    )
    return replace(chosen, besides=(asked,))


def _sums(connection: Connection, opened: ResponseSet, chosen: Chosen) -> dict[str, Decimal]:
    numeric = [each.id for each in opened.columns if each.holds is Holds.NUMBER][:_MOST_SUMS]
    found = ledger_queries.totals(connection, opened.ledger, chosen, numeric)
    return {column: Decimal(each.sum) for column, each in found.items() if each.count}
