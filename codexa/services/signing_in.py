"""Signing in and out: argon2id, sessions in the database, and growing pauses after wrong passwords."""

import hashlib
import math
import secrets
import threading
import unicodedata
from dataclasses import dataclass
from datetime import timedelta
from uuid import UUID

from argon2 import PasswordHasher
from argon2.exceptions import Argon2Error

from codexa.services.audit import note_of
from codexa.services.errors import NoTeamError, NotFoundError, TooBusyError, TooManyAttemptsError, WrongSignInError
from codexa.store import people, second_factors, sessions
from codexa.store.database import Connect, Connection
from codexa.store.people import Person
from codexa.store.sessions import SignInLimit

SESSION_LIFETIME = timedelta(hours=12)
SHORTEST_PASSWORD = 12  # characters (OWASP ASVS 4.0.3, 2.1.1)
_MOST_EMAIL = 254  # characters (RFC 5321, 4.5.3.1.3)
_MOST_PROGRAM = 300  # characters
_MINUTE, _QUARTER_OF_AN_HOUR = 60, 900  # seconds

_HASHER = PasswordHasher()  # argon2id with the parameters of RFC 9106's second recommendation
# Verified where there is no such person, so that the time taken does not tell who exists.
NOBODY_HASH = _HASHER.hash(secrets.token_urlsafe(16))
# Each takes 64 MiB and a processor.
_HASHING = threading.BoundedSemaphore(2)
_WAIT_SECONDS = 5.0


@dataclass(frozen=True, kw_only=True, slots=True)
class NewSession:
    """A session that was just made: the cookie's content and its CSRF token."""

    token: str
    csrf_token: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Waiting:
    """The password was right, and a second factor is still to be shown: what the browser knows of it."""

    step: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Attempt:
    """Somebody who wants to sign in, from which network, by which `program` (what the browser says it is).

    `old_token` is of the session that the browser has yet.
    """

    email: str
    password: str
    network: str
    program: str = ""
    old_token: str = ""


def folded(email: str) -> str:
    """Return an e-mail as it is compared, everywhere."""
    return unicodedata.normalize("NFKC", email.strip()[: _MOST_EMAIL + 1]).casefold()


def hash_password(password: str) -> str:
    """Return the argon2id hash to keep."""
    return _HASHER.hash(password)


def digest_of(token: str) -> bytes:
    """Return what is kept of a session's cookie."""
    return hashlib.sha256(token.encode()).digest()


def sign_in(connect: Connect, attempt: Attempt, *, attempts: int, into: UUID | None = None) -> NewSession | Waiting:
    """Return a new session in a team, the person's first where none is said; the one that the browser had ends.

    Whoever has a second factor waits for it, and has no session yet.

    Each try is counted before the password is looked at, so that many at once are counted too. After so many `attempts`
    for one person from one network each further one waits longer. Raises WrongSignInError, TooManyAttemptsError,
    TooBusyError, NoTeamError.
    """
    email = folded(attempt.email)
    if len(email) > _MOST_EMAIL:
        raise WrongSignInError
    with connect() as connection:
        person = people.find_person_by_email(connection, email=email)
        # Where the person is at home, strangers elsewhere don't count.
        at_home = person and sessions.is_known_network(connection, person=person.id, network=attempt.network)
        limits = limits_of(email, attempt.network, attempts, at_home=bool(at_home))
        wait = sessions.count_try(connection, limits)
    refuse_waiting(wait)
    if not _is_right(person, attempt.password) or person is None:
        _note_wrong(connect, person, attempt)
        raise WrongSignInError
    team = into or person.team_id
    if team is None:
        raise NoTeamError
    with connect() as connection:
        sessions.forget_tries(connection, subjects=[limit.subject for limit in limits])
        sessions.note_network(connection, person=person.id, network=attempt.network)
        if attempt.old_token:
            sessions.delete_session(connection, digest=digest_of(attempt.old_token))
        if second_factors.has_factor(connection, person=person.id):
            return begin_step(connection, person=person.id, team=team)
        note_of(connection, team, "signed in", by=person.id, called=person.name, network=attempt.network)
        return new_session(connection, person=person.id, team=team, program=attempt.program)


def begin_step(connection: Connection, *, person: UUID | None, team: UUID | None) -> Waiting:
    """Note that somebody is on the way in, and return what their browser knows of it."""
    waiting = Waiting(step=secrets.token_urlsafe(32))
    second_factors.insert_step(connection, digest=digest_of(waiting.step), person=person, team=team, challenge=None)
    return waiting


def _note_wrong(connect: Connect, person: Person | None, attempt: Attempt) -> None:
    if person is None or person.team_id is None:
        return
    with connect() as connection:
        about = {"name": person.name, "network": attempt.network}
        note_of(connection, person.team_id, "wrong password", by=None, called="somebody", **about)


def new_session(connection: Connection, *, person: UUID, team: UUID, program: str = "") -> NewSession:
    """Make a session of a person in a team, begun by a program."""
    session = NewSession(token=secrets.token_urlsafe(32), csrf_token=secrets.token_urlsafe(32))
    sessions.insert_session(
        connection,
        digest=digest_of(session.token),
        person=person,
        team=team,
        csrf_token=session.csrf_token,
        lifetime=SESSION_LIFETIME,
        program=program[:_MOST_PROGRAM],
    )
    return session


def change_password(connection: Connection, *, email: str, password: str) -> None:
    """Give a person another password; all their sessions end. Raises NotFoundError."""
    if not people.set_password(connection, email=folded(email), password_hash=hash_password(password)):
        raise NotFoundError(f"Nobody signs in as {email}.")


def limits_of(name: str, network: str, attempts: int, *, at_home: bool) -> list[SignInLimit]:
    """Return what a try counts against: of a name from a network, of the network, and of the name from anywhere."""
    pair = SignInLimit(subject=f"pair {name} {network}", free=attempts, longest=_QUARTER_OF_AN_HOUR)
    whole = SignInLimit(subject=f"network {network}", free=attempts * 10, longest=_QUARTER_OF_AN_HOUR)
    anywhere = SignInLimit(subject=f"person {name}", free=attempts * 2, longest=_MINUTE)
    return [pair, whole] if at_home else [pair, whole, anywhere]


def refuse_waiting(wait: float | None) -> None:
    """Raise TooManyAttemptsError where somebody has to wait for so many seconds."""
    if wait is not None:
        raise TooManyAttemptsError(f"Too many wrong passwords. Wait {_in_words(wait)}, then try again.")


def _is_right(person: Person | None, password: str) -> bool:
    return verify(person.password_hash if person else NOBODY_HASH, password)


def verify(password_hash: str, password: str) -> bool:
    """Say whether a password is the one that was hashed. Raises TooBusyError where others take too long."""
    if not _HASHING.acquire(timeout=_WAIT_SECONDS):
        raise TooBusyError
    try:
        return _HASHER.verify(password_hash, password)
    except Argon2Error:
        return False
    finally:
        _HASHING.release()


def _in_words(seconds: float) -> str:
    if seconds > _MINUTE:
        return f"{math.ceil(seconds / _MINUTE)} minutes"
    if seconds > _MINUTE / 2:
        return "a minute"
    return "a second" if seconds <= 1 else f"{math.ceil(seconds)} seconds"
