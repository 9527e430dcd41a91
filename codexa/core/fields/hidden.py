"""Hidden: a value that visitors neither see nor change, such as one that came with the link."""

from typing import Any, Literal

from codexa.core.definition.parts import ComputedBy, Field, FieldFace
from codexa.core.fields.field_type import Family, FieldType, Medium, Region
from codexa.core.formula import convert
from codexa.core.formula.types import Kind, Type


class HiddenFace(FieldFace):
    """Nothing of a hidden field reaches the browser; this is its shape for the workbench."""

    type: Literal["hidden"] = "hidden"


class HiddenField(HiddenFace, Field):
    """The text that `formula` gives, such as link.campaign."""

    formula: ComputedBy = ""


class HiddenType(FieldType[HiddenField]):
    """Hidden."""

    name = "hidden"
    title = "Hidden"
    family = Family.LAYOUT
    purpose = "A value that visitors don't see: from the link, or by a formula."
    face = HiddenFace
    block = HiddenField
    answered = False
    visible = False

    def findings(self, block: HiddenField) -> list[tuple[str, str, str]]:
        """A missing formula."""
        if block.formula.strip():
            return []
        return [("formula", "Nothing says what this field holds.", 'Write a formula, such as link.campaign or "web".')]

    def value_type(self, block: HiddenField) -> Type:
        """Text, or blank."""
        return Type(kind=Kind.TEXT, may_be_blank=True)

    def adopt(self, value: Any, block: HiddenField, region: Region) -> str | None:
        """A formula's result as text."""
        return convert.text(value) or None

    def present(self, value: str, block: HiddenField, region: Region, medium: Medium) -> str:
        """The text itself."""
        return value

    def dump(self, value: str) -> str:
        """The text itself."""
        return value

    def load(self, stored: str, block: HiddenField) -> str:
        """The text itself."""
        return stored

    def answer_schema(self, block: HiddenField) -> dict[str, Any]:
        """A string."""
        return {"type": "string"}
