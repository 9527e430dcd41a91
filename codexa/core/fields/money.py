"""Money: an amount in the form's currency."""

from decimal import Decimal
from functools import cache
from typing import Any, Literal

from babel.numbers import get_currency_symbol

from codexa.core.definition.parts import FieldFace, PlainLabel
from codexa.core.fields.decimals import (
    MAX_DECIMALS,
    MAX_WHOLE_DIGITS,
    MINUS_SIGNS,
    LimitedQuestion,
    LimitedType,
    shown,
)
from codexa.core.fields.field_type import Family, Medium, Region, Sampling
from codexa.core.fields.formatted import minor_digits
from codexa.core.fields.written import currency_text
from codexa.core.formula.convert import text_of_number
from codexa.core.formula.types import Digits, Kind, Type


class MoneyFace(FieldFace):
    """What the browser may know of an amount."""

    type: Literal["money"] = "money"
    placeholder: PlainLabel = ""


class MoneyField(MoneyFace, LimitedQuestion):
    """An amount from `minimum` to `maximum`, both included, exact to the currency's minor unit (ISO 4217)."""


class MoneyType(LimitedType[MoneyField]):
    """Money."""

    name = "money"
    title = "Money"
    family = Family.NUMBERS
    purpose = "An amount in the form's currency, exact to its smallest coin."
    face = MoneyFace
    block = MoneyField

    def decimals_of(self, block: MoneyField, region: Region) -> int:
        """Those of the currency."""
        return minor_digits(region.currency)

    def value_type(self, block: MoneyField) -> Type:
        """Money of bounded digits, or blank."""
        digits = Digits(whole=MAX_WHOLE_DIGITS, decimals=MAX_DECIMALS)
        return Type(kind=Kind.MONEY, may_be_blank=True, digits=digits)

    def parse(self, raw: Any, block: MoneyField, region: Region) -> Decimal | None:
        """Return the amount; the currency's sign or code may stand beside it."""
        if isinstance(raw, str):
            raw = raw.strip()
            minus, amount = ("-", raw[1:]) if raw[:1] in MINUS_SIGNS else ("", raw)
            for sign in _signs(region.currency, region.locale):
                amount = amount.strip().removeprefix(sign).removesuffix(sign)
            raw = minus + amount.strip()
        return super().parse(raw, block, region)

    def written(self, value: Decimal, region: Region) -> str:
        """With the currency."""
        return currency_text(value, region.currency, region.locale)

    def present(self, value: Decimal, block: MoneyField, region: Region, medium: Medium) -> str:
        """With the currency for people; plain for programs."""
        return text_of_number(value) if medium is Medium.CSV else self.written(value, region)

    def sample(self, block: MoneyField, how: Sampling) -> str:
        """An amount within the limits."""
        least = int(block.minimum or 0)
        most = int(block.maximum) if block.maximum is not None else least + 500
        return shown(Decimal(how.random.randint(least, max(least, most))), how.region)


@cache
def _signs(currency: str, locale: str) -> tuple[str, str]:
    return get_currency_symbol(currency, locale=locale), currency
