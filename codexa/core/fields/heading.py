"""Heading: a line that divides a page."""

from typing import Literal

from codexa.core.definition.parts import Block, BlockFace, Label, Words
from codexa.core.fields.field_type import BlockType, Family


class HeadingFace(BlockFace):
    """What the browser may know of a heading: all that it says."""

    type: Literal["heading"] = "heading"
    text: Label
    lead: Words = ""


class HeadingBlock(HeadingFace, Block):
    """A heading with an optional line below it."""


class HeadingType(BlockType[HeadingBlock]):
    """Heading."""

    name = "heading"
    title = "Heading"
    family = Family.LAYOUT
    purpose = "Divides a page and tells what comes next."
    face = HeadingFace
    block = HeadingBlock

    def blank(self) -> HeadingBlock:
        """A heading to write over."""
        return HeadingBlock(id="new", key="heading", text="Heading")

    def findings(self, block: HeadingBlock) -> list[tuple[str, str, str]]:
        """A heading that says nothing."""
        return [] if block.text.strip() else [("text", "The heading is empty.", "Write it, or delete the block.")]
