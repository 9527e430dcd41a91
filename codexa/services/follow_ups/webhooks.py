"""Sending a response to another system: JSON, signed, to addresses of the open network alone."""

import hashlib
import hmac
import http.client
import ipaddress
import socket
import time
from collections.abc import Mapping
from typing import Any
from urllib.parse import urlsplit
from uuid import UUID

import orjson

from codexa.services.follow_ups.outcomes import Done, Exchange, NeverError, TryLaterError
from codexa.settings import Settings

_SECONDS = 10  # for connecting, and for each part of the answer
_MOST_SECONDS = 20  # for all of it
_MOST_BYTES = 64 * 1024  # of the answer
_SHOWN = 200


def secret_of(form: UUID, settings: Settings) -> str:
    """Return what signs the webhooks of a form: given to whoever receives them, the same for as long as the key is."""
    return hmac.new(settings.secret_key.encode(), f"webhook {form}".encode(), hashlib.sha256).hexdigest()


def signature(secret: str, moment: str, body: bytes) -> str:
    """Return the HMAC-SHA256 (RFC 2104) of the time, a point and the body, in hexadecimal."""
    return hmac.new(secret.encode(), moment.encode() + b"." + body, hashlib.sha256).hexdigest()


def send(content: Mapping[str, Any], *, key: str, secret: str, settings: Settings) -> Done:
    """Post the response and return what was answered.

    Raises TryLaterError where nobody answers in time or asks to wait, NeverError where it is refused or may not be
    sent.
    """
    try:
        parts = urlsplit(content["address"])
        port = parts.port or (443 if parts.scheme == "https" else 80)
    except ValueError as error:
        raise NeverError(f"{content['address']} is no address: {error}") from None
    place = _open_place(parts.hostname or "", port, settings)
    body = orjson.dumps(content["body"])
    moment = str(int(time.time()))
    headers = {
        "Content-Type": "application/json",
        "Idempotency-Key": key,
        "Codexa-Time": moment,
        "Codexa-Signature": signature(secret, moment, body),
        "User-Agent": "Codexa",
    }
    kind = http.client.HTTPSConnection if parts.scheme == "https" else http.client.HTTPConnection
    connection = kind(parts.hostname or "", port, timeout=_SECONDS)
    # To the address that was looked at, whatever the name says by now.
    connection._create_connection = lambda _address, timeout=_SECONDS, source=None: socket.create_connection(  # type: ignore[attr-defined]  # noqa: SLF001
        place, timeout, source
    )
    target = (parts.path or "/") + (f"?{parts.query}" if parts.query else "")
    asked = {"address": content["address"], "headers": headers}
    try:
        connection.request("POST", target, body, headers)
        answer = connection.getresponse()
        said = _beginning(answer)
    except (OSError, http.client.HTTPException, ValueError) as error:
        message = f"{parts.hostname} did not answer: {error}"
        raise TryLaterError(message, Exchange(request=asked, reply=None)) from None
    finally:
        connection.close()
    reply = {"status": answer.status, "headers": dict(answer.getheaders()), "body": said.replace("\x00", "")}
    return _outcome(parts.hostname or "", Exchange(request=asked, reply=reply))


def _outcome(host: str, exchange: Exchange) -> Done:
    assert exchange.reply is not None
    status: int = exchange.reply["status"]
    words = f"{status} {' '.join(exchange.reply['body'].split())[:_SHOWN]}".strip()
    if 200 <= status < 300:
        return Done(result=f"answered {words}", delivery=exchange)
    # 408, 425 and 429 ask for another try, as what is wrong at the other side does.
    later = status >= 500 or status in (408, 425, 429)
    raise (TryLaterError if later else NeverError)(f"{host} answered {words}", exchange)


def _open_place(host: str, port: int, settings: Settings) -> tuple[str, int]:
    """Return where a host is. Raises NeverError where that is no place of the open network."""
    try:
        found = socket.getaddrinfo(host, port, type=socket.SOCK_STREAM)
    except OSError as error:
        raise TryLaterError(f"There is no {host}: {error}") from None
    addresses = [str(each[4][0]) for each in found]
    private = [each for each in addresses if not _is_open(each)]
    if private and not (settings.mode == "demo" and all(ipaddress.ip_address(each).is_loopback for each in private)):
        raise NeverError(f"{host} is at {private[0]}, which is not on the open network; nothing is sent there.")
    return addresses[0], port


def _is_open(address: str) -> bool:
    place = ipaddress.ip_address(address.partition("%")[0])
    mapped = getattr(place, "ipv4_mapped", None)
    return (mapped or place).is_global and not (mapped or place).is_multicast


def _beginning(answer: http.client.HTTPResponse) -> str:
    """Return the beginning of an answer as text, within the time and size that one may have."""
    ends, said = time.monotonic() + _MOST_SECONDS, b""
    while len(said) < _MOST_BYTES and (piece := answer.read1(4096)):
        said += piece
        if time.monotonic() > ends:
            raise TimeoutError("the answer took too long")
    return said[:_MOST_BYTES].decode("utf-8", "replace")
