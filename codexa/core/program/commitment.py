"""What a response commits its payer to: what is paid now, and later by a plan, each amount to the minor unit."""

import datetime
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Any

from codexa.core.context import Context
from codexa.core.definition.payment import Plan, Unit
from codexa.core.fields.formatted import minor_digits, to_minor_unit
from codexa.core.formula import convert
from codexa.core.formula.functions.calendar_dates import months_later
from codexa.core.formula.values import ErrorCode, Failed, FormulaFailure, fail, whole
from codexa.core.program.order import OrderTotals
from codexa.core.program.order_names import PAYMENT
from codexa.core.program.program import Program

MOST_TIMES = 1_000
_MOST = Decimal(10**11)  # minor units that are paid at once; a thousand million euros
_NOTHING = Decimal(0)


@dataclass(frozen=True, kw_only=True, slots=True)
class Later:
    """Payments of `amount` each that follow, one each `every` days, weeks, months or years.

    Their days are reckoned from `starts_on`, the day of the plan's first payment, which is the first of them or, where
    that is `paid_now`, stands before them. There are so many `times`, or None for as many as come until it is stopped.
    """

    amount: Decimal
    every: int
    unit: Unit
    times: int | None
    starts_on: datetime.date
    paid_now: bool

    def day(self, turn: int) -> datetime.date:
        """Return the day of one of them; the first is turn 1. A month that is too short has it on its last day.

        Raises FormulaFailure after the year 9999.
        """
        return day_of(self.starts_on, self.every, self.unit, turn if self.paid_now else turn - 1)


@dataclass(frozen=True, kw_only=True, slots=True)
class Commitment:
    """What is paid now, at least 0; and what later, None where that is all."""

    now: Decimal
    later: Later | None

    @property
    def whole(self) -> Decimal | None:
        """All that is ever paid; None where there is no end to it."""
        if self.later is None:
            return self.now
        return None if self.later.times is None else self.now + self.later.amount * self.later.times


def day_of(start: datetime.date, every: int, unit: Unit, steps: int) -> datetime.date:
    """Return the day so many steps after a start, always reckoned from the start: 31 January, 28 February, 31 March.

    Raises FormulaFailure after the year 9999.
    """
    count = Decimal(every * steps)
    if unit in ("day", "week"):
        return convert.shift(start, count * (7 if unit == "week" else 1))
    return months_later(start, count * (12 if unit == "year" else 1))


def commitment_of(
    program: Program, order: object, values: Sequence[Any], context: Context
) -> Commitment | Failed | None:
    """Return what is to be paid; None where no payment is asked for, a Failed where it can't be worked out."""
    if not program.form.payment.on:
        return None
    worker = _Worker(program, values, context)
    if not worker.holds("when"):
        return None
    try:
        amount = worker.amount(order)
        for at, plan in enumerate(program.form.payment.plans):
            if worker.holds(f"plans.{at}.when"):
                return worker.by_plan(plan, f"plans.{at}", amount)
        return Commitment(now=worker.within_reach(max(_NOTHING, amount)), later=None)
    except FormulaFailure as failure:
        return Failed(failure.error)


@dataclass(frozen=True, slots=True)
class _Worker:
    """Works formulas of the payment out; each that fails ends the work with a FormulaFailure."""

    program: Program
    values: Sequence[Any]
    context: Context

    def holds(self, setting: str) -> bool:
        """Say whether a condition holds, or there is none; one that fails does not hold."""
        formula = self.program.formula(PAYMENT, setting)
        return formula is None or formula.compiled.run(self.values, self.context) is True

    def amount(self, order: object) -> Decimal:
        """Return the amount of the payment's formula, else the order's total; 0 where there is neither."""
        if self.program.formula(PAYMENT, "amount") is not None:
            return self._money("amount")
        if isinstance(order, Failed):
            order.spread()
        return order.total if isinstance(order, OrderTotals) else _NOTHING

    def by_plan(self, plan: Plan, setting: str, amount: Decimal) -> Commitment:
        """Return what a plan makes of an amount."""
        fee, times = self._money(f"{setting}.fee"), self._times(plan, f"{setting}.times")
        each, first = amount, amount
        if plan.shared and times is not None:
            each, first = _shares(amount, times, self.program.region.currency)
        today = self.context.today
        wanted = self._found(f"{setting}.first_day")
        starts_on = today if wanted is None else convert.date(wanted)
        paid_now = starts_on <= today
        left = None if times is None else times - 1 if paid_now else times
        later = Later(
            amount=self.within_reach(each),
            every=plan.every,
            unit=plan.unit,
            times=left,
            starts_on=today if paid_now else starts_on,
            paid_now=paid_now,
        )
        later.day(left or 1)  # refused here, not when it comes
        # What can't be shared out is paid at once even where the first share comes later: nothing of it is lost.
        now = self.within_reach(max(_NOTHING, (first if paid_now else first - each if plan.shared else _NOTHING) + fee))
        return Commitment(now=now, later=later if each > 0 and left != 0 else None)

    def within_reach(self, amount: Decimal) -> Decimal:
        """Return an amount that can be paid at once; a greater one fails before anybody is asked for it."""
        if amount.scaleb(minor_digits(self.program.region.currency)) > _MOST:
            fail(ErrorCode.NUMBER, "This is more than can be paid at once.")
        return amount

    def _times(self, plan: Plan, setting: str) -> int | None:
        found = self._found(setting)
        if found is None:
            # Who has not said how many is not to pay for ever.
            if plan.shared or plan.times.strip():
                fail(ErrorCode.VALUE, "The number of payments is not known yet.")
            return None
        times = convert.number(found)
        if not 1 <= times <= MOST_TIMES or times != times.to_integral_value():
            fail(ErrorCode.NUMBER, f"The number of payments is 1 to {MOST_TIMES:,}, not {convert.text(times)}.")
        return whole(times)

    def _money(self, setting: str) -> Decimal:
        found = self._found(setting)
        amount = _NOTHING if found is None else convert.number(found)
        return to_minor_unit(amount, self.program.region.currency)

    def _found(self, setting: str) -> Any:
        formula = self.program.formula(PAYMENT, setting)
        found = None if formula is None else formula.compiled.run(self.values, self.context)
        if isinstance(found, Failed):
            found.spread()
        return found


def _shares(amount: Decimal, times: int, currency: str) -> tuple[Decimal, Decimal]:
    """Return each share of an amount, and the first, which has what is left over; together they are the amount."""
    units = whole(amount.scaleb(minor_digits(currency)))
    each = Decimal(units // times).scaleb(-minor_digits(currency))
    return each, amount - each * (times - 1)
