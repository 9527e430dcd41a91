"""What runs out: how much of it a response claims, what is left, and what visitors are told when it does not do."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from codexa.core.definition.order import Discount
from codexa.core.fields.product import ProductField
from codexa.core.program.order import OrderTotals
from codexa.core.program.program import Program


@dataclass(frozen=True, kw_only=True, slots=True)
class Claim:
    """So many of something that there are `capacity` of in all; `block` is where the visitor asked for it, by id.

    Of a record the capacity is None: how many there are stands in its table. `left` is how many of it were left.
    """

    name: str
    quantity: int
    capacity: int | None
    block: str
    left: int | None = None

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


def stock_name(block: str, option: str) -> str:
    """Return the name under which the stock of a product, or of one of its options by code, is claimed."""
    return f"stock:{block}:{option}" if option else f"stock:{block}"


def code_name(discount: Discount) -> str:
    """Return the name under which the uses of a discount's code are claimed."""
    return f"code:{discount.id}"


def record_name(table: str, number: int, column: str) -> str:
    """Return the name under which places of a record are claimed, of so many as a column says."""
    return f"record:{table}:{number}:{column}"


def left_of(block: ProductField, taken: Mapping[str, int]) -> dict[str, int]:
    """Return how many are left of a product that has a stock: by the code of each option, "" for one without any."""
    stocks = {code: block.stock_of(code) for code in ([each.code for each in block.options] or [""])}
    return {
        code: max(0, stock[1] - taken.get(stock_name(block.id, stock[0]), 0))
        for code, stock in stocks.items()
        if stock is not None
    }
