"""A chart: its words, bars and cells, and how numbers become them."""

import datetime
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal, localcontext
from typing import Literal, TypeVar

from codexa.core.fields.moments import shown_date
from codexa.core.formula.values import WIDE
from codexa.core.responses.holds import Holds
from codexa.services.response_columns import Column
from codexa.store.ledger_charts import NO_SPREAD, Group, Spread

Name = TypeVar("Name", str, int, datetime.date)
Kind = Literal["shares", "ticks", "numbers", "days", "hours", "compared", "crossed", "grid", "answers"]
MOST_BARS = 40
_MOST_FILLED = 500
SHARED = (Holds.CHOICE, Holds.YES_NO, Holds.CHOICES)


@dataclass(frozen=True, kw_only=True, slots=True)
class Bar:
    """A bar: how many, and of how many hundred; `value` is what is measured there, as a plain decimal, else None."""

    code: str
    label: str
    count: int
    share: Decimal
    value: Decimal | None = None


@dataclass(frozen=True, kw_only=True, slots=True)
class Cell:
    """How often an answer is there in a row of a crossed chart or a grid, and its share of the row."""

    row: str
    code: str
    count: int
    share: Decimal


@dataclass(frozen=True, kw_only=True, slots=True)
class Chart:
    """A chart: `headline` in words, `aside` what belongs to it; who answered of all; its bars, or rows with cells.

    `more` where there are values that are not among the bars. Of numbers, `average`, `sum`, `least` and `greatest`.
    """

    column: str
    by: str
    kind: Kind
    headline: str
    aside: str
    all: int
    answered: int
    bars: list[Bar] = field(default_factory=list)
    rows: list[Bar] = field(default_factory=list)
    cells: list[Cell] = field(default_factory=list)
    more: bool = False
    average: Decimal | None = None
    sum: Decimal | None = None
    least: Decimal | None = None
    greatest: Decimal | None = None


def spread_of(each: Mapping[Decimal | None, int]) -> Spread:
    """Return how numbers are spread of which each is counted, None for blank."""
    numbers = {number: count for number, count in each.items() if number is not None}
    if not numbers:
        return replace(NO_SPREAD, all=sum(each.values()))
    return Spread(
        all=sum(each.values()),
        count=sum(numbers.values()),
        sum=_exact_sum(numbers),
        least=min(numbers),
        greatest=max(numbers),
        whole=all(number == number.to_integral_value() for number in numbers),
    )


def _exact_sum(numbers: Mapping[Decimal, int]) -> Decimal:
    with localcontext(WIDE):
        return sum((number * count for number, count in numbers.items()), Decimal(0))


def sums(pairs: Iterable[tuple[Name, int]]) -> dict[Name, int]:
    """Return what counts come to by name."""
    found: dict[Name, int] = {}
    for name, count in pairs:
        found[name] = found.get(name, 0) + count
    return found


def in_order(codes: Mapping[str, int], column: Column) -> list[tuple[str, int]]:
    """Return codes in the order of the options; without options the most frequent first."""
    order = {each.code: at for at, each in enumerate(column.options)}
    return sorted(codes.items(), key=lambda item: (order.get(item[0], len(order)), -item[1]))


def bar_of(group: Group, labels: Mapping[str, str], answered: int) -> Bar:
    """Return the bar of a value that is there."""
    value = group.value or ""
    return Bar(code=value, label=labels.get(value, value), count=group.count, share=share(group.count, answered))


def with_unchosen(bars: list[Bar], column: Column) -> list[Bar]:
    """Return the bars in the order of the options, with those that nobody chose, where that is not too much to see."""
    by_code = {each.code: each for each in bars}
    if len(column.options) > MOST_BARS or not column.options:
        return bars
    unchosen = {each.code: Bar(code=each.code, label=each.label, count=0, share=Decimal(0)) for each in column.options}
    return list((unchosen | by_code).values())


def share(count: int, of: int) -> Decimal:
    """Return a share in hundredths with one place, rounded half up."""
    return places(Decimal(100 * count) / of, 1) if of else Decimal(0)


def places(number: Decimal, most: int) -> Decimal:
    """Return a number rounded half up to at most so many places."""
    rounded = WIDE.quantize(number, Decimal(1).scaleb(-most))
    whole = rounded.to_integral_value()
    return whole if rounded == whole else rounded


def most_said(bars: Sequence[Bar], answered: int) -> str:
    """Return the most frequent value in words."""
    if not answered or not bars:
        return "No answer yet"
    first = max(bars, key=lambda each: each.count)
    if first.count == 1 and len(bars) > 1:
        return "All answers differ"
    return f"{first.label}: {first.share:f} %"


def counted(count: int) -> str:
    """Return how many, as people write it."""
    return f"{count:,}"


def filled(bars: Sequence[Bar], days: Sequence[datetime.date], locale: str) -> list[Bar]:
    """Return the bars with those in between in which nothing came, where they are not too many to see."""
    if len(days) > _MOST_FILLED:
        return list(bars)
    by_day = {each.code: each for each in bars}
    return [
        by_day.get(str(day), Bar(code=str(day), label=shown_date(day, locale), count=0, share=Decimal(0)))
        for day in days
    ]
