"""Signing in and out: argon2id, sessions in the database, and a pause after many wrong passwords."""

import hashlib
import secrets
from dataclasses import dataclass
from datetime import timedelta

from argon2 import PasswordHasher
from argon2.exceptions import Argon2Error

from codexa.services.errors import TooManyAttemptsError, WrongSignInError
from codexa.store import people, sessions
from codexa.store.database import Connection

SESSION_LIFETIME = timedelta(hours=12)
ATTEMPTS_WINDOW = timedelta(minutes=15)

_HASHER = PasswordHasher()  # argon2id with the parameters of RFC 9106's second recommendation
# Verified where there is no such person, so that the time taken does not tell who exists.
_NOBODY = _HASHER.hash(secrets.token_urlsafe(16))


@dataclass(frozen=True, kw_only=True, slots=True)
class NewSession:
    """A session that was just made: the cookie's content and its CSRF token."""

    token: str
    csrf_token: str


def hash_password(password: str) -> str:
    """Return the argon2id hash to keep."""
    return _HASHER.hash(password)


def digest_of(token: str) -> bytes:
    """Return what is kept of a session's cookie."""
    return hashlib.sha256(token.encode()).digest()


def refuse_guessing(connection: Connection, *, email: str, address: str, attempts: int) -> None:
    """Raise TooManyAttemptsError where this e-mail or network address failed too often of late."""
    if sessions.count_failures(connection, subjects=_subjects(email, address), window=ATTEMPTS_WINDOW) >= attempts:
        raise TooManyAttemptsError


def sign_in(connection: Connection, *, email: str, password: str) -> NewSession:
    """Return a new session. Raises WrongSignInError; the caller then counts the failure in a transaction of its own."""
    person = people.find_person_by_email(connection, email=email.strip())
    try:
        _HASHER.verify(person.password_hash if person else _NOBODY, password)
    except Argon2Error:
        raise WrongSignInError from None
    if person is None:
        raise WrongSignInError
    sessions.delete_failures(connection, subject=_subjects(email, "")[0])
    session = NewSession(token=secrets.token_urlsafe(32), csrf_token=secrets.token_urlsafe(32))
    sessions.insert_session(
        connection,
        digest=digest_of(session.token),
        person=person.id,
        team=person.team_id,
        csrf_token=session.csrf_token,
        lifetime=SESSION_LIFETIME,
    )
    return session


def count_failure(connection: Connection, *, email: str, address: str) -> None:
    """Count a wrong password."""
    sessions.insert_failure(connection, subjects=_subjects(email, address))


def _subjects(email: str, address: str) -> list[str]:
    return [f"email {email.strip().casefold()[:320]}", f"address {address}"]
