"""Number: exact to its decimals."""

from collections.abc import Mapping
from decimal import Decimal
from typing import Annotated, Any, Literal

from pydantic import Field as Setting

from codexa.core.definition.order import Price
from codexa.core.definition.parts import FieldFace, Number, PlainLabel, Unit
from codexa.core.fields.decimals import (
    MAX_DECIMALS,
    MAX_WHOLE_DIGITS,
    LimitedQuestion,
    LimitedType,
    shown,
)
from codexa.core.fields.field_type import NO_SETTINGS, Family, Medium, Region, Sampling
from codexa.core.formula.convert import text_of_number
from codexa.core.formula.types import Digits, Kind, Type
from codexa.core.sentences import Sentence


class NumberFace(FieldFace):
    """What the browser may know of a number."""

    type: Literal["number"] = "number"
    placeholder: PlainLabel = ""
    unit: Unit = ""
    decimals: Annotated[int, Setting(ge=0, le=MAX_DECIMALS)] = 0


class NumberField(NumberFace, LimitedQuestion):
    """A number from `minimum` to `maximum`, both included, with at most so many `decimals`, in steps of `step`.

    With a `price` it orders so many pieces at that price each.
    """

    step: Annotated[Number, Setting(gt=0)] | None = None
    price: Price | None = None


class NumberType(LimitedType[NumberField]):
    """Number."""

    name = "number"
    title = "Number"
    family = Family.NUMBERS
    purpose = "A number to count or calculate with, exact to its decimals."
    face = NumberFace
    block = NumberField

    def decimals_of(self, block: NumberField, region: Region) -> int:
        """As many as the block says."""
        return block.decimals

    def findings(self, block: NumberField) -> list[tuple[str, str, str]]:
        """Limits that no number meets, or no step."""
        found = super().findings(block)
        least, most, step = block.minimum, block.maximum, block.step
        if found or least is None or most is None or step is None:
            return found
        if least + step > most:
            message = f"In steps of {text_of_number(step)} only the minimum can be entered."
            return [("step", message, "Make the steps smaller, or raise the maximum.")]
        return found

    def value_type(self, block: NumberField) -> Type:
        """A number of bounded digits, or blank."""
        digits = Digits(whole=MAX_WHOLE_DIGITS, decimals=block.decimals)
        if block.minimum is not None and block.maximum is not None:
            greatest = max(abs(block.minimum), abs(block.maximum))
            digits = Digits(whole=min(MAX_WHOLE_DIGITS, Digits.of(greatest).whole), decimals=block.decimals)
        return Type(kind=Kind.NUMBER, may_be_blank=True, digits=digits)

    def written(self, value: Decimal, region: Region) -> str:
        """As people of the form's language write it."""
        return shown(value, region)

    def check(
        self, value: Decimal, block: NumberField, region: Region, settings: Mapping[str, Any] = NO_SETTINGS
    ) -> str | None:
        """The minimum, the maximum and the step."""
        outside = super().check(value, block, region, settings)
        if outside is not None:
            return outside
        start = block.minimum or 0
        if block.step is not None and (value - start) % block.step:
            lower = value - (value - start) % block.step
            return Sentence(
                "Enter a step of {step}, such as {example}.",
                step=shown(block.step, region),
                example=shown(lower, region),
            )
        return None

    def limits(self, block: NumberField) -> str:
        """The limits in words."""
        words = super().limits(block)
        return words if block.step is None else f"{words}, in steps of {text_of_number(block.step)}".removeprefix(", ")

    def present(self, value: Decimal, block: NumberField, region: Region, medium: Medium) -> str:
        """The number with its unit for people; plain for programs."""
        if medium is Medium.CSV:
            return text_of_number(value)
        return f"{shown(value, region)} {block.unit}".strip()

    def sample(self, block: NumberField, how: Sampling) -> str:
        """A number within the limits, small ones more often."""
        least = int(block.minimum or 0)
        most = int(block.maximum) if block.maximum is not None else least + 40
        step = int(block.step or 1) or 1
        number = least + min(how.random.randint(0, max(0, (most - least) // step)) for _ in range(3)) * step
        return shown(Decimal(number), how.region)
