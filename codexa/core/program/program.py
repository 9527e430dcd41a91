"""The program of a form: its facts, where they stand, and what hangs on what."""

from collections.abc import Callable, Container, Iterable, Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from codexa.core.context import Context
from codexa.core.definition.parts import Block, blocks_within
from codexa.core.definition.wording import Wording
from codexa.core.fields.all_answers import AllAnswersBlock
from codexa.core.fields.field_type import Region
from codexa.core.fields.file_upload import FileUploadField
from codexa.core.fields.product import ProductField
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.fields.slot import SlotField
from codexa.core.form.follow_ups import FollowUp
from codexa.core.form.form import Form, LinkValue
from codexa.core.form.pricing import quantities_of
from codexa.core.formula.types import Kind
from codexa.core.program.facts import Fact, Formula
from codexa.core.program.layout import Layout
from codexa.core.program.parts import parts_by_owner
from codexa.core.program.places import (
    ALWAYS,
    FigurePlace,
    PagePlace,
    Place,
    RepeatPlace,
    Spot,
)
from codexa.core.program.scope import own_page, response_number
from codexa.core.program.spots import OrderSpots
from codexa.core.program.steps import Step, steps_of
from codexa.core.program.templates import Template

Reader = tuple[int, Callable[[Any, Any, Region], Any], Block, Region]  # slot, parse, block, region


