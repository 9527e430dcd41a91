"""Who is let in to a form that is published, at this moment: by its times, its limits and its password."""

import hmac
import threading
import time
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from time import monotonic
from uuid import UUID

from cachetools import TTLCache

from codexa.core.form.access import Access, admits, closing, opening, standing
from codexa.core.form.form import Form
from codexa.services.editions import Editions
from codexa.services.errors import (
    ClosedError,
    NotAdmittedError,
    PasswordNeededError,
    SealError,
    SignInNeededError,
)
from codexa.services.marks import mark_of
from codexa.services.sealing import Sealed, read_seal
from codexa.services.signing_in import verify
from codexa.services.told_moments import moment_words
from codexa.services.visitors import GUEST, Visitor, visitor_of
from codexa.settings import Settings
from codexa.store import access as store
from codexa.store.database import AwayError, BusyError, Connect

# What is set reaches visitors after so long at the most; handing in always asks the database.
_KNOWN_SECONDS = 2.0
_BETWEEN = "_"  # before the pass, in what a page carries
_ENTRY_SECONDS = 24 * 3_600  # for which a password that was typed lets in


@dataclass(frozen=True, kw_only=True, slots=True)
class Terms:
    """Who may fill in a form, as it holds: `turn` grows with each change, `taken` counts towards the limit of all.

    Of one that is `rehearsed` nobody is suspected: whoever makes it fills it in, as fast as they like.
    """

    access: Access
    password_hash: str | None
    form: Form
    turn: int
    taken: int
    team: UUID
    team_name: str
    team_slug: str
    rehearsed: bool


class Admissions:
    """What this process knows of who may fill in which form."""

    def __init__(self, connect: Connect, editions: Editions, settings: Settings) -> None:
        self._connect = connect
        self._editions = editions
        self._settings = settings
        self._reading = threading.Lock()
        self._known: TTLCache[UUID, Terms] = TTLCache(10_000, _KNOWN_SECONDS, timer=monotonic)
        self._sealed: TTLCache[tuple[UUID, str], Sealed] = TTLCache(10_000, _KNOWN_SECONDS, timer=monotonic)
        self._visitors: TTLCache[tuple[UUID, str], Visitor] = TTLCache(10_000, _KNOWN_SECONDS, timer=monotonic)

    def terms(self, form: UUID, *, fresh: bool = False) -> Terms | None:
        """Return what holds for a form; None where it takes no answers at all."""
        if not fresh:
            with self._reading:
                known = self._known.get(form)
            if known is not None:
                return known
        with self._connect() as connection:
            row = store.find_access(connection, form=form)
        found = None
        if row is not None:
            found = Terms(
                access=Access.model_validate(row.access),
                password_hash=row.password_hash,
                form=self._editions.form(form, row.live_edition),
                turn=row.turn,
                taken=row.taken,
                team=row.team_id,
                team_name=row.team_name,
                team_slug=row.team_slug,
                rehearsed=row.rehearsed,
            )
            with self._reading:
                self._known[form] = found
        return found

    def let_in(self, form: UUID, entry: str) -> Visitor:
        """Return who goes on with a form.

        Raises ClosedError, PasswordNeededError, SignInNeededError and NotAdmittedError where they may not.
        """
        try:
            terms = self.terms(form)
        except (AwayError, BusyError):
            if _BETWEEN in entry:
                raise  # who it is has to be known
            return GUEST  # a state needs no database; what is handed in will ask again
        if terms is None:
            raise ClosedError
        words = closed_words(terms, datetime.now(UTC))
        if words is not None:
            raise ClosedError(words)
        return self.require_entry(form, terms, entry)

    def require_entry(self, form: UUID, terms: Terms, entry: str, *, fresh: bool = False) -> Visitor:
        """Return who goes on. `entry` is what their page carries: that a password was typed, and who is signed in.

        Raises PasswordNeededError, SignInNeededError, NotAdmittedError.
        """
        typed, _, ticket = entry.partition(_BETWEEN)
        self._require_password(form, terms, typed)
        visitor = self.visitor(form, ticket, fresh=fresh or terms.rehearsed)
        require_admitted(terms, visitor)
        return visitor

    def visitor(self, form: UUID, ticket: str, *, fresh: bool = False) -> Visitor:
        """Return who fills in a form by a pass, as it was known a moment ago at most."""
        if not ticket:
            return GUEST
        with self._reading:
            known = None if fresh else self._visitors.get((form, ticket))
        if known is not None:
            return known
        idle = timedelta(minutes=int(self._settings.session_idle))
        with self._connect() as connection:
            found = visitor_of(connection, form, ticket, self._settings, idle)
        with self._reading:
            self._visitors[form, ticket] = found
        return found

    def _require_password(self, form: UUID, terms: Terms, entry: str) -> None:
        if not self.is_entry(form, terms, entry):
            raise PasswordNeededError(terms.form.say("askPassword"))

    def is_entry(self, form: UUID, terms: Terms, entry: str) -> bool:
        """Say whether `entry` lets in: the password was typed within a day, or there is none."""
        if terms.password_hash is None:
            return True
        until, _, mark = entry.partition(".")
        good = until.isdigit() and len(until) < 13 and int(until) > time.time()
        return good and hmac.compare_digest(mark.encode(), self._mark(form, terms.password_hash, until).encode())

    def sealed(self, form: Form, form_id: UUID, seal: str, *, fresh: bool = False) -> Sealed | None:
        """Return what the seal of an address gives; None where there is none, and none is needed.

        Raises SealError with words for visitors, also where the link is over or used.
        """
        found = self.read_seal(form, form_id, seal, fresh=fresh)
        if found is not None and found.refused:
            raise SealError(found.refused, form.say(found.refused))
        return found

    def read_seal(self, form: Form, form_id: UUID, seal: str, *, fresh: bool = False) -> Sealed | None:
        """Return the same, but of a link that is over or used too: what was handed in by it may be sent again."""
        if not seal:
            if form.sealed_only:
                raise SealError("linkNeeded", form.say("linkNeeded"))
            return None
        with self._reading:
            known = None if fresh else self._sealed.get((form_id, seal))
        if known is not None:
            return known
        try:
            with self._connect() as connection:
                found = read_seal(connection, self._settings, form=form_id, seal=seal)
        except SealError as error:
            raise SealError(error.name, form.say(error.name)) from None
        with self._reading:
            self._sealed[form_id, seal] = found
        return found

    def entry_by_password(self, form: UUID, terms: Terms, password: str) -> str | None:
        """Return what lets in whoever typed the password, for a day; None where it is another. Raises TooBusyError."""
        assert terms.password_hash is not None
        if not verify(terms.password_hash, password):
            return None
        until = str(int(time.time()) + _ENTRY_SECONDS)
        return f"{until}.{self._mark(form, terms.password_hash, until)}"

    def _mark(self, form: UUID, password_hash: str, until: str) -> str:
        return mark_of(f"entry {form} {until} {password_hash}", self._settings)[:40]


