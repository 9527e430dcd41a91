"""What a provider says of a payment becomes what we know: events, the stage of the response, and what follows from it.

Whatever brings the news (the bank's event, the visitor's page, a job), the payment is asked for at the provider and
settled here, in one transaction, once.
"""

from dataclasses import dataclass
from uuid import UUID

from codexa.core.context import Context
from codexa.core.form.follow_ups import Moment
from codexa.core.program.evaluate import State
from codexa.core.program.kept import state_of_kept
from codexa.services.bookings import booking
from codexa.services.editions import Editions
from codexa.services.follow_ups.keeping import Happened, keep_due
from codexa.services.own_pages import OwnPages
from codexa.services.payments.accounts import provider_of
from codexa.services.payments.news import News, facts_of, note, note_refund
from codexa.services.payments.plans import take_up_charge, take_up_plan
from codexa.services.payments.provider import ProviderState
from codexa.settings import Settings
from codexa.store import payments, responses
from codexa.store.database import Connect, Connection
from codexa.store.payments import PaymentRow, PlanRow
from codexa.store.responses import ReceivedRow


@dataclass(frozen=True, kw_only=True, slots=True)
class Way:
    """What payments are settled with."""

    connect: Connect
    editions: Editions
    settings: Settings


def look(way: Way, payment_id: UUID) -> PaymentRow | None:
    """Ask the provider how a payment stands, settle it, and return it; None where there is none.

    Raises ProviderAwayError, ProviderRefusesError.
    """
    with way.connect() as connection:
        row = payments.payment_by_id(connection, payment=payment_id)
        account = payments.find_account(connection, account=row.account_id) if row else None
    if row is None or account is None or row.provider_id is None:
        return row
    return settle(way, row, provider_of(account, way.settings).find(row.provider_id))


def settle(way: Way, row: PaymentRow, said: ProviderState) -> PaymentRow:
    """Take up what the provider says of a payment; the second arrival of the same news changes nothing."""
    with way.connect() as connection:
        response = responses.find_received(connection, form=row.form_id, number=row.number)
    if response is None:
        return row
    # Compiled, if need be, before anything is locked.
    context = Context.from_json(response.told, number=row.number)
    program = way.editions.program(row.form_id, response.edition, language=context.locale)
    with way.connect() as connection:
        first = payments.lock_first(connection, form=row.form_id, number=row.number)
        plan = payments.find_plan(connection, payment=first.id)
        if row.turn:
            changed = payments.lock_payment(connection, payment=row.id)
            news = take_up_charge(connection, first, plan, changed, said)
        else:
            changed, news = _take_up(connection, first, plan, said)
        for each in news:
            state = state_of_kept(program, response.answers, context.with_payment(each.facts))
            event = Happened(form=row.form_id, number=row.number, moments=each.moments, which=each.which)
            keep_due(connection, state, event, OwnPages(settings=way.settings))
        found = payments.payment_by_id(connection, payment=changed.id)
    return found or changed


def _news(held: PaymentRow, said: ProviderState) -> tuple[Moment, ...]:
    """Return what has happened that follow-ups hang on."""
    news: list[Moment] = []
    if said.state == "paid" and held.state != "paid":
        news += ["paid", "complete", "day"]
    if said.state == "open" and said.reason and (said.reason, said.card) != (held.reason, held.card):
        news.append("payment failed")
    if said.refunded > held.refunded:
        news.append("refunded")
    return tuple(news)


def _take_up(
    connection: Connection, held: PaymentRow, plan: PlanRow | None, said: ProviderState
) -> tuple[PaymentRow, list[News]]:
    """Take up how a first payment stands, and the plan that it begins."""
    if (said.amount, said.currency) != (held.amount, held.currency):
        told = {"asked": f"{held.amount} {held.currency}", "said": f"{said.amount} {said.currency}"}
        note(connection, held, "payment differs", said.id, told)
        return held, []
    news = _news(held, said)
    changed = _take_up_first(connection, held, said, news)
    found: list[News] = []
    if news:
        which = f"{said.refunded}" if news == ("refunded",) else ""
        found.append(News(moments=news, which=which, facts=facts_of(changed, plan)))
    if plan is not None and said.plan is not None:
        found += take_up_plan(connection, changed, plan, said.plan)
    return changed, found


def _take_up_first(
    connection: Connection, held: PaymentRow, said: ProviderState, news: tuple[Moment, ...]
) -> PaymentRow:
    state = "paid" if "paid" in news else held.state
    refunded = max(held.refunded, said.refunded)
    payments.set_state(connection, payment=held.id, state=state, reason=said.reason, card=said.card, refunded=refunded)
    if "payment failed" in news:
        note(
            connection, held, "payment failed", f"{said.card} {said.reason}", {"reason": said.reason, "card": said.card}
        )
        _move(connection, held, "waiting", "failed")
    if "paid" in news:
        # What expired and was paid all the same is sold: it takes again what it had given back.
        booking.take_again(connection, held.form_id, held.number)
        if held.amount:
            payments.number_receipt(connection, payment=held)
        note(connection, held, "paid", said.id, {"card": said.card})
        note(connection, held, "complete", "", {})
        _move(connection, held, "complete", "paid")
    if "refunded" in news:
        note_refund(connection, held, said)
    found = payments.payment_by_id(connection, payment=held.id)
    assert found is not None
    return found


def _move(connection: Connection, row: PaymentRow, stage: str, payment: str) -> None:
    payments.set_stage(connection, form=row.form_id, number=row.number, stage=stage, payment=payment)


def expire(way: Way, payment_id: UUID) -> PaymentRow | None:
    """Let a payment expire whose time is over: what was claimed is given back. One that was paid after all is settled.

    Raises ProviderAwayError, ProviderRefusesError: until the provider has taken it back, somebody may still pay it.
    """
    with way.connect() as connection:
        row = payments.payment_by_id(connection, payment=payment_id)
        account = payments.find_account(connection, account=row.account_id) if row else None
    if row is None or account is None or row.state != "due":
        return row
    if row.provider_id is not None:
        said = provider_of(account, way.settings).cancel(row.provider_id)
        if said.state == "paid":
            return settle(way, row, said)
    with way.connect() as connection:
        held = payments.lock_payment(connection, payment=payment_id)
        if held.state != "due" or held.provider_id != row.provider_id:
            return held
        payments.set_state(
            connection, payment=held.id, state="expired", reason="", card=held.card, refunded=held.refunded
        )
        _move(connection, held, "expired", "failed")
        note(connection, held, "expired", "", {}, who="clock")
        booking.release(connection, held.form_id, held.number)
        return payments.payment_by_id(connection, payment=payment_id)


def state_with_payment(
    way: Way, row: ReceivedRow, form: UUID, payment: PaymentRow | None, *, for_team: bool = False
) -> State:
    """Return a response's state as it was accepted, with how its payment stands; see `Editions.accepted`."""
    with way.connect() as connection:
        plan = None if payment is None else payments.find_plan(connection, payment=payment.id)
    facts = None if payment is None else facts_of(payment, plan)
    state = way.editions.accepted(form, row, row.number, facts, for_team=for_team)
    return OwnPages(settings=way.settings).known_in(state, form, row.number)
