"""Accounts with providers: keys are kept encrypted, shown by their last four characters, and tested by asking."""

from dataclasses import dataclass
from uuid import UUID

from codexa.services.encryption import decrypted, encrypted
from codexa.services.errors import AccountRefusedError, NotFoundError
from codexa.services.payments.practice_bank import PracticeBank
from codexa.services.payments.provider import Provider, ProviderAwayError, ProviderRefusesError
from codexa.settings import Settings
from codexa.store import payments
from codexa.store.database import Connect
from codexa.store.payments import AccountRow
from codexa.store.sessions import SignedIn

PRACTICE_BANK = "practice bank"


@dataclass(frozen=True, kw_only=True, slots=True)
class Account:
    """An account as people see it; of its secret key the last four characters, `cards` the kinds it takes."""

    id: UUID
    provider: str
    name: str
    last_four: str
    cards: list[str]


def list_accounts(connect: Connect, *, who: SignedIn) -> list[Account]:
    """Return the team's accounts."""
    with connect() as connection:
        found = payments.list_accounts(connection, team=who.team_id)
    return [_shown(each) for each in found]


def practice_cards(settings: Settings) -> list[str]:
    """Return the kinds of cards to practise with; none while the practice bank does not answer."""
    try:
        return list(PracticeBank(settings.practice_bank, settings.practice_bank_key).account().cards)
    except (ProviderAwayError, ProviderRefusesError):
        return []


def add_account(connect: Connect, settings: Settings, *, who: SignedIn, secret: str) -> Account:
    """Take up an account by its secret key, once the provider knows it. Raises AccountRefusedError."""
    provider = PracticeBank(settings.practice_bank, secret)
    try:
        known = provider.account()
    except (ProviderAwayError, ProviderRefusesError) as error:
        raise AccountRefusedError(f"{error} The key was not kept.") from None
    values = {
        "provider": PRACTICE_BANK,
        "name": known.name,
        "public_key": known.public_key,
        "secret": encrypted(secret, settings),
        "last_four": secret[-4:],
        "cards": list(known.cards),
    }
    with connect() as connection:
        account = payments.insert_account(connection, team=who.team_id, known=values)
        row = payments.find_account(connection, account=account)
    assert row is not None
    return _shown(row)


def test_account(connect: Connect, settings: Settings, *, who: SignedIn, account: UUID) -> str:
    """Ask the provider whether it knows the account's key and can tell us of events; return what it says, in words."""
    row = _own(connect, who, account)
    try:
        known = provider_of(row, settings).account()
        _register(connect, settings, row)
    except (ProviderAwayError, ProviderRefusesError) as error:
        raise AccountRefusedError(str(error)) from None
    return f"It works: the key is that of {known.name}; cards: {', '.join(known.cards)}."


def remove_account(connect: Connect, *, who: SignedIn, account: UUID) -> None:
    """Remove an account that nothing was paid through. Raises NotFoundError, AccountRefusedError."""
    row = _own(connect, who, account)
    with connect() as connection:
        if not payments.delete_account(connection, team=who.team_id, account=row.id):
            raise AccountRefusedError("Payments were made through this account; it stays with them.")


def _own(connect: Connect, who: SignedIn, account: UUID) -> AccountRow:
    with connect() as connection:
        row = payments.find_account(connection, account=account)
    if row is None or row.team_id != who.team_id:
        raise NotFoundError
    return row


def provider_of(account: AccountRow, settings: Settings) -> Provider:
    """Return an account's provider, ready to be asked. Raises AccountRefusedError where its key can't be read."""
    if account.team_id is None:
        return PracticeBank(settings.practice_bank, settings.practice_bank_key)
    return PracticeBank(settings.practice_bank, key_of(account.secret, settings))


def hook_secret_of(connect: Connect, settings: Settings, account: AccountRow) -> str:
    """Return what signs the events of an account; the provider is asked for it the first time."""
    if account.hook_secret is None:
        return _register(connect, settings, account)
    return key_of(account.hook_secret, settings)


def _register(connect: Connect, settings: Settings, account: AccountRow) -> str:
    secret = provider_of(account, settings).register_hook(f"{settings.public_address}/api/told/{account.id}")
    with connect() as connection:
        payments.set_hook_secret(connection, account=account.id, hook_secret=encrypted(secret, settings))
    return secret


def key_of(secret: bytes, settings: Settings) -> str:
    """Return a key of an account, readable. Raises AccountRefusedError."""
    key = decrypted(secret, settings)
    if key is None:
        message = "The account's key can't be read: it was encrypted with another CODEXA_ACCOUNT_KEYS. Enter it again."
        raise AccountRefusedError(message)
    return key


def _shown(row: AccountRow) -> Account:
    return Account(id=row.id, provider=row.provider, name=row.name, last_four=row.last_four, cards=row.cards)