def entry_with(entry: str, ticket: str) -> str:
    """Return what a page carries, with the pass of who is signed in; that a password was typed stays with it."""
    typed = entry.partition(_BETWEEN)[0]
    return f"{typed}{_BETWEEN}{ticket}" if ticket else typed


def require_admitted(terms: Terms, visitor: Visitor) -> None:
    """Raise SignInNeededError where a form wants to know who it is, NotAdmittedError where it is for others."""
    member, person = visitor.member_id is not None, visitor.person_id is not None
    if admits(terms.access, member=member, person=person, groups=visitor.groups):
        return
    if not visitor.is_known:
        raise SignInNeededError(terms.form.say("signIn").replace("{team}", terms.team_name))
    raise NotAdmittedError(terms.form.say("notForYou"))


def closed_words(terms: Terms, now: datetime) -> str | None:
    """Return what visitors read instead of the form at an aware moment; None where it can be filled in."""
    access, form = terms.access, terms.form
    match standing(access, form.time_zone, now):
        case "offline":
            return access.offline or form.say("offline")
        case "early":
            return words_early(access, form, opening(access, form.time_zone))
        case "over":
            return words_over(access, form, closing(access, form.time_zone))
        case _ if access.most is not None and terms.taken >= access.most:
            return full_words(terms)
    return None


def words_early(access: Access, form: Form, opens: datetime | None) -> str:
    """Return what visitors read before a form opens."""
    return access.early or _with_moment(form, "notYet", opens)


def words_over(access: Access, form: Form, closes: datetime | None) -> str:
    """Return what visitors read after a form has closed."""
    return access.over or _with_moment(form, "over", closes)


def full_words(terms: Terms) -> str:
    """Return what visitors read once as many responses came as are taken."""
    return terms.access.full or terms.form.say("full")


def _with_moment(form: Form, message: str, moment: datetime | None) -> str:
    assert moment is not None
    return form.say(message).replace("{moment}", moment_words(form, moment))
