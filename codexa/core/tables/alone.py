"""What only one record may have: which of some changes can be kept, and which would make two alike."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass


@dataclass(frozen=True, kw_only=True, slots=True)
class Wanted:
    """What a change wants alone, by column; `number` is its record's, None for a new one."""

    number: int | None
    values: Mapping[str, str]


def settled(wanted: Sequence[Wanted], held: Mapping[tuple[str, str], int]) -> dict[int, tuple[str, int | None]]:
    """Return which changes can't be kept, by their place: the column, and the record that has the value already.

    `held` is which record has a value of a column. All changes happen at once: two may change what they have with each
    other. Of two that want the same the first gets it; the record is None where that one is new.
    """
    refused: dict[int, tuple[str, int | None]] = {}
    while True:
        changing = {each.number for at, each in enumerate(wanted) if at not in refused and each.number is not None}
        holders: dict[tuple[str, str], int | None] = {
            name: number for name, number in held.items() if number not in changing
        }
        found: dict[int, tuple[str, int | None]] = {}
        for at, each in enumerate(wanted):
            if at in refused:
                continue
            taken = next((name for name in each.values.items() if name in holders), None)
            if taken is None:
                holders.update(dict.fromkeys(each.values.items(), each.number))
            else:
                found[at] = taken[0], holders[taken]
        if not found:
            return refused
        # Whoever keeps what it had may stand in the way of others: it is looked at once more.
        refused |= found
