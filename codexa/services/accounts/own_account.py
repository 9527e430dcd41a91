"""Changing one's own password and address; what must be confirmed goes by mail."""

from dataclasses import dataclass
from datetime import timedelta
from uuid import UUID

from email_validator import EmailNotValidError, validate_email

from codexa.services.audit import note
from codexa.services.errands.asking import ask
from codexa.services.errors import (
    AddressRefusedError,
    LinkUsedError,
    NameTakenError,
    NotFoundError,
    WrongPasswordError,
)
from codexa.services.people import refuse_short
from codexa.services.signing_in import digest_of, folded, hash_password, verify
from codexa.store import accounts, people, sessions
from codexa.store.accounts import AddressChange
from codexa.store.database import Connect, Connection
from codexa.store.sessions import OwnSession, SignedIn

_PAUSE_MINUTES = 2  # between two links for one person


def ask_for_link(connect: Connect, email: str) -> None:
    """Have a link for a new password sent to whoever signs in with this address; nobody learns whether there is one."""
    with connect() as connection:
        person = people.find_person_by_email(connection, email=folded(email))
        if person is None or accounts.was_asked_of_late(connection, person=person.id, minutes=_PAUSE_MINUTES):
            return
        ask(connection, "link for a new password", {"person": str(person.id)}, team=person.team_id)


def require_link(connect: Connect, token: str) -> None:
    """Raise LinkUsedError where a link for a new password does not work any more."""
    with connect() as connection:
        if not accounts.is_password_link(connection, digest=digest_of(token)):
            raise LinkUsedError


def set_by_link(connect: Connect, token: str, password: str) -> None:
    """Set a password by the link that came by mail; all sessions end. Raises PasswordRefusedError, LinkUsedError."""
    refuse_short(password)
    require_link(connect, token)
    hashed = hash_password(password)
    with connect() as connection:
        person = accounts.use_password_link(connection, digest=digest_of(token))
        if person is None:
            raise LinkUsedError
        accounts.set_password_of(connection, person=person, password_hash=hashed)
        _tell_changed(connection, person)


def set_name(connect: Connect, *, who: SignedIn, name: str) -> None:
    """Give oneself another name."""
    with connect() as connection:
        people.set_name(connection, person=who.person_id, name=" ".join(name.split()))
        note(connection, who, "name changed", name=" ".join(name.split()))


def language(connect: Connect, *, who: SignedIn) -> str:
    """Return the language in which one is written to (ISO 639-1)."""
    with connect() as connection:
        return people.language_of(connection, person=who.person_id)


def set_language(connect: Connect, *, who: SignedIn, language: str) -> None:
    """Be written to in another language, one of those that there are words in."""
    with connect() as connection:
        people.set_language(connection, person=who.person_id, language=language)


def change_password(connect: Connect, *, who: SignedIn, old: str, new: str, session: str) -> None:
    """Change one's own password; other sessions than this one end.

    Raises WrongPasswordError, PasswordRefusedError, TooBusyError.
    """
    refuse_short(new)
    require_password(connect, who, old)
    hashed = hash_password(new)
    with connect() as connection:
        accounts.set_password_of(connection, person=who.person_id, password_hash=hashed, staying=digest_of(session))
        note(connection, who, "password changed")
        _tell_changed(connection, who.person_id)


def _tell_changed(connection: Connection, person: UUID) -> None:
    ask(connection, "password changed", {"person": str(person)})


def require_password(connect: Connect, who: SignedIn, password: str) -> None:
    """Raise WrongPasswordError where this is not the password of who is signed in."""
    with connect() as connection:
        person = accounts.find_person(connection, person=who.person_id)
    if person is None or not verify(person.password_hash, password):
        raise WrongPasswordError


def list_sessions(connect: Connect, *, who: SignedIn, session: str, idle: timedelta) -> list[OwnSession]:
    """Return where somebody is signed in, the last used first; `session` is the one that asks."""
    with connect() as connection:
        return sessions.list_sessions(connection, person=who.person_id, digest=digest_of(session), idle=idle)


def end_session(connect: Connect, *, who: SignedIn, session: UUID) -> None:
    """End a session of one's own. Raises NotFoundError."""
    with connect() as connection:
        if not sessions.end_session(connection, person=who.person_id, session=session):
            raise NotFoundError("This session has ended already.")
        note(connection, who, "session ended")


def ask_address(connect: Connect, *, who: SignedIn, password: str, email: str) -> None:
    """Want another address: it is confirmed by mail at both.

    Raises WrongPasswordError, AddressRefusedError, NameTakenError.
    """
    try:
        email = validate_email(email, check_deliverability=False).normalized
    except EmailNotValidError:
        raise AddressRefusedError(f"“{email[:80]}” can't receive mail. Type one such as name@example.org.") from None
    require_password(connect, who, password)
    with connect() as connection:
        if people.find_person_by_email(connection, email=folded(email)) is not None:
            raise NameTakenError(f"Somebody signs in as {email} already. Take another address.")
        accounts.ask_address_change(connection, person=who.person_id, email=email, folded=folded(email))
        about = {"person": str(who.person_id), "email": email}
        ask(connection, "new address asked for at the old one", about, team=who.team_id)
        ask(connection, "new address asked for at itself", about, team=who.team_id)


def wanted_address(connect: Connect, *, who: SignedIn) -> AddressChange | None:
    """Return the address that somebody wants, and where it was confirmed; None where they want no other."""
    with connect() as connection:
        return accounts.find_address_change(connection, person=who.person_id)


@dataclass(frozen=True, kw_only=True, slots=True)
class Confirmation:
    """How far a new address is: whether it was changed, or which address it must be confirmed at yet."""

    email: str
    changed: bool
    waits_for: str


def confirm_address(connect: Connect, token: str) -> Confirmation:
    """Confirm a new address at one of its two ends; at the second it is changed.

    Raises LinkUsedError, NameTakenError where somebody else has the address by now.
    """
    with connect() as connection:
        found = accounts.confirm_address(connection, digest=digest_of(token))
        if found is None:
            raise LinkUsedError
        if not (found.old_confirmed and found.new_confirmed):
            end = "the address that you have had" if found.new_confirmed else found.email
            return Confirmation(email=found.email, changed=False, waits_for=end)
        old = accounts.change_address(connection, person=found.person_id, email=found.email, folded=found.email_folded)
        if old is None:
            raise NameTakenError(f"Somebody signs in as {found.email} by now. Take another address.")
        ask(connection, "address changed", {"old": old, "new": found.email})
        return Confirmation(email=found.email, changed=True, waits_for="")
