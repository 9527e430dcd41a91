"""What people call the parts of a form."""

from codexa.core.definition.parts import Block
from codexa.core.program.order_names import ORDER, PAYMENT
from codexa.core.program.parts import part_named
from codexa.core.program.program import Program


def name_of(program: Program, owner: str) -> str:
    """Return what people call the owner of a fact: its outline number and label, or a figure's name."""
    if owner == ORDER:
        return "the order"
    if owner == PAYMENT:
        return "the payment"
    figure = program.figures.get(owner)
    if figure is not None:
        return figure.figure.name or figure.figure.key
    numbers = program.form.numbers()
    place = program.places.get(owner)
    if place is not None:
        return f"{numbers[owner]} {label_of(place.block)}"
    for follow_up in program.form.follow_ups:
        if follow_up.id == owner:
            return f"the follow-up {follow_up.name or follow_up.kind}"
    return _name_of_holder(program, owner, numbers)


def _name_of_holder(program: Program, owner: str, numbers: dict[str, str]) -> str:
    part = part_named(program.form, owner)
    if part is not None:
        return f"the part {part.name}".strip()
    page = next((each for each in program.form.pages if each.id == owner), None)
    if page is not None:
        return f"page {numbers[owner]} {page.title}".strip()
    for repeat in program.repeats.values():
        for each in repeat.kinds:
            if each.kind.id == owner:
                return f"{numbers[owner]} {each.kind.label or each.kind.key}"
    return "the form"


def label_of(block: Block) -> str:
    """Return a block's label, or its key where it has none."""
    return getattr(block, "label", "") or getattr(block, "text", "")[:60] or block.key
