"""What shops ask of the bank: JSON over HTTP, with their secret key; a repeat under one key gets the first answer."""

import hashlib
import json
import secrets
import sqlite3
import time
from typing import Any

from flask import Blueprint, Response, abort, jsonify, request
from werkzeug.exceptions import HTTPException

from codexa.practice.bank import cards, store

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


def _told(payment: store.Row) -> dict[str, Any]:
    return store.public(payment) | {"page": f"{request.host_url}pay/{payment['id']}"}


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
    """Take up a payment: an amount in minor units, its currency, and what the shop calls it."""
    asked = request.get_json()
    amount = asked.get("amount")
    if not isinstance(amount, int) or isinstance(amount, bool) or not 0 < amount < 10**12:
        abort(422, "amount is to be a whole number of minor units, above 0.")
    kinds = [each for each in asked.get("cards") or cards.KINDS.values() if each in cards.KINDS.values()]
    wanted = {
        "amount": amount,
        "currency": _text(asked, "currency"),
        "reference": _text(asked, "reference"),
        "payer": {name: str(asked.get("payer", {}).get(name, ""))[:200] for name in ("name", "email")},
        "cards": kinds,
    }
    with store.database() as connection:
        shop = _shop(connection)
        return _once(connection, shop, wanted, lambda: _told(store.insert_payment(connection, shop["id"], wanted)))


@api.get("/payments/<payment>")
def payment(payment: str) -> dict[str, Any]:
    """Say how a payment stands."""
    with store.database() as connection:
        return _told(_own(connection, _shop(connection), payment))


@api.get("/payments")
def changed_payments() -> dict[str, Any]:
    """List payments that changed since a moment (seconds since 1970), the latest first."""
    since = float(request.args.get("since", "0"))
    with store.database() as connection:
        found = store.payments(connection, _shop(connection)["id"], most=1_000, since=since)
    return {"payments": [store.public(each) for each in found]}


@api.post("/payments/<payment>/cancel")
def cancel(payment: str) -> dict[str, Any]:
    """Take a payment back that nobody has paid; one that was paid stays so."""
    with store.database() as connection:
        found = _own(connection, _shop(connection), payment)
        if found["state"] in ("open", "asking"):
            found = store.change_payment(connection, payment, state="cancelled")
        return _told(found)


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
            store.add_event(connection, changed, "money back")
            return _told(changed)

        return _once(connection, shop, {"refund": payment, "amount": amount}, give_back)


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


def _text(asked: Any, name: str) -> str:
    value = asked.get(name) if isinstance(asked, dict) else None
    if not isinstance(value, str) or not value or len(value) > 500:
        abort(422, f"{name} is to be a text.")
    return value
