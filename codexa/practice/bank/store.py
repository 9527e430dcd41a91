"""What the bank knows: shops, payments, refunds, what it told them, and how it behaves, in one small database."""

import datetime
import json
import os
import secrets
import sqlite3
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

FILE = Path(os.environ.get("PRACTICE_BANK", "var/bank")) / "bank.sqlite"
# The shops that are there from the beginning; their keys open nothing but this bank.
SHOPS = (
    ("alderlight", "Alderlight Observatory", "practice-public-alderlight", "practice-secret-alderlight-4711"),
    ("tryouts", "Tryouts", "practice-public-tryouts", "practice-secret-tryouts-0815"),
)
MODES = {
    "well": "answers as it should",
    "away": "answers nobody",
    "slow": "answers after a while",
    "rubbish": "answers what nobody can read",
}
_TABLES = """
CREATE TABLE IF NOT EXISTS shop (id TEXT PRIMARY KEY, name TEXT, public_key TEXT UNIQUE, secret_key TEXT UNIQUE,
    hook TEXT NOT NULL DEFAULT '', hook_secret TEXT NOT NULL DEFAULT '');
CREATE TABLE IF NOT EXISTS payment (id TEXT PRIMARY KEY, shop TEXT, amount INTEGER, currency TEXT, reference TEXT,
    payer TEXT, cards TEXT, state TEXT, reason TEXT NOT NULL DEFAULT '', card TEXT NOT NULL DEFAULT '',
    refunded INTEGER NOT NULL DEFAULT 0, created_at REAL, changed_at REAL, back_to TEXT NOT NULL DEFAULT '');
CREATE TABLE IF NOT EXISTS event (at INTEGER PRIMARY KEY AUTOINCREMENT, id TEXT, shop TEXT, body TEXT, due_at REAL,
    tries INTEGER NOT NULL DEFAULT 0, told_at REAL, result TEXT NOT NULL DEFAULT '');
CREATE TABLE IF NOT EXISTS reply (shop TEXT, key TEXT, body TEXT, digest TEXT, PRIMARY KEY (shop, key));
CREATE TABLE IF NOT EXISTS plan (first TEXT PRIMARY KEY, amount INTEGER, every INTEGER, unit TEXT, times INTEGER,
    starts_on TEXT, first_now INTEGER, state TEXT, next_on TEXT, made INTEGER NOT NULL DEFAULT 0,
    outcome TEXT NOT NULL DEFAULT '');
CREATE TABLE IF NOT EXISTS charge (payment TEXT PRIMARY KEY, first TEXT, turn INTEGER, on_day TEXT,
    UNIQUE (first, turn));
CREATE TABLE IF NOT EXISTS setting (name TEXT PRIMARY KEY, value TEXT);
"""
Row = dict[str, Any]


@contextmanager
def database() -> Iterator[sqlite3.Connection]:
    """Give a connection in a transaction that is kept where nothing fails."""
    FILE.parent.mkdir(parents=True, exist_ok=True)
    connection = sqlite3.connect(FILE, timeout=10, isolation_level=None)
    connection.row_factory = sqlite3.Row
    try:
        connection.execute("PRAGMA journal_mode = WAL")
        connection.execute("BEGIN IMMEDIATE")
        yield connection
        connection.execute("COMMIT")
    finally:
        connection.close()  # what was not kept is rolled back


def prepare() -> None:
    """Make the tables and the first shops."""
    with database() as connection:
        for statement in filter(str.strip, _TABLES.split(";")):
            connection.execute(statement)
        if "back_to" not in [row["name"] for row in connection.execute("PRAGMA table_info(payment)")]:
            connection.execute("ALTER TABLE payment ADD COLUMN back_to TEXT NOT NULL DEFAULT ''")
        connection.executemany(
            "INSERT OR IGNORE INTO shop (id, name, public_key, secret_key) VALUES (?, ?, ?, ?)", SHOPS
        )


def _one(connection: sqlite3.Connection, statement: str, *values: Any) -> Row | None:
    row = connection.execute(statement, values).fetchone()
    return None if row is None else dict(row)


def shop_of_secret(connection: sqlite3.Connection, secret: str) -> Row | None:
    """Return the shop with that secret key."""
    return _one(connection, "SELECT * FROM shop WHERE secret_key = ?", secret)


