"""What people see of the bank: the page where a card is typed, in a frame or by itself, and the bank's own overview."""

import json
import secrets
import sqlite3
import time

from flask import Blueprint, abort, make_response, redirect, render_template, request, url_for
from flask import Response as FlaskResponse
from werkzeug.wrappers import Response

from codexa.practice.bank import cards, plans, store, telling

pages = Blueprint("pages", __name__)
_SLOW_SECONDS = 4
_MOST_DAYS = 3_660


def money(amount: int, currency: str) -> str:
    """Return minor units as people write them (ISO 4217: yen has none, the Kuwaiti dinar three)."""
    decimals = {"JPY": 0, "KRW": 0, "ISK": 0, "KWD": 3, "BHD": 3, "TND": 3}.get(currency, 2)
    return f"{amount / 10**decimals:,.{decimals}f} {currency}"


def _page(payment: store.Row, wrong: str = "", typed: dict[str, str] | None = None) -> FlaskResponse:
    nonce = secrets.token_urlsafe(12)
    shown = render_template("pay.html", payment=payment, wrong=wrong, typed=typed or {}, cards=cards, nonce=nonce)
    response = make_response(shown)
    # Where shops put the frame is theirs to say; nothing but this page's own script runs in it.
    response.headers["Content-Security-Policy"] = (
        f"default-src 'none'; style-src 'nonce-{nonce}'; script-src 'nonce-{nonce}'; form-action 'self'; "
        "frame-ancestors *; base-uri 'none'"
    )
    response.headers["Cache-Control"] = "no-store"
    response.headers["Referrer-Policy"] = "no-referrer"
    return response


def _found(connection: sqlite3.Connection, payment: str) -> store.Row:
    found = store.find_payment(connection, payment)
    if found is None:
        abort(404)
    return found


@pages.get("/pay/<payment>")
def card(payment: str) -> FlaskResponse:
    """The boxes for a card."""
    with store.database() as connection:
        return _page(_found(connection, payment))


@pages.post("/pay/<payment>")
def pay(payment: str) -> FlaskResponse:
    """Try the card that was typed."""
    typed = {name: request.form.get(name, "")[:40] for name in ("number", "expires", "code")}
    with store.database() as connection:
        found = _found(connection, payment)
        if found["state"] != "open":
            return _page(found)
        today = store.today(connection)
        try:
            given = cards.read_card(**typed, kinds=found["cards"], today=today)
        except cards.CardError as error:
            return _page(found, str(error), typed)
        if given.outcome != "slow":
            return _page(_decide(connection, found, given))
    time.sleep(_SLOW_SECONDS)
    with store.database() as connection:
        return _page(_decide(connection, _found(connection, payment), given))


def _decide(connection: sqlite3.Connection, payment: store.Row, card: cards.Card) -> store.Row:
    if payment["state"] != "open":
        return payment
    shown = f"{card.kind} {card.last}"
    if card.outcome in ("declined", "not enough"):
        reason = cards.REASONS[card.outcome]
        failed = store.change_payment(connection, payment["id"], reason=reason, card=shown)
        store.add_event(connection, failed, "refused")
        return failed
    if card.outcome == "asks the holder":
        return store.change_payment(connection, payment["id"], state="asking", reason="", card=shown)
    paid = store.change_payment(connection, payment["id"], state="paid", reason="", card=shown)
    plans.begin(connection, paid, card.outcome)
    if card.outcome != "not told":
        store.add_event(connection, paid, "paid", times=2 if card.outcome == "told twice" else 1)
    if card.outcome == "told first":
        connection.execute("COMMIT")
        telling.tell_due()
        connection.execute("BEGIN IMMEDIATE")
    return paid


@pages.post("/pay/<payment>/holder")
def holder(payment: str) -> FlaskResponse:
    """Take what the holder says to their own bank."""
    agreed = request.form.get("answer") == "confirm"
    with store.database() as connection:
        found = _found(connection, payment)
        if found["state"] == "asking":
            reason = "" if agreed else cards.REASONS["refused"]
            state = "paid" if agreed else "open"
            found = store.change_payment(connection, payment, state=state, reason=reason)
            if agreed:
                plans.begin(connection, found, "approved")
            store.add_event(connection, found, "paid" if agreed else "refused")
        return _page(found)


@pages.get("/")
def overview() -> str:
    """The bank's own overview."""
    with store.database() as connection:
        return render_template(
            "overview.html",
            payments=store.payments(connection),
            events=[dict(row) for row in connection.execute("SELECT * FROM event ORDER BY at DESC LIMIT 60")],
            shops=[dict(row) for row in connection.execute("SELECT * FROM shop")],
            mode=store.mode(connection),
            modes=store.MODES,
            plans=plans.all_plans(connection),
            today=store.today(connection),
            kind_of=lambda body: json.loads(body)["kind"],
        )


@pages.post("/mode")
def choose() -> Response:
    """Answer shops otherwise from now on."""
    chosen = request.form.get("mode", "")
    if chosen in store.MODES:
        with store.database() as connection:
            store.set_mode(connection, chosen)
    return redirect(url_for("pages.overview"))


@pages.post("/clock")
def move_on() -> Response:
    """Have days pass at the bank: what plans charge on them is charged, in order."""
    days = request.form.get("days", "")
    if days.isascii() and days.isdigit() and 0 < int(days) <= _MOST_DAYS:
        with store.database() as connection:
            store.move_on(connection, int(days))
            plans.charge_due(connection)
    return redirect(url_for("pages.overview"))
