"""Calls to addresses that a person typed: to the open network alone, and never for long."""

import http.client
import ipaddress
import socket
import time
from dataclasses import dataclass
from urllib.parse import SplitResult, urlsplit

from codexa.settings import Settings

_SECONDS = 10  # for connecting, and for each part of the answer
_MOST_SECONDS = 20  # for all of it


class NoPlaceError(Exception):
    """There is no such host just now."""


class ClosedPlaceError(Exception):
    """The host is not on the open network, or the address is none: nothing is sent there."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Outgoing:
    """A connection that is not yet open, and what to ask of it."""

    connection: http.client.HTTPConnection
    target: str
    parts: SplitResult


def outgoing(address: str, settings: Settings) -> Outgoing:
    """Return a connection to where an address leads. Raises NoPlaceError, ClosedPlaceError."""
    try:
        parts = urlsplit(address)
        port = parts.port or (443 if parts.scheme == "https" else 80)
    except ValueError as error:
        raise ClosedPlaceError(f"{address} is no address: {error}") from None
    if parts.scheme not in ("http", "https") or not parts.hostname:
        raise ClosedPlaceError(f"{address} is no web address.")
    place = _open_place(parts.hostname, port, settings)
    kind = http.client.HTTPSConnection if parts.scheme == "https" else http.client.HTTPConnection
    connection = kind(parts.hostname, port, timeout=_SECONDS)
    # To the address that was looked at, whatever the name says by now.
    connection._create_connection = lambda _address, timeout=_SECONDS, source=None: socket.create_connection(  # type: ignore[attr-defined]  # noqa: SLF001
        place, timeout, source
    )
    target = (parts.path or "/") + (f"?{parts.query}" if parts.query else "")
    return Outgoing(connection=connection, target=target, parts=parts)


def beginning(answer: http.client.HTTPResponse, most: int) -> bytes:
    """Return the beginning of an answer, of at most so many bytes. Raises TimeoutError where it takes too long."""
    ends, said = time.monotonic() + _MOST_SECONDS, b""
    while len(said) < most and (piece := answer.read1(4096)):
        said += piece
        if time.monotonic() > ends:
            raise TimeoutError("the answer took too long")
    return said[:most]


def _open_place(host: str, port: int, settings: Settings) -> tuple[str, int]:
    try:
        found = socket.getaddrinfo(host, port, type=socket.SOCK_STREAM)
    except OSError as error:
        raise NoPlaceError(f"There is no {host}: {error}") from None
    addresses = [str(each[4][0]) for each in found]
    private = [each for each in addresses if not is_open(each)]
    if private and not (settings.mode == "demo" and all(ipaddress.ip_address(each).is_loopback for each in private)):
        raise ClosedPlaceError(f"{host} is at {private[0]}, which is not on the open network; nothing is sent there.")
    return addresses[0], port


def is_open(address: str) -> bool:
    """Say whether an address (IPv4 or IPv6) is on the open network."""
    place = ipaddress.ip_address(address.partition("%")[0])
    mapped = getattr(place, "ipv4_mapped", None)
    return (mapped or place).is_global and not (mapped or place).is_multicast
