"""The slots of a form by the names of their claims: what the live edition has of them."""

from codexa.core.fields.slot import SlotField
from codexa.core.form.form import Form
from codexa.core.program.claim_names import slot_name


def slot_plan(form: Form) -> dict[str, int]:
    """Return how many places each slot has."""
    return {
        slot_name(block.id, slot.code, slot.at): slot.places
        for block in form.blocks()
        if isinstance(block, SlotField)
        for slot in block.times(form.time_zone).all
    }
