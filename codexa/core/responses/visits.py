"""How long visits take, in classes: of many times only how often each class was there is kept, and a median of that."""

import math
from collections.abc import Mapping

# Each class ends so many times later than the one before: a median by them is off by less than six hundredths.
_GROWTH = 1.12
LONGEST = 24 * 3_600  # seconds; a visit that takes longer takes that


def bucket_of(seconds: int) -> int:
    """Return the class of a time in seconds; 0 is less than one."""
    held = min(max(seconds, 0), LONGEST)
    return 0 if held < 1 else 1 + math.floor(math.log(held, _GROWTH) + 1e-9)


def seconds_of(bucket: int) -> int:
    """Return the seconds in the middle of a class."""
    return 0 if bucket <= 0 else round(_GROWTH ** (bucket - 0.5))


def median_seconds(counts: Mapping[int, int]) -> int | None:
    """Return the median of times of which so many are in each class, in seconds; None of none."""
    half = (sum(counts.values()) + 1) // 2
    for bucket in sorted(counts):
        half -= counts[bucket]
        if half <= 0 and counts[bucket]:
            return seconds_of(bucket)
    return None
