"""What a block type is: the one place where everything that is special about it lives."""

from abc import ABC, abstractmethod
from dataclasses import dataclass
from enum import StrEnum
from random import Random
from typing import Any, ClassVar, Generic, TypeVar

from codexa.core.definition.parts import Block, BlockFace, Field
from codexa.core.formula.types import Type

BlockModel = TypeVar("BlockModel", bound=Block)
FieldModel = TypeVar("FieldModel", bound=Field)


class Family(StrEnum):
    """What is asked for; groups the list of blocks to add."""

    WORDS = "Words"
    NUMBERS = "Numbers"
    CHOICES = "Choices"
    PEOPLE = "People and places"
    LAYOUT = "Layout"


class Medium(StrEnum):
    """Where a value is presented."""

    PAGE = "page"  # read by people: in the form's language
    CSV = "csv"  # read by programs: plain decimals, ISO dates, codes


@dataclass(frozen=True, kw_only=True, slots=True)
class Region:
    """How a form's people write: language (a locale such as "en" or "de_AT"), ISO 4217 currency, IANA time zone."""

    locale: str
    currency: str
    time_zone: str


class BlockType(ABC, Generic[BlockModel]):
    """A kind of block. `face` is the model of what a browser may know, `block` of the whole."""

    name: ClassVar[str]
    title: ClassVar[str]
    family: ClassVar[Family]
    purpose: ClassVar[str]
    face: ClassVar[type[BlockFace]]
    block: type[BlockModel]

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

    def blank(self) -> FieldModel:
        """The field with the type's title as its label."""
        return self.block(id="new", type=self.name, key=self.name, label=self.title)

    @abstractmethod
    def value_type(self, block: FieldModel) -> Type:
        """Return the type of its value in formulas."""

    def parse(self, raw: Any, block: FieldModel, region: Region) -> Any:
        """Return the value of what a visitor entered (never blank). Raises AnswerError with a sentence for them."""
        raise NotImplementedError(f"{self.name} takes no answer")

    def check(self, value: Any, block: FieldModel, region: Region) -> str | None:
        """Return what is wrong with a value by the block's limits, as a sentence for the visitor, or None."""
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

    @abstractmethod
    def answer_schema(self, block: FieldModel) -> dict[str, Any]:
        """Return the JSON Schema of what `dump` gives."""

    def sample(self, block: FieldModel, random: Random, region: Region) -> Any:
        """Return a plausible answer as a visitor would enter it, or None for left blank."""
        return None
