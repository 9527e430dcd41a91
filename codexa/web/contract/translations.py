"""A draft's further languages."""

from typing import Annotated, Literal

from pydantic import StringConstraints

from codexa.core.definition.translation import LocaleCode, Translation
from codexa.web.contract.message import Message


class LanguageProgressReply(Message):
    """How far a language is: so many of so many texts; `name` is its own."""

    locale: str
    name: str
    done: int
    all: int


class TextToTranslate(Message):
    """A text that visitors read, in which setting (`what`) of what (`owner`, by id), and what it reads in a language.

    `text` is its translation, "" where there is none, and `of` the words that it was made of. `lost` are values that it
    has not, `unknown` those that mean nothing there; `same` is how the same words are translated elsewhere.
    """

    at: str
    owner: str
    what: str
    source: str
    how: Literal["text", "html", "address"]
    has_words: bool
    text: str
    of: str
    standing: Literal["done", "missing", "changed"]
    lost: list[str]
    unknown: list[str]
    same: str


class TranslationsReply(Message):
    """The languages of a draft, and its texts in the one asked for."""

    languages: list[LanguageProgressReply]
    texts: list[TextToTranslate]


class TranslationFileRequest(Message):
    """A file of translations into a language: its bytes in base64 (RFC 4648)."""

    locale: LocaleCode
    file: Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9+/]*={0,2}$")]


class PassedReply(Message):
    """A line of a file that was passed over, and why."""

    at: str
    reason: str


class FoundTranslationsReply(Message):
    """What a file brings: translations by where they stand, how many of other words than are there, and the rest."""

    texts: dict[str, Translation]
    changed: int
    passed: list[PassedReply]
