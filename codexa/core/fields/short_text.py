"""Short text: one line."""

import re
from typing import Literal

from codexa.core.definition.parts import FieldFace, PlainLabel
from codexa.core.fields.field_type import Family, Sampling
from codexa.core.fields.sample_people import line_for
from codexa.core.fields.text_value import Length, LimitedText, LimitedTextType


class ShortTextFace(FieldFace):
    """What the browser may know of a short text."""

    type: Literal["short_text"] = "short_text"
    placeholder: PlainLabel = ""
    max_length: Length | None = None


class ShortTextField(ShortTextFace, LimitedText):
    """One line of text; `max_length` in characters."""


class ShortTextType(LimitedTextType[ShortTextField]):
    """Short text."""

    name = "short_text"
    title = "Short text"
    family = Family.WORDS
    purpose = "One line: a name, a town, a subject."
    face = ShortTextFace
    block = ShortTextField

    def sample(self, block: ShortTextField, how: Sampling) -> str:
        """Something like the placeholder, or what fits the label."""
        if block.placeholder:
            return re.sub(r"\d", lambda _: str(how.random.randint(1, 9)), block.placeholder)[: block.max_length]
        return line_for(block.label, how.person, how.random)[: block.max_length]
