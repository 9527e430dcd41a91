"""Number: an exact decimal, written as the form's language writes it."""

from decimal import Decimal
from functools import lru_cache
from random import Random
from typing import Annotated, Any, Literal

from babel.numbers import NumberFormatError, format_decimal, parse_decimal
from pydantic import Field as Setting

from codexa.core.definition.parts import Field, FieldFace, Label
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Family, FieldType, Medium, Region
from codexa.core.formula.convert import text_of_number
from codexa.core.formula.types import Digits, Kind, Type

MAX_WHOLE_DIGITS = 15
MAX_DECIMALS = 10


class NumberFace(FieldFace):
    """What the browser may know of a number."""

    type: Literal["number"] = "number"
    placeholder: Label = ""
    unit: Annotated[str, Setting(max_length=30)] = ""
    decimals: Annotated[int, Setting(ge=0, le=MAX_DECIMALS)] = 0


class NumberField(NumberFace, Field):
    """A number from `minimum` to `maximum`, both included, with at most so many `decimals`."""

    minimum: Decimal | None = None
    maximum: Decimal | None = None


class NumberType(FieldType[NumberField]):
    """Number."""

    name = "number"
    title = "Number"
    family = Family.NUMBERS
    purpose = "A number to count or calculate with, exact to its decimals."
    face = NumberFace
    block = NumberField
    can_be_wrong = True

    def findings(self, block: NumberField) -> list[tuple[str, str, str]]:
        """Limits that no number meets."""
        if block.minimum is not None and block.maximum is not None and block.minimum > block.maximum:
            return [("minimum", "The minimum is more than the maximum.", "Swap the two or empty one of them.")]
        return []

    def value_type(self, block: NumberField) -> Type:
        """A number of bounded digits, or blank."""
        digits = Digits(whole=MAX_WHOLE_DIGITS, decimals=block.decimals)
        if block.minimum is not None and block.maximum is not None:
            greatest = max(abs(block.minimum), abs(block.maximum))
            digits = Digits(whole=min(MAX_WHOLE_DIGITS, Digits.of(greatest).whole), decimals=block.decimals)
        return Type(kind=Kind.NUMBER, may_be_blank=True, digits=digits)

    def parse(self, raw: Any, block: NumberField, region: Region) -> Decimal | None:
        """Return the number of a text in the form's language, or of a JSON number."""
        if isinstance(raw, bool) or not isinstance(raw, str | int | Decimal):
            raise AnswerError("not_a_number", "Enter a number here.")
        value = _read(raw.strip(), region.locale, block.decimals) if isinstance(raw, str) else _fitting(Decimal(raw))
        if value is not None and _decimals(value) > block.decimals:
            raise AnswerError("too_many_decimals", _decimals_message(block.decimals))
        return value

    def check(self, value: Decimal, block: NumberField, region: Region) -> str | None:
        """The minimum and the maximum."""
        if block.minimum is not None and value < block.minimum:
            return f"Enter {_shown(block.minimum, region)} or more."
        if block.maximum is not None and value > block.maximum:
            return f"Enter {_shown(block.maximum, region)} or less."
        return None

    def limits(self, block: NumberField) -> str:
        """The limits in words."""
        least, most = (None if each is None else text_of_number(each) for each in (block.minimum, block.maximum))
        if least is not None and most is not None:
            return f"from {least} to {most}"
        return f"{least} or more" if least is not None else f"{most} or less" if most is not None else ""

    def present(self, value: Decimal, block: NumberField, region: Region, medium: Medium) -> str:
        """The number with its unit for people; plain for programs."""
        if medium is Medium.CSV:
            return text_of_number(value)
        return f"{_shown(value, region)} {block.unit}".strip()

    def dump(self, value: Decimal) -> str:
        """Plain decimal text, so that nothing on the way makes a binary float of it."""
        return text_of_number(value)

    def load(self, stored: str, block: NumberField) -> Decimal:
        """The decimal of that text."""
        return Decimal(stored)

    def answer_schema(self, block: NumberField) -> dict[str, Any]:
        """A string that is a plain decimal."""
        return {"type": "string", "pattern": r"^-?\d+(\.\d+)?$"}

    def sample(self, block: NumberField, random: Random, region: Region) -> str:
        """A number within the limits, small ones more often."""
        least = int(block.minimum or 0)
        most = int(block.maximum) if block.maximum is not None else least + 40
        number = least + min(random.randint(0, max(0, most - least)) for _ in range(3))
        return _shown(Decimal(number), region)


def _shown(value: Decimal, region: Region) -> str:
    return format_decimal(value, locale=region.locale, decimal_quantization=False)


@lru_cache(maxsize=16_384)
def _read(text: str, locale: str, decimals: int) -> Decimal | None:
    if not text:
        return None
    if len(text) > MAX_WHOLE_DIGITS * 3:
        raise AnswerError("too_large", _size_message())
    if text.isascii() and text.isdigit():
        return _fitting(Decimal(text))
    try:
        value = parse_decimal(text.replace("\u2212", "-"), locale=locale, strict=True)
    except NumberFormatError:
        value = Decimal("NaN")
    if not value.is_finite():
        example = format_decimal(Decimal("12.5") if decimals else Decimal(12), locale=locale)
        raise AnswerError("not_a_number", f"Enter a number such as {example}.")
    return _fitting(value)


def _fitting(value: Decimal) -> Decimal:
    if not value.is_finite():
        raise AnswerError("not_a_number", "Enter a number here.")
    if (value and value.adjusted() >= MAX_WHOLE_DIGITS) or value.adjusted() < -40:
        raise AnswerError("too_large", _size_message())
    return value


def _decimals(value: Decimal) -> int:
    exponent = value.normalize().as_tuple().exponent
    return max(0, -exponent) if isinstance(exponent, int) else 0


def _decimals_message(decimals: int) -> str:
    if decimals == 0:
        return "Enter a whole number."
    return f"Enter at most {decimals} decimal{'s' if decimals > 1 else ''}."


def _size_message() -> str:
    return f"Enter a number of at most {MAX_WHOLE_DIGITS} digits."
