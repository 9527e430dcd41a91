"""What is priced in a form: options that have a price, and numbers with a price for each."""

from collections.abc import Iterator
from decimal import Decimal

from codexa.core.definition.parts import Block, RowKind
from codexa.core.fields.number import NumberField
from codexa.core.fields.options import Optioned
from codexa.core.form.form import Form


def priced_blocks(form: Form) -> Iterator[tuple[Block, RowKind | None]]:
    """Yield the blocks that are priced, with the row kind that each stands in, in the order of the outline."""
    for block, kind in form.blocks_and_kinds():
        if is_priced(block):
            yield block, kind


def is_priced(block: Block) -> bool:
    """Say whether answering a block orders something."""
    if isinstance(block, Optioned):
        return any(option.price is not None for option in block.options)
    return isinstance(block, NumberField) and block.price is not None


def price_of_option(block: Optioned, code: str) -> Decimal | None:
    """Return the price of the option of that code; None where it has none."""
    return next((option.price for option in block.options if option.code == code), None)
