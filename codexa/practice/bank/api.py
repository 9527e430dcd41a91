"""What shops ask of the bank: JSON over HTTP, with their secret key; a repeat under one key gets the first answer."""

import datetime
import hashlib
import json
import secrets
import sqlite3
import time
from typing import Any

from flask import Blueprint, Response, abort, jsonify, request
from werkzeug.exceptions import HTTPException

from codexa.practice.bank import cards, plans, store

api = Blueprint("api", __name__, url_prefix="/v1")
_SLOW_SECONDS = 8


@api.before_request
def behave() -> Response | None:
    """Answer as the bank is set to."""
    with store.database() as connection:
        mode = store.mode(connection)
    if mode == "away":
        abort(503)
    if mode == "slow":
        time.sleep(_SLOW_SECONDS)
    return Response("<html>upgrading") if mode == "rubbish" else None


@api.errorhandler(HTTPException)
def refuse(error: HTTPException) -> tuple[Response, int]:
    """Say what was wrong."""
    return jsonify(message=error.description), error.code or 500


def _shop(connection: sqlite3.Connection) -> store.Row:
    secret = request.headers.get("Authorization", "").removeprefix("Bearer ")
    shop = store.shop_of_secret(connection, secret)
    if shop is None:
        abort(401, "There is no shop with this secret key.")
    return shop


def _own(connection: sqlite3.Connection, shop: store.Row, payment: str) -> store.Row:
    found = store.find_payment(connection, payment)
    if found is None or found["shop"] != shop["id"]:
        abort(404, "There is no such payment.")
    return found


def _told(connection: sqlite3.Connection, payment: store.Row) -> dict[str, Any]:
    known = store.public(payment) | {"page": f"{request.host_url}pay/{payment['id']}"}
    return known | {"plan": plans.public(connection, payment["id"])}


@api.get("/account")
def account() -> dict[str, Any]:
    """Say whose key this is, and which cards there are."""
    with store.database() as connection:
        shop = _shop(connection)
    return {"name": shop["name"], "public_key": shop["public_key"], "cards": list(cards.KINDS.values())}


@api.put("/account/hook")
def hook() -> dict[str, Any]:
    """Take the address at which a shop is told; give what signs it, once."""
    with store.database() as connection:
        shop = _shop(connection)
        address = _text(request.get_json(), "address")
        secret = secrets.token_hex(24)
        connection.execute("UPDATE shop SET hook = ?, hook_secret = ? WHERE id = ?", (address, secret, shop["id"]))
    return {"address": address, "secret": secret}


@api.post("/payments")
def ask_payment() -> dict[str, Any]:
    """Take up a payment: an amount in minor units, its currency, and what the shop calls it; and what follows it.

    Where a plan follows, nothing need be paid at once: the card is kept.
    """
    asked = request.get_json()
    plan = None if asked.get("plan") is None else _plan(asked["plan"])
    amount = _whole(asked, "amount", 0 if plan else 1, 10**12)
    kinds = [each for each in asked.get("cards") or cards.KINDS.values() if each in cards.KINDS.values()]
    wanted = {
        "amount": amount,
        "currency": _text(asked, "currency"),
        "reference": _text(asked, "reference"),
        "payer": {name: str(asked.get("payer", {}).get(name, ""))[:500] for name in ("name", "email", "delivery")},
        "back_to": _address(asked.get("back_to")),
        "cards": kinds,
        "plan": plan,
    }
    with store.database() as connection:
        shop = _shop(connection)

        def take_up() -> dict[str, Any]:
            payment = store.insert_payment(connection, shop["id"], wanted)
            if plan is not None:
                plans.insert(connection, payment["id"], plan)
            return _told(connection, payment)

        return _once(connection, shop, wanted, take_up)


def _plan(asked: Any) -> dict[str, Any]:
    """Return a plan: so much, every so many days, weeks, months or years, from a day on, so many times or for ever."""
    unit, starts_on = _text(asked, "unit"), _text(asked, "starts_on")
    try:
        start = datetime.date.fromisoformat(starts_on)
    except ValueError:
        abort(422, "starts_on is to be a date, such as 2026-11-30.")
    if unit not in plans.UNITS:
        abort(422, f"unit is to be one of {', '.join(plans.UNITS)}.")
    return {
        "amount": _whole(asked, "amount", 1, 10**12),
        "every": _whole(asked, "every", 1, 366),
        "unit": unit,
        "times": None if asked.get("times") is None else _whole(asked, "times", 1, 10_001),
        "starts_on": start.isoformat(),
        "first_now": asked.get("first_now") is True,
    }


