"""What is wrong where a form offers slots: fields that it has no more, places that are none, hours that nobody gets."""

from collections.abc import Iterator

from codexa.core.definition.parts import Question
from codexa.core.fields.options import Optioned
from codexa.core.fields.slot import SlotField
from codexa.core.formula.types import Kind
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.places import Place
from codexa.core.program.program import Program


def slot_findings(program: Program) -> Iterator[Finding]:
    """Yield the findings of all slot blocks that concern other fields too."""
    for place in program.places.values():
        if isinstance(place.block, SlotField):
            yield from _of_places(program, place, place.block)
            yield from _of_person(program, place.block)


def _of_places(program: Program, place: Place, block: SlotField) -> Iterator[Finding]:
    named = {at: each for each in block.series for at in each.at} | {each.at: each for each in block.singles if each.at}
    if not block.by:
        if named:
            message = "Slots are at places, and it is not said which field asks for the place."
            yield error("no_places_asked", message, "Choose the field, or take the places out.", block.id, "by")
        return
    asked = program.places.get(block.by)
    if asked is None or not isinstance(asked.block, Optioned) or not _is_one_choice(asked):
        message = "Slots are offered by a field that is no single choice of this form."
        yield error("not_a_choice", message, "Choose another field.", block.id, "by")
        return
    if asked.kind is not None and asked.kind is not place.kind:
        message = "Slots are offered by a field in rows, and this field is not in these rows."
        yield error("not_a_choice", message, "Choose a field outside rows.", block.id, "by")
        return
    codes = {each.code for each in asked.block.options}
    for at in sorted(named.keys() - codes):
        message = f'Slots are at "{at}", and "{asked.block.label}" has no such option.'
        yield error("no_such_option", message, "Choose their places again.", block.id, "series")
    if any(not each.at for each in block.series) or any(not each.at for each in block.singles):
        message = "Some slots have no place, so nobody is offered them."
        yield doubt("no_place", message, "Tick their places.", block.id, "series")
    without = [each.label for each in asked.block.options if each.code not in named]
    if without and named:
        message = f'Whoever chooses "{without[0]}" is offered no slot at all.'
        yield doubt("no_slots_there", message, "Make slots there, or take the option out.", block.id, "series")


def _is_one_choice(place: Place) -> bool:
    return place.field_type is not None and place.field_type.value_type(place.block).kind is Kind.CHOICE


def _of_person(program: Program, block: SlotField) -> Iterator[Finding]:
    asked = program.places.get(block.each) if block.each else None
    if block.each and (asked is None or asked.kind is not None or not isinstance(asked.block, Question)):
        message = "So many per person is counted by a field that this form does not ask outside rows."
        yield error("no_such_field", message, "Choose the field again, such as the e-mail address.", block.id, "each")
