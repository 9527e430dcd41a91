"""Plans at the bank: a card is kept when the first payment is made, and charged again on each day that comes."""

import calendar
import datetime
import sqlite3
import time

from codexa.practice.bank import cards, store

UNITS = ("day", "week", "month", "year")
_MOST_AT_ONCE = 5_000  # charges, when the clock is moved on far


def day_of(start: datetime.date, every: int, unit: str, steps: int) -> datetime.date:
    """Return the day so many steps after a start; a month that is too short has it on its last day."""
    if unit in ("day", "week"):
        return start + datetime.timedelta(days=every * steps * (7 if unit == "week" else 1))
    months = start.month - 1 + every * steps * (12 if unit == "year" else 1)
    year, month = start.year + months // 12, months % 12 + 1
    return datetime.date(year, month, min(start.day, calendar.monthrange(year, month)[1]))


def insert(connection: sqlite3.Connection, first: str, asked: store.Row) -> None:
    """Take up a plan that begins once its first payment is made."""
    connection.execute(
        "INSERT INTO plan (first, amount, every, unit, times, starts_on, first_now, state)"
        " VALUES (?, ?, ?, ?, ?, ?, ?, 'waiting')",
        (first, *(asked[name] for name in ("amount", "every", "unit", "times", "starts_on", "first_now"))),
    )


def begin(connection: sqlite3.Connection, payment: store.Row, outcome: str) -> None:
    """Keep the card of a first payment that was made, for what its plan charges later."""
    plan = store.find_plan(connection, payment["id"])
    if plan is not None and plan["state"] == "waiting":
        _change(connection, plan["first"], state="running", outcome=outcome, next_on=_day(plan, 1).isoformat())


def stop(connection: sqlite3.Connection, first: str) -> None:
    """Charge nothing more; stopping what has ended changes nothing."""
    plan = store.find_plan(connection, first)
    if plan is not None and plan["state"] in ("waiting", "running"):
        _change(connection, first, state="stopped", next_on=None)


def charge_due(connection: sqlite3.Connection) -> int:
    """Charge what the bank's today has come to, each day of a plan by itself; say how many."""
    today, made = store.today(connection).isoformat(), 0
    while made < _MOST_AT_ONCE:
        row = connection.execute(
            "SELECT * FROM plan WHERE state = 'running' AND next_on <= ? ORDER BY next_on LIMIT 1", (today,)
        ).fetchone()
        if row is None:
            break
        _charge_next(connection, dict(row))
        made += 1
    return made


def _charge_next(connection: sqlite3.Connection, plan: store.Row) -> None:
    turn = plan["made"] + 1
    first = store.find_payment(connection, plan["first"])
    assert first is not None
    asked = {name: first[name] for name in ("currency", "reference", "payer", "cards")} | {"amount": plan["amount"]}
    payment = store.insert_payment(connection, first["shop"], asked)
    connection.execute("INSERT INTO charge VALUES (?, ?, ?, ?)", (payment["id"], first["id"], turn, plan["next_on"]))
    is_last = plan["times"] is not None and turn >= plan["times"] - plan["first_now"]
    then = {"state": "ended", "next_on": None} if is_last else {"next_on": _day(plan, turn + 1).isoformat()}
    _change(connection, plan["first"], made=turn, **then)
    _try_card(connection, payment["id"], first, declined=plan["outcome"] in cards.LATER_DECLINED)


def charge_again(connection: sqlite3.Connection, plan: store.Row, turn: int) -> bool:
    """Try the kept card again for a charge that was declined; False where there is none such."""
    row = connection.execute(
        "SELECT payment.id FROM charge JOIN payment ON payment.id = charge.payment"
        " WHERE charge.first = ? AND charge.turn = ? AND payment.state = 'failed'",
        (plan["first"], turn),
    ).fetchone()
    first = store.find_payment(connection, plan["first"])
    if row is None or first is None:
        return False
    _try_card(connection, row["id"], first, declined=plan["outcome"] == "later never")
    return True


def _try_card(connection: sqlite3.Connection, payment: str, first: store.Row, *, declined: bool) -> None:
    reason = cards.REASONS["declined"] if declined else ""
    state = "failed" if declined else "paid"
    changed = store.change_payment(connection, payment, state=state, reason=reason, card=first["card"])
    store.add_event(connection, changed | {"first": first["id"]}, "charge declined" if declined else "charged")


def public(connection: sqlite3.Connection, payment: str) -> store.Row | None:
    """Return the plan of a first payment as its shop reads it, with every charge."""
    plan = store.find_plan(connection, payment)
    if plan is None:
        return None
    rows = connection.execute(
        "SELECT charge.turn, charge.on_day, payment.* FROM charge JOIN payment ON payment.id = charge.payment"
        " WHERE charge.first = ? ORDER BY charge.turn",
        (payment,),
    )
    charges = [store.public(dict(row)) | {"turn": row["turn"], "on": row["on_day"]} for row in rows]
    return {"state": plan["state"], "next_on": plan["next_on"], "charges": charges}


def all_plans(connection: sqlite3.Connection, most: int = 200) -> list[store.Row]:
    """Return the latest plans with their first payments' shop, reference and currency."""
    rows = connection.execute(
        "SELECT plan.*, payment.shop, payment.reference, payment.currency FROM plan"
        " JOIN payment ON payment.id = plan.first ORDER BY payment.created_at DESC LIMIT ?",
        (most,),
    )
    return [dict(row) for row in rows]


def _day(plan: store.Row, turn: int) -> datetime.date:
    start = datetime.date.fromisoformat(plan["starts_on"])
    return day_of(start, plan["every"], plan["unit"], turn if plan["first_now"] else turn - 1)


def _change(connection: sqlite3.Connection, first: str, **changes: object) -> None:
    names = ", ".join(f"{name} = ?" for name in changes)  # our own names
    connection.execute(f"UPDATE plan SET {names} WHERE first = ?", (*changes.values(), first))  # noqa: S608
    # A shop that asks what has changed is told of the payment that the plan begins with.
    connection.execute("UPDATE payment SET changed_at = ? WHERE id = ?", (time.time(), first))
