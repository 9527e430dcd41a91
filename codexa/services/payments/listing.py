"""The payments of a form, or of all: listed with their sums, one with all that came of it, and as CSV."""

import csv
import io
from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from uuid import UUID

from codexa.core.fields.written import currency_text
from codexa.core.formula.convert import text_of_number
from codexa.core.formula.values import FormulaFailure
from codexa.core.program.commitment import Later
from codexa.core.program.payment import major_units
from codexa.services.drafts import require
from codexa.services.errors import NotFoundError
from codexa.services.payments.news import status_of
from codexa.services.response_csv import defused
from codexa.store import payments, responses
from codexa.store.database import Connect
from codexa.store.payments import ListedRow, PlanRow, Sums
from codexa.store.responses import Event
from codexa.store.sessions import SignedIn

MOST_LISTED = 500
MOST_TO_COME = 12
_MOST_EVER = 1_000_000
STATES = ("", "due", "paid", "failed", "expired", "refunded", "running")
_HEADS = (
    *("Form", "Response", "Charge", "Day", "State", "Amount", "Refunded", "Currency", "Receipt"),
    *("Card", "Payer", "E-mail", "Number", "Asked at", "Practice"),
)
# Of what happens to a response, that which is about money.
_OF_MONEY = frozenset(
    {"payment asked", "paid", "payment failed", "payment differs", "refunded", "expired"}
    | {"charge", "charge failed", "charged again", "plan stopped", "plan ended"}
)


@dataclass(frozen=True, kw_only=True, slots=True)
class ListedPayment:
    """A payment: amounts as people write them, `left` what can be given back (plain decimal).

    `turn` 0 is what was paid at first, with the `plan` that it began in words and how that stands; others are charges,
    each of a `day`. `test` where it was practice.
    """

    form: UUID
    form_name: str
    number: int
    turn: int
    day: date | None
    test: bool
    state: str
    amount: str
    refunded: str
    left: str
    currency: str
    receipt: int | None
    reason: str
    card: str
    payer: str
    provider_number: str
    plan: str
    plan_state: str
    next_on: date | None
    due_until: datetime
    created_at: datetime
    changed_at: datetime


@dataclass(frozen=True, kw_only=True, slots=True)
class ListedSums:
    """What came of payments in one currency, as people write it; of tries apart."""

    test: bool
    count: int
    paid: str
    refunded: str
    due: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Listed:
    """The latest payments, and what all of them come to."""

    payments: list[ListedPayment]
    sums: list[ListedSums]


@dataclass(frozen=True, kw_only=True, slots=True)
class ToCome:
    """A charge that is still to come."""

    day: date
    amount: str


@dataclass(frozen=True, kw_only=True, slots=True)
class MoneyEvent:
    """Something that happened about money: of which `charge` (None for what was paid at first), and by whom.

    `amount` as people write it, `card` and `reason` are "" where it has none.
    """

    kind: str
    at: datetime
    person: str | None
    charge: int | None
    amount: str
    card: str
    reason: str


@dataclass(frozen=True, kw_only=True, slots=True)
class InFull:
    """All that came of a response's payment: at first and later, what is to come next, and what happened when.

    `to_come` are at most MOST_TO_COME; `more` says how many follow those, None for no end.
    """

    payments: list[ListedPayment]
    to_come: list[ToCome]
    more: int | None
    events: list[MoneyEvent]


def payments_of(
    connect: Connect, *, who: SignedIn, form: UUID | None = None, state: str = "", find: str = ""
) -> Listed:
    """Return the payments of a form, or of all forms, in a state, in which is found what is looked for.

    Raises NotFoundError.
    """
    if form is not None:
        require(connect, who=who, form=form)
    with connect() as connection:
        rows = payments.list_payments(
            connection,
            team=who.team_id,
            person=who.person_id,
            form=form,
            state=state,
            find=find.strip(),
            most=MOST_LISTED,
        )
        sums = payments.sums_of(connection, team=who.team_id, form=form, person=who.person_id)
    return Listed(payments=[_shown(each) for each in rows], sums=[_added_up(each) for each in sums])


