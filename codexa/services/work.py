"""Work for a sender's computer, where very many responses come from one network: little for one, much for thousands.

The computer looks for a number with which a SHA-256 (FIPS 180-4) begins with so many bits of zero; people see nothing
of it. What is asked for is bound to one response and holds for some minutes.
"""

import hashlib
import hmac
import math
import time
from uuid import UUID

from codexa.services.marks import mark_of
from codexa.settings import Settings

_HOLDS_SECONDS = 600
_FEWEST_BITS, _MOST_BITS = 15, 20  # a tenth of a second for a browser, and some seconds
_MOST_NUMBER = 20  # characters


def asked_for(form: UUID, key: str, *, count: int, usual: int, settings: Settings) -> str:
    """Return what is asked for of the sender of a response under a key: a bit more with each doubling of the count."""
    bits = min(_FEWEST_BITS + int(math.log2(count / max(usual, 1))), _MOST_BITS)
    moment = str(int(time.time()))
    return f"{moment}.{bits}.{_mark(form, key, moment, bits, settings)}"


def is_done(form: UUID, key: str, work: str, settings: Settings) -> bool:
    """Say whether the work for a response was done: what was asked for, a colon, and the number that was found."""
    asked, _, number = work.partition(":")
    parts = asked.split(".")
    if len(parts) != 3 or not (parts[0].isdigit() and parts[1].isdigit()) or len(number) > _MOST_NUMBER:
        return False
    moment, bits, mark = parts
    if not hmac.compare_digest(mark.encode(), _mark(form, key, moment, int(bits), settings).encode()):
        return False
    digest = hashlib.sha256(f"{key}.{mark}.{number}".encode()).digest()
    in_time = 0 <= time.time() - int(moment) <= _HOLDS_SECONDS
    return in_time and int.from_bytes(digest) >> (256 - int(bits)) == 0


def _mark(form: UUID, key: str, moment: str, bits: int, settings: Settings) -> str:
    return mark_of(f"work {form} {key} {moment} {bits}", settings)[:24]
