"""What the team does to a plan: it is stopped, or a charge that has failed is tried again."""

from uuid import UUID, uuid4

from codexa.services.errors import NotFoundError, PlanRefusedError
from codexa.services.payments.accounts import provider_of
from codexa.services.payments.news import note
from codexa.services.payments.provider import Provider, ProviderAwayError, ProviderRefusesError
from codexa.services.payments.settling import Way, look, settle
from codexa.store import forms, payments
from codexa.store.payments import PaymentRow, PlanRow
from codexa.store.sessions import SignedIn


def stop_plan(way: Way, *, who: SignedIn, form: UUID, number: int) -> str:
    """Have nothing more charged for a response, and return what became of it in words.

    While the provider does not answer, that it is to be stopped is kept, and a job asks again. Raises NotFoundError,
    PlanRefusedError where nothing runs.
    """
    first, plan = _own_plan(way, who, form, number)
    if plan.state not in ("running", "stopping"):
        raise PlanRefusedError("Nothing more would be charged: this plan does not run.")
    with way.connect() as connection:
        payments.ask_to_stop(connection, payment=first.id, person=who.person_id)
    try:
        carry_out_stop(way, first.id)
    except ProviderAwayError:
        return "The bank does not answer just now; it is asked to stop until it does."
    except ProviderRefusesError as error:
        raise PlanRefusedError(str(error)) from None
    return "Stopped: nothing more is charged."


def carry_out_stop(way: Way, payment: UUID) -> None:
    """Have the provider stop a plan, and take up how it stands. Raises ProviderAwayError, ProviderRefusesError."""
    with way.connect() as connection:
        row = payments.payment_by_id(connection, payment=payment)
    if row is not None and row.provider_id is not None:
        settle(way, row, _provider(way, row).stop_plan(row.provider_id))


def charge_again(way: Way, *, who: SignedIn, form: UUID, number: int, turn: int) -> str:
    """Try a later charge again that has failed, and return what became of it in words.

    Raises NotFoundError, PlanRefusedError.
    """
    first, _ = _own_plan(way, who, form, number)
    with way.connect() as connection:
        charge = payments.find_payment(connection, form=form, number=number, turn=turn) if turn else None
        if charge is None:
            raise NotFoundError
        if charge.state != "failed" or first.provider_id is None:
            raise PlanRefusedError("Only a charge that has failed can be tried again.")
        key = uuid4()
        note(connection, charge, "charged again", str(key), {"charge": turn}, who="person", person=who.person_id)
    try:
        settle(way, first, _provider(way, first).charge_again(first.provider_id, turn, key=key))
    except ProviderAwayError as error:
        raise PlanRefusedError(f"{error} Look again in a while whether it was charged.") from None
    except ProviderRefusesError:
        # It may have been charged already, by a try whose answer was lost.
        look(way, first.id)
    with way.connect() as connection:
        found = payments.find_payment(connection, form=form, number=number, turn=turn)
    if found is not None and found.state == "paid":
        return "Charged: it is paid now."
    return f"It was declined again: {found.reason if found else ''}"


def _own_plan(way: Way, who: SignedIn, form: UUID, number: int) -> tuple[PaymentRow, PlanRow]:
    with way.connect() as connection:
        found = forms.find_form(connection, team=who.team_id, form=form)
        row = payments.find_payment(connection, form=form, number=number) if found else None
        plan = payments.find_plan(connection, payment=row.id) if row else None
    if row is None or plan is None:
        raise NotFoundError
    return row, plan


def _provider(way: Way, row: PaymentRow) -> Provider:
    with way.connect() as connection:
        account = payments.find_account(connection, account=row.account_id)
    assert account is not None  # a payment keeps its account
    return provider_of(account, way.settings)
