"""Charts of a set: what a column comes to, chosen by what it holds, told in words first and in numbers that add up."""

import math
from collections.abc import Mapping, Sequence
from decimal import Decimal, localcontext
from typing import Any
from uuid import UUID

from codexa.core.fields.decimals import shown
from codexa.core.fields.field_type import Region
from codexa.core.fields.moments import shown_date
from codexa.core.formula.values import WIDE
from codexa.core.responses.conditions import ConditionError, Filter
from codexa.core.responses.holds import Holds
from codexa.services.editions import Editions
from codexa.services.response_columns import Column
from codexa.services.response_grid import ResponseTable
from codexa.services.response_set.asking import FACET
from codexa.services.response_set.chart import (
    MOST_BARS,
    SHARED,
    Bar,
    Cell,
    Chart,
    Kind,
    bar_of,
    counted,
    filled,
    in_order,
    most_said,
    places,
    share,
    spread_of,
    sums,
    with_unchosen,
)
from codexa.services.response_set.looking import average
from codexa.services.response_set.opening import ResponseSet, open_set
from codexa.services.response_set.scales import bin_width, steps, stretch_of, unit_of
from codexa.store import ledger_charts, responses
from codexa.store.database import Connect, Connection
from codexa.store.ledger_charts import Group, Measured
from codexa.store.ledger_queries import Chosen
from codexa.store.sessions import SignedIn

_MOST_CELLS = 800
_BLANK = "not answered"


