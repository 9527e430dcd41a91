"""Payments: accounts with providers, what is to be paid and was, and what was given back. Amounts are minor units."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any, Literal
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("payments")


@dataclass(frozen=True, kw_only=True, slots=True)
class AccountRow:
    """An account with a provider; `secret` and `hook_secret` are encrypted. Without a team it is for practice."""

    id: UUID
    team_id: UUID | None
    provider: str
    name: str
    public_key: str
    secret: bytes
    last_four: str
    hook_secret: bytes | None
    cards: list[str]


@dataclass(frozen=True, kw_only=True, slots=True)
class PaymentRow:
    """What is to be paid for a response, and how that stands: due, paid, failed or expired.

    `turn` 0 is what is paid at first; those after it are charges of a plan, each of a `day`. `receipt` is our own
    number for what was paid.
    """

    id: UUID
    form_id: UUID
    number: int
    account_id: UUID
    amount: int
    currency: str
    payer: dict[str, str]
    cards: list[str]
    state: str
    reason: str
    card: str
    refunded: int
    provider_id: str | None
    page: str
    due_until: datetime
    created_at: datetime
    changed_at: datetime
    turn: int
    day: date | None
    receipt: int | None


@dataclass(frozen=True, kw_only=True, slots=True)
class PlanRow:
    """What follows a payment: so many `times` (None without an end), reckoned from `starts_on`; and how that stands.

    It is waiting for the first payment, running, stopping (until the provider has heard), stopped or ended.
    """

    payment_id: UUID
    amount: int
    every: int
    unit: Literal["day", "week", "month", "year"]
    times: int | None
    starts_on: date
    paid_now: bool
    words: str
    state: str
    next_on: date | None
    stopped_by: UUID | None


@dataclass(frozen=True, kw_only=True, slots=True)
class ListedRow(PaymentRow):
    """A payment with the name and language of its form, whether it is a try, and the plan that it begins, if any."""

    form_name: str
    locale: str
    test: bool
    plan: str
    plan_state: str
    next_on: date | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Sums:
    """What came of payments in one currency; of tries apart."""

    currency: str
    test: bool
    locale: str
    count: int
    paid: int
    refunded: int
    due: int


@dataclass(frozen=True, kw_only=True, slots=True)
class RefundRow:
    """Something that is to be given back, and who asked for it."""

    id: UUID
    payment_id: UUID
    amount: int
    asked_by: UUID | None


def insert_account(connection: Connection, *, team: UUID, known: dict[str, Any]) -> UUID:
    """Take up an account (provider, name, public_key, secret, last_four, cards) and return its id."""
    row = exactly_one(connection, _QUERIES["insert_account"], team=team, **known)
    return UUID(str(row["id"]))


def set_hook_secret(connection: Connection, *, account: UUID, hook_secret: bytes) -> None:
    """Keep what the provider signs its events with."""
    connection.execute(_QUERIES["set_hook_secret"], {"account": account, "hook_secret": hook_secret})


def delete_account(connection: Connection, *, team: UUID, account: UUID) -> bool:
    """Remove an account; False where there is none, or something was paid through it."""
    return connection.execute(_QUERIES["delete_account"], {"team": team, "account": account}).rowcount == 1


def list_accounts(connection: Connection, *, team: UUID) -> list[AccountRow]:
    """Return the team's accounts."""
    return [AccountRow(**row) for row in many(connection, _QUERIES["list_accounts"], team=team)]


def list_accounts_used(connection: Connection) -> list[AccountRow]:
    """Return every account that something was asked through."""
    return [AccountRow(**row) for row in many(connection, _QUERIES["list_accounts_used"])]


def find_account(connection: Connection, *, account: UUID | None) -> AccountRow | None:
    """Return an account; without an id the practice account."""
    if account is None:
        row = one(connection, _QUERIES["find_practice_account"])
    else:
        row = one(connection, _QUERIES["find_account"], account=account)
    return AccountRow(**row) if row else None


def account_of_form(connection: Connection, *, form: UUID, account: UUID) -> UUID | None:
    """Return the id of an account where it is that of the form's team."""
    row = one(connection, _QUERIES["account_of_form"], form=form, account=account)
    return UUID(str(row["id"])) if row else None