def find_payment(connection: sqlite3.Connection, payment: str) -> Row | None:
    """Return a payment, with the plan that begins with it."""
    row = _one(connection, "SELECT * FROM payment WHERE id = ?", payment)
    if row is None:
        return None
    plan = find_plan(connection, payment)
    return row | {"cards": json.loads(row["cards"]), "payer": json.loads(row["payer"]), "plan": plan}


def find_plan(connection: sqlite3.Connection, first: str) -> Row | None:
    """Return the plan that begins with a payment."""
    return _one(connection, "SELECT * FROM plan WHERE first = ?", first)


def payments(connection: sqlite3.Connection, shop: str | None = None, most: int = 200, since: float = 0) -> list[Row]:
    """Return the payments of a shop, or of all, that changed since a moment, the latest first."""
    rows = connection.execute(
        "SELECT * FROM payment WHERE (?1 IS NULL OR shop = ?1) AND changed_at >= ?2 ORDER BY changed_at DESC LIMIT ?3",
        (shop, since, most),
    )
    return [dict(row) for row in rows]


def insert_payment(connection: sqlite3.Connection, shop: str, asked: Row) -> Row:
    """Take up a payment that a shop asks for."""
    payment = secrets.token_hex(16)
    now = time.time()
    connection.execute(
        "INSERT INTO payment"
        " (id, shop, amount, currency, reference, payer, cards, state, created_at, changed_at, back_to)"
        " VALUES (?, ?, ?, ?, ?, ?, ?, 'open', ?, ?, ?)",
        (
            *(payment, shop, asked["amount"], asked["currency"], asked["reference"]),
            *(json.dumps(asked["payer"]), json.dumps(asked["cards"]), now, now, asked.get("back_to", "")),
        ),
    )
    found = find_payment(connection, payment)
    assert found is not None
    return found


def change_payment(connection: sqlite3.Connection, payment: str, **changes: Any) -> Row:
    """Change a payment and return it."""
    names = ", ".join(f"{name} = ?" for name in changes)  # our own names
    connection.execute(
        f"UPDATE payment SET {names}, changed_at = ? WHERE id = ?",  # noqa: S608
        (*changes.values(), time.time(), payment),
    )
    found = find_payment(connection, payment)
    assert found is not None
    return found


def add_event(connection: sqlite3.Connection, payment: Row, kind: str, *, times: int = 1) -> None:
    """Have a shop told of something, once or more often."""
    event = secrets.token_hex(12)
    body = json.dumps({"id": event, "kind": kind, "at": time.time(), "payment": public(payment)})
    for _ in range(times):
        connection.execute(
            "INSERT INTO event (id, shop, body, due_at) VALUES (?, ?, ?, ?)",
            (event, payment["shop"], body, time.time()),
        )


def public(payment: Row) -> Row:
    """Return a payment as its shop reads it."""
    known = {name: payment[name] for name in ("id", "amount", "currency", "reference", "state", "reason", "refunded")}
    # Of a charge of a plan: the payment that the plan began with.
    return known | {"card": payment["card"], "first": payment.get("first", "")}


def today(connection: sqlite3.Connection) -> datetime.date:
    """Return the bank's today, which people can move on."""
    row = _one(connection, "SELECT value FROM setting WHERE name = 'days on'")
    moved = datetime.timedelta(days=int(row["value"]) if row else 0)
    return datetime.datetime.now(datetime.UTC).date() + moved


def move_on(connection: sqlite3.Connection, days: int) -> None:
    """Have so many days pass at the bank."""
    connection.execute("INSERT OR IGNORE INTO setting VALUES ('days on', '0')")
    connection.execute(
        "UPDATE setting SET value = CAST(CAST(value AS INTEGER) + ? AS TEXT) WHERE name = 'days on'", (days,)
    )


def mode(connection: sqlite3.Connection) -> str:
    """Return how the bank answers shops."""
    row = _one(connection, "SELECT value FROM setting WHERE name = 'mode'")
    return row["value"] if row else "well"


def set_mode(connection: sqlite3.Connection, chosen: str) -> None:
    """Answer shops otherwise from now on."""
    connection.execute("INSERT OR REPLACE INTO setting VALUES ('mode', ?)", (chosen,))