@dataclass(frozen=True, kw_only=True)
class Program:
    """A form ready to be computed.

    `work_out(values, context, dropped)` computes all facts in an order in which each comes after all that it reads;
    `source` is its code. `places` are the blocks by id, those of rows too; `texts` the texts with inserted values, by
    owner and setting. `circles` are lists of ids of what depends on itself. `own` is the program in the form's own
    language, where this is in another.
    """

    form: Form
    layout: Layout
    pages: tuple[PagePlace, ...]
    places: dict[str, Place]
    figures: dict[str, FigurePlace]
    form_checks: tuple[Spot, ...]
    confirmation: Spot | None
    order: OrderSpots | None
    formulas: tuple[Formula, ...]
    facts: dict[Spot, Fact]
    texts: dict[str, dict[str, Template]]
    initial: tuple[Any, ...]
    initial_rows: dict[str, tuple[Any, ...]]
    circles: tuple[tuple[str, ...], ...]
    source: str
    work_out: Callable[[list[Any], Any, set[str]], None]
    own: "Program | None" = None

    def formula(self, owner: str, setting: str) -> Formula | None:
        """Return the formula of a setting, if there is one."""
        return self._formula_by_place.get((owner, setting))

    @cached_property
    def _formula_by_place(self) -> dict[tuple[str, str], Formula]:
        return {(each.owner, each.setting): each for each in self.formulas}

    @cached_property
    def region(self) -> Region:
        """How the form's people write."""
        return self.form.region

    @cached_property
    def words(self) -> Wording:
        """What the form says to visitors, in its language."""
        return self.form.wording.in_language(self.form.locale)

    @cached_property
    def top_places(self) -> tuple[Place, ...]:
        """The places of blocks that stand outside rows, in the order of the outline."""
        return tuple(place for place in self.places.values() if place.kind is None)

    @cached_property
    def questions(self) -> dict[str, Place]:
        """The places outside rows that visitors answer, by id."""
        return {place.block.id: place for place in self.top_places if place.answered}

    @cached_property
    def repeats(self) -> dict[str, RepeatPlace]:
        """The places of repeats, by id."""
        return {place.block.id: place for place in self.top_places if isinstance(place, RepeatPlace)}

    @cached_property
    def readers(self) -> dict[str, Reader]:
        """What reads each answer outside rows, by block id."""
        return _readers(self._askable(self.top_places), self.region)

    def _askable(self, places: Iterable[Place]) -> Iterator[Place]:
        """Yield the places whose answers can be read: which record is meant is not found out in a circle."""
        in_circles = frozenset[str]().union(*self.circles)
        return (each for each in places if each.found is None or each.block.id not in in_circles)

    @cached_property
    def linked(self) -> dict[str, tuple[LinkValue, Reader]]:
        """The fields that a link may fill, by block id, with what it calls them and what reads the answer."""
        found: dict[str, tuple[LinkValue, Reader]] = {}
        for each in self.form.links:
            place = self.questions.get(each.field)
            if place is not None and place.value and place.field_type and place.field_type.linkable:
                found[each.field] = each, (place.value.slot, place.field_type.parse, place.block, self.region)
        return found

    @cached_property
    def row_readers(self) -> dict[str, dict[str, Reader | None]]:
        """What reads each answer in the rows of a kind, by kind and block id; None for what is not read."""
        return {
            each.kind.id: {inner.block.id: None for inner in each.places}
            | _readers(self._askable(each.places), self.region)
            for place in self.repeats.values()
            for each in place.kinds
        }

    @cached_property
    def needs_number(self) -> bool:
        """Whether something is worked out only once the response has its number."""
        return self._reads(response_number)

    @cached_property
    def needs_own_page(self) -> bool:
        """Whether something says the address of the visitor's own page, here or in the form's own language."""
        return self._reads(own_page) or (self.own is not None and self.own.needs_own_page)

    def _reads(self, facet: Callable[[Context], Any]) -> bool:
        texts = (text for owner in self.texts.values() for text in owner.values())
        inserted = (entry.reference.facet for text in texts for entry in text.entries.values() if entry is not None)
        return any(each.knows(facet) for each in self.formulas) or facet in inserted

    @cached_property
    def active_follow_ups(self) -> tuple[FollowUp, ...]:
        """The follow-ups that are not switched off, in the order of the form."""
        return tuple(each for each in self.form.follow_ups if each.active)

    @cached_property
    def file_fields(self) -> frozenset[str]:
        """The ids of the fields that take files, also in rows."""
        return frozenset(each for each, place in self.places.items() if isinstance(place.block, FileUploadField))

    @cached_property
    def quantities(self) -> dict[str, Place]:
        """The places of quantities that are asked apart, by the id of their product."""
        found = quantities_of(self.form).items()
        return {product: self.places[quantity.id] for product, quantity in found if product in self.places}

    @cached_property
    def runs_out(self) -> bool:
        """Whether something in the form is counted down: stock, the uses of a code, places of records or slots."""
        products = (block for block in self.form.blocks() if isinstance(block, ProductField))
        coded = any(each.uses is not None for each in self.form.order.discounts)
        return coded or self.takes_places or self.has_slots or any(block.is_counted for block in products)

    @cached_property
    def has_slots(self) -> bool:
        """Whether there are slots to choose."""
        return any(isinstance(block, SlotField) for block in self.form.blocks())

    @cached_property
    def takes_places(self) -> bool:
        """Whether records are chosen of which there are so many as a column says."""
        return any(isinstance(block, RecordChoiceField) and block.places for block in self.form.blocks())

    @cached_property
    def takes_files(self) -> bool:
        """Whether visitors can send files with it."""
        kinds = (place.field_type.value_type(place.block).kind for place in self.places.values() if place.field_type)
        return Kind.FILES in kinds

    @cached_property
    def _read_by(self) -> dict[Spot, list[Spot]]:
        read_by: dict[Spot, list[Spot]] = {}
        for fact in self.facts.values():
            for read in fact.reads:
                read_by.setdefault(read, []).append(fact.spot)
        return read_by

    @cached_property
    def _texts_reading(self) -> dict[Spot, set[str]]:
        owners: dict[Spot, set[str]] = {}
        for owner, templates in self.texts.items():
            for template in templates.values():
                for spot in template.reads:
                    owners.setdefault(spot, set()).add(owner)
        return owners

    def affected(self, changed: Iterable[str]) -> frozenset[str]:
        """Return the ids of everything whose facts may differ after these answers have changed, themselves included.

        What stands in a row is named by its repeat.
        """
        found = frozenset[str]().union(*(self._affected_by(each) for each in changed))
        # Whether an answer is refused tells of what is worked out from it, too.
        return found | {owner for owner, feeding in self.fed_by.items() if not found.isdisjoint(feeding)}

    @cached_property
    def _affected_memory(self) -> dict[str, frozenset[str]]:
        return {}

    def _affected_by(self, block_id: str) -> frozenset[str]:
        memory = self._affected_memory
        if block_id not in memory and block_id in self.places:
            memory[block_id] = self._owners_after(block_id)
        return memory.get(block_id, frozenset())

    @cached_property
    def fed_by(self) -> dict[str, tuple[str, ...]]:
        """The ids of the questions and repeats that each computed block outside rows is worked out from."""
        computed = {each.block.id for each in self.top_places if not each.answered}
        feeding: dict[str, list[str]] = {}
        for each in self.top_places:
            if each.answered or isinstance(each, RepeatPlace):
                for owner in self._affected_by(each.block.id) & computed:
                    feeding.setdefault(owner, []).append(each.block.id)
        return {owner: tuple(found) for owner, found in feeding.items()}

    @cached_property
    def steps(self) -> tuple[Step, ...]:
        """What is shown at once, in order: pages, or one question at a time."""
        return steps_of(self.form)

    @cached_property
    def _parts(self) -> dict[str, str]:
        return parts_by_owner(self.form)

    @cached_property
    def has_parts(self) -> bool:
        """Whether something in it is not for who fills in to change."""
        return any(self._parts.values())

    def owners_in(self, parts: Container[str]) -> frozenset[str]:
        """Return the ids of the pages, blocks and row kinds in these parts of the form."""
        return frozenset(owner for owner, part in self._parts.items() if part in parts)

    def closed_to(self, parts: frozenset[str]) -> frozenset[str]:
        """Return the ids of those in other parts than these, which are open."""
        memory = self._closed_memory
        if parts not in memory:
            memory[parts] = frozenset(self._parts) - self.owners_in(parts)
        return memory[parts]

    @cached_property
    def _closed_memory(self) -> dict[frozenset[str], frozenset[str]]:
        return {}

    @cached_property
    def _telling_all(self) -> set[str]:
        blocks = (each for step in self.steps for each in step.blocks)
        return {each.id for each, _ in blocks_within(blocks) if isinstance(each, AllAnswersBlock)}

    def _owners_after(self, block_id: str) -> frozenset[str]:
        place = self.places[block_id]
        waiting = [place.value] if place.value else []
        if isinstance(place, RepeatPlace):
            waiting += [place.all_rows, *(spot for spot in self.facts if spot.kind in {k.kind.id for k in place.kinds})]
        seen: set[Spot] = set(waiting)
        owners = {block_id} | (self._telling_all if place.answered or isinstance(place, RepeatPlace) else set())
        while waiting:
            spot = waiting.pop()
            owners |= self._texts_reading.get(spot, set())
            fact = self.facts.get(spot)
            if fact is not None:
                owners.add(fact.owner)
            fresh = [each for each in self._read_by.get(spot, ()) if each not in seen]
            seen.update(fresh)
            waiting += fresh
        kinds = {kind.kind.id: repeat.block.id for repeat in self.repeats.values() for kind in repeat.kinds}
        repeats = {each.repeat.id for owner in owners if (each := self.places.get(owner)) and each.repeat is not None}
        return frozenset(owners | repeats | {kinds[owner] for owner in owners if owner in kinds})

    def reached_from(self, owner: str) -> frozenset[str]:
        """Return the ids of whatever is worked out, at the end of any chain, from the facts of a part of the form."""
        memory = self._reached_memory
        if owner not in memory:
            seen = {fact.spot for fact in self.facts.values() if fact.owner == owner}
            waiting, owners = list(seen), set()
            while waiting:
                spot = waiting.pop()
                owners.add(self.facts[spot].owner)
                fresh = [each for each in self._read_by.get(spot, ()) if each not in seen]
                seen.update(fresh)
                waiting += fresh
            memory[owner] = frozenset(owners)
        return memory[owner]

    @cached_property
    def _reached_memory(self) -> dict[str, frozenset[str]]:
        return {}

    @cached_property
    def asks(self) -> frozenset[str]:
        """The ids of blocks after whose change there is something new to know, beside what the browser sees itself."""
        return frozenset(
            block_id
            for block_id, place in self.places.items()
            if place.kind is None and (self._is_worth_asking(place) or len(self._affected_by(block_id)) > 1)
        )

    def _is_worth_asking(self, place: Place) -> bool:
        if isinstance(place, RepeatPlace):
            return True
        wrong = place.field_type is not None and place.field_type.is_worth_asking(place.block)
        return bool(wrong or place.checks or place.offered or place.barred)


def _readers(places: Iterable[Place], region: Region) -> dict[str, Reader]:
    # While a field is locked for ever, its value is its default, whatever is sent.
    return {
        place.block.id: (place.value.slot, place.field_type.parse, place.block, region)
        for place in places
        if place.answered and place.conditions.locked is not ALWAYS and place.value and place.field_type
    }