def insert_payment(
    connection: Connection,
    *,
    form: UUID,
    number: int,
    account: UUID,
    amount: int,
    currency: str,
    payer: dict[str, str],
    cards: Sequence[str],
    due_until: datetime,
) -> UUID:
    """Keep what is to be paid for a response, and return its id."""
    values = {"form": form, "number": number, "account": account, "amount": amount, "currency": currency}
    more = {"payer": Jsonb(payer), "cards": list(cards), "due_until": due_until}
    return UUID(str(exactly_one(connection, _QUERIES["insert_payment"], **values, **more)["id"]))


def insert_plan(connection: Connection, *, payment: UUID, known: dict[str, Any]) -> None:
    """Keep what is to follow a payment (amount, every, unit, times, starts_on, paid_now, words)."""
    connection.execute(_QUERIES["insert_plan"], {"payment": payment, **known})


def find_plan(connection: Connection, *, payment: UUID) -> PlanRow | None:
    """Return what follows a payment."""
    row = one(connection, _QUERIES["find_plan"], payment=payment)
    return PlanRow(**row) if row else None


def set_plan(connection: Connection, *, payment: UUID, state: str, next_on: date | None) -> None:
    """Note how a plan stands at the provider; what we want stopped is not running any more, whatever it says."""
    connection.execute(_QUERIES["set_plan"], {"payment": payment, "state": state, "next_on": next_on})


def ask_to_stop(connection: Connection, *, payment: UUID, person: UUID) -> None:
    """Note that a running plan is to be stopped."""
    connection.execute(_QUERIES["ask_to_stop"], {"payment": payment, "person": person})


def plans_to_look_at(connection: Connection, *, most: int) -> list[tuple[UUID, UUID, str]]:
    """Return plans of which the provider is to be asked: their first payment, its account, and how they stand."""
    rows = many(connection, _QUERIES["plans_to_look_at"], most=most)
    return [(row["id"], row["account_id"], row["state"]) for row in rows]


def touch_plan(connection: Connection, *, payment: UUID) -> None:
    """Note that a plan was looked at, and nothing was learned: others have their turn first."""
    connection.execute(_QUERIES["touch_plan"], {"payment": payment})


def running_plans(connection: Connection, *, form: UUID) -> int:
    """Return how many plans of a form still charge somebody."""
    return int(exactly_one(connection, _QUERIES["running_plans"], form=form)["running"])


def insert_charge(
    connection: Connection, *, first: UUID, turn: int, day: date, amount: int, provider_id: str
) -> PaymentRow:
    """Keep a charge of the plan that began with a payment, as due until it is said how it stands."""
    values = {"first": first, "turn": turn, "day": day, "amount": amount, "provider_id": provider_id}
    found = payment_by_id(connection, payment=exactly_one(connection, _QUERIES["insert_charge"], **values)["id"])
    assert found is not None
    return found


def number_receipt(connection: Connection, *, payment: PaymentRow) -> None:
    """Give what was just paid the team's next receipt number; a try gets none."""
    values = {"form": payment.form_id, "number": payment.number, "payment": payment.id}
    connection.execute(_QUERIES["number_receipt"], values)


def find_payment(connection: Connection, *, form: UUID, number: int, turn: int = 0) -> PaymentRow | None:
    """Return what was to be paid for a response at first, or a later charge by its turn."""
    row = one(connection, _QUERIES["find_payment"], form=form, number=number, turn=turn)
    return PaymentRow(**row) if row else None


def payments_of(connection: Connection, *, form: UUID, number: int) -> list[PaymentRow]:
    """Return what was paid for a response: at first, and later by its plan."""
    return [PaymentRow(**row) for row in many(connection, _QUERIES["payments_of"], form=form, number=number)]


def payment_of_provider(connection: Connection, *, account: UUID, provider_id: str) -> PaymentRow | None:
    """Return the payment that a provider calls so."""
    row = one(connection, _QUERIES["payment_of_provider"], account=account, provider_id=provider_id)
    return PaymentRow(**row) if row else None


def payment_by_id(connection: Connection, *, payment: UUID) -> PaymentRow | None:
    """Return a payment."""
    row = one(connection, _QUERIES["payment_by_id"], payment=payment)
    return PaymentRow(**row) if row else None


