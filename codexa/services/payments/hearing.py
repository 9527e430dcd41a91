"""Hearing a provider's events: each is taken as a hint, and the payment looked at where it is kept."""

from collections.abc import Mapping
from uuid import UUID

from codexa.services.errors import NotFoundError
from codexa.services.payments.accounts import key_of, provider_of
from codexa.services.payments.provider import NotFromProviderError
from codexa.services.payments.settling import Way, look
from codexa.store import payments


def hear(way: Way, *, account: UUID, headers: Mapping[str, str], body: bytes) -> None:
    """Take up an event of an account's provider; repeated, old or out of order it does no harm.

    Raises NotFoundError, NotFromProviderError, and what `look` raises: the provider tells it again then.
    """
    with way.connect() as connection:
        row = payments.find_account(connection, account=account)
    if row is None:
        raise NotFoundError
    if row.hook_secret is None:
        raise NotFromProviderError("Nothing was asked of this provider yet.")
    provider_id = provider_of(row, way.settings).told_of(headers, body, key_of(row.hook_secret, way.settings))
    with way.connect() as connection:
        payment = payments.payment_of_provider(connection, account=account, provider_id=provider_id)
    # Of what is not ours yet the bank's answer to our question is on its way, with the same news.
    if payment is not None:
        look(way, payment.id)
