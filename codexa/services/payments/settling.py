"""What a provider says of a payment becomes what we know: events, the stage of the response, and what follows from it.

Whatever brings the news (the bank's event, the visitor's page, a job), the payment is asked for at the provider and
settled here, in one transaction, once.
"""

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.core.context import Context, PaymentFacts
from codexa.core.form.follow_ups import Moment
from codexa.core.program.evaluate import State
from codexa.core.program.kept import state_of_kept
from codexa.core.program.payment import major_units
from codexa.services.editions import Editions
from codexa.services.follow_ups.keeping import keep_due
from codexa.services.payments.accounts import provider_of
from codexa.services.payments.provider import ProviderState
from codexa.settings import Settings
from codexa.store import claims, payments, responses
from codexa.store.database import Connect, Connection
from codexa.store.payments import PaymentRow
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
    program = way.editions.program(row.form_id, response.edition)
    context = Context.from_json(response.told, number=row.number)
    with way.connect() as connection:
        held = payments.lock_payment(connection, payment=row.id)
        news = _news(held, said)
        changed = _take_up(connection, held, said, news)
        if news:
            facts = facts_of(changed)
            state = state_of_kept(program, response.answers, context.with_payment(facts))
            keep_due(connection, state, form=row.form_id, number=row.number, moments=news)
    return changed


def _news(held: PaymentRow, said: ProviderState) -> tuple[Moment, ...]:
    """Return what has happened that follow-ups hang on."""
    if (said.amount, said.currency) != (held.amount, held.currency):
        return ()
    news: list[Moment] = []
    if said.state == "paid" and held.state != "paid":
        news += ["paid", "complete", "day"]
    if said.state == "open" and said.reason and (said.reason, said.card) != (held.reason, held.card):
        news.append("payment failed")
    if said.refunded > held.refunded:
        news.append("refunded")
    return tuple(news)


def _take_up(connection: Connection, held: PaymentRow, said: ProviderState, news: tuple[Moment, ...]) -> PaymentRow:
    if (said.amount, said.currency) != (held.amount, held.currency):
        told = {"asked": f"{held.amount} {held.currency}", "said": f"{said.amount} {said.currency}"}
        _note(connection, held, "payment differs", said.id, told)
        return held
    state = "paid" if "paid" in news else held.state
    refunded = max(held.refunded, said.refunded)
    payments.set_state(connection, payment=held.id, state=state, reason=said.reason, card=said.card, refunded=refunded)
    if "payment failed" in news:
        _note(
            connection, held, "payment failed", f"{said.card} {said.reason}", {"reason": said.reason, "card": said.card}
        )
        _move(connection, held, "waiting", "failed")
    if "paid" in news:
        # What expired and was paid all the same is sold: it takes again what it had given back.
        claims.take_again(connection, form=held.form_id, number=held.number)
        _note(connection, held, "paid", said.id, {"card": said.card})
        _note(connection, held, "complete", "", {})
        _move(connection, held, "complete", "paid")
    if "refunded" in news:
        given = str(major_units(said.refunded - held.refunded, held.currency))
        _note(connection, held, "refunded", f"{said.id} {said.refunded}", {"amount": given, "currency": held.currency})
        _move(connection, held, "complete", "refunded" if refunded == held.amount else "part refunded")
    found = payments.payment_by_id(connection, payment=held.id)
    assert found is not None
    return found


def _note(
    connection: Connection, row: PaymentRow, kind: str, key: str, data: dict[str, Any], *, who: str = "bank"
) -> None:
    payments.add_event(connection, form=row.form_id, number=row.number, kind=kind, key=key, who=who, data=data)


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
        _note(connection, held, "expired", "", {}, who="clock")
        claims.release(connection, form=held.form_id, number=held.number)
        return payments.payment_by_id(connection, payment=payment_id)


def facts_of(row: PaymentRow) -> PaymentFacts:
    """Return how a payment stands, as formulas and texts know it."""
    return PaymentFacts(
        amount=major_units(row.amount, row.currency),
        number=row.provider_id or "",
        status=row.state if not row.refunded else "refunded" if row.refunded == row.amount else "part refunded",
        refunded=major_units(row.refunded, row.currency),
    )


def state_with_payment(way: Way, row: ReceivedRow, form: UUID, payment: PaymentRow | None) -> State:
    """Return a response's state as it was accepted, with how its payment stands."""
    context = Context.from_json(row.told, number=row.number)
    facts = None if payment is None else facts_of(payment)
    return state_of_kept(way.editions.program(form, row.edition), row.answers, context.with_payment(facts))
