"""Quantity: how many are ordered of a product that stands elsewhere."""

from collections.abc import Mapping
from decimal import Decimal
from typing import Any, Literal

from codexa.core.definition.parts import FieldFace, OptionalIdentifier, PlainLabel, Question
from codexa.core.fields.decimals import DecimalType, limits_in_words, shown
from codexa.core.fields.field_type import NO_SETTINGS, Family, Medium, Region, Sampling
from codexa.core.fields.product import MAX_PIECES, Pieces, count_findings, count_message
from codexa.core.formula.convert import text_of_number
from codexa.core.formula.types import Digits, Kind, Type


class QuantityFace(FieldFace):
    """What the browser may know of a quantity."""

    type: Literal["quantity"] = "quantity"
    placeholder: PlainLabel = ""


class QuantityField(QuantityFace, Question):
    """How many pieces of `product`, which it names by id, from `least` to `most`."""

    product: OptionalIdentifier = ""
    least: Pieces | None = None
    most: Pieces | None = None


class QuantityType(DecimalType[QuantityField]):
    """Quantity."""

    name = "quantity"
    title = "Quantity"
    family = Family.MONEY
    purpose = "How many of a product that stands elsewhere in the form."
    face = QuantityFace
    block = QuantityField

    def decimals_of(self, block: QuantityField, region: Region) -> int:
        """None: a piece is whole."""
        return 0

    def findings(self, block: QuantityField) -> list[tuple[str, str, str]]:
        """Limits that nothing meets."""
        return count_findings(block.least, block.most)

    def value_type(self, block: QuantityField) -> Type:
        """A whole number, or blank."""
        digits = Digits(whole=Digits.of(Decimal(block.most or MAX_PIECES)).whole, decimals=0)
        return Type(kind=Kind.NUMBER, may_be_blank=True, digits=digits)

    def check(
        self, value: Decimal, block: QuantityField, region: Region, settings: Mapping[str, Any] = NO_SETTINGS
    ) -> str | None:
        """The least and the most; never below 0."""
        most = MAX_PIECES if block.most is None else block.most
        return count_message(value, block.least or 0, most, region)

    def limits(self, block: QuantityField) -> str:
        """The limits in words."""
        return limits_in_words(block.least, block.most)

    def present(self, value: Decimal, block: QuantityField, region: Region, medium: Medium) -> str:
        """The number."""
        return text_of_number(value) if medium is Medium.CSV else shown(value, region)

    def sample(self, block: QuantityField, how: Sampling) -> str:
        """A few."""
        return str(max(block.least or 1, min(block.most or 3, how.random.randint(1, 3))))
