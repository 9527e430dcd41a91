"""Making sure, by a clock, that what we know and what providers know is the same."""

import datetime
import logging
from collections.abc import Callable, Mapping
from uuid import UUID

from codexa.services.errors import AccountRefusedError, RefundRefusedError
from codexa.services.payments.accounts import provider_of
from codexa.services.payments.plan_commands import carry_out_stop
from codexa.services.payments.provider import ProviderAwayError, ProviderRefusesError, ProviderState
from codexa.services.payments.refunding import carry_out
from codexa.services.payments.settling import Way, expire, look
from codexa.store import payments

_MOST_AT_ONCE = 200
_DAYS = 3  # that are compared; each day is so three times
_NOT_NOW = (ProviderAwayError, ProviderRefusesError, AccountRefusedError, RefundRefusedError)
_LOG = logging.getLogger(__name__)


def settle_open(way: Way) -> int:
    """Look at what waits: payments nobody told us of, those whose time is over, refunds without an end, plans.

    Return how many there were.

    What can't be settled now is looked at next time.
    """
    with way.connect() as connection:
        waiting = payments.unsettled(connection, most=_MOST_AT_ONCE)
        refunds = payments.open_refunds(connection, most=_MOST_AT_ONCE)
        plans = payments.plans_to_look_at(connection, most=_MOST_AT_ONCE)
    away: set[UUID] = set()
    for payment_id, account in waiting:
        # Who did not answer is not waited for again and again.
        if account not in away and not _settle_one(way, payment_id):
            away.add(account)
    for refund in refunds:
        with way.connect() as connection:
            row = payments.payment_by_id(connection, payment=refund.payment_id)
        try:
            if row is not None:
                carry_out(way, row, refund.id, refund.amount)
        except _NOT_NOW as error:
            _LOG.warning("refund %s is asked for again later: %s", refund.id, error)
    for payment_id, account, state in plans:
        if account not in away and not _look_at_plan(way, payment_id, state):
            away.add(account)
    return len(waiting) + len(refunds) + len(plans)


def _could_ask(way: Way, payment_id: UUID, ask: Callable[[], None], touch: Callable[..., None]) -> bool:
    """Do what asks the provider, or note that it could not be done; say whether the provider answered."""
    try:
        ask()
    except _NOT_NOW as error:
        _LOG.warning("payment %s is looked at again later: %s", payment_id, error)
        with way.connect() as connection:
            touch(connection, payment=payment_id)
        return not isinstance(error, ProviderAwayError)
    return True


def _look_at_plan(way: Way, payment_id: UUID, state: str) -> bool:
    """Take up what a plan has charged, or stop one that is to be stopped; say whether the provider answered."""

    def ask() -> None:
        if state == "stopping":
            carry_out_stop(way, payment_id)
        else:
            look(way, payment_id)

    return _could_ask(way, payment_id, ask, payments.touch_plan)


def _settle_one(way: Way, payment_id: UUID) -> bool:
    """Look at a payment, and let it expire if its time is over; say whether the provider answered."""

    def ask() -> None:
        row = look(way, payment_id)
        if row is not None and row.state == "due" and row.due_until < datetime.datetime.now(datetime.UTC):
            expire(way, payment_id)

    return _could_ask(way, payment_id, ask, payments.touch)


def _take_up_unheard(way: Way, account: UUID, theirs: Mapping[str, ProviderState]) -> None:
    """Take up charges of plans that nobody told us of."""
    with way.connect() as connection:
        firsts = {
            found.id
            for each in theirs.values()
            if each.first
            and payments.payment_of_provider(connection, account=account, provider_id=each.id) is None
            and (found := payments.payment_of_provider(connection, account=account, provider_id=each.first))
        }
    for payment in firsts:
        try:
            look(way, payment)
        except _NOT_NOW as error:
            _LOG.warning("payment %s can't be looked at: %s", payment, error)


def differences(way: Way) -> list[str]:
    """Compare what we and the providers know of the latest payments, and name each difference in a sentence."""
    since = datetime.datetime.now(datetime.UTC) - datetime.timedelta(days=_DAYS)
    with way.connect() as connection:
        accounts = payments.list_accounts_used(connection)
    found: list[str] = []
    for account in accounts:
        try:
            theirs = {each.id: each for each in provider_of(account, way.settings).changed_since(since)}
        except _NOT_NOW as error:
            found.append(f"{account.name} could not be asked: {error}")
            continue
        _take_up_unheard(way, account.id, theirs)
        with way.connect() as connection:
            ours = {
                row["provider_id"]: row for row in payments.changed_since(connection, account=account.id, since=since)
            }
        for provider_id, said in theirs.items():
            row = ours.get(provider_id)
            if row is None:
                if said.state == "paid":
                    found.append(f"{account.name} has {said.amount} {said.currency} ({provider_id}) that is not ours.")
                continue
            name = f"Response {row['number']} ({provider_id})"
            if (said.state == "paid") != (row["state"] == "paid"):
                found.append(f"{name}: the bank says {said.state}, we say {row['state']}.")
            if (said.amount, said.currency) != (row["amount"], row["currency"]):
                found.append(f"{name}: the bank has {said.amount}, we asked for {row['amount']} {row['currency']}.")
            if said.refunded != row["refunded"]:
                found.append(f"{name}: the bank gave {said.refunded} back, we know of {row['refunded']}.")
    return found
