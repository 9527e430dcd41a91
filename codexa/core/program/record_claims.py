"""Places of records: how many of them a response takes, of so many as a column says that there are."""

from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from typing import TYPE_CHECKING, Any

from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.formula.values import ChosenRecord, ChosenRecords
from codexa.core.program.claim_names import record_name
from codexa.core.program.claims import Claim, taking_of
from codexa.core.program.places import Place
from codexa.core.program.places_of import places_of
from codexa.core.program.record_facts import Offered

if TYPE_CHECKING:
    from codexa.core.program.evaluate import State

_MOST_TAKEN = 1_000_000  # of one record by one response


def record_claims(state: "State") -> Iterator[Claim]:
    """Yield what a response takes of records that have places, each record once for each question that asks for it."""
    if not state.program.takes_places:
        return
    taken: dict[tuple[str, int], int] = defaultdict(int)
    left: dict[tuple[str, int], int | None] = {}
    for place, row in places_of(state):
        if not _has_places(place):
            continue
        for record in _chosen(state.value(place, row)):
            which = place.block.id, record.number
            taken[which] += taking_of(state, place, row, most=_MOST_TAKEN)
            left[which] = _left(state, place, row).get(record.number)
    for (block_id, number), quantity in sorted(taken.items()):
        block = state.program.places[block_id].block
        assert isinstance(block, RecordChoiceField)
        if quantity > 0:
            name = record_name(block.table, number, block.places)
            yield Claim(name=name, quantity=quantity, capacity=None, block=block_id, left=left[block_id, number])


def _has_places(place: Place) -> bool:
    return isinstance(place.block, RecordChoiceField) and bool(place.block.places)


def _chosen(value: Any) -> Sequence[ChosenRecord]:
    if isinstance(value, ChosenRecords):
        return value
    return (value,) if isinstance(value, ChosenRecord) else ()


def _left(state: "State", place: Place, row: Sequence[Any]) -> Mapping[int, int]:
    found = None if place.found is None else state.at(place.found, row)
    return found.left if isinstance(found, Offered) else {}
