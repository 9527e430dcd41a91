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
from codexa.store.sealed_links import LinkRow, SealedLink

_MARK_BYTES, _SIGNATURE_BYTES = 9, 12
_SEAL = re.compile(r"([A-Za-z0-9_-]{12})([A-Za-z0-9_-]{16})")


@dataclass(frozen=True, kw_only=True, slots=True)
class Sealed:
    """A link that is whole: its id, the batch that it was made with, and what it gives by name.

    `uses` is how often it may be used, None for any number of times; `refused` is "", or the name of the message that
    says why it opens nothing any more.
    """

    id: int
    batch: int
    given: Mapping[str, str]
    uses: int | None
    refused: str = ""


def new_mark() -> str:
    """Return what a new link is found by."""
    return base64.urlsafe_b64encode(secrets.token_bytes(_MARK_BYTES)).decode()


def seal_of(link: SealedLink, settings: Settings, *, form: UUID) -> str:
    """Return what a link's address has as its seal: the mark, and an HMAC-SHA256 (RFC 2104) of all that the link is."""
    moment = "" if link.until is None else link.until.astimezone(UTC).isoformat()
    text = orjson.dumps([str(form), link.mark, sorted(link.given.items()), moment, link.uses])
    key = _readable(link.secret, settings).encode()
    signature = hmac.new(key, text, hashlib.sha256).digest()[:_SIGNATURE_BYTES]
    return link.mark + base64.urlsafe_b64encode(signature).decode()


def read_seal(connection: Connection, settings: Settings, *, form: UUID, seal: str) -> Sealed:
    """Return what a sealed link gives. Raises SealError where it is not whole."""
    parts = _SEAL.fullmatch(seal)
    link = store.find_link(connection, form=form, mark=parts[1]) if parts else None
    if link is None or not hmac.compare_digest(seal.encode(), seal_of(link, settings, form=form).encode()):
        raise SealError("linkBroken")
    return Sealed(id=link.id, batch=link.batch, given=link.given, uses=link.uses, refused=_refused(link))


def _refused(link: LinkRow) -> str:
    if link.ended or (link.until is not None and link.until <= datetime.now(UTC)):
        return "linkOver"
    return "linkUsed" if link.uses is not None and link.used >= link.uses else ""


def signing_key(connection: Connection, settings: Settings, *, form: UUID) -> int:
    """Return the number of the key that signs new links; the first is made when it is wanted."""
    return store.newest_key(connection, form=form) or new_key(connection, settings, form=form)


def new_key(connection: Connection, settings: Settings, *, form: UUID) -> int:
    """Make a key of a form, and return its number."""
    return store.insert_key(connection, form=form, secret=encrypted(secrets.token_urlsafe(32), settings))


@lru_cache(maxsize=2_000)
def _readable(secret: bytes, settings: Settings) -> str:
    """Return a key's secret. Raises SealError where it was encrypted with keys that the settings lack."""
    found = decrypted(secret, settings)
    if found is None:
        raise SealError("linkBroken")
    return found
