"""Plans: the charges that a provider made become payments of the response."""

from typing import Any

from codexa.core.form.follow_ups import Moment
from codexa.core.program.payment import major_units
from codexa.services.payments.news import News, facts_of, note, note_refund
from codexa.services.payments.provider import ProviderPlan, ProviderState
from codexa.store import payments
from codexa.store.database import Connection
from codexa.store.payments import PaymentRow, PlanRow


def take_up_plan(connection: Connection, first: PaymentRow, plan: PlanRow, said: ProviderPlan) -> list[News]:
    """Take up what a plan has charged, each charge once, and how it stands. The first payment is to be locked."""
    known = {each.turn: each for each in payments.payments_of(connection, form=first.form_id, number=first.number)}
    payments.set_plan(connection, payment=first.id, state=said.state, next_on=said.next_on)
    now = payments.find_plan(connection, payment=first.id)
    if said.state != plan.state and said.state in ("stopped", "ended"):
        who = "person" if plan.stopped_by else "bank"
        note(connection, first, f"plan {said.state}", "", {}, who=who, person=plan.stopped_by)
    found: list[News] = []
    for charge in said.charges:
        row = known.get(charge.turn) or payments.insert_charge(
            connection,
            first=first.id,
            turn=charge.turn,
            day=charge.day,
            amount=plan.amount,
            provider_id=charge.payment.id,
        )
        found += take_up_charge(connection, first, now, row, charge.payment)
    return found


def take_up_charge(
    connection: Connection, first: PaymentRow, plan: PlanRow | None, held: PaymentRow, said: ProviderState
) -> list[News]:
    """Take up how a charge stands; the second arrival of the same news changes nothing."""
    if (said.amount, said.currency) != (held.amount, held.currency):
        told = {"asked": f"{held.amount} {held.currency}", "said": f"{said.amount} {said.currency}"}
        note(connection, held, "payment differs", said.id, told)
        return []
    news = _news(held, said)
    if not news:
        return []
    state = said.state if said.state in ("paid", "failed") else held.state
    payments.set_state(
        connection, payment=held.id, state=state, reason=said.reason, card=said.card, refunded=said.refunded
    )
    amount = str(major_units(held.amount, held.currency))
    data: dict[str, Any] = {"charge": held.turn, "amount": amount, "currency": held.currency}
    if "charge" in news:
        payments.number_receipt(connection, payment=held)
        note(connection, held, "charge", str(held.turn), data | {"card": said.card})
    if "charge failed" in news:
        note(connection, held, "charge failed", str(held.turn), data | {"reason": said.reason})
    if "refunded" in news:
        note_refund(connection, held, said)
    payments.set_facet(connection, form=held.form_id, number=held.number)
    changed = payments.payment_by_id(connection, payment=held.id)
    assert changed is not None
    return [
        News(
            moments=(each,),
            which=f"{held.turn}.{said.refunded}" if each == "refunded" else str(held.turn),
            facts=facts_of(first, plan, changed),
        )
        for each in news
    ]


def _news(held: PaymentRow, said: ProviderState) -> tuple[Moment, ...]:
    news: list[Moment] = []
    if said.state == "paid" and held.state != "paid":
        news.append("charge")
    if said.state == "failed" and held.state == "due":
        news.append("charge failed")
    if said.refunded > held.refunded:
        news.append("refunded")
    return tuple(news)
