"""What the field types that hold text share."""

import unicodedata
from typing import Any, Generic

from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import FieldModel, FieldType, Medium, Region
from codexa.core.formula.types import Kind, Type

MAX_LENGTH = 10_000  # characters


class TextFieldType(FieldType[FieldModel], Generic[FieldModel]):
    """A field whose value is one text."""

    def value_type(self, block: FieldModel) -> Type:
        """Text, or blank."""
        return Type(kind=Kind.TEXT, may_be_blank=True)

    def parse(self, raw: Any, block: FieldModel, region: Region) -> str | None:
        """Return the text in Unicode's composed form without spaces at its ends."""
        if not isinstance(raw, str):
            raise AnswerError("not_text", "Enter text here.")
        text = unicodedata.normalize("NFC", raw.replace("\x00", "")).strip()
        if len(text) > MAX_LENGTH:
            raise AnswerError("too_long", f"Enter at most {MAX_LENGTH} characters; these are {len(text)}.")
        return text or None

    def present(self, value: str, block: FieldModel, region: Region, medium: Medium) -> str:
        """The text itself."""
        return value

    def dump(self, value: str) -> str:
        """The text itself."""
        return value

    def load(self, stored: str, block: FieldModel) -> str:
        """The text itself."""
        return stored

    def answer_schema(self, block: FieldModel) -> dict[str, Any]:
        """A string."""
        return {"type": "string", "maxLength": MAX_LENGTH}