def lock_first(connection: Connection, *, form: UUID, number: int) -> PaymentRow:
    """Return what is paid for a response at first; nobody else takes up news of its payments until this ends."""
    return PaymentRow(**exactly_one(connection, _QUERIES["lock_first"], form=form, number=number))


def lock_payment(connection: Connection, *, payment: UUID) -> PaymentRow:
    """Return a payment that nobody else changes until the transaction ends."""
    return PaymentRow(**exactly_one(connection, _QUERIES["lock_payment"], payment=payment))


def set_asked(connection: Connection, *, payment: UUID, provider_id: str, page: str) -> None:
    """Note how the provider calls a payment, and where it is paid; not of one that has expired meanwhile."""
    connection.execute(_QUERIES["set_asked"], {"payment": payment, "provider_id": provider_id, "page": page})


def set_state(connection: Connection, *, payment: UUID, state: str, reason: str, card: str, refunded: int) -> None:
    """Note how a payment stands."""
    values = {"payment": payment, "state": state, "reason": reason, "card": card, "refunded": refunded}
    connection.execute(_QUERIES["set_state"], values)


def set_stage(connection: Connection, *, form: UUID, number: int, stage: str, payment: str) -> None:
    """Move a response on, with what its payment is."""
    connection.execute(_QUERIES["set_stage"], {"form": form, "number": number, "stage": stage, "payment": payment})


def set_facet(connection: Connection, *, form: UUID, number: int) -> None:
    """Keep true what a complete response says of all its payments: failed, paid, part refunded or refunded."""
    connection.execute(_QUERIES["set_facet"], {"form": form, "number": number})


def unsettled(connection: Connection, *, most: int) -> list[tuple[UUID, UUID]]:
    """Return payments of which the provider is to be asked, or whose time is over, each with its account."""
    return [(row["id"], row["account_id"]) for row in many(connection, _QUERIES["unsettled"], most=most)]


def touch(connection: Connection, *, payment: UUID) -> None:
    """Note that a payment was looked at, and nothing was learned: others have their turn first."""
    connection.execute(_QUERIES["touch"], {"payment": payment})


def changed_since(connection: Connection, *, account: UUID, since: datetime) -> list[dict[str, Any]]:
    """Return the payments of an account that changed since a moment, as far as a provider knows of them."""
    return many(connection, _QUERIES["changed_since"], account=account, since=since)


def list_payments(
    connection: Connection,
    *,
    team: UUID,
    form: UUID | None,
    number: int | None = None,
    state: str = "",
    find: str = "",
    most: int,
    person: UUID | None = None,
) -> list[ListedRow]:
    """Return payments of a form or of one response to it, or of all forms, the latest first.

    Of all forms without those that an exception hides from a person.
    In a state ("" for any, "refunded" with money given back, "running" with a plan that runs), with `find` in payer,
    card or numbers.
    """
    like = f"%{find.replace('%', '').replace('_', '')}%"
    narrowed = {"form": form, "number": number, "state": state, "find": find, "like": like}
    known = {"team": team, "most": most, "person": person, **narrowed}
    return [ListedRow(**row) for row in many(connection, _QUERIES["list_payments"], **known)]


def sums_of(connection: Connection, *, team: UUID, form: UUID | None, person: UUID | None = None) -> list[Sums]:
    """Return what came of a form's payments, or of all that a person may see, by currency."""
    return [Sums(**row) for row in many(connection, _QUERIES["sums_of"], team=team, form=form, person=person)]


def insert_refund(connection: Connection, *, payment: UUID, amount: int, person: UUID) -> UUID | None:
    """Ask for so much to be given back; None where so much is not left. The payment is to be locked."""
    row = one(connection, _QUERIES["insert_refund"], payment=payment, amount=amount, person=person)
    return UUID(str(row["id"])) if row else None


def end_refund(connection: Connection, *, refund: UUID, state: str) -> None:
    """Note how a refund ended: done or refused."""
    connection.execute(_QUERIES["end_refund"], {"refund": refund, "state": state})


def open_refunds(connection: Connection, *, most: int) -> list[RefundRow]:
    """Return refunds whose end is not known."""
    return [RefundRow(**row) for row in many(connection, _QUERIES["open_refunds"], most=most)]
