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
    words = _words(label) or "field"
    # A number alone tells fields apart as well as words do, and a key begins with a letter.
    return _free(words if words[0].isalpha() else f"n{words}", taken)


def code_from(label: str, taken: Collection[str]) -> str:
    """Return an option's code made of its label that none of `taken` is; a label in no Latin letters is its own code.

    The workbench makes the same (`codeFrom`); tests/cases/keys.json holds for both.
    """
    own = " ".join(label.split())[:_MOST_SIGNS].strip()
    return _free(_words(label) or own or "option", taken)


def _words(label: str) -> str:
    letters = unicodedata.normalize("NFKD", label.replace("ß", "ss"))
    plain = "".join(each for each in letters if not unicodedata.combining(each)).lower()
    return re.sub(r"[^a-z0-9]+", "_", plain).strip("_")[:_MOST_SIGNS].rstrip("_")


def _free(wanted: str, taken: Collection[str]) -> str:
    numbered = (wanted if number == 1 else f"{wanted}_{number}" for number in count(1))
    return next(each for each in numbered if each not in taken and each not in RESERVED_KEYS)
