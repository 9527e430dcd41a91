"""Calculated: a value that a formula works out and no visitor can change."""

from typing import Any, Literal

from codexa.core.definition.figures import Formatted
from codexa.core.definition.parts import ComputedBy, Field, FieldFace
from codexa.core.fields import formatted
from codexa.core.fields.field_type import Family, FieldType, Medium, Region
from codexa.core.formula import convert
from codexa.core.formula.types import Type


class CalculatedFace(FieldFace):
    """What the browser may know of a calculated field; its value comes with the state."""

    type: Literal["calculated"] = "calculated"


class CalculatedField(CalculatedFace, Field, Formatted):
    """The result of `formula`, shown in its format.

    A formula with `response.number` is worked out once the response is saved. With `hidden_when_blank` visitors see
    nothing of the field while its value is blank.
    """

    formula: ComputedBy = ""
    hidden_when_blank: bool = False


class CalculatedType(FieldType[CalculatedField]):
    """Calculated."""

    name = "calculated"
    title = "Calculated"
    family = Family.NUMBERS
    purpose = "A total, a price, a result: worked out by a formula, always."
    face = CalculatedFace
    block = CalculatedField
    answered = False

    def findings(self, block: CalculatedField) -> list[tuple[str, str, str]]:
        """A missing formula."""
        if block.formula.strip():
            return []
        return [("formula", "There is no formula to calculate with.", "Write it in the margin, such as adults * 2.")]

    def value_type(self, block: CalculatedField) -> Type:
        """The kind of its format."""
        return formatted.type_of_format(block)

    def adopt(self, value: Any, block: CalculatedField, region: Region) -> Any:
        """A formula's result as its format says."""
        return formatted.settle(value, block, region)

    def present(self, value: Any, block: CalculatedField, region: Region, medium: Medium) -> str:
        """As its format says."""
        return formatted.present(value, block, region, medium)

    def dump(self, value: Any) -> str:
        """Plain decimal text, ISO date or the text."""
        return convert.text(value)

    def load(self, stored: str, block: CalculatedField) -> Any:
        """The value of that text."""
        return formatted.load(stored, block)

    def answer_schema(self, block: CalculatedField) -> dict[str, Any]:
        """A string."""
        return {"type": "string"}