class Charting:
    """Makes charts of one set."""

    def __init__(self, connect: Connect, editions: Editions, opened: ResponseSet, filter_: Filter) -> None:
        """Prepare for what a filter chooses. Raises ConditionError."""
        self._connect, self._opened = connect, opened
        self._chosen: Chosen = opened.asking.chosen(filter_)
        self._table = ResponseTable(editions, form=opened.form, numbers=opened.numbers)

    def chart(self, column_id: str, by_id: str = "") -> Chart:
        """Return the chart of a column, or of what it is by another. Raises ConditionError."""
        column, by = self._column(column_id), self._column(by_id) if by_id else None
        with self._connect() as connection:
            if by is not None:
                return self._compared(connection, column, by)
            return self._alone(connection, column)

    def _column(self, column_id: str) -> Column:
        found = self._opened.asking.column(column_id)
        if found is None:
            raise ConditionError(0, "There is no chart of this field: it is gone.")
        return found

    def _answered(self, column: Column, answered: int, total: int) -> str:
        """Say how many answered; rows of other kinds did not have to."""
        if self._rows_of(column):
            return f"answered in {counted(answered)} of {counted(total)} rows"
        return f"{counted(answered)} answered"

    def _alone(self, connection: Connection, column: Column) -> Chart:
        match column.holds:
            case Holds.NUMBER | Holds.FILES | Holds.ROWS:
                return self._numbers(connection, column)
            case Holds.DATE | Holds.MOMENT:
                return self._days(connection, column)
            case Holds.TIME:
                return self._hours(connection, column)
            case Holds.GRID:
                return self._grid(connection, column)
            case _:
                return self._shares(connection, column)

    def _chart(
        self,
        column: Column,
        *,
        kind: Kind,
        of: tuple[int, int],
        headline: str = "No answer yet",
        aside: str = "",
        by: str = "",
        **content: Any,
    ) -> Chart:
        """Return a chart `of` so many responses, of which so many have answered."""
        total, answered = of
        return Chart(
            column=column.id,
            by=by,
            kind=kind,
            headline=headline,
            aside=aside,
            all=total,
            answered=answered,
            **content,
        )

    def _measured(self, column: Column) -> Measured:
        whole, _, part = column.id.partition("/")
        return Measured(column=whole, holds=column.holds, part=part)

    def _rows_of(self, column: Column) -> str:
        """Return the repeat in whose rows a field is asked for, "" for one outside."""
        what = self._measured(column)
        return what.column if what.is_in_rows(self._opened.ledger) else ""

    def _shares(self, connection: Connection, column: Column) -> Chart:
        what = self._measured(column)
        found = ledger_charts.groups(connection, self._opened.ledger, self._chosen, what, most=MOST_BARS + 2)
        there, total, answered = found.groups, found.all, found.answered
        labels = self._labels(connection, column, there[:MOST_BARS])
        bars = [bar_of(each, labels, answered) for each in there[:MOST_BARS]]
        if column.holds in SHARED:
            bars = with_unchosen(bars, column)
        is_ticks = column.holds is Holds.CHOICES
        kind: Kind = "ticks" if is_ticks else "shares" if column.holds in SHARED else "answers"
        return self._chart(
            column,
            kind=kind,
            headline=most_said(bars, answered),
            aside=self._answered(column, answered, total) + (", each may have ticked several" if is_ticks else ""),
            of=(total, answered),
            bars=bars,
            more=len(there) > MOST_BARS,
        )

    def _labels(self, connection: Connection, column: Column, found: Sequence[Group]) -> dict[str, str]:
        """Return what people read of each value; texts are kept for comparing, so that one of each is looked up."""
        known = {each.code: each.label for each in column.options}
        if column.holds is Holds.YES_NO:
            return {"true": "Yes", "false": "No"}
        if column.holds is not Holds.TEXT or column.id.startswith(FACET):
            return known
        numbers = [each.example for each in found]
        rows = responses.by_numbers(connection, form=self._opened.form, numbers=numbers)
        texts = {}
        for each in found:
            if each.value is not None and (row := rows.get(each.example)) is not None:
                texts[each.value] = self._table.written(row, column.id, each.value) or each.value
        return texts

    def _numbers(self, connection: Connection, column: Column) -> Chart:
        what = self._measured(column)
        ledger, chosen = self._opened.ledger, self._chosen
        each = ledger_charts.each_number(connection, ledger, chosen, what)
        found = ledger_charts.spread(connection, ledger, chosen, what) if each is None else spread_of(each)
        total, answered = found.all, found.count
        if found.count == 0 or found.sum is None or found.least is None or found.greatest is None:
            return self._chart(column, kind="numbers", of=(total, 0))
        width = bin_width(found.least, found.greatest, whole=found.whole)
        if each is None:
            counts = ledger_charts.bins(connection, ledger, chosen, what, width)
        else:
            counts = sums((math.floor(number / width), count) for number, count in each.items() if number is not None)
        mean, told = average(found.sum, found.count), self._answered(column, answered, total)
        region = self._opened.region
        return self._chart(
            column,
            kind="numbers",
            headline=f"{shown(places(mean, 2), region)} on average",
            aside=", ".join((f"{shown(found.least, region)} to {shown(found.greatest, region)}", told)),
            of=(total, answered),
            bars=self._bins(counts, width, answered, whole=found.whole),
            average=mean,
            sum=found.sum,
            least=found.least,
            greatest=found.greatest,
        )

    def _bins(self, counts: Mapping[int, int], width: Decimal, answered: int, *, whole: bool) -> list[Bar]:
        region = self._opened.region
        bars = []
        for at in range(min(counts), max(counts) + 1):
            start = at * width
            single = whole and width == 1
            last = start + width - (1 if whole else 0)
            label = shown(start, region) if single else f"{shown(start, region)} to {shown(last, region)}"
            count = counts.get(at, 0)
            bars.append(Bar(code=str(start), label=label, count=count, share=share(count, answered)))
        return bars

    def _days(self, connection: Connection, column: Column) -> Chart:
        what = self._measured(column)
        ledger, zone = self._opened.ledger, self._opened.region.time_zone
        by_day, blank = ledger_charts.days(connection, ledger, self._chosen, what, zone)
        answered = sum(by_day.values())
        total = answered + blank
        if not by_day:
            return self._chart(column, kind="days", of=(total, 0))
        unit = unit_of((max(by_day) - min(by_day)).days)
        weekday = self._opened.region.first_weekday
        found = list(sums((stretch_of(day, unit, weekday), count) for day, count in by_day.items()).items())
        locale = self._opened.region.locale
        bars = [
            Bar(code=str(day), label=shown_date(day, locale), count=each, share=share(each, answered))
            for day, each in found
        ]
        busiest = max(bars, key=lambda each: each.count)
        stretches = steps(found[0][0], found[-1][0], unit)
        return self._chart(
            column,
            kind="days",
            headline=f"{shown(places(Decimal(answered) / len(stretches), 1), self._opened.region)} a {unit}",
            aside=f"most {'on' if unit == 'day' else f'in the {unit} of'} {busiest.label}: {counted(busiest.count)}",
            of=(total, answered),
            bars=filled(bars, stretches, locale),
        )

    def _hours(self, connection: Connection, column: Column) -> Chart:
        what = self._measured(column)
        counts, blank = ledger_charts.by_hour(connection, self._opened.ledger, self._chosen, what)
        answered = sum(counts.values())
        total = answered + blank
        if not counts:
            return self._chart(column, kind="hours", of=(total, 0))
        bars = [
            Bar(code=str(hour), label=f"{hour:02}:00", count=count, share=share(count, answered))
            for hour in range(min(counts), max(counts) + 1)
            for count in [counts.get(hour, 0)]
        ]
        busiest = max(bars, key=lambda each: each.count)
        return self._chart(
            column,
            kind="hours",
            headline=f"Most from {busiest.label}",
            aside=self._answered(column, answered, total),
            of=(total, answered),
            bars=bars,
        )

    def _grid(self, connection: Connection, column: Column) -> Chart:
        what = self._measured(column)
        total, answered = ledger_charts.answered(connection, self._opened.ledger, self._chosen, what)
        found = ledger_charts.grid(connection, self._opened.ledger, self._chosen, what)
        asked = sums((question, count) for question, _code, count in found)
        questions = {each.id.partition("/")[2]: each.label for each in column.parts}
        options = {each.code: each.label for part in column.parts[:1] for each in part.options}
        return self._chart(
            column,
            kind="grid",
            headline=f"{len(questions)} questions",
            aside=self._answered(column, answered, total),
            of=(total, answered),
            bars=[Bar(code=code, label=label, count=0, share=Decimal(0)) for code, label in options.items()],
            rows=[
                Bar(code=code, label=label, count=asked.get(code, 0), share=share(asked.get(code, 0), answered))
                for code, label in questions.items()
            ],
            cells=[
                Cell(row=question, code=code, count=count, share=share(count, asked[question]))
                for question, code, count in found
            ],
        )

    def _compared(self, connection: Connection, column: Column, by: Column) -> Chart:
        if by.holds in (Holds.GRID, Holds.ROWS, Holds.FILES):
            raise ConditionError(0, f"Nothing can be compared by {by.label}. Choose a field with single values.")
        rows = self._rows_of(by)
        if rows and self._rows_of(column) != rows:
            raise ConditionError(0, f"Only fields of the same rows can be compared by {by.label}.")
        if column.holds in (Holds.NUMBER, Holds.FILES, Holds.ROWS):
            return self._averages(connection, column, by)
        if column.holds is Holds.GRID:
            raise ConditionError(0, f"{column.label} is compared question by question. Choose one of them.")
        return self._crossed(connection, column, by)

    def _averages(self, connection: Connection, column: Column, by: Column) -> Chart:
        what = self._measured(column)
        ledger, chosen, region = self._opened.ledger, self._chosen, self._opened.region
        compared = ledger_charts.compared(connection, ledger, chosen, what, self._measured(by), most=MOST_BARS + 2)
        spread, found = compared.spread, compared.groups
        total, answered = spread.all, spread.count
        labels = self._labels(connection, by, found[:MOST_BARS])
        bars = [
            Bar(
                code=each.value or "",
                label=_BLANK if each.value is None else labels.get(each.value, each.value),
                count=each.count,
                share=share(each.count, answered),
                value=average(each.sum, each.count),
            )
            for each in found[:MOST_BARS]
        ]
        bars.sort(key=lambda bar: (-(bar.value or 0), bar.label))
        if not bars or spread.sum is None:
            return self._chart(column, by=by.id, kind="compared", of=(total, 0))
        mean = average(spread.sum, spread.count)
        least = min(bar.count for bar in bars)
        ends = f"“{bars[0].label}” most, “{bars[-1].label}” least, at least {least} answers each"
        return self._chart(
            column,
            by=by.id,
            kind="compared",
            headline=f"{shown(places(mean, 2), region)} on average",
            aside=ends if len(bars) > 1 else self._answered(column, answered, total),
            of=(total, answered),
            bars=bars,
            more=len(found) > MOST_BARS,
            average=mean,
            sum=spread.sum,
            least=spread.least,
            greatest=spread.greatest,
        )

    def _crossed(self, connection: Connection, column: Column, by: Column) -> Chart:
        ledger, chosen = self._opened.ledger, self._chosen
        what = self._measured(column)
        total, answered = ledger_charts.answered(connection, ledger, chosen, what)
        found = ledger_charts.crossed(connection, ledger, chosen, what, self._measured(by), most=_MOST_CELLS + 1)
        there = [each for each in found if each.crossed is not None]
        values = [Group(value=each.crossed, count=each.count, example=each.example) for each in there]
        row_labels = self._labels(connection, by, there)
        labels = self._labels(connection, column, values)
        rows = sums((each.value or "", each.count) for each in there)
        codes = sums((each.crossed or "", each.count) for each in there)
        return self._chart(
            column,
            by=by.id,
            kind="crossed",
            headline=f"{len(rows)} groups",
            aside=self._answered(column, answered, total),
            of=(total, answered),
            bars=[
                Bar(code=code, label=labels.get(code, code), count=count, share=share(count, answered))
                for code, count in in_order(codes, column)
            ],
            rows=[
                Bar(code=code, label=row_labels.get(code, code), count=count, share=share(count, answered))
                for code, count in sorted(rows.items(), key=lambda item: -item[1])
            ],
            cells=[
                Cell(
                    row=each.value or "",
                    code=each.crossed or "",
                    count=each.count,
                    share=share(each.count, rows[each.value or ""]),
                )
                for each in there
            ],
            more=len(found) > _MOST_CELLS,
        )


def chart(
    connect: Connect, editions: Editions, *, who: SignedIn, form: UUID, filter_: Filter, column: str, by: str = ""
) -> tuple[Region, Chart]:
    """Return the chart of a column over what a filter chooses, or of what it is by another, and the form's region.

    Raises NotFoundError, ConditionError.
    """
    opened = open_set(connect, editions, who=who, form=form)
    # Numbers may have more digits than Python computes with by itself, and lie close beside one another.
    with localcontext(WIDE):
        return opened.region, Charting(connect, editions, opened, filter_).chart(column, by)
