"""Group: blocks that belong together."""

from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field as Setting

from codexa.core.definition.parts import BlockFace, Group, VisitorLabel, VisitorWords
from codexa.core.fields.field_type import BlockType, Family

if TYPE_CHECKING:
    from codexa.core.definition.parts import Block as AnyBlock
    from codexa.core.definition.parts import BlockFace as AnyFace


class GroupFace(BlockFace):
    """What the browser may know of a group: its blocks fill so many `columns`, one after another, where they fit."""

    type: Literal["group"] = "group"
    label: VisitorLabel = ""
    help: VisitorWords = ""
    columns: Annotated[int, Setting(ge=1, le=4)] = 1
    blocks: "tuple[AnyFace, ...]" = ()


class GroupBlock(Group):
    """Blocks with a common label, shown, required and locked together."""

    type: Literal["group"] = "group"
    label: VisitorLabel = ""
    help: VisitorWords = ""
    columns: Annotated[int, Setting(ge=1, le=4)] = 1
    blocks: "tuple[AnyBlock, ...]" = ()


class GroupType(BlockType[GroupBlock]):
    """Group."""

    name = "group"
    title = "Group"
    family = Family.LAYOUT
    purpose = "Blocks that belong together, shown, required or locked as one."
    face = GroupFace
    block = GroupBlock

    def blank(self) -> GroupBlock:
        """An empty group."""
        return GroupBlock(id="new", key="group", label="Group")
