"""All answers: what was answered so far, in words."""

from typing import Literal

from codexa.core.definition.parts import Block, BlockFace, VisitorLabel
from codexa.core.fields.field_type import BlockType, Family


class AllAnswersFace(BlockFace):
    """What the browser may know of such a block; the answers come with the state."""

    type: Literal["all_answers"] = "all_answers"
    label: VisitorLabel = ""


class AllAnswersBlock(AllAnswersFace, Block):
    """Every answer that was given and is shown, by pages; nothing that is blank."""


class AllAnswersType(BlockType[AllAnswersBlock]):
    """All answers."""

    name = "all_answers"
    title = "All answers"
    family = Family.LAYOUT
    purpose = "What was answered so far, in words and by pages, to look over before sending."
    face = AllAnswersFace
    block = AllAnswersBlock

    def blank(self) -> AllAnswersBlock:
        """One with the title that people expect."""
        return AllAnswersBlock(id="new", key="all_answers", label="Your answers")
