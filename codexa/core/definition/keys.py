"""Keys: the names by which formulas know blocks, figures and row kinds."""

import re
import unicodedata
from collections.abc import Collection
from itertools import count

KEY = re.compile(r"[a-z][a-z0-9_]{0,59}")
# What stands before a dot in names of the surroundings (`visitor.email`), and what reads as a value.
RESERVED_KEYS = frozenset({"true", "false", "visitor", "link", "response", "option"})
_MOST_SIGNS = 40  # of a key that is made of a label, before its number


def key_from(label: str, taken: Collection[str]) -> str:
    """Return a key made of a label that none of `taken` is: small letters without accents, digits and _.

    The workbench makes the same keys while somebody types (`keyFrom`); tests/cases/keys.json holds for both.
    """
    letters = unicodedata.normalize("NFKD", label.replace("ß", "ss"))
    plain = "".join(each for each in letters if not unicodedata.combining(each)).lower()
    words = re.sub(r"[^a-z0-9]+", "_", plain).strip("_").lstrip("0123456789_")[:_MOST_SIGNS].rstrip("_") or "field"
    numbered = (words if number == 1 else f"{words}_{number}" for number in count(1))
    return next(key for key in numbered if key not in taken and key not in RESERVED_KEYS)
