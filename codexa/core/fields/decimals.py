"""Decimals: what the field types whose answer is a number share."""

import re
import unicodedata
from abc import abstractmethod
from collections.abc import Mapping
from decimal import Decimal
from functools import lru_cache
from typing import Any, Generic, TypeVar

from babel.numbers import NumberFormatError, get_decimal_symbol, get_group_symbol, parse_decimal

from codexa.core.definition.parts import Number, Question
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import NO_SETTINGS, FieldModel, FieldType, Region
from codexa.core.fields.written import decimal_text
from codexa.core.formula import convert
from codexa.core.formula.convert import text_of_number
from codexa.core.formula.types import Digits, Kind, Type
from codexa.core.sentences import Sentence

MAX_WHOLE_DIGITS = 15
MAX_DECIMALS = 10

_FULL_WIDTH = 0xFEE0  # from U+FF01 to "!"
_UNSEEN = {0x200E: None, 0x200F: None, 0x061C: None}  # marks of direction, which a keyboard may put in
MINUS_SIGNS = frozenset("-\u2010\u2011\u2012\u2013\u2014\u2015\u2212\ufe63\uff0d")
_NO_PART = re.compile(r"^(.*\d)([.,])\s?[-\u2010-\u2015]{1,2}$")
_APOSTROPHES = re.compile(r"['\u2018\u2019\u02bc]")
_SPACE = re.compile(r"(?<=\d)\s(?=\d)")
_SPACED = re.compile(r"^[-+]?\d{1,3}(\s\d{3})+(?!\d)")


class DecimalType(FieldType[FieldModel], Generic[FieldModel]):
    """A field whose value is a decimal number."""

    can_be_wrong = True

    @abstractmethod
    def decimals_of(self, block: FieldModel, region: Region) -> int:
        """Return how many decimals an answer may have."""

    def value_type(self, block: FieldModel) -> Type:
        """A number, or blank."""
        return Type(kind=Kind.NUMBER, may_be_blank=True, digits=Digits(whole=MAX_WHOLE_DIGITS, decimals=MAX_DECIMALS))

    def parse(self, raw: Any, block: FieldModel, region: Region) -> Decimal | None:
        """Return the number of a text in the form's language, or of a JSON number."""
        return number_of(raw, region.locale, self.decimals_of(block, region))

    def adopt(self, value: Any, block: FieldModel, region: Region) -> Decimal | None:
        """Return the number, rounded to the decimals that an answer may have."""
        return _fitting(round(convert.number(value), self.decimals_of(block, region)))

    def from_link(self, text: str, block: FieldModel, region: Region) -> Any:
        """The number of a text with a point; one with more decimals than an answer may have stays as it is."""
        try:
            number = number_of(text, "en", MAX_DECIMALS)
        except AnswerError:
            return text
        return text if number is None else shown(number, region)

    def enter(self, value: Decimal, block: FieldModel, region: Region) -> str:
        """As people of the form's language write it."""
        return shown(value, region)

    def dump(self, value: Decimal) -> str:
        """Plain decimal text, so that nothing on the way makes a binary float of it."""
        return text_of_number(value)

    def load(self, stored: str, block: FieldModel) -> Decimal:
        """The decimal of that text."""
        return Decimal(stored)

    def answer_schema(self, block: FieldModel) -> dict[str, Any]:
        """A string that is a plain decimal."""
        return {"type": "string", "pattern": r"^-?\d+(\.\d+)?$"}


class LimitedQuestion(Question):
    """A question whose answer lies from `minimum` to `maximum`, both included."""

    minimum: Number | None = None
    maximum: Number | None = None


LimitedModel = TypeVar("LimitedModel", bound=LimitedQuestion)


class LimitedType(DecimalType[LimitedModel], Generic[LimitedModel]):
    """A field whose number is typed, between limits."""

    @abstractmethod
    def written(self, value: Decimal, region: Region) -> str:
        """Return a limit as people write it."""

    def findings(self, block: LimitedModel) -> list[tuple[str, str, str]]:
        """Limits that no number meets."""
        return limit_findings(block.minimum, block.maximum)

    def check(
        self, value: Decimal, block: LimitedModel, region: Region, settings: Mapping[str, Any] = NO_SETTINGS
    ) -> str | None:
        """The minimum and the maximum."""
        if block.minimum is not None and value < block.minimum:
            return Sentence("Enter {limit} or more.", limit=self.written(block.minimum, region))
        if block.maximum is not None and value > block.maximum:
            return Sentence("Enter {limit} or less.", limit=self.written(block.maximum, region))
        return None

    def limits(self, block: LimitedModel) -> str:
        """The limits in words."""
        return limits_in_words(block.minimum, block.maximum)


