"""What is new in a form for a visitor who comes back to an answer that was begun with an earlier edition."""

from collections.abc import Iterator
from decimal import Decimal

from codexa.core.definition.parts import Block, Question
from codexa.core.fields.number import NumberField
from codexa.core.fields.options import Optioned
from codexa.core.fields.product import ProductField
from codexa.core.program.order import money
from codexa.core.program.program import Program


def visitor_news(before: Program, after: Program) -> list[str]:
    """Return what a visitor should know, in the words of the later edition: prices first, then what is asked."""
    return [*_prices(before, after), *_order(before, after), *_questions(before, after)]


def _prices(before: Program, after: Program) -> Iterator[str]:
    say = after.form.say
    old = {(place.block.id, name): price for place in before.places.values() for name, _, price in _priced(place.block)}
    for place in after.places.values():
        for name, label, price in _priced(place.block):
            was = old.get((place.block.id, name))
            if was is None or was == price:
                continue
            told = (money(was, before.region), money(price, after.region))
            yield say("newPrice").replace("{label}", label).replace("{before}", told[0]).replace("{price}", told[1])


def _priced(block: Block) -> Iterator[tuple[str, str, Decimal]]:
    """Yield what of a block has a price: an option's id or "", its label for visitors, and the price."""
    label = getattr(block, "label", "")
    if isinstance(block, NumberField) and block.price is not None:
        yield "", label, block.price
    if isinstance(block, ProductField) and block.price is not None and not block.options:
        yield "", label, block.price
    if isinstance(block, Optioned | ProductField):
        for option in block.options:
            if option.price is not None:
                yield option.id, f"{label}, {option.label}" if label else option.label, option.price


def _order(before: Program, after: Program) -> Iterator[str]:
    old, new = before.form.order, after.form.order
    if any(getattr(old, name) != getattr(new, name) for name in ("shipping", "discounts", "taxes")):
        yield after.form.say("newCosts")


def _questions(before: Program, after: Program) -> Iterator[str]:
    say = after.form.say
    old = {place.block.id: place.block for place in before.places.values() if place.answered}
    new = {place.block.id: place.block for place in after.places.values() if place.answered}
    for block_id, block in new.items():
        if block_id not in old and (label := _label(block)):
            yield say("newQuestion").replace("{label}", label)
    for block_id, block in old.items():
        if block_id not in new and (label := _label(block)):
            yield say("goneQuestion").replace("{label}", label)


def _label(block: Block) -> str:
    # A label with inserted values says nothing by itself.
    label = block.label if isinstance(block, Question) else ""
    return "" if "{" in label else label
