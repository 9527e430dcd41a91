"""Seals: what signs a link with values, so that a changed letter opens nothing.

What a link gives stands in the database; its address has a mark, by which it is found, and a signature of all of it.
"""

import base64
import hashlib
import hmac
import re
import secrets
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from functools import lru_cache
from uuid import UUID

import orjson

from codexa.services.encryption import decrypted, encrypted
from codexa.services.errors import SealError
from codexa.settings import Settings
from codexa.store import sealed_links as store
from codexa.store.database import Connection
from codexa.store.sealed_links import LinkRow

_MARK_BYTES, _SIGNATURE_BYTES = 9, 12
_SEAL = re.compile(r"([A-Za-z0-9_-]{12})([A-Za-z0-9_-]{16})")


@dataclass(frozen=True, kw_only=True, slots=True)
class Sealed:
    """A link that holds: its id, what it gives by name, and how often it may be used (None: any number of times)."""

    id: int
    given: Mapping[str, str]
    uses: int | None


def new_mark() -> str:
    """Return what a new link is found by."""
    return base64.urlsafe_b64encode(secrets.token_bytes(_MARK_BYTES)).decode()


def seal_of(
    secret: str, *, form: UUID, mark: str, given: Mapping[str, str], until: datetime | None, uses: int | None
) -> str:
    """Return what an address has as its seal: the mark, and an HMAC-SHA256 (RFC 2104) of all that the link is."""
    moment = "" if until is None else until.astimezone(UTC).isoformat()
    text = orjson.dumps([str(form), mark, sorted(given.items()), moment, uses])
    signature = hmac.new(secret.encode(), text, hashlib.sha256).digest()[:_SIGNATURE_BYTES]
    return mark + base64.urlsafe_b64encode(signature).decode()


def open_seal(connection: Connection, settings: Settings, *, form: UUID, seal: str) -> Sealed:
    """Return what a sealed link gives. Raises SealError with the name of the message that says why it does not."""
    parts = _SEAL.fullmatch(seal)
    link = store.find_link(connection, form=form, mark=parts[1]) if parts else None
    if link is None or not hmac.compare_digest(seal.encode(), _seal_of_row(link, form, settings).encode()):
        raise SealError("linkBroken")
    if link.ended or (link.until is not None and link.until <= datetime.now(UTC)):
        raise SealError("linkOver")
    if link.uses is not None and link.used >= link.uses:
        raise SealError("linkUsed")
    return Sealed(id=link.id, given=link.given, uses=link.uses)


def _seal_of_row(link: LinkRow, form: UUID, settings: Settings) -> str:
    secret = readable(link.secret, settings)
    return seal_of(secret, form=form, mark=link.mark, given=link.given, until=link.until, uses=link.uses)


def signing_key(connection: Connection, settings: Settings, *, form: UUID) -> tuple[int, str]:
    """Return the number and the secret of the key that signs new links; the first is made when it is wanted."""
    key = store.newest_key(connection, form=form)
    return new_key(connection, settings, form=form) if key is None else (key.number, readable(key.secret, settings))


def new_key(connection: Connection, settings: Settings, *, form: UUID) -> tuple[int, str]:
    """Make a key of a form, and return its number and secret."""
    secret = secrets.token_urlsafe(32)
    return store.insert_key(connection, form=form, secret=encrypted(secret, settings)), secret


@lru_cache(maxsize=2_000)
def readable(secret: bytes, settings: Settings) -> str:
    """Return a key's secret. Raises SealError where it was encrypted with keys that the settings lack."""
    found = decrypted(secret, settings)
    if found is None:
        raise SealError("linkBroken")
    return found
