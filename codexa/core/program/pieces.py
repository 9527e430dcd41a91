"""How many of something are meant, where a formula says so."""

from decimal import ROUND_CEILING, Decimal
from typing import Any


def whole_pieces(value: Any, most: int) -> int:
    """Return how many a formula's result means: a part of one as a whole, one where it is no number, `most` at most."""
    if not isinstance(value, Decimal):
        return 1
    return max(0, min(most, int(value.to_integral_value(rounding=ROUND_CEILING))))
