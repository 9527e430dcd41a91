"""What visitors are told of the records that a question offers, and those that a search by typing finds."""

import hashlib
import json
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Any

from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.formula.values import ChosenRecord, ChosenRecords
from codexa.core.look_ups import MOST_FOUND
from codexa.core.program.evaluate import FieldError, State
from codexa.core.program.places import Place, RepeatPlace, Spot
from codexa.core.program.places_of import place_at
from codexa.core.program.record_facts import Offered, OfferedRecord, offered_record
from codexa.core.program.record_parts import Shown
from codexa.core.responses.folding import folded

_LOOKED_AT = 300  # records in which all words are found somewhere, also where visitors don't see them
_LISTED_LABELS = 4
_STAMP = 16  # signs
Facts = dict[str, Any]


def records_state(state: State, place: Place, row: Sequence[Any] = ()) -> Facts:
    """Return what the browser may know of what is offered, in the shape of RecordsState."""
    offered = _offered(state, place, row)
    if offered is None:
        return {"listed": []}
    chosen = offered.chosen if isinstance(offered.chosen, ChosenRecords) else (offered.chosen,)
    facts: Facts = {
        "listed": [_face(state, place, each) for each in offered.records],
        "chosen": [{"id": str(each.number), "label": str(each)} for each in chosen if isinstance(each, ChosenRecord)],
    }
    if offered.more:
        facts["more"] = True
    if offered.chosen is not None:
        facts["stamp"] = stamp_of(offered.chosen)
    if not offered.records and offered.asked is not None and offered.asked.first:
        facts["none"] = why_none(state, place, row)
    return facts


def stamp_of(chosen: ChosenRecord | ChosenRecords) -> str:
    """Return what tells whether a form would know something else of what was chosen: a mark of all that it knows."""
    records = chosen if isinstance(chosen, ChosenRecords) else (chosen,)
    known = [[each.number, str(each), sorted(each.values.items())] for each in records]
    return hashlib.sha256(json.dumps(known, default=str).encode()).hexdigest()[:_STAMP]


def changed_since(state: State, seen: Mapping[str, str]) -> dict[str, FieldError]:
    """Return the record choices, by address, of which something else is known than when they were `seen`.

    `seen` has the stamps by address; what was not seen is passed over.
    """
    if not seen:
        return {}
    message = state.program.form.say("recordChanged")
    return {
        address: FieldError(code="record_changed", message=message)
        for address, chosen in _chosen_records(state)
        if seen.get(address, stamp := stamp_of(chosen)) != stamp
    }


def _chosen_records(state: State) -> Iterator[tuple[str, ChosenRecord | ChosenRecords]]:
    for place in state.program.top_places:
        if isinstance(place, RepeatPlace):
            for row in state.rows(place):
                for inner in state.kind_of(place, row).places:
                    yield from _chosen_record(state, inner, row)
        else:
            yield from _chosen_record(state, place, ())


def _chosen_record(
    state: State, place: Place, row: Sequence[Any]
) -> Iterator[tuple[str, ChosenRecord | ChosenRecords]]:
    value = None if place.found is None else state.value(place, row)
    if isinstance(value, ChosenRecord | ChosenRecords):
        yield place.address(row), value


def _offered(state: State, place: Place, row: Sequence[Any]) -> Offered | None:
    found = None if place.found is None else state.at(place.found, row)
    return found if isinstance(found, Offered) else None


def _face(state: State, place: Place, record: OfferedRecord) -> dict[str, str]:
    left = record.left if getattr(place.block, "left_shown", False) else None
    words = "" if left is None else state.program.form.say("piecesLeft").replace("{count}", str(left))
    face = {"id": str(record.number), "label": f"{record.shown} ({words})" if words else record.shown}
    return {**face, "picture": record.picture} if record.picture else face


def why_none(state: State, place: Place, row: Sequence[Any]) -> str:
    """Return why nothing is offered: what is still to be answered, or that nothing fits what was."""
    say = state.program.form.say
    labels = list(dict.fromkeys(_unanswered(state, place, row)))[:_LISTED_LABELS]
    return say("answerFirst").replace("{labels}", ", ".join(labels)) if labels else say("noMatch")


def _unanswered(state: State, place: Place, row: Sequence[Any]) -> Iterator[str]:
    """Yield the labels of the questions that a filter reads and that are blank."""
    formula = state.program.formula(place.block.id, "fitting")
    by_spot = {each.value: each for each in state.program.places.values() if each.value is not None and each.answered}
    for spot in () if formula is None else formula.reads():
        asked = by_spot.get(Spot(spot.kind, spot.slot))
        if asked is not None and state.at(spot, row) is None:
            label = state.text(asked.block.id, "label", getattr(asked.block, "label", ""), row)
            if label:
                yield label


def found_by_words(state: State, address: str, words: str, most: int = MOST_FOUND) -> Facts:
    """Return the records at an address (a block's id, or "repeat/row/block") in which all words are shown.

    In the shape of RecordsState; nothing where it is not shown or can't be changed.
    """
    found = place_at(state, address)
    if found is None:
        return {"listed": []}
    place, row = found
    records, more = find_records(state, place, row, words, most)
    facts: Facts = {"listed": [_face(state, place, each) for each in records]}
    if more:
        facts["more"] = True
    if not records:
        facts["none"] = state.program.form.say("noMatch") if words.strip() else why_none(state, place, row)
    return facts


def find_records(
    state: State, place: Place, row: Sequence[Any], words: str, most: int
) -> tuple[tuple[OfferedRecord, ...], bool]:
    """Return the records that fit in this state and show all words, and whether there are more than `most`.

    Those that begin with the words stand first: a name that was typed is found before what only says it somewhere.
    """
    offered = _offered(state, place, row)
    if offered is None or offered.asked is None:
        return (), False
    assert isinstance(place.block, RecordChoiceField)
    wanted = folded(words).split()
    first = _LOOKED_AT if wanted else most
    found = state.context.tables.look_up(replace(offered.asked, chosen=(), words=words, first=first))
    shown = Shown(form=state.program.form, block=place.block)
    told = (offered_record(shown, each) for each in found.listed)
    fitting = [each for each in told if all(word in folded(each.shown) for word in wanted)]
    start = " ".join(wanted)
    fitting.sort(key=lambda each: not folded(each.shown).startswith(start))
    return tuple(fitting[:most]), found.more or len(fitting) > most
