"""The practice bank as a provider: JSON over HTTP."""

import hashlib
import hmac
import json
import time
import urllib.error
import urllib.parse
import urllib.request
from collections.abc import Mapping
from dataclasses import asdict
from datetime import date, datetime
from typing import Any, Literal
from uuid import UUID

from codexa.services.payments.provider import (
    NotFromProviderError,
    ProviderAccount,
    ProviderAwayError,
    ProviderCharge,
    ProviderPlan,
    ProviderRefusesError,
    ProviderState,
    Wanted,
)

_SECONDS = 6
_MOST_BYTES = 4 * 1024 * 1024
_MOST_AGE = 300  # seconds; what is older was heard before, or is somebody's copy
_STATES = ("open", "asking", "paid", "cancelled", "failed")
_PLAN_STATES: dict[str, Literal["waiting", "running", "stopped", "ended"]] = {
    "waiting": "waiting",
    "running": "running",
    "stopped": "stopped",
    "ended": "ended",
}


class PracticeBank:
    """The practice bank at an address, with one shop's secret key."""

    def __init__(self, address: str, secret: str) -> None:
        self._address = address.rstrip("/")
        self._secret = secret

    def account(self) -> ProviderAccount:
        """Return whose key this is."""
        found = self._call("GET", "/v1/account")
        cards = tuple(str(each) for each in found.get("cards", ()))
        return ProviderAccount(name=_text(found, "name"), public_key=_text(found, "public_key"), cards=cards)

    def register_hook(self, address: str) -> str:
        """Have events told to an address, and return what signs them."""
        return _text(self._call("PUT", "/v1/account/hook", {"address": address}), "secret")

    def ask(self, wanted: Wanted) -> ProviderState:
        """Ask for a payment."""
        asked = {
            "amount": wanted.amount,
            "currency": wanted.currency,
            "reference": wanted.reference,
            "payer": dict(wanted.payer),
            "cards": list(wanted.cards),
            "back_to": wanted.back_to,
            "plan": None if wanted.plan is None else asdict(wanted.plan),
        }
        return _state(self._call("POST", "/v1/payments", asked, key=str(wanted.id)))

    def find(self, provider_id: str) -> ProviderState:
        """Return how a payment stands."""
        return _state(self._call("GET", f"/v1/payments/{urllib.parse.quote(provider_id, safe='')}"))

    def cancel(self, provider_id: str) -> ProviderState:
        """Take a payment back that was not paid."""
        return _state(self._call("POST", f"/v1/payments/{urllib.parse.quote(provider_id, safe='')}/cancel", {}))

    def refund(self, provider_id: str, amount: int, *, key: UUID) -> ProviderState:
        """Give so much back."""
        path = f"/v1/payments/{urllib.parse.quote(provider_id, safe='')}/refunds"
        return _state(self._call("POST", path, {"amount": amount}, key=str(key)))

    def stop_plan(self, provider_id: str) -> ProviderState:
        """Charge nothing more of a plan."""
        return _state(self._call("POST", f"/v1/payments/{urllib.parse.quote(provider_id, safe='')}/plan/stop", {}))

    def charge_again(self, provider_id: str, turn: int, *, key: UUID) -> ProviderState:
        """Try a charge again that has failed."""
        path = f"/v1/payments/{urllib.parse.quote(provider_id, safe='')}/plan/charges/{turn}/again"
        return _state(self._call("POST", path, {}, key=str(key)))

    def changed_since(self, moment: datetime) -> list[ProviderState]:
        """Return the payments that changed since a moment."""
        found = self._call("GET", f"/v1/payments?since={moment.timestamp()}")
        if not isinstance(found.get("payments"), list):
            raise ProviderAwayError("The bank's answer can't be read.")
        return [_state(each) for each in found["payments"]]

    def told_of(self, headers: Mapping[str, str], body: bytes, hook_secret: str) -> str:
        """Return which payment an event is about."""
        moment, given = headers.get("Bank-Time", ""), headers.get("Bank-Signature", "")
        signed = hmac.new(hook_secret.encode(), moment.encode() + b"." + body, hashlib.sha256).hexdigest()
        if not hmac.compare_digest(signed.encode(), given.encode()):
            raise NotFromProviderError("This is not signed by the bank.")
        if not moment.isdigit() or abs(time.time() - int(moment)) > _MOST_AGE:
            raise NotFromProviderError("This was signed too long ago.")
        try:
            payment = json.loads(body)["payment"]
            return _text(payment, "first" if payment.get("first") else "id")
        except (ValueError, KeyError, TypeError, AttributeError, ProviderAwayError):
            raise NotFromProviderError("This can't be read.") from None

    def _call(self, method: str, path: str, body: Any = None, *, key: str = "") -> dict[str, Any]:
        headers = {"Authorization": f"Bearer {self._secret}", "Content-Type": "application/json"}
        if key:
            headers["Idempotency-Key"] = key
        data = None if body is None else json.dumps(body, default=str).encode()
        request = urllib.request.Request(self._address + path, data, headers, method=method)  # noqa: S310 - a setting
        try:
            with urllib.request.urlopen(request, timeout=_SECONDS) as reply:  # noqa: S310
                said = json.loads(reply.read(_MOST_BYTES))
        except urllib.error.HTTPError as error:
            with error:
                reason = _reason(error)
            if error.code >= 500 or error.code in (408, 425, 429):
                raise ProviderAwayError(f"The bank answers {error.code}.") from None
            raise ProviderRefusesError(reason) from None
        except (OSError, ValueError) as error:
            raise ProviderAwayError(f"The bank does not answer: {error}") from None
        if not isinstance(said, dict):
            raise ProviderAwayError("The bank's answer can't be read.")
        return said


def _reason(error: urllib.error.HTTPError) -> str:
    try:
        return str(json.loads(error.read(10_000))["message"])[:300]
    except (ValueError, KeyError, TypeError, OSError):
        return f"The bank answers {error.code}."


def _state(found: Any) -> ProviderState:
    if not isinstance(found, dict) or found.get("state") not in _STATES:
        raise ProviderAwayError("The bank's answer can't be read.")
    numbers = {name: found.get(name) for name in ("amount", "refunded")}
    if not all(isinstance(each, int) and not isinstance(each, bool) for each in numbers.values()):
        raise ProviderAwayError("The bank's answer can't be read.")
    texts = {name: str(found.get(name, ""))[:500] for name in ("currency", "reason", "card", "page", "first")}
    plan = None if found.get("plan") is None else _plan(found["plan"])
    return ProviderState(id=_text(found, "id"), state=found["state"], plan=plan, **numbers, **texts)  # type: ignore[arg-type]


def _plan(found: Any) -> ProviderPlan:
    try:
        charges = tuple(
            ProviderCharge(turn=int(each["turn"]), day=date.fromisoformat(each["on"]), payment=_state(each))
            for each in found["charges"]
        )
        next_on = None if found["next_on"] is None else date.fromisoformat(found["next_on"])
        state = _PLAN_STATES[found["state"]]
    except (ValueError, KeyError, TypeError):
        raise ProviderAwayError("The bank's answer can't be read.") from None
    return ProviderPlan(state=state, next_on=next_on, charges=charges)


def _text(found: Any, name: str) -> str:
    value = found.get(name) if isinstance(found, dict) else None
    if not isinstance(value, str) or not value:
        raise ProviderAwayError("The bank's answer can't be read.")
    return value
