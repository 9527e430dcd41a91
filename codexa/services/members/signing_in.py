"""Members sign in: with a password, by a link that works once, or by the code that stands beside it."""

import hmac
import secrets
from dataclasses import dataclass
from uuid import UUID

from codexa.core.errors import AnswerError
from codexa.core.tables.members import compared_email, member_address
from codexa.services.errands.asking import ask
from codexa.services.errors import LinkUsedError, NotFoundError, TooManyAttemptsError, WrongSignInError
from codexa.services.members.mails import SIGN_IN, code_mark
from codexa.services.signing_in import NOBODY_HASH, digest_of, limits_of, refuse_waiting, verify
from codexa.settings import Settings
from codexa.store import members as store
from codexa.store import sessions
from codexa.store.database import Connect, Connection
from codexa.store.members import Link, Team

_MOST_LINKS = 5  # for one member within a quarter of an hour
_MOST_CODES = 5  # tries


@dataclass(frozen=True, kw_only=True, slots=True)
class NewMemberSession:
    """A session that was just made: the cookie's content, and its id."""

    token: str
    id: UUID


def team_at(connect: Connect, slug: str) -> Team:
    """Return the team whose members' page is at an address. Raises NotFoundError."""
    with connect() as connection:
        found = store.find_team(connection, slug=slug)
    if found is None:
        raise NotFoundError("There is no team at this address. Check the link.")
    return found


def sign_in(
    connect: Connect, team: UUID, *, email: str, password: str, network: str, attempts: int
) -> NewMemberSession:
    """Return a new session of a member. Each try is counted before the password is looked at.

    Raises WrongSignInError, also where somebody has no password yet, TooManyAttemptsError, TooBusyError.
    """
    known_as = _known_as(email)
    with connect() as connection:
        member = store.find_by_email(connection, team=team, email=known_as)
        limits = limits_of(f"member {team} {known_as}", network, attempts, at_home=False)
        wait = sessions.count_try(connection, limits)
    refuse_waiting(wait)
    hashed = (member and member.password_hash) or NOBODY_HASH
    if not verify(hashed, password) or member is None or member.id is None or not member.password_hash:
        raise WrongSignInError
    with connect() as connection:
        sessions.forget_tries(connection, subjects=[each.subject for each in limits])
        return new_session(connection, member.id, confirmed=False)


def _known_as(email: str) -> str:
    try:
        return compared_email(member_address(email))
    except AnswerError:
        raise WrongSignInError from None


def new_session(connection: Connection, member: UUID, *, confirmed: bool) -> NewMemberSession:
    """Make a session of a member; `confirmed` where their address was just shown to be theirs."""
    token = secrets.token_urlsafe(32)
    made = store.insert_session(
        connection,
        digest=digest_of(token),
        member=member,
        csrf_token=secrets.token_urlsafe(32),
        confirmed=confirmed,
    )
    return NewMemberSession(token=token, id=made)


def ask_for_link(connect: Connect, team: UUID, *, email: str, back: str, locale: str) -> str:
    """Have a link sent to a member, and return what the page that asked knows of it, for the code.

    Nobody learns whether there is such a member. `back` is where the link leads, "" for the members' own page.
    """
    asked = secrets.token_urlsafe(24)
    try:
        known_as = _known_as(email)
    except WrongSignInError:
        return asked
    with connect() as connection:
        found = store.find_by_email(connection, team=team, email=known_as)
        if found is None:
            return asked
        member = store.as_member(connection, table=found.table_id, number=found.number)
        if store.count_links(connection, member=member) >= _MOST_LINKS:
            return asked
        about = {"team": str(team), "member": str(member), "asked": digest_of(asked).hex(), "locale": locale}
        ask(connection, SIGN_IN, {**about, "back": back}, team=team)
    return asked


def by_code(connect: Connect, settings: Settings, team: UUID, *, asked: str, code: str) -> NewMemberSession:
    """Return a new session by the code of a mail, once. Raises WrongSignInError, TooManyAttemptsError."""
    digest, typed = digest_of(asked), "".join(code.split())
    with connect() as connection:
        right = store.count_code(connection, asked=digest, most=_MOST_CODES)
    if right is None:
        raise TooManyAttemptsError("This code doesn't work any more. Have another one sent.")
    mark = code_mark(digest, typed, settings)
    if not hmac.compare_digest(mark, right):
        raise WrongSignInError("This is another code than the mail's. Look at the latest mail and type it again.")
    with connect() as connection:
        member = store.use_code(connection, team=team, asked=digest, code=right)
        if member is None:
            raise LinkUsedError
        return new_session(connection, member, confirmed=True)


def look_at_link(connect: Connect, team: UUID, token: str) -> Link:
    """Return what a link stands for; it changes nothing. Raises LinkUsedError."""
    with connect() as connection:
        found = store.find_link(connection, team=team, digest=digest_of(token))
    if found is None:
        raise LinkUsedError
    return found


def by_link(connection: Connection, team: UUID, token: str) -> Link:
    """Use a link up and return what it stood for. Raises LinkUsedError."""
    found = store.use_link(connection, team=team, digest=digest_of(token))
    if found is None:
        raise LinkUsedError
    return found
