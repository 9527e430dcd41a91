"""What is priced in a form: products, options that have a price, and numbers with a price for each."""

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal

from codexa.core.definition.parts import Field, RowKind
from codexa.core.fields.number import NumberField
from codexa.core.fields.options import Optioned
from codexa.core.fields.product import ProductField
from codexa.core.fields.quantity import QuantityField
from codexa.core.form.form import Form


@dataclass(frozen=True, kw_only=True, slots=True)
class Priced:
    """A block that orders something, with the row kind that it stands in; of a product, where its quantity is asked."""

    block: Field
    kind: RowKind | None
    quantity: QuantityField | None = None


def priced_blocks(form: Form) -> Iterator[Priced]:
    """Yield what is priced, in the order of the outline; a product whose quantity is asked nowhere is not."""
    quantities = quantities_of(form)
    for block, kind in form.blocks_and_kinds():
        if isinstance(block, ProductField) and block.quantity == "apart":
            if (quantity := quantities.get(block.id)) is not None:
                yield Priced(block=block, kind=kind, quantity=quantity)
        elif isinstance(block, Field) and _has_price(block):
            yield Priced(block=block, kind=kind)


def quantities_of(form: Form) -> dict[str, QuantityField]:
    """Return the quantity that each product's is asked by, by the product's id: the first in the same kind of row."""
    kinds = {block.id: kind.id if kind else "" for block, kind in form.blocks_and_kinds()}
    found: dict[str, QuantityField] = {}
    for block in form.blocks():
        if isinstance(block, QuantityField) and kinds.get(block.product) == kinds[block.id]:
            found.setdefault(block.product, block)
    return found


def _has_price(block: Field) -> bool:
    if isinstance(block, ProductField):
        return bool(block.options or block.priced_by.strip()) or block.price is not None
    if isinstance(block, Optioned):
        return any(option.price is not None for option in block.options)
    return isinstance(block, NumberField) and block.price is not None


def price_of_option(block: Optioned, code: str) -> Decimal | None:
    """Return the price of the option of that code; None where it has none."""
    return next((option.price for option in block.options if option.code == code), None)
