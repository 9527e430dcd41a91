"""Texts made alike for searching: without case, accents and doubled spaces."""

import unicodedata


def folded(text: str) -> str:
    """Return a text as it is searched for: small letters without accents (Unicode NFKD), single spaces."""
    if text.isascii():
        return " ".join(text.lower().split())
    apart = unicodedata.normalize("NFKD", text)
    bare = "".join(sign for sign in apart if not unicodedata.combining(sign))
    return " ".join(unicodedata.normalize("NFKC", bare.casefold()).split())