def payment_in_full(connect: Connect, *, who: SignedIn, form: UUID, number: int) -> InFull:
    """Return all that came of a response's payment. Raises NotFoundError."""
    require(connect, who=who, form=form)
    with connect() as connection:
        found = payments.list_payments(
            connection, team=who.team_id, person=who.person_id, form=form, number=number, most=_MOST_EVER
        )
        rows = sorted(found, key=lambda each: each.turn)
        if not rows:
            raise NotFoundError
        plan = payments.find_plan(connection, payment=rows[0].id)
        happened = responses.list_events(connection, team=who.team_id, form=form, number=number)
    runs = rows[0].plan_state in ("waiting", "running")
    days, more = _to_come(plan, made=rows[-1].turn) if plan is not None and runs else ([], 0)
    amount = "" if plan is None else _money(plan.amount, rows[0].currency, rows[0].locale)
    return InFull(
        payments=[_shown(each) for each in rows],
        to_come=[ToCome(day=day, amount=amount) for day in days],
        more=more,
        events=[_happened(each, rows[0]) for each in happened if each.kind in _OF_MONEY],
    )


def _happened(event: Event, first: ListedRow) -> MoneyEvent:
    data = event.data
    amount = data.get("amount")
    return MoneyEvent(
        kind=event.kind,
        at=event.at,
        person=event.person,
        charge=data.get("charge"),
        amount="" if amount is None else currency_text(Decimal(amount), first.currency, first.locale),
        card=data.get("card", ""),
        reason=data.get("reason") or data.get("said", ""),
    )


def _to_come(plan: PlanRow, *, made: int) -> tuple[list[date], int | None]:
    """Return the next days of a plan after so many charges, and how many follow those."""
    known = {name: getattr(plan, name) for name in ("every", "unit", "times", "starts_on", "paid_now")}
    later = Later(amount=Decimal(plan.amount), **known)
    left = None if plan.times is None else plan.times - made
    count = MOST_TO_COME if left is None else min(left, MOST_TO_COME)
    days: list[date] = []
    for turn in range(made + 1, made + count + 1):
        try:
            days.append(later.day(turn))
        except FormulaFailure:
            return days, 0  # no day is after the year 9999
    return days, None if left is None else left - count


def _shown(row: ListedRow) -> ListedPayment:
    left = row.amount - row.refunded if row.state == "paid" else 0
    return ListedPayment(
        form=row.form_id,
        form_name=row.form_name,
        number=row.number,
        turn=row.turn,
        day=row.day,
        test=row.test,
        state=status_of(row),
        amount=_money(row.amount, row.currency, row.locale),
        refunded=_money(row.refunded, row.currency, row.locale) if row.refunded else "",
        left=format(major_units(left, row.currency), "f") if left else "",
        currency=row.currency,
        receipt=row.receipt,
        reason=row.reason,
        card=row.card,
        payer=" · ".join(each for each in (row.payer.get("name", ""), row.payer.get("email", "")) if each),
        provider_number=row.provider_id or "",
        plan=row.plan,
        plan_state=row.plan_state,
        next_on=row.next_on,
        due_until=row.due_until,
        created_at=row.created_at,
        changed_at=row.changed_at,
    )


def _added_up(sums: Sums) -> ListedSums:
    locale = sums.locale
    return ListedSums(
        test=sums.test,
        count=sums.count,
        paid=_money(sums.paid, sums.currency, locale),
        refunded=_money(sums.refunded, sums.currency, locale),
        due=_money(sums.due, sums.currency, locale),
    )


def _money(amount: int, currency: str, locale: str) -> str:
    return currency_text(major_units(amount, currency), currency, locale)


def payments_as_csv(connect: Connect, *, who: SignedIn, form: UUID | None = None) -> str:
    """Return the payments of a form, or of all, as CSV (RFC 4180): plain amounts, ISO days and times.

    Raises NotFoundError.
    """
    if form is not None:
        require(connect, who=who, form=form)
    with connect() as connection:
        rows = payments.list_payments(connection, team=who.team_id, person=who.person_id, form=form, most=_MOST_EVER)
    written = io.StringIO()
    out = csv.writer(written, lineterminator="\r\n")
    out.writerow(_HEADS)
    for row in rows:
        out.writerow([*map(defused, _cells(row)), row.created_at.isoformat(), "yes" if row.test else "no"])
    return written.getvalue()


def _cells(row: ListedRow) -> list[str]:
    amount, refunded = (text_of_number(major_units(each, row.currency)) for each in (row.amount, row.refunded))
    receipt = "" if row.receipt is None else str(row.receipt)
    when = [str(row.turn), "" if row.day is None else row.day.isoformat()]
    what = [row.state, amount, refunded, row.currency, receipt, row.card]
    return [
        *(row.form_name, str(row.number), *when, *what),
        *(row.payer.get("name", ""), row.payer.get("email", ""), row.provider_id or ""),
    ]
