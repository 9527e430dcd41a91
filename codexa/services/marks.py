"""Marks: what only this server can have made of a text, and nobody can guess."""

import hmac

from codexa.settings import Settings


def mark_of(text: str, settings: Settings) -> str:
    """Return the HMAC-SHA256 (RFC 2104) of a text with the server's secret key, in hexadecimal.

    Each use begins its text with a word of its own, so that a mark of one is none of another.
    """
    return hmac.digest(settings.secret_key.encode(), text.encode(), "sha256").hex()
