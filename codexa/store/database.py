"""Connections, transactions and migrations."""

from pathlib import Path
from typing import Any

import psycopg
from psycopg.rows import DictRow, dict_row
from psycopg_pool import ConnectionPool
from yoyo import get_backend, read_migrations

Connection = psycopg.Connection[DictRow]
_MIGRATIONS = Path(__file__).with_name("migrations")


def open_pool(address: str, size: int) -> ConnectionPool[Connection]:
    """Return a pool of connections whose rows are dictionaries; it reconnects by itself after the database was away."""
    return ConnectionPool(
        address,
        min_size=1,
        max_size=size,
        open=True,
        timeout=10,
        kwargs={"row_factory": dict_row},
        connection_class=psycopg.Connection[DictRow],
        check=ConnectionPool.check_connection,
    )


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