def _whole(asked: Any, name: str, least: int, below: int) -> int:
    value = asked.get(name) if isinstance(asked, dict) else None
    if not isinstance(value, int) or isinstance(value, bool) or not least <= value < below:
        abort(422, f"{name} is to be a whole number, {least} or more (amounts are minor units).")
    return value


@api.get("/payments/<payment>")
def payment(payment: str) -> dict[str, Any]:
    """Say how a payment stands."""
    with store.database() as connection:
        return _told(connection, _own(connection, _shop(connection), payment))


@api.get("/payments")
def changed_payments() -> dict[str, Any]:
    """List payments that changed since a moment (seconds since 1970), the latest first."""
    since = float(request.args.get("since", "0"))
    with store.database() as connection:
        found = store.payments(connection, _shop(connection)["id"], most=1_000, since=since)
        return {"payments": [_told(connection, each | {"first": _first_of(connection, each["id"])}) for each in found]}


@api.post("/payments/<payment>/cancel")
def cancel(payment: str) -> dict[str, Any]:
    """Take a payment back that nobody has paid; one that was paid stays so."""
    with store.database() as connection:
        found = _own(connection, _shop(connection), payment)
        if found["state"] in ("open", "asking"):
            found = store.change_payment(connection, payment, state="cancelled")
            plans.stop(connection, payment)
        return _told(connection, found)


@api.post("/payments/<payment>/plan/stop")
def stop_plan(payment: str) -> dict[str, Any]:
    """Charge nothing more of the plan that began with a payment."""
    with store.database() as connection:
        found = _own(connection, _shop(connection), payment)
        plans.stop(connection, payment)
        return _told(connection, found)


@api.post("/payments/<payment>/plan/charges/<int:turn>/again")
def charge_again(payment: str, turn: int) -> dict[str, Any]:
    """Try the kept card again for a charge that was declined."""
    with store.database() as connection:
        shop = _shop(connection)
        found = _own(connection, shop, payment)
        plan = found["plan"]

        def again() -> dict[str, Any]:
            if plan is None or not plans.charge_again(connection, plan, turn):
                abort(422, "There is no such charge that was declined.")
            return _told(connection, found)

        return _once(connection, shop, {"again": payment, "turn": turn}, again)


@api.post("/payments/<payment>/refunds")
def refund(payment: str) -> dict[str, Any]:
    """Give back so much of a payment (minor units)."""
    asked = request.get_json()
    amount = asked.get("amount")
    with store.database() as connection:
        shop = _shop(connection)
        found = _own(connection, shop, payment)

        def give_back() -> dict[str, Any]:
            left = found["amount"] - found["refunded"]
            if found["state"] != "paid" or not isinstance(amount, int) or not 0 < amount <= left:
                abort(422, f"At most {left if found['state'] == 'paid' else 0} can be given back.")
            changed = store.change_payment(connection, payment, refunded=found["refunded"] + amount)
            store.add_event(connection, changed | {"first": _first_of(connection, payment)}, "money back")
            return _told(connection, changed)

        return _once(connection, shop, {"refund": payment, "amount": amount}, give_back)


def _first_of(connection: sqlite3.Connection, payment: str) -> str:
    row = connection.execute("SELECT first FROM charge WHERE payment = ?", (payment,)).fetchone()
    return "" if row is None else str(row["first"])


def _once(connection: sqlite3.Connection, shop: store.Row, asked: Any, do: Any) -> dict[str, Any]:
    """Return what was answered under this key before, else do it and keep the answer."""
    key = request.headers.get("Idempotency-Key", "")
    if not key:
        abort(400, "Send an Idempotency-Key.")
    digest = hashlib.sha256(json.dumps(asked, sort_keys=True).encode()).hexdigest()
    row = connection.execute("SELECT body, digest FROM reply WHERE shop = ? AND key = ?", (shop["id"], key)).fetchone()
    if row is not None:
        if row["digest"] != digest:
            abort(409, "This Idempotency-Key was used for something else.")
        first: dict[str, Any] = json.loads(row["body"])
        return first
    reply: dict[str, Any] = do()
    connection.execute("INSERT INTO reply VALUES (?, ?, ?, ?)", (shop["id"], key, json.dumps(reply), digest))
    return reply


def _address(value: Any) -> str:
    return value if isinstance(value, str) and value.startswith(("http://", "https://")) and len(value) < 500 else ""


def _text(asked: Any, name: str) -> str:
    value = asked.get(name) if isinstance(asked, dict) else None
    if not isinstance(value, str) or not value or len(value) > 500:
        abort(422, f"{name} is to be a text.")
    return value
