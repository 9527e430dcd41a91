"""Paying, as the visitor sees it: the provider is asked for the payment once, and how it stands is told."""

import logging
from dataclasses import dataclass
from uuid import UUID

from codexa.core.program.order import money
from codexa.core.program.payment import major_units
from codexa.core.program.program import Program
from codexa.services.errors import AccountRefusedError, NotFoundError
from codexa.services.payments.accounts import hook_secret_of, provider_of
from codexa.services.payments.provider import ProviderAwayError, ProviderRefusesError, Wanted, WantedPlan
from codexa.services.payments.settling import Way, look, settle
from codexa.store import payments
from codexa.store.payments import PaymentRow, PlanRow

_LOG = logging.getLogger(__name__)


@dataclass(frozen=True, kw_only=True, slots=True)
class ToPay:
    """A payment as the visitor sees it: `page` is the bank's, where a card is typed; `away` where it can't be asked.

    `amount` is "" where nothing is paid at once, and `plan` what is paid now and later in words, "" without a plan.
    """

    state: str
    amount: str
    plan: str
    page: str
    reason: str
    practice: bool
    in_frame: bool
    away: bool


def payment_of(way: Way, *, form: UUID, number: int, program: Program) -> ToPay | None:
    """Return how a response's payment stands as far as we know; None where nothing was due."""
    with way.connect() as connection:
        row = payments.find_payment(connection, form=form, number=number)
    return None if row is None else _shown(way, row, program)


def pay(way: Way, *, form: UUID, number: int, program: Program, back_to: str) -> ToPay:
    """Have the provider take a payment, or tell how it stands; `back_to` is our page for whoever pays.

    Raises NotFoundError where nothing was due.
    """
    with way.connect() as connection:
        row = payments.find_payment(connection, form=form, number=number)
    if row is None:
        raise NotFoundError
    if row.state != "due":
        return _shown(way, row, program)
    try:
        asked = row if row.provider_id else _ask(way, row, back_to)
        found = look(way, asked.id) or row
    except (ProviderAwayError, ProviderRefusesError, AccountRefusedError) as error:
        _LOG.warning("payment %s can't be asked for: %s", row.id, error)
        return _shown(way, row, program, away=True)
    return _shown(way, found, program)


def _ask(way: Way, row: PaymentRow, back_to: str) -> PaymentRow:
    with way.connect() as connection:
        account = payments.find_account(connection, account=row.account_id)
        plan = payments.find_plan(connection, payment=row.id)
    assert account is not None
    hook_secret_of(way.connect, way.settings, account)
    wanted = Wanted(
        id=row.id,
        amount=row.amount,
        currency=row.currency,
        reference=f"{row.form_id}.{row.number}",
        payer=row.payer,
        cards=row.cards,
        plan=None if plan is None else _wanted_plan(plan),
        back_to=back_to,
    )
    provider = provider_of(account, way.settings)
    said = provider.ask(wanted)
    with way.connect() as connection:
        payments.set_asked(connection, payment=row.id, provider_id=said.id, page=said.page)
        asked = payments.payment_by_id(connection, payment=row.id)
    assert asked is not None
    if asked.provider_id != said.id:
        # It expired while the provider was asked: nobody is to pay it any more.
        provider.cancel(said.id)
        return asked
    return settle(way, asked, said)


def _wanted_plan(plan: PlanRow) -> WantedPlan:
    return WantedPlan(
        amount=plan.amount,
        every=plan.every,
        unit=plan.unit,
        times=None if plan.times is None else plan.times + plan.paid_now,
        starts_on=plan.starts_on,
        first_now=plan.paid_now,
    )


def _shown(way: Way, row: PaymentRow, program: Program, *, away: bool = False) -> ToPay:
    with way.connect() as connection:
        plan = payments.find_plan(connection, payment=row.id)
    return ToPay(
        state=row.state,
        amount=money(major_units(row.amount, row.currency), program.region) if row.amount else "",
        plan=plan.words if plan else "",
        page=row.page if row.state == "due" else "",
        reason=row.reason,
        practice=program.form.payment.practice,
        in_frame=program.form.payment.in_frame,
        away=away,
    )
