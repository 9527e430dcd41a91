"""How often one network, or one person who is signed in, may ask; counted together with all other web processes.

Each process counts by itself and adds to the common count some at a time, so that most requests need no database. While
the database is away each process goes on counting alone.
"""

import hashlib
import threading
import time
from collections.abc import Callable
from contextlib import AbstractContextManager
from functools import lru_cache
from typing import Any

from cachetools import LRUCache
from flask import Blueprint, Flask, abort, current_app, request
from flask_limiter import Limiter
from limits import RateLimitItem, parse
from limits.storage import Storage

from codexa.settings import Settings
from codexa.store import rates
from codexa.store.database import AwayError, BusyError, Connection, Database
from codexa.web.network import network

_MOST_SUBJECTS = 50_000
_PIECES = 20  # a twentieth of what is allowed is counted alone before it is told to the others


class _Counted:
    """What a process knows of a subject: the common count when it last asked, and what came since."""

    __slots__ = ("common", "ends", "own")

    def __init__(self, ends: float) -> None:
        self.common, self.own, self.ends = 0, 0, ends


class CommonCounts(Storage):
    """Counts that all web processes share, for flask-limiter."""

    STORAGE_SCHEME = ["codexa"]  # noqa: RUF012 - the base class wants a list

    def __init__(self, uri: str | None = None, **options: Any) -> None:
        super().__init__(uri)
        self._database: Database = options["database"]
        self._known: LRUCache[str, _Counted] = LRUCache(_MOST_SUBJECTS)
        self._lock = threading.Lock()

    @property
    def base_exceptions(self) -> type[Exception] | tuple[type[Exception], ...]:
        """What a database may raise."""
        return (AwayError, BusyError)

    def incr(self, key: str, expiry: float, amount: int = 1) -> int:
        """Count and return how many there were in this window, here and, as last told, elsewhere."""
        with self._lock:
            counted = self._of(key, expiry)
            counted.own += amount
            total = counted.common + counted.own
            tell = counted.own >= self._piece(key)
            own, counted.own = (counted.own, 0) if tell else (0, counted.own)
            if tell:
                counted.common += own
        return max(total, self._tell(key, counted, own)) if tell else total

    def _of(self, key: str, expiry: float) -> _Counted:
        counted = self._known.get(key)
        if counted is None or counted.ends <= time.time():
            counted = self._known[key] = _Counted(time.time() + expiry)
        return counted

    @staticmethod
    def _piece(key: str) -> int:
        # The library writes a limit into its key as …/amount/multiples/unit.
        amount = key.rsplit("/", 3)[1]
        return max(1, int(amount) // _PIECES) if amount.isdigit() else 1

    def _tell(self, key: str, counted: _Counted, own: int) -> int:
        try:
            with self._connect() as connection:
                common, seconds = rates.add(connection, subject=key, count=own, seconds=counted.ends - time.time())
        except (AwayError, BusyError):
            return 0
        with self._lock:
            counted.common = max(counted.common, common)
            counted.ends = time.time() + seconds
            return counted.common + counted.own

    def _connect(self) -> AbstractContextManager[Connection]:
        return self._database.connection()

    def get(self, key: str) -> int:
        """Return the count as this process knows it."""
        with self._lock:
            counted = self._known.get(key)
            return 0 if counted is None or counted.ends <= time.time() else counted.common + counted.own

    def get_expiry(self, key: str) -> float:
        """Return when the window ends, in seconds since 1970."""
        with self._lock:
            counted = self._known.get(key)
            return time.time() if counted is None else counted.ends

    def check(self) -> bool:
        """Say that counting works; without a database it does so alone."""
        return True

    def reset(self) -> int | None:
        """Forget everything that this process has counted."""
        with self._lock:
            self._known.clear()
        return None

    def clear(self, key: str) -> None:
        """Forget a subject in this process."""
        with self._lock:
            self._known.pop(key, None)


# For what takes long: one person can't keep a process busy with it.
HEAVY_RATE = "240 per minute"
# For visitors who have a document made, from one network.
PDF_RATE = "20 per minute"
# For asking to be written to, or trying a link, from one network.
LINK_RATE = "10 per minute"

# For members who sign in, from one network: a school has one.
SIGN_IN_RATE = "60 per minute"

# For keeping answers to go on with later, from one network.
KEEP_RATE = "60 per minute"

limiter = Limiter(network, strategy="fixed-window")


def install(app: Flask, database: Database) -> None:
    """Make the limits of an application count in its database."""
    app.config.update(
        RATELIMIT_STORAGE_URI="codexa://",
        RATELIMIT_STORAGE_OPTIONS={"database": database},
        RATELIMIT_HEADERS_ENABLED=False,
    )
    limiter.init_app(app)


def entry_rate() -> str:
    """Return the rate for entering a form: by its password, or by signing in, which is counted by itself besides."""
    return SIGN_IN_RATE if request.form.get("way") else LINK_RATE


@lru_cache(maxsize=8)
def _rate(text: str) -> RateLimitItem:
    return parse(text)


def bound_public(blueprint: Blueprint) -> None:
    """Bound how often one network may ask at each address of a blueprint."""
    _bound(blueprint, lambda settings: settings.public_rate, network)


def bound_workbench(blueprint: Blueprint) -> None:
    """Bound how often one person, by their session, may ask at each address of a blueprint."""
    _bound(blueprint, lambda settings: settings.team_rate, who_is_counted)


def _bound(blueprint: Blueprint, rate: Callable[[Settings], str], subject: Callable[[], str]) -> None:
    # On the way of every request: the extension would make a blueprint's limits anew each time, which is more than
    # counting is (55,000 instructions of a response's four million).
    @blueprint.before_request
    def refuse_beyond() -> None:
        item = _rate(rate(current_app.config["SETTINGS"]))
        if not limiter.limiter.hit(item, "all", subject(), request.endpoint or ""):
            abort(429)


def responses_beyond() -> tuple[int, int] | None:
    """Count a response from this network; return how many there were, and how many are usual, where there are more."""
    usual = _rate(current_app.config["SETTINGS"].work_rate)
    storage = limiter.storage
    assert isinstance(storage, CommonCounts)
    count = storage.incr(usual.key_for("responses", network()), usual.get_expiry())
    return (count, usual.amount) if count > usual.amount else None


def who_is_counted() -> str:
    """Return what a request of the workbench counts against: its session, whatever network it comes from."""
    sent = request.cookies.get("__Host-codexa_session") or request.cookies.get("codexa_session")
    return hashlib.sha256(sent.encode()).hexdigest()[:32] if sent else network()
