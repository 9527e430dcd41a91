"""Short text: one line."""

import re
from random import Random
from typing import Annotated, Literal

from pydantic import Field as Setting

from codexa.core.definition.parts import Field, FieldFace, Label
from codexa.core.fields.field_type import Family, Region
from codexa.core.fields.text_value import MAX_LENGTH, TextFieldType


class ShortTextFace(FieldFace):
    """What the browser may know of a short text."""

    type: Literal["short_text"] = "short_text"
    placeholder: Label = ""
    max_length: Annotated[int, Setting(ge=1, le=MAX_LENGTH)] | None = None


class ShortTextField(ShortTextFace, Field):
    """One line of text; `max_length` in characters."""


class ShortTextType(TextFieldType[ShortTextField]):
    """Short text."""

    name = "short_text"
    title = "Short text"
    family = Family.WORDS
    purpose = "One line: a name, a town, a subject."
    face = ShortTextFace
    block = ShortTextField

    def check(self, value: str, block: ShortTextField, region: Region) -> str | None:
        """The greatest length."""
        if block.max_length is not None and len(value) > block.max_length:
            return f"Enter at most {block.max_length} characters; these are {len(value)}."
        return None

    def limits(self, block: ShortTextField) -> str:
        """The greatest length in words."""
        return "" if block.max_length is None else f"at most {block.max_length} characters"

    def sample(self, block: ShortTextField, random: Random, region: Region) -> str:
        """Something like the placeholder, or an invented name."""
        if block.placeholder:
            return re.sub(r"\d", lambda _: str(random.randint(1, 9)), block.placeholder)[: block.max_length]
        first = random.choice(("Mira", "Jonas", "Aylin", "Tomás", "Ingrid", "Kofi", "Yuki", "Salma", "Pavel", "Noor"))
        last = random.choice(("Okafor", "Lindqvist", "Demir", "Reyes", "Haugen", "Mensah", "Tanaka", "Haddad", "Novak"))
        return f"{first} {last}"[: block.max_length]
