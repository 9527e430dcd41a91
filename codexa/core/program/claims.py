"""What runs out: how much of it a response claims, what is left, and what visitors are told when it does not do."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from codexa.core.fields.product import ProductField
from codexa.core.program.claim_names import code_name, stock_name
from codexa.core.program.order import OrderTotals
from codexa.core.program.pieces import whole_pieces
from codexa.core.program.places import Place
from codexa.core.program.program import Program

if TYPE_CHECKING:
    from codexa.core.program.evaluate import State


@dataclass(frozen=True, kw_only=True, slots=True)
class Claim:
    """So many of something that there are `capacity` of in all; `block` is where the visitor asked for it, by id.

    Of a record the capacity is None: how many there are stands in its table. `left` is how many of it were left. What
    is `waiting` takes nothing yet.
    """

    name: str
    quantity: int
    capacity: int | None
    block: str
    left: int | None = None
    waiting: bool = False

    def left_of(self, taken: Mapping[str, int]) -> int | None:
        """Return how many are left, where that is known, by what is `taken` under each name."""
        return self.left if self.capacity is None else self.capacity - taken.get(self.name, 0)


def claims_of(program: Program, order: object) -> tuple[Claim, ...]:
    """Return what an order claims, each thing once, by name: pieces of what has a stock, and uses of codes."""
    if not isinstance(order, OrderTotals):
        return ()
    found: dict[str, Claim] = {}
    for each in (*_of_stock(program, order), *_of_codes(program, order)):
        before = found[each.name].quantity if each.name in found else 0
        found[each.name] = Claim(
            name=each.name, quantity=before + each.quantity, capacity=each.capacity, block=each.block
        )
    return tuple(found[name] for name in sorted(found))


def _of_stock(program: Program, order: OrderTotals) -> Iterator[Claim]:
    for line in order.lines.lines:
        block = program.places[line.block].block
        stock = block.stock_of(line.option) if isinstance(block, ProductField) else None
        if stock is not None:
            asked = program.quantities.get(block.id)
            yield Claim(
                name=stock_name(block.id, stock[0]),
                quantity=int(line.quantity),
                capacity=stock[1],
                block=block.id if asked is None else asked.block.id,
            )


def _of_codes(program: Program, order: OrderTotals) -> Iterator[Claim]:
    for discount in program.form.order.discounts:
        if discount.uses is not None and discount.id in order.redeemed:
            name = code_name(discount)
            yield Claim(name=name, quantity=1, capacity=discount.uses, block=program.form.order.code_field)


def taking_of(state: "State", place: Place, row: Sequence[Any], *, most: int) -> int:
    """Return how many a question takes of what it asks for: what `taking` gives, a part of one as a whole, else one."""
    spot = place.settings.get("taking")
    return whole_pieces(None if spot is None else state.at(spot, row), most)


def left_of(block: ProductField, taken: Mapping[str, int]) -> dict[str, int]:
    """Return how many are left of a product that has a stock: by the code of each option, "" for one without any."""
    stocks = {code: block.stock_of(code) for code in ([each.code for each in block.options] or [""])}
    return {
        code: max(0, stock[1] - taken.get(stock_name(block.id, stock[0]), 0))
        for code, stock in stocks.items()
        if stock is not None
    }
