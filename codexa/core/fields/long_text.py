"""Long text: several lines."""

from typing import Annotated, Literal

from pydantic import Field as Setting

from codexa.core.definition.parts import FieldFace, PlainLabel
from codexa.core.fields.field_type import Family, Sampling
from codexa.core.fields.text_value import Length, LimitedText, LimitedTextType

_SENTENCES = (
    "We would like to see the rings.",
    "Two of us use a wheelchair.",
    "The seeing was steady after midnight.",
    "Thank you for the last evening.",
    "We bring our own blankets.",
)


class LongTextFace(FieldFace):
    """What the browser may know of a long text."""

    type: Literal["long_text"] = "long_text"
    placeholder: PlainLabel = ""
    max_length: Length | None = None
    lines: Annotated[int, Setting(ge=2, le=30)] = 4


class LongTextField(LongTextFace, LimitedText):
    """Text of several lines; the box is `lines` high and grows."""


class LongTextType(LimitedTextType[LongTextField]):
    """Long text."""

    name = "long_text"
    title = "Long text"
    family = Family.WORDS
    purpose = "Several lines: a message, a description, a reason."
    face = LongTextFace
    block = LongTextField

    def sample(self, block: LongTextField, how: Sampling) -> str:
        """A sentence or two."""
        text = " ".join(how.random.sample(_SENTENCES, how.random.randint(1, 2))).ljust(block.min_length or 0, ".")
        return text[: block.max_length]
