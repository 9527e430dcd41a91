"""A form's payments as the team sees them."""

import csv
import io
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from babel.numbers import format_currency

from codexa.core.formula.convert import text_of_number
from codexa.core.program.payment import major_units
from codexa.services.drafts import require
from codexa.services.errors import NotFoundError
from codexa.services.response_grid import defused
from codexa.store import forms, payments
from codexa.store.database import Connect
from codexa.store.payments import PaymentRow, Sums
from codexa.store.sessions import SignedIn

MOST_LISTED = 500
_HEADS = ("Response", "State", "Amount", "Refunded", "Currency", "Card", "Payer", "E-mail", "Number", "Asked at")
STATES = ("", "due", "paid", "expired", "refunded")


@dataclass(frozen=True, kw_only=True, slots=True)
class ListedPayment:
    """A payment: amounts as people write them, `left` what can be given back (plain decimal)."""

    number: int
    state: str
    amount: str
    refunded: str
    left: str
    reason: str
    card: str
    payer: str
    provider_number: str
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


def payments_of(connect: Connect, *, who: SignedIn, form: UUID, state: str = "", find: str = "") -> Listed:
    """Return a form's payments in a state, in which is found what is looked for. Raises NotFoundError."""
    with connect() as connection:
        found = forms.find_form(connection, team=who.team_id, form=form)
        if found is None:
            raise NotFoundError
        locale = str(found.draft["locale"])
        known = {"team": who.team_id, "form": form}
        rows = payments.list_payments(connection, state=state, find=find.strip(), most=MOST_LISTED, **known)
        sums = payments.sums_of_form(connection, **known)
    return Listed(payments=[_shown(each, locale) for each in rows], sums=[_added_up(each, locale) for each in sums])


def _shown(row: PaymentRow, locale: str) -> ListedPayment:
    left = row.amount - row.refunded if row.state == "paid" else 0
    return ListedPayment(
        number=row.number,
        state=row.state if not row.refunded else "refunded" if row.refunded == row.amount else "part refunded",
        amount=_money(row.amount, row.currency, locale),
        refunded=_money(row.refunded, row.currency, locale) if row.refunded else "",
        left=format(major_units(left, row.currency), "f") if left else "",
        reason=row.reason,
        card=row.card,
        payer=" · ".join(each for each in (row.payer.get("name", ""), row.payer.get("email", "")) if each),
        provider_number=row.provider_id or "",
        due_until=row.due_until,
        created_at=row.created_at,
        changed_at=row.changed_at,
    )


def _added_up(sums: Sums, locale: str) -> ListedSums:
    return ListedSums(
        test=sums.test,
        count=sums.count,
        paid=_money(sums.paid, sums.currency, locale),
        refunded=_money(sums.refunded, sums.currency, locale),
        due=_money(sums.due, sums.currency, locale),
    )


def _money(amount: int, currency: str, locale: str) -> str:
    return str(format_currency(major_units(amount, currency), currency, locale=locale))


def payments_as_csv(connect: Connect, *, who: SignedIn, form: UUID) -> str:
    """Return a form's payments as CSV (RFC 4180): plain amounts, ISO times. Raises NotFoundError."""
    require(connect, who=who, form=form)
    with connect() as connection:
        rows = payments.list_payments(connection, team=who.team_id, form=form, state="", find="", most=1_000_000)
    written = io.StringIO()
    out = csv.writer(written, lineterminator="\r\n")
    out.writerow(
        ["Response", "State", "Amount", "Refunded", "Currency", "Card", "Payer", "E-mail", "Number", "Asked at"]
    )
    for row in rows:
        amounts = [text_of_number(major_units(each, row.currency)) for each in (row.amount, row.refunded)]
        payer = [row.payer.get("name", ""), row.payer.get("email", "")]
        cells = [str(row.number), row.state, *amounts, row.currency, row.card, *payer, row.provider_id or ""]
        out.writerow([*map(defused, cells), row.created_at.isoformat()])
    return written.getvalue()
