"""Indexes of ledgers: made by a job, of what is searched in, and of what somebody has filtered or sorted by."""

import hashlib
from collections.abc import Iterator, Sequence
from typing import Any

from psycopg import sql

from codexa.core.responses.holds import Holds
from codexa.store.database import Connection, many, one
from codexa.store.ledger_orders import Sort, keys_of, order_of
from codexa.store.ledgers import FACETS, JSON, TAGS, Ledger, compared, execute
from codexa.store.queries import queries

_QUERIES = queries("ledger_indexes")
_INDEX_PARTS = "CREATE INDEX CONCURRENTLY IF NOT EXISTS {index} ON {words} USING gin (words gin_trgm_ops)"
_INDEX_WORDS = "CREATE INDEX CONCURRENTLY IF NOT EXISTS {index} ON {words} USING gin (searched)"
_INDEX_COLUMN = "CREATE INDEX CONCURRENTLY IF NOT EXISTS {index} ON {table} ({what}, number)"
_INDEX_ORDER = "CREATE INDEX CONCURRENTLY IF NOT EXISTS {index} ON {table} ({order})"
_INDEX_CODES = "CREATE INDEX CONCURRENTLY IF NOT EXISTS {index} ON {table} USING gin ({what})"
_DROP_BROKEN = "DROP INDEX CONCURRENTLY IF EXISTS {index}"
_ANALYZE = "VACUUM (ANALYZE) {table}"


def want_index(connection: Connection, ledger: Ledger, columns: Sequence[str]) -> bool:
    """Note by which columns a ledger is filtered or sorted; True where one of them is new."""
    return one(connection, _QUERIES["want"], form=ledger.form, columns=list(columns)) is not None


def make_indexes(connection: Connection, ledger: Ledger) -> None:
    """Make the indexes of texts and of wanted columns that are not there. The connection has no transaction open.

    Nobody waits meanwhile. One that a crash left half made is made anew.
    """
    broken = {row["name"] for row in many(connection, _QUERIES["broken_indexes"], prefix=ledger.index("%"))}
    for name, query, names in _indexes(ledger):
        if name in broken:
            execute(connection, ledger, _DROP_BROKEN, index=sql.Identifier("ledgers", name))
        execute(connection, ledger, query, index=sql.Identifier(name), **names)
    for table in (ledger.table, ledger.words):
        connection.execute(sql.SQL(_ANALYZE).format(table=table))


def _indexes(ledger: Ledger) -> Iterator[tuple[str, str, dict[str, Any]]]:
    yield ledger.index("parts"), _INDEX_PARTS, {}
    yield ledger.index("words"), _INDEX_WORDS, {}
    for column in ledger.wanted:
        if "," in column:
            sorts = [Sort.read(each) for each in column.split(",")]
            name = hashlib.sha256(column.encode()).hexdigest()[:12]
            yield ledger.index(f"o{name}"), _INDEX_ORDER, {"order": order_of(keys_of(ledger, sorts))}
        elif column in FACETS or ledger.columns.get(column, Holds.ROWS) not in JSON:
            is_several = column == TAGS or ledger.columns.get(column) is Holds.CHOICES
            query = _INDEX_CODES if is_several else _INDEX_COLUMN
            yield ledger.index(ledger.place_name(column)), query, {"what": compared(ledger, column)}
