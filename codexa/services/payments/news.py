"""What has become of a payment: noted as events, told to follow-ups, and as formulas and texts know it."""

from dataclasses import dataclass
from decimal import Decimal
from typing import Any
from uuid import UUID

from codexa.core.context import PaymentFacts
from codexa.core.form.follow_ups import Moment
from codexa.core.program.payment import major_units
from codexa.services.payments.provider import ProviderState
from codexa.store import payments, responses
from codexa.store.database import Connection
from codexa.store.payments import PaymentRow, PlanRow


@dataclass(frozen=True, kw_only=True, slots=True)
class News:
    """What has happened that follow-ups hang on, and how the payment stands then.

    `which` tells it from others of its kind that come to the same response.
    """

    moments: tuple[Moment, ...]
    which: str
    facts: PaymentFacts


def facts_of(first: PaymentRow, plan: PlanRow | None, charge: PaymentRow | None = None) -> PaymentFacts:
    """Return how a payment stands, as formulas and texts know it; of news of a later charge, how that does.

    The amount stays that which was paid at first.
    """
    about = charge or first
    return PaymentFacts(
        amount=major_units(first.amount, first.currency),
        number=about.provider_id or "",
        status=status_of(about),
        refunded=major_units(about.refunded, about.currency),
        receipt=None if about.receipt is None else Decimal(about.receipt),
        plan="" if plan is None else plan.words,
        charge=None if charge is None else major_units(charge.amount, charge.currency),
        next=None if plan is None else plan.next_on,
    )


def status_of(row: PaymentRow) -> str:
    """Return how a payment stands in one word: due, paid, failed, expired, part refunded, refunded."""
    if not row.refunded:
        return row.state
    return "refunded" if row.refunded == row.amount else "part refunded"


def note(
    connection: Connection,
    row: PaymentRow,
    kind: str,
    key: str,
    data: dict[str, Any],
    *,
    who: str = "bank",
    person: UUID | None = None,
) -> None:
    """Note something that happened to a payment among the events of its response, once under its key."""
    responses.add_event(
        connection, form=row.form_id, number=row.number, kind=kind, key=key, who=who, person=person, data=data
    )


def note_refund(connection: Connection, held: PaymentRow, said: ProviderState) -> None:
    """Note that money was given back, and what the response is then."""
    given = str(major_units(said.refunded - held.refunded, held.currency))
    data = {"amount": given, "currency": held.currency} | ({"charge": held.turn} if held.turn else {})
    note(connection, held, "refunded", f"{said.id} {said.refunded}", data)
    payments.set_facet(connection, form=held.form_id, number=held.number)
