"""Content: heading, text, picture and divider."""

from typing import Annotated, Literal

from pydantic import StringConstraints

from codexa.core.definition.parts import Block, BlockFace, PlainLabel, VisitorLabel, VisitorWords
from codexa.core.definition.rich_text import RichText
from codexa.core.fields.field_type import BlockType, Family


class HeadingFace(BlockFace):
    """What the browser may know of a heading: all that it says, and how it is set."""

    type: Literal["heading"] = "heading"
    text: VisitorLabel
    lead: VisitorWords = ""
    align: Literal["start", "centre", "end"] = "start"
    size: Literal["small", "normal", "large"] = "normal"
    italic: bool = False
    underlined: bool = False
    accent: bool = False


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


class TextFace(BlockFace):
    """What the browser may know of a text: all that it says, as sanitised HTML."""

    type: Literal["text"] = "text"
    text: RichText = ""


class TextBlock(TextFace, Block):
    """Rich text; `{name}` in it stands for a value."""


class TextType(BlockType[TextBlock]):
    """Text."""

    name = "text"
    title = "Text"
    family = Family.LAYOUT
    purpose = "Paragraphs, lists and links, with values inserted where {name} stands."
    face = TextFace
    block = TextBlock

    def blank(self) -> TextBlock:
        """A text to write over."""
        return TextBlock(id="new", key="text", text="<p>Text</p>")


PictureSource = Annotated[
    str, StringConstraints(max_length=400_000, pattern=r"^(/|data:image/(png|jpeg|webp|svg\+xml);base64,|$)")
]


class PictureFace(BlockFace):
    """What the browser may know of a picture."""

    type: Literal["picture"] = "picture"
    source: PictureSource = ""
    alternative: PlainLabel = ""
    caption: VisitorLabel = ""
    size: Literal["small", "medium", "full"] = "full"


class PictureBlock(PictureFace, Block):
    """A picture: a data URL or a path on this server, with words for who can't see it."""


class PictureType(BlockType[PictureBlock]):
    """Picture."""

    name = "picture"
    title = "Picture"
    family = Family.LAYOUT
    purpose = "A picture, with words for who can't see it."
    face = PictureFace
    block = PictureBlock

    def blank(self) -> PictureBlock:
        """No picture yet."""
        return PictureBlock(id="new", key="picture")

    def findings(self, block: PictureBlock) -> list[tuple[str, str, str]]:
        """No picture."""
        return [] if block.source else [("source", "There is no picture yet.", "Choose one, or delete the block.")]


class DividerFace(BlockFace):
    """What the browser may know of a divider."""

    type: Literal["divider"] = "divider"


class DividerBlock(DividerFace, Block):
    """A line."""


class DividerType(BlockType[DividerBlock]):
    """Divider."""

    name = "divider"
    title = "Divider"
    family = Family.LAYOUT
    purpose = "A line between what belongs to different things."
    face = DividerFace
    block = DividerBlock

    def blank(self) -> DividerBlock:
        """A line."""
        return DividerBlock(id="new", key="divider")
