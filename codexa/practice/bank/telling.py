"""Telling shops: each event is posted, signed, to the address that the shop gave, again until it says that it heard."""

import hashlib
import hmac
import threading
import time
import urllib.error
import urllib.request

from codexa.practice.bank import plans, store

PAUSES = (1, 2, 5, 15, 60, 300, 900, 3_600)  # seconds before each further try
_SECONDS = 10


def signature(secret: str, moment: str, body: bytes) -> str:
    """Return the HMAC-SHA256 (RFC 2104) of the time, a point and the body, in hexadecimal."""
    return hmac.new(secret.encode(), moment.encode() + b"." + body, hashlib.sha256).hexdigest()


def tell_due() -> None:
    """Tell what is due, one after the other."""
    with store.database() as connection:
        rows = connection.execute(
            "SELECT event.at, event.body, event.tries, shop.hook, shop.hook_secret"
            " FROM event JOIN shop ON shop.id = event.shop"
            " WHERE event.told_at IS NULL AND event.due_at <= ? AND shop.hook <> '' ORDER BY event.at LIMIT 50",
            (time.time(),),
        ).fetchall()
    for row in rows:
        result = _post(row["hook"], row["hook_secret"], row["body"].encode())
        tries = row["tries"] + 1
        heard = result.startswith("2")
        pause = PAUSES[tries - 1] if tries <= len(PAUSES) else None
        due = time.time() + (pause if pause is not None else 10**9)
        with store.database() as connection:
            connection.execute(
                "UPDATE event SET tries = ?, result = ?, told_at = ?, due_at = ? WHERE at = ?",
                (tries, result, time.time() if heard else None, due, row["at"]),
            )


def _post(hook: str, secret: str, body: bytes) -> str:
    moment = str(int(time.time()))
    headers = {
        "Content-Type": "application/json",
        "Bank-Time": moment,
        "Bank-Signature": signature(secret, moment, body),
    }
    request = urllib.request.Request(hook, body, headers)  # noqa: S310 - what a shop on this machine gave
    try:
        with urllib.request.urlopen(request, timeout=_SECONDS) as reply:  # noqa: S310
            return str(reply.status)
    except urllib.error.HTTPError as error:
        return str(error.code)
    except OSError as error:
        return f"no answer: {error}"


def start() -> None:
    """Charge what falls due and tell shops from now on, beside answering them."""

    def go_on() -> None:
        while True:
            with store.database() as connection:
                plans.charge_due(connection)
            tell_due()
            time.sleep(0.3)

    threading.Thread(target=go_on, daemon=True).start()
