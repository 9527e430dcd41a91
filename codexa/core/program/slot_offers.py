"""What visitors see of a slot block: days with the times that are free; and what a response takes of slots."""

import datetime
import hashlib
from collections import defaultdict
from collections.abc import Iterator, Sequence
from itertools import groupby
from typing import TYPE_CHECKING, Any

from babel.dates import format_skeleton

from codexa.core.fields.field_type import Medium
from codexa.core.fields.slot import SlotField, shown_times
from codexa.core.fields.slot_times import MAX_PLACES, Slot
from codexa.core.program.claim_names import person_of_slots
from codexa.core.program.claims import Claim, taking_of
from codexa.core.program.places import Place
from codexa.core.program.places_of import places_of
from codexa.core.program.slot_facts import SlotOffer

if TYPE_CHECKING:
    from codexa.core.program.evaluate import State

Facts = dict[str, Any]
_MOST_DAYS = 5  # shown at a time
_MOST_TIMES = 60  # with which no further day begins


def slots_state(state: "State", place: Place, row: Sequence[Any], since: datetime.date | None = None) -> Facts:
    """Return what the browser may know of the slots that are free from a day on, in the shape of SlotsState."""
    block, offer = place.block, _offer(state, place, row)
    assert isinstance(block, SlotField)
    facts: Facts = {"days": [], "zone": state.program.form.time_zone}
    if offer is not None and offer.chosen is not None:
        facts["chosen"] = {"id": _entered(state, place, offer), "label": _told(state, place, offer)}
    if offer is None or offer.at is None:
        return facts | {"none": _answer_first(state, block, row)}
    pieces = max(1, pieces_wanted(state, place, row))
    shown = offer.offering.shown(state.context, offer.at, since, pieces)
    for day, slots in groupby(shown, key=lambda each: each[0].start.date()):
        if len(facts["days"]) == _MOST_DAYS or sum(len(each["times"]) for each in facts["days"]) >= _MOST_TIMES:
            facts["later"] = day.isoformat()
            break
        times = [_time(state, block, slot, left if left >= pieces else 0) for slot, left in slots]
        facts["days"].append({"day": day.isoformat(), "label": _day_told(state, day), "times": times})
    if not facts["days"]:
        facts["none"] = state.program.form.say("noSlot")
    return facts


def _day_told(state: "State", day: datetime.date) -> str:
    moment = datetime.datetime.combine(day, datetime.time())
    return str(format_skeleton("yMMMMEEEEd", moment, locale=state.program.region.locale))


def _time(state: "State", block: SlotField, slot: Slot, left: int) -> Facts:
    face = {
        "id": slot.code,
        "label": shown_times(slot.start, slot.end, state.program.region.locale),
        "start": slot.start.astimezone(datetime.UTC).isoformat(timespec="minutes"),
    }
    if not left:
        return face | {"left": state.program.form.say("slotWait")}
    if block.left_shown and slot.places > 1:
        face["left"] = state.program.form.say("piecesLeft").replace("{count}", str(left))
    return face


def _offer(state: "State", place: Place, row: Sequence[Any]) -> SlotOffer | None:
    found = None if place.found is None else state.at(place.found, row)
    return found if isinstance(found, SlotOffer) else None


def _entered(state: "State", place: Place, offer: SlotOffer) -> str:
    assert place.field_type is not None
    return str(place.field_type.enter(offer.chosen, place.block, state.program.region))


def _told(state: "State", place: Place, offer: SlotOffer) -> str:
    assert place.field_type is not None
    return place.field_type.present(offer.chosen, place.block, state.program.region, Medium.PAGE)


def _answer_first(state: "State", block: SlotField, row: Sequence[Any]) -> str:
    asked = state.program.places.get(block.by)
    label = "" if asked is None else state.text(asked.block.id, "label", getattr(asked.block, "label", ""), row)
    return state.program.form.say("answerFirst").replace("{labels}", label)


def pieces_wanted(state: "State", place: Place, row: Sequence[Any]) -> int:
    """Return how many places of a slot a question takes."""
    return taking_of(state, place, row, most=MAX_PLACES)


def slots_chosen(state: "State") -> Iterator[tuple[Place, Sequence[Any], SlotOffer]]:
    """Yield each question with the slot that was chosen there."""
    for place, row in places_of(state) if state.program.has_slots else ():
        offer = _offer(state, place, row)
        if offer is not None and offer.name and state.value(place, row) is not None:
            yield place, row, offer


def slots_held(state: "State") -> dict[str, str]:
    """Return the slots of a response by the names of their claims, each as it is kept."""
    return {
        offer.name: place.field_type.dump(offer.chosen) for place, _, offer in slots_chosen(state) if place.field_type
    }


def slots_waited_for(state: "State") -> frozenset[str]:
    """Return the names of the slots for which a response waits."""
    return frozenset(
        offer.name for _, _, offer in slots_chosen(state) if offer.chosen is not None and offer.chosen.waiting
    )


def slot_claims(state: "State") -> Iterator[Claim]:
    """Yield what a response takes of slots, each once, and of what one person may have of them."""
    taken: dict[tuple[str, str], int] = defaultdict(int)
    offers: dict[str, SlotOffer] = {}
    for place, row, offer in slots_chosen(state):
        taken[place.block.id, offer.name] += pieces_wanted(state, place, row)
        offers[offer.name] = offer
    by_block: dict[str, int] = defaultdict(int)
    for (block_id, name), quantity in sorted(taken.items()):
        chosen = offers[name].chosen
        if quantity > 0 and chosen is not None:
            by_block[block_id] += quantity
            capacity = offers[name].places
            yield Claim(name=name, quantity=quantity, capacity=capacity, block=block_id, waiting=chosen.waiting)
    for block_id, quantity in by_block.items():
        yield from _of_person(state, block_id, quantity)


def _of_person(state: "State", block_id: str, quantity: int) -> Iterator[Claim]:
    """Yield what is taken of so many as one person may have."""
    block = state.program.places[block_id].block
    assert isinstance(block, SlotField)
    asked = state.program.places.get(block.each)
    if block.most_each is None or asked is None or asked.kind is not None or asked.field_type is None:
        return
    value = state.value(asked)
    if value is not None:
        told = asked.field_type.present(value, asked.block, state.program.region, Medium.CSV)
        digest = hashlib.sha256(" ".join(told.casefold().split()).encode()).hexdigest()
        name = person_of_slots(block_id, digest)
        yield Claim(name=name, quantity=quantity, capacity=block.most_each, block=block_id)
