"""What the field types that hold text share."""

import unicodedata
from collections.abc import Mapping
from functools import lru_cache
from typing import Annotated, Any, Generic, TypeVar

import re2  # type: ignore[import-untyped]  # the package ships no types
import regex  # type: ignore[import-untyped]  # the package ships no types
from pydantic import AfterValidator, StringConstraints
from pydantic import Field as Setting

from codexa.core.definition.parts import PlainLabel, Question
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import NO_SETTINGS, FieldModel, FieldType, Medium, Region
from codexa.core.formula.types import Kind, Type
from codexa.core.sentences import Sentence

MAX_LENGTH = 10_000  # characters
_PATTERN_MEMORY = 1 << 20  # bytes; a pattern that needs more is refused
_MANY_MARKS = 30  # on one letter; more stand in no language (Unicode Standard Annex 15, "Stream-Safe Text Format")
_TOO_MANY_MARKS = re2.compile(rf"\p{{M}}{{{_MANY_MARKS + 1}}}")
_CHARACTER = regex.compile(r"\X")
Length = Annotated[int, Setting(ge=1, le=MAX_LENGTH)]


# Each may hold as much memory as it was allowed; what was used longest ago is compiled again.
@lru_cache(maxsize=64)
def _compiled(pattern: str) -> Any:
    # google-re2 needs time linear in the text, whatever the pattern.
    options = re2.Options()
    options.max_mem = _PATTERN_MEMORY
    options.log_errors = False
    return re2.compile(pattern, options)


def _pattern(text: str) -> str:
    try:
        if text:
            _compiled(text)
    except re2.error as error:
        raise ValueError(f'"{text[:60]}" is no pattern: {str(error)[:120]}') from None
    return text


Pattern = Annotated[str, StringConstraints(max_length=500), AfterValidator(_pattern)]


class LimitedText(Question):
    """Text of limited length, in characters, that matches a `pattern` (RE2 syntax) as a whole, where there is one."""

    personal: bool = True
    min_length: Length | None = None
    pattern: Pattern = ""
    pattern_message: PlainLabel = ""


LimitedModel = TypeVar("LimitedModel", bound=LimitedText)


def composed(raw: str, most: int) -> str:
    """Return a text in Unicode's composed form without spaces at its ends. Raises AnswerError where it is too long.

    Length and marks are looked at before: what composing takes grows with the square of the marks on one letter.
    """
    text = raw.replace("\x00", "").strip()
    if len(text) > most:
        raise AnswerError(
            "too_long", Sentence("Enter at most {most} characters; these are {count}.", most=most, count=len(text))
        )
    if text.isascii():
        return text
    if len(text) > _MANY_MARKS and _TOO_MANY_MARKS.search(text):
        raise AnswerError("too_many_marks", "One letter has more accents than can be written. Remove some.")
    whole = unicodedata.normalize("NFC", text).strip()
    if len(whole) > most:  # a few letters take more signs composed than they did before
        raise AnswerError(
            "too_long", Sentence("Enter at most {most} characters; these are {count}.", most=most, count=len(whole))
        )
    return whole


class TextFieldType(FieldType[FieldModel], Generic[FieldModel]):
    """A field whose value is one text."""

    def value_type(self, block: FieldModel) -> Type:
        """Text, or blank."""
        return Type(kind=Kind.TEXT, may_be_blank=True)

    def parse(self, raw: Any, block: FieldModel, region: Region) -> str | None:
        """Return the text in Unicode's composed form without spaces at its ends."""
        if not isinstance(raw, str):
            raise AnswerError("not_text", "Enter text here.")
        return composed(raw, MAX_LENGTH) or None

    def present(self, value: str, block: FieldModel, region: Region, medium: Medium) -> str:
        """The text itself."""
        return value

    def dump(self, value: str) -> str:
        """The text itself."""
        return value

    def load(self, stored: str, block: FieldModel) -> str:
        """The text itself."""
        return stored

    def answer_schema(self, block: FieldModel) -> dict[str, Any]:
        """A string."""
        return {"type": "string", "maxLength": MAX_LENGTH}


class LimitedTextType(TextFieldType[LimitedModel], Generic[LimitedModel]):
    """A field whose text has limits; the block has a `max_length` too, which the browser knows."""

    def is_worth_asking(self, block: LimitedModel) -> bool:
        """Where it has limits that the browser does not know; the greatest length it keeps by itself."""
        return bool(block.pattern or block.min_length)

    def findings(self, block: LimitedModel) -> list[tuple[str, str, str]]:
        """Limits that no text meets."""
        most = _most(block)
        if block.min_length is not None and most is not None and block.min_length > most:
            return [("min_length", "The least length is more than the greatest.", "Swap the two or empty one.")]
        return []

    def check(
        self, value: str, block: LimitedModel, region: Region, settings: Mapping[str, Any] = NO_SETTINGS
    ) -> str | None:
        """The length and the pattern."""
        most, least = _most(block), block.min_length
        if most is not None and len(value) > most and (count := characters(value)) > most:
            return Sentence("Enter at most {most} characters; these are {count}.", most=most, count=count)
        if least is not None and (count := characters(value)) < least:
            return Sentence("Enter at least {least} characters; these are {count}.", least=least, count=count)
        if block.pattern and not _compiled(block.pattern).fullmatch(value):
            return block.pattern_message or Sentence("This is not in the form that is wanted here.")
        return None

    def limits(self, block: LimitedModel) -> str:
        """The limits in words."""
        least, most = block.min_length, _most(block)
        words = [f"at least {least} characters"] if least is not None else []
        words += [f"at most {most} characters"] if most is not None else []
        words += [f"in the form {block.pattern}"] if block.pattern else []
        return ", ".join(words)


def characters(text: str) -> int:
    """Return how many characters people see: a letter with its accents or a flag is one (UAX 29, grapheme clusters)."""
    return len(text) if text.isascii() else len(_CHARACTER.findall(text))


def _most(block: LimitedText) -> int | None:
    most: int | None = getattr(block, "max_length", None)
    return most
