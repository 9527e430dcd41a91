"""Repeat: rows of one or several kinds, added by the visitor."""

from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field as Setting

from codexa.core.definition.parts import (
    MAX_ROWS,
    BlockFace,
    Repeat,
    RowKind,
    RowKindFace,
    VisitorLabel,
    VisitorWords,
)
from codexa.core.fields.field_type import BlockType, Family

if TYPE_CHECKING:
    from codexa.core.definition.parts import Block as AnyBlock
    from codexa.core.definition.parts import BlockFace as AnyFace


class ShapedRowKindFace(RowKindFace):
    """What the browser may know of a row kind and its blocks."""

    blocks: "tuple[AnyFace, ...]" = ()


class ShapedRowKind(RowKind):
    """A row kind with its blocks."""

    blocks: "tuple[AnyBlock, ...]" = ()


class RepeatFace(BlockFace):
    """What the browser may know of a repeat."""

    type: Literal["repeat"] = "repeat"
    label: VisitorLabel = ""
    help: VisitorWords = ""
    kinds: tuple[ShapedRowKindFace, ...] = ()
    max_rows: Annotated[int, Setting(ge=1, le=MAX_ROWS)] = 50


class RepeatBlock(Repeat):
    """Rows; formulas name a column of all kinds `repeat.field`, of one kind `repeat.kind.field`."""

    type: Literal["repeat"] = "repeat"
    help: VisitorWords = ""
    kinds: tuple[ShapedRowKind, ...] = ()


class RepeatType(BlockType[RepeatBlock]):
    """Repeat."""

    name = "repeat"
    title = "Repeat"
    family = Family.LAYOUT
    purpose = "Rows of one or several kinds, added, moved and removed by the visitor."
    face = RepeatFace
    block = RepeatBlock

    def blank(self) -> RepeatBlock:
        """A repeat with one kind of row."""
        kind = ShapedRowKind(id="newrow", key="row", label="Row")
        return RepeatBlock(id="new", key="rows", label="Rows", kinds=(kind,))

    def findings(self, block: RepeatBlock) -> list[tuple[str, str, str]]:
        """No kind of row, an empty one, and limits that can't be met."""
        if not block.kinds:
            return [("kinds", "There is no kind of row to add.", "Add a row kind, or delete the repeat.")]
        empty = next((kind for kind in block.kinds if not kind.blocks), None)
        if empty is not None:
            return [("kinds", f"The row kind {empty.label or empty.key} is empty.", "Add a field to it, or delete it.")]
        wanted = max(block.min_rows, sum(kind.min_rows for kind in block.kinds))
        narrow = next((k for k in block.kinds if k.max_rows is not None and k.min_rows > k.max_rows), None)
        if wanted > block.max_rows or narrow is not None:
            return [("min_rows", "More rows are wanted than are allowed.", "Lower the minimum or raise the maximum.")]
        return []
