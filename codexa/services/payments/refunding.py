"""Giving money back, whole or in part, once for each time that somebody asks."""

from decimal import Decimal
from uuid import UUID

from codexa.core.program.payment import major_units, minor_units
from codexa.services.errors import NotFoundError, RefundRefusedError
from codexa.services.payments.accounts import provider_of
from codexa.services.payments.provider import ProviderAwayError, ProviderRefusesError
from codexa.services.payments.settling import Way, settle
from codexa.store import forms, payments
from codexa.store.payments import PaymentRow
from codexa.store.sessions import SignedIn


def refund(way: Way, *, who: SignedIn, form: UUID, number: int, amount: Decimal, turn: int = 0) -> str:
    """Give so much of a payment back (major units), and return what became of it in words.

    It is what was paid for a response at first, or a later charge by its turn.

    Raises NotFoundError, RefundRefusedError where more is asked for than is left. While the bank does not answer, the
    refund is kept and asked for again by a job, under the same key.
    """
    with way.connect() as connection:
        found = forms.find_form(connection, team=who.team_id, form=form)
        row = payments.find_payment(connection, form=form, number=number, turn=turn) if found else None
        if row is None:
            raise NotFoundError
        wanted = minor_units(amount, row.currency)
        if wanted <= 0 or major_units(wanted, row.currency) != amount:
            raise RefundRefusedError(f"{amount} is no amount of {row.currency} that can be given back.")
        payments.lock_payment(connection, payment=row.id)
        asked = payments.insert_refund(connection, payment=row.id, amount=wanted, person=who.person_id)
        if asked is None:
            left = major_units(row.amount - row.refunded if row.state == "paid" else 0, row.currency)
            raise RefundRefusedError(f"At most {left} {row.currency} can be given back.")
    try:
        carry_out(way, row, asked, wanted)
    except ProviderAwayError:
        return "The bank does not answer just now; it is asked again until it does."
    return "Given back."


def carry_out(way: Way, row: PaymentRow, refund_id: UUID, amount: int) -> None:
    """Have the provider give money back, and settle it. Raises ProviderAwayError, RefundRefusedError."""
    with way.connect() as connection:
        account = payments.find_account(connection, account=row.account_id)
    if account is None or row.provider_id is None:
        raise RefundRefusedError
    try:
        said = provider_of(account, way.settings).refund(row.provider_id, amount, key=refund_id)
    except ProviderRefusesError as error:
        with way.connect() as connection:
            payments.end_refund(connection, refund=refund_id, state="refused")
        raise RefundRefusedError(str(error)) from None
    settle(way, row, said)
    with way.connect() as connection:
        payments.end_refund(connection, refund=refund_id, state="done")
