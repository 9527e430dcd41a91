"""What leads to a fact of a form: the parts whose formulas and settings it comes from, and the answers behind it."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from codexa.core.definition.parts import Part
from codexa.core.form.form import FORM
from codexa.core.program.facts import Formula
from codexa.core.program.places import Place, RepeatPlace, Spot
from codexa.core.program.program import Program


@dataclass(frozen=True, kw_only=True, slots=True)
class Leading:
    """What leads to something: the formulas on the way, the places that visitors answer, the ids of all parts."""

    formulas: tuple[Formula, ...]
    asked: tuple[Place, ...]
    parts: frozenset[str]


def leading_to(program: Program, formulas: Iterable[Formula], owners: Iterable[str] = ()) -> Leading:
    """Return what leads to formulas, and to all facts of those parts; with what shows or hides it on the way."""
    found = {(each.owner, each.setting): each for each in formulas}
    parts = {each.owner for each in found.values()}
    places = {spot: place for place in program.places.values() for spot in _spots_of(place)}
    asked: dict[str, Place] = {}
    ahead = [read for each in found.values() for read in each.reads()]
    waiting = list(owners)
    seen: set[Spot] = set()
    while ahead or waiting:
        if not ahead:
            owner = waiting.pop()
            parts.add(owner)
            ahead += [fact.spot for fact in program.facts.values() if fact.owner == owner]
            own = {(each.owner, each.setting): each for each in program.formulas if each.owner == owner}
            ahead += [read for key, each in own.items() if key not in found for read in each.reads()]
            found |= own
            continue
        spot = ahead.pop()
        if spot in seen:
            continue
        seen.add(spot)
        place, fact = places.get(spot), program.facts.get(spot)
        if place is not None:
            parts.add(place.block.id)
            ahead.append(place.conditions.shown)
            if place.answered or isinstance(place, RepeatPlace):
                asked[place.block.id] = place
        if fact is not None:
            parts.add(fact.owner)
            ahead += fact.reads
            if fact.formula is not None:
                found[fact.formula.owner, fact.formula.setting] = fact.formula
    return Leading(
        formulas=tuple(found.values()), asked=tuple(asked.values()), parts=frozenset(parts | _around(program, parts))
    )


def _spots_of(place: Place) -> Iterator[Spot]:
    if place.value is not None:
        yield place.value
    if isinstance(place, RepeatPlace):
        yield place.all_rows
        yield from (kind.rows for kind in place.kinds)


def _around(program: Program, parts: set[str]) -> set[str]:
    """Return the ids of pages, groups, repeats and row kinds that hold any of these parts."""

    def holds(part: Part) -> bool:
        inside = (*getattr(part, "blocks", ()), *getattr(part, "kinds", ()))
        within = [holds(each) for each in inside]
        part_id = getattr(part, "id", FORM)
        if any(within):
            found.add(part_id)
        return part_id in parts or any(within)

    found: set[str] = set()
    for page in program.form.pages:
        holds(page)
    return found
