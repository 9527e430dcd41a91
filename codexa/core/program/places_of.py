"""The places of a state, in rows too: all of them, and the one at an address."""

from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, Any

from codexa.core.program.places import ROW_ADDRESS, Place, RepeatPlace

if TYPE_CHECKING:
    from codexa.core.program.evaluate import State


def places_of(state: "State") -> Iterator[tuple[Place, Sequence[Any]]]:
    """Yield every place in the order of the outline, with the row that it is in, () outside rows."""
    for place in state.program.top_places:
        if isinstance(place, RepeatPlace):
            for row in state.rows(place):
                yield from ((each, row) for each in state.kind_of(place, row).places)
        else:
            yield place, ()


def place_at(state: "State", address: str) -> tuple[Place, Sequence[Any]] | None:
    """Return what is at an address (a block's id, or "repeat/row/block"), with its row.

    None where nothing is, or where it is not shown or can't be changed.
    """
    repeat_id, _, rest = address.partition("/")
    if not rest:
        place = state.program.places.get(repeat_id)
        return None if place is None or place.kind is not None or not _may_be_changed(state, place, ()) else (place, ())
    repeat = state.program.repeats.get(repeat_id)
    row_id, _, block = rest.partition("/")
    for row in () if repeat is None else state.rows(repeat):
        if repeat is not None and row[ROW_ADDRESS] == f"{repeat_id}/{row_id}/":
            inner = next((each for each in state.kind_of(repeat, row).places if each.block.id == block), None)
            return None if inner is None or not _may_be_changed(state, inner, row) else (inner, row)
    return None


def _may_be_changed(state: "State", place: Place, row: Sequence[Any]) -> bool:
    return state.shown(place, row) and not state.locked(place, row) and not state.veiled(place)
