"""What the field types with a value of several parts share."""

from abc import abstractmethod
from collections.abc import Callable
from typing import Any, Generic

from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Facet, FieldModel, FieldType, Medium, Region
from codexa.core.fields.text_value import composed
from codexa.core.formula.types import Kind, Type
from codexa.core.formula.values import Composite
from codexa.core.sentences import Sentence

MAX_PART = 300  # characters


class CompositeType(FieldType[FieldModel], Generic[FieldModel]):
    """A field whose value is a text of several named parts."""

    can_be_wrong = True

    @abstractmethod
    def wanted(self, block: FieldModel) -> dict[str, bool]:
        """Return the parts in order, and whether each must be there once one is."""

    @abstractmethod
    def missing(self, part: str) -> Sentence:
        """Return the sentence that asks for a missing part."""

    @abstractmethod
    def whole(self, parts: dict[str, str]) -> str:
        """Return the parts as one text."""

    def value_type(self, block: FieldModel) -> Type:
        """Text, or blank."""
        return Type(kind=Kind.TEXT, may_be_blank=True)

    def facets(self, block: FieldModel) -> dict[str, Facet]:
        """Each of the parts."""
        text = Type(kind=Kind.TEXT, may_be_blank=True)
        return {part: Facet(text, _taking(part)) for part in self.wanted(block)}

    def parse(self, raw: Any, block: FieldModel, region: Region) -> Composite | None:
        """Return the value of an object of texts; a single text is its first part."""
        wanted = self.wanted(block)
        if isinstance(raw, str):
            raw = self.split(raw, block)
        if not isinstance(raw, dict) or not set(raw) <= set(wanted):
            raise AnswerError("not_parts", "Fill in the boxes.")
        parts = {name: _cleaned(raw.get(name)) for name in wanted}
        given = {name: text for name, text in parts.items() if text}
        if not given:
            return None
        for name, needed in wanted.items():
            if needed and name not in given:
                raise AnswerError("part_missing", self.missing(name))
        return Composite(self.whole(given), given)

    def split(self, text: str, block: FieldModel) -> dict[str, str]:
        """Return the parts of one text: its last word is the last part that must be there, where there are several."""
        names = [name for name, needed in self.wanted(block).items() if needed]
        words = text.split()
        if len(names) < 2 or len(words) < 2:
            return {names[0]: text}
        return {names[0]: " ".join(words[:-1]), names[-1]: words[-1]}

    def present(self, value: Composite, block: FieldModel, region: Region, medium: Medium) -> str:
        """The whole."""
        return str(value)

    def dump(self, value: Composite) -> dict[str, str]:
        """The parts."""
        return dict(value.parts)

    def load(self, stored: dict[str, str], block: FieldModel) -> Composite:
        """The value of these parts."""
        return Composite(self.whole(stored), stored)

    def present_kept(self, stored: dict[str, str], block: FieldModel, region: Region, medium: Medium) -> str:
        """The whole."""
        return self.whole(stored)

    def answer_schema(self, block: FieldModel) -> dict[str, Any]:
        """An object of texts."""
        return {
            "type": "object",
            "properties": {name: {"type": "string"} for name in self.wanted(block)},
            "required": [name for name, needed in self.wanted(block).items() if needed],
            "additionalProperties": False,
        }


def _taking(part: str) -> Callable[[Any], Any]:
    return lambda value: value.parts.get(part)


def _cleaned(raw: Any) -> str:
    if raw is None:
        return ""
    if not isinstance(raw, str):
        raise AnswerError("not_text", "Enter text here.")
    return composed(raw, MAX_PART)