def limits_in_words(minimum: Decimal | int | None, maximum: Decimal | int | None) -> str:
    """Return two limits in words for the margin ("from 1 to 60"), or ""."""
    least, most = (None if each is None else text_of_number(Decimal(each)) for each in (minimum, maximum))
    if least is not None and most is not None:
        return f"from {least} to {most}"
    return f"{least} or more" if least is not None else f"{most} or less" if most is not None else ""


def limit_findings(minimum: Decimal | None, maximum: Decimal | None) -> list[tuple[str, str, str]]:
    """Return what is wrong with two limits."""
    if minimum is not None and maximum is not None and minimum > maximum:
        return [("minimum", "The minimum is more than the maximum.", "Swap the two or empty one of them.")]
    return []


def shown(value: Decimal, region: Region) -> str:
    """Return a number as people of that language write it, with all its decimals."""
    # By its text: 1 and 1.0 are the same number, and are written otherwise.
    return _written(str(value), region.locale)


@lru_cache(maxsize=16_384)
def _written(value: str, locale: str) -> str:
    return decimal_text(Decimal(value), locale)


def number_of(raw: Any, locale: str, decimals: int) -> Decimal | None:
    """Return the number of a text in that language, or of a JSON number. Raises AnswerError."""
    if raw.__class__ is str:
        return read_decimal(raw, locale, decimals)
    if isinstance(raw, bool) or not isinstance(raw, int | Decimal):
        raise AnswerError("not_a_number", "Enter a number here.")
    return _of_decimals(_fitting(Decimal(raw)), decimals)


@lru_cache(maxsize=16_384)
def read_decimal(text: str, locale: str, decimals: int) -> Decimal | None:
    """Return the number of a text as people of that language write it. Raises AnswerError."""
    text = text.strip()
    if not text:
        return None
    if len(text) > MAX_WHOLE_DIGITS * 3:
        raise AnswerError("too_large", _size_message())
    if text.isascii() and text.isdigit():
        return _fitting(Decimal(text))
    try:
        value = parse_decimal(_in_plain_signs(text, locale), locale=locale, strict=True)
    except NumberFormatError:
        example = decimal_text(Decimal("12.5") if decimals else Decimal(12), locale)
        raise AnswerError("not_a_number", Sentence("Enter a number such as {example}.", example=example)) from None
    return _of_decimals(_fitting(value), decimals)


def _in_plain_signs(text: str, locale: str) -> str:
    """Return a number with ASCII digits and that language's own signs, however it was typed. Raises NumberFormatError.

    Digits of any script, any minus, and a space between thousands are read everywhere; an apostrophe between them where
    the language writes one; "1234.-" is a whole amount.
    """
    point, group = get_decimal_symbol(locale), get_group_symbol(locale)
    text = "".join(chr(ord(sign) - _FULL_WIDTH) if "\uff01" <= sign <= "\uff5e" else sign for sign in text)
    text = "".join(str(unicodedata.decimal(sign)) if sign.isdecimal() else sign for sign in text)
    text = text.translate(_UNSEEN).replace("\u066b", point).replace("\u066c", group)
    text = _NO_PART.sub(lambda found: found[1] if found[2] == point else found[0], text)
    if text[:1] in MINUS_SIGNS:
        text = "-" + text[1:].lstrip()
    if _APOSTROPHES.fullmatch(group):
        text = _APOSTROPHES.sub(group, text)
    if _SPACED.match(text):
        text = _SPACE.sub("" if group.strip() else group, text)
    if set(text) - set(f"-+0123456789{point}{group}"):
        raise NumberFormatError(f"{text!r} has signs that no number has.")
    return text


def _of_decimals(value: Decimal, decimals: int) -> Decimal:
    if _decimals(value) > decimals:
        raise AnswerError("too_many_decimals", _decimals_message(decimals))
    return value


def _fitting(value: Decimal) -> Decimal:
    if not value.is_finite():
        raise AnswerError("not_a_number", "Enter a number here.")
    if (value and value.adjusted() >= MAX_WHOLE_DIGITS) or value.adjusted() < -40:
        raise AnswerError("too_large", _size_message())
    return value or abs(value)  # "-0" is 0


def _decimals(value: Decimal) -> int:
    exponent = value.normalize().as_tuple().exponent
    return max(0, -exponent) if isinstance(exponent, int) else 0


def _decimals_message(decimals: int) -> Sentence:
    if decimals == 0:
        return Sentence("Enter a whole number.")
    return Sentence.counted("Enter at most {count} decimal.", "Enter at most {count} decimals.", count=decimals)


def _size_message() -> Sentence:
    return Sentence("Enter a number of at most {count} digits.", count=MAX_WHOLE_DIGITS)
