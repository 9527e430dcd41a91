"""Calculated: a value that a formula works out and no visitor can change."""

import datetime
from decimal import Decimal
from typing import Annotated, Any, Literal

from babel.dates import format_date
from babel.numbers import format_currency, format_decimal, get_currency_precision
from pydantic import Field as Setting

from codexa.core.definition.parts import ComputedBy, Field, FieldFace
from codexa.core.fields.field_type import Family, FieldType, Medium, Region
from codexa.core.formula import convert
from codexa.core.formula.types import ANY, Kind, Type
from codexa.core.formula.values import ARITHMETIC, Choice


class CalculatedFace(FieldFace):
    """What the browser may know of a calculated field; its value comes with the state."""

    type: Literal["calculated"] = "calculated"


class CalculatedField(CalculatedFace, Field):
    """The result of `formula`, shown as a number, money in the form's currency, text or a date.

    Money is rounded to the currency's minor unit (ISO 4217) where it is worked out; a number is shown with so many
    `decimals`, and kept exactly.
    """

    formula: ComputedBy = ""
    format: Literal["number", "money", "text", "date"] = "number"
    decimals: Annotated[int, Setting(ge=0, le=10)] = 0


_KINDS = {"number": Kind.NUMBER, "money": Kind.MONEY, "text": Kind.TEXT, "date": Kind.DATE}


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
        """The kind of its format; blank where the formula gives a blank."""
        return Type(kind=_KINDS.get(block.format, ANY.kind), may_be_blank=True)

    def settle(self, value: Any, block: CalculatedField, region: Region) -> Any:
        """Return a formula's result as the value of this field: of its format's kind, money to the minor unit.

        Raises FormulaFailure where the result is of another kind.
        """
        match block.format:
            case "money":
                return _to_minor_unit(convert.number(value), region.currency)
            case "number":
                return convert.number(value)
            case "date":
                return convert.date(value)
        return value.label if isinstance(value, Choice) else convert.text(value)

    def present(self, value: Any, block: CalculatedField, region: Region, medium: Medium) -> str:
        """In the form's language for people; plain for programs."""
        if medium is Medium.CSV:
            return _plain_money(value, region) if block.format == "money" else convert.text(value)
        if isinstance(value, Decimal) and block.format == "money":
            return format_currency(value, region.currency, locale=region.locale)
        if isinstance(value, Decimal):
            digits = "0" * block.decimals
            return format_decimal(value, format=f"#,##0.{digits}" if digits else "#,##0", locale=region.locale)
        if isinstance(value, datetime.date):
            return format_date(value, format="long", locale=region.locale)
        return str(value)

    def dump(self, value: Any) -> str:
        """Plain decimal text, ISO date or the text."""
        return convert.text(value)

    def load(self, stored: str, block: CalculatedField) -> Any:
        """The value of that text."""
        if block.format in ("number", "money"):
            return Decimal(stored)
        return datetime.date.fromisoformat(stored) if block.format == "date" else stored

    def answer_schema(self, block: CalculatedField) -> dict[str, Any]:
        """A string."""
        return {"type": "string"}


def _to_minor_unit(value: Decimal, currency: str) -> Decimal:
    return value.quantize(Decimal(1).scaleb(-get_currency_precision(currency)), context=ARITHMETIC)


def _plain_money(value: Decimal, region: Region) -> str:
    return format(_to_minor_unit(value, region.currency), "f")
