"""What a question offers beyond what came with the state: records that words find, slots from a day on."""

import datetime
from dataclasses import dataclass
from typing import Any

from codexa.core.fields.slot import SlotField
from codexa.core.program.evaluate import State
from codexa.core.program.places_of import place_at
from codexa.core.program.record_offers import found_by_words
from codexa.core.program.slot_offers import slots_state


@dataclass(frozen=True, kw_only=True, slots=True)
class Sought:
    """What is looked for at an address (a block's id, or "repeat/row/block"): by words, or from a day on."""

    address: str
    words: str = ""
    since: datetime.date | None = None


def offered_at(state: State, sought: Sought) -> dict[str, Any]:
    """Return what is offered there, as FoundOffers: nothing of it where it is not shown or can't be changed."""
    found = place_at(state, sought.address)
    if found is not None and isinstance(found[0].block, SlotField):
        return {"slots": slots_state(state, *found, since=sought.since)}
    return {"records": found_by_words(state, sought.address, sought.words)}
