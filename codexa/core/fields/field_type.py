"""What a block type is: the one place where everything that is special about it lives."""

import datetime
from abc import ABC, abstractmethod
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from random import Random
from types import MappingProxyType
from typing import Any, ClassVar, Generic, Literal, TypeVar, cast

from babel import Locale, UnknownLocaleError
from babel.core import get_global

from codexa.core.definition.parts import Block, BlockFace, Field
from codexa.core.errors import AnswerError
from codexa.core.fields.sample_people import Person
from codexa.core.formula import convert
from codexa.core.formula.types import Type
from codexa.core.formula.values import FormulaFailure

NO_SETTINGS: Mapping[str, Any] = MappingProxyType({})

BlockModel = TypeVar("BlockModel", bound=Block)
FieldModel = TypeVar("FieldModel", bound=Field)


class Family(StrEnum):
    """What is asked for; groups the list of blocks to add."""

    WORDS = "Words"
    NUMBERS = "Numbers"
    MONEY = "Money"
    DATES = "Dates"
    CHOICES = "Choices"
    OPINIONS = "Opinions"
    PEOPLE = "People and places"
    FILES = "Files"
    LAYOUT = "Layout"


class Medium(StrEnum):
    """Where a value is presented."""

    PAGE = "page"  # read by people: in the form's language
    CSV = "csv"  # read by programs: plain decimals, ISO dates, codes


Weekday = Literal[0, 1, 2, 3, 4, 5, 6]  # from Sunday


@dataclass(frozen=True, kw_only=True, slots=True)
class Region:
    """How a form's people write: language (a locale such as "en" or "de_AT"), ISO 4217 currency, IANA time zone."""

    locale: str
    currency: str
    time_zone: str

    @property
    def country(self) -> str:
        """The country where the form is at home (ISO 3166-1): of its language, else of its time zone."""
        return Locale.parse(self.locale).territory or _country_of_zone(self.time_zone)

    @property
    def first_weekday(self) -> Weekday:
        """The day with which weeks begin in that country (Unicode CLDR): 0 is Sunday, as in browsers."""
        try:
            first = Locale.parse(f"und_{self.country}").first_week_day
        except UnknownLocaleError:
            first = 0  # somewhere that has no language of its own, such as Antarctica
        return cast(Weekday, (first + 1) % 7)


@cache
def _country_of_zone(time_zone: str) -> str:
    return str(get_global("zone_territories").get(time_zone, "GB"))


@dataclass(frozen=True, slots=True)
class Facet:
    """A part of a field's value that formulas can name after a dot: its type, and how to take it from the value."""

    type: Type
    take: Callable[[Any], Any]


@dataclass(frozen=True, kw_only=True, slots=True)
class Sampling:
    """What a sample is made with: chance, who fills in, how people write, and this moment in the form's time zone."""

    random: Random
    person: Person
    region: Region
    now: datetime.datetime


class BlockType(ABC, Generic[BlockModel]):
    """A kind of block. `face` is the model of what a browser may know, `block` of the whole."""

    name: ClassVar[str]
    title: ClassVar[str]
    family: ClassVar[Family]
    purpose: ClassVar[str]
    face: ClassVar[type[BlockFace]]
    block: type[BlockModel]
    # Whether visitors see it at all; a hidden field is not even known to their browser.
    visible: ClassVar[bool] = True

    @abstractmethod
    def blank(self) -> BlockModel:
        """Return the block as it is when it was just added; id and key are placeholders."""

    def findings(self, block: BlockModel) -> list[tuple[str, str, str]]:
        """Return what is wrong in the block's own settings: (setting, message, remedy)."""
        return []


class FieldType(BlockType[FieldModel]):
    """A kind of field."""

    # Whether a visitor answers it; a calculated field has a value and no answer.
    answered: ClassVar[bool] = True
    # Whether an answer can be wrong in itself, so that leaving the field is worth asking the core.
    can_be_wrong: ClassVar[bool] = False
    # Whether a link can bring an answer; what is made of several parts or of files it can't.
    linkable: ClassVar[bool] = True

    def blank(self) -> FieldModel:
        """The field with the type's title as its label."""
        return self.block(id="new", type=self.name, key=self.name, label=self.title)

    def is_worth_asking(self, block: FieldModel) -> bool:
        """Say whether an answer to this block can be wrong in a way that only the core sees."""
        return self.can_be_wrong

    @abstractmethod
    def value_type(self, block: FieldModel) -> Type:
        """Return the type of its value in formulas."""

    def parse(self, raw: Any, block: FieldModel, region: Region) -> Any:
        """Return the value of what a visitor entered (never blank). Raises AnswerError with a sentence for them."""
        raise NotImplementedError(f"{self.name} takes no answer")

    def adopt(self, value: Any, block: FieldModel, region: Region) -> Any:
        """Return the field's value for a formula's result (never blank). Raises AnswerError where it is none."""
        return self.parse(convert.text(value), block, region)

    def from_link(self, text: str, block: FieldModel, region: Region) -> Any:
        """Return the answer, as a visitor would enter it, for a value as links have it; what is none as it stands.

        Links are written for all languages: numbers with a point, dates as in ISO 8601, options by code or label.
        """
        try:
            value = self.adopt(text, block, region)
        except (AnswerError, FormulaFailure):
            return text
        return text if value is None else self.enter(value, block, region)

    def spoken(self, words: str, block: FieldModel, region: Region) -> Any:
        """Return the answer, as a visitor would enter it, that these words give in a conversation (never blank).

        Raises AnswerError where they mean none.
        """
        return words

    def enter(self, value: Any, block: FieldModel, region: Region) -> Any:
        """Return the answer that a visitor would have entered for this value, as JSON."""
        return self.dump(value)

    def check(
        self, value: Any, block: FieldModel, region: Region, settings: Mapping[str, Any] = NO_SETTINGS
    ) -> str | None:
        """Return what is wrong with a value by the block's limits, as a sentence for the visitor, or None.

        `settings` are the results of the block's settings that are formulas, by their name.
        """
        return None

    def facets(self, block: FieldModel) -> dict[str, Facet]:
        """Return the parts of the value that formulas can name."""
        return {}

    def complete(self, value: Any, block: FieldModel) -> str | None:
        """Return what is missing in a value that must be there in full, as a sentence, or None."""
        return None

    def limits(self, block: FieldModel) -> str:
        """Return the limits in words for the margin ("from 1 to 60"), or ""."""
        return ""

    @abstractmethod
    def present(self, value: Any, block: FieldModel, region: Region, medium: Medium) -> str:
        """Return a value (never blank) as text for a medium."""

    @abstractmethod
    def dump(self, value: Any) -> Any:
        """Return a value (never blank) as JSON, exactly."""

    @abstractmethod
    def load(self, stored: Any, block: FieldModel) -> Any:
        """Return the value that `dump` gave, read with the block of its edition."""

    def present_kept(self, stored: Any, block: FieldModel, region: Region, medium: Medium) -> str:
        """Return what `dump` gave as text for a medium: where the value itself takes long to make, without it."""
        return self.present(self.load(stored, block), block, region, medium)

    @abstractmethod
    def answer_schema(self, block: FieldModel) -> dict[str, Any]:
        """Return the JSON Schema of what `dump` gives."""

    def sample(self, block: FieldModel, how: Sampling) -> Any:
        """Return a plausible answer as a visitor would enter it, or None for left blank."""
        return None
