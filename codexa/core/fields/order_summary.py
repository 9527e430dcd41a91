"""Order summary: what was ordered and what it costs, line by line."""

from typing import Literal

from codexa.core.definition.parts import Block, BlockFace, VisitorLabel
from codexa.core.fields.field_type import BlockType, Family


class OrderSummaryFace(BlockFace):
    """What the browser may know of an order summary; its lines come with the state."""

    type: Literal["order_summary"] = "order_summary"
    label: VisitorLabel = ""


class OrderSummaryBlock(OrderSummaryFace, Block):
    """The lines of the order, discounts, shipping, taxes and the total; nothing where nothing is ordered."""


class OrderSummaryType(BlockType[OrderSummaryBlock]):
    """Order summary."""

    name = "order_summary"
    title = "Order summary"
    family = Family.MONEY
    purpose = "What was ordered, with discounts, shipping, taxes and the total."
    face = OrderSummaryFace
    block = OrderSummaryBlock

    def blank(self) -> OrderSummaryBlock:
        """A summary with the title that people expect."""
        return OrderSummaryBlock(id="new", key="order_summary", label="Your order")
