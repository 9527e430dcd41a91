"""Sending a response to another system: JSON, signed, to addresses of the open network alone."""

import hashlib
import hmac
import http.client
import time
from collections.abc import Mapping
from typing import Any
from uuid import UUID

import orjson

from codexa.services.follow_ups.outcomes import Done, Exchange, NeverError, TryLaterError
from codexa.services.marks import mark_of
from codexa.services.outgoing import ClosedPlaceError, NoPlaceError, beginning, outgoing
from codexa.settings import Settings

_MOST_BYTES = 64 * 1024  # of the answer
_SHOWN = 200


def secret_of(form: UUID, settings: Settings) -> str:
    """Return what signs the webhooks of a form: given to whoever receives them, the same for as long as the key is."""
    return mark_of(f"webhook {form}", settings)


def signature(secret: str, moment: str, body: bytes) -> str:
    """Return the HMAC-SHA256 (RFC 2104) of the time, a point and the body, in hexadecimal."""
    return hmac.new(secret.encode(), moment.encode() + b"." + body, hashlib.sha256).hexdigest()


def send(content: Mapping[str, Any], *, key: str, secret: str, settings: Settings) -> Done:
    """Post the response and return what was answered.

    Raises TryLaterError where nobody answers in time or asks to wait, NeverError where it is refused or may not be
    sent.
    """
    try:
        call = outgoing(content["address"], settings)
    except ClosedPlaceError as error:
        raise NeverError(str(error)) from None
    except NoPlaceError as error:
        raise TryLaterError(str(error)) from None
    host = call.parts.hostname or ""
    body = orjson.dumps(content["body"])
    moment = str(int(time.time()))
    headers = {
        "Content-Type": "application/json",
        "Idempotency-Key": key,
        "Codexa-Time": moment,
        "Codexa-Signature": signature(secret, moment, body),
        "User-Agent": "Codexa",
    }
    asked = {"address": content["address"], "headers": headers}
    try:
        call.connection.request("POST", call.target, body, headers)
        answer = call.connection.getresponse()
        said = beginning(answer, _MOST_BYTES).decode("utf-8", "replace")
    except (OSError, http.client.HTTPException, ValueError) as error:
        message = f"{host} did not answer: {error}"
        raise TryLaterError(message, Exchange(request=asked, reply=None)) from None
    finally:
        call.connection.close()
    reply = {"status": answer.status, "headers": dict(answer.getheaders()), "body": said.replace("\x00", "")}
    return _outcome(host, Exchange(request=asked, reply=reply))


def _outcome(host: str, exchange: Exchange) -> Done:
    assert exchange.reply is not None
    status: int = exchange.reply["status"]
    words = f"{status} {' '.join(exchange.reply['body'].split())[:_SHOWN]}".strip()
    if 200 <= status < 300:
        return Done(result=f"answered {words}", delivery=exchange)
    # 408, 425 and 429 ask for another try, as what is wrong at the other side does.
    later = status >= 500 or status in (408, 425, 429)
    raise (TryLaterError if later else NeverError)(f"{host} answered {words}", exchange)
