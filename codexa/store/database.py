"""Connections, transactions and migrations."""

import threading
import time
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, contextmanager
from pathlib import Path
from typing import Any, TypeVar

import orjson
import psycopg
from psycopg.abc import PQGen
from psycopg.rows import DictRow, dict_row
from psycopg.types.json import set_json_dumps, set_json_loads
from psycopg_pool import ConnectionPool, PoolTimeout
from yoyo import get_backend, read_migrations

set_json_dumps(orjson.dumps)
set_json_loads(orjson.loads)
Connection = psycopg.Connection[DictRow]
Cursor = psycopg.Cursor[DictRow]
Rollback = psycopg.Rollback
Connect = Callable[[], AbstractContextManager[Connection]]
Result = TypeVar("Result")
_MIGRATIONS = Path(__file__).with_name("migrations")

CONNECT_SECONDS = 2
WAIT_SECONDS = 2.0  # for one of the pool's connections
STATEMENT_SECONDS = 4
LOCK_SECONDS = 3
_ASK_AGAIN_SECONDS = 1.0


class AwayError(Exception):
    """The database can't be reached just now."""


class BusyError(Exception):
    """All connections that there may be are in use."""


def _bounded(seconds: float) -> type[psycopg.Connection[DictRow]]:
    """Return connections that are closed where an answer does not come: what state they are in could not be known.

    A server that is frozen keeps its connections and says nothing; past its own time-outs nobody listens any more.
    """

    class BoundedConnection(psycopg.Connection[DictRow]):
        def wait(self, gen: PQGen[Result], interval: float = 0.1, timeout: float | None = None) -> Result:
            try:
                return super().wait(gen, interval, seconds if timeout is None else timeout)
            except psycopg.errors._WaitTimeout:  # noqa: SLF001 - psycopg gives callers of wait no other name for it
                self.pgconn.finish()
                raise psycopg.OperationalError("the server does not answer") from None

    return BoundedConnection


class Database:
    """A pool of connections whose rows are dictionaries.

    While the server is away every request is refused at once, but for one each second that looks whether it is back.
    """

    def __init__(self, address: str, size: int, *, statement_seconds: int = STATEMENT_SECONDS) -> None:
        """Open the pool; it connects when it is first asked. `statement_seconds` bounds each statement."""
        limits = {
            "statement_timeout": statement_seconds * 1000,
            "lock_timeout": LOCK_SECONDS * 1000,
            "idle_in_transaction_session_timeout": max(60, statement_seconds) * 1000,
        }
        self._pool: ConnectionPool[Connection] = ConnectionPool(
            address,
            min_size=0,
            max_size=size,
            open=True,
            timeout=WAIT_SECONDS,
            # The pool's own pauses would outlast the server's absence; we ask it again ourselves.
            reconnect_timeout=0.5,
            kwargs={
                "row_factory": dict_row,
                "connect_timeout": CONNECT_SECONDS,
                "options": " ".join(f"-c {name}={value}" for name, value in limits.items()),
            },
            connection_class=_bounded(statement_seconds + 1.0),
            check=ConnectionPool.check_connection,
        )
        self._away_until = 0.0
        self._looking = threading.Lock()

    @contextmanager
    def connection(self) -> Iterator[Connection]:
        """Yield a connection for one transaction: kept at the end, undone by an error.

        Raises AwayError, or BusyError where none is free within WAIT_SECONDS.
        """
        self._refuse_while_away()
        try:
            with self._pool.connection() as connection:
                yield connection
        except PoolTimeout:
            if self._pool.get_stats().get("pool_size", 0):
                raise BusyError from None
            raise self._away() from None
        except psycopg.OperationalError as error:
            if _says_nothing(error):
                raise self._away() from None
            raise
        self._away_until = 0.0

    def _refuse_while_away(self) -> None:
        if not self._away_until:
            return
        with self._looking:
            if time.monotonic() < self._away_until:
                raise AwayError
            self._away_until = time.monotonic() + _ASK_AGAIN_SECONDS

    def _away(self) -> AwayError:
        self._away_until = time.monotonic() + _ASK_AGAIN_SECONDS
        return AwayError()

    def close(self) -> None:
        """Close all connections."""
        self._pool.close()


def _says_nothing(error: psycopg.OperationalError) -> bool:
    # No code at all, or one of "connection exception" and "operator intervention" (PostgreSQL, appendix A).
    state = error.sqlstate
    return state is None or state.startswith("08") or state in ("57P01", "57P02", "57P03")


@contextmanager
def patient_connection(address: str) -> Iterator[Connection]:
    """Yield a connection of its own without a transaction, whose statements take as long as they take: for jobs."""
    with psycopg.connect(address, row_factory=dict_row, autocommit=True, connect_timeout=CONNECT_SECONDS) as connection:
        yield connection


def migrate(address: str) -> None:
    """Bring the database to the present schema; does nothing where it is there already."""
    backend = get_backend(address.replace("postgresql://", "postgresql+psycopg://", 1))
    try:
        migrations = read_migrations(str(_MIGRATIONS))
        with backend.lock():
            backend.apply_migrations(backend.to_apply(migrations))
    finally:
        backend.connection.close()


def one(connection: Connection, query: bytes, **values: Any) -> DictRow | None:
    """Run a query that gives one row or none."""
    return connection.execute(query, values).fetchone()


def exactly_one(connection: Connection, query: bytes, **values: Any) -> DictRow:
    """Run a query that always gives a row."""
    row = connection.execute(query, values).fetchone()
    assert row is not None
    return row


def many(connection: Connection, query: bytes, **values: Any) -> list[DictRow]:
    """Run a query that gives any number of rows."""
    return connection.execute(query, values).fetchall()


def like_literal(text: str) -> str:
    """Return a text as LIKE takes it for itself, whatever signs it has."""
    return text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_")
