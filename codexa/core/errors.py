"""The core's errors; each message says what to do next."""

import traceback
from dataclasses import dataclass

from codexa.core.sentences import Sentence


class CoreError(Exception):
    """The core refused its input."""


# What reading a value that was meant for another field, or for a column as it was, may raise.
UNREADABLE = (ValueError, KeyError, TypeError, ArithmeticError, AttributeError, CoreError)


@dataclass(frozen=True, kw_only=True, slots=True)
class Span:
    """A piece of a formula's text: `start` inclusive, `end` exclusive, both in characters from 0."""

    start: int
    end: int


class FormulaSyntaxError(CoreError):
    """The formula can't be read.

    `message` is for people; `span` is the place in the formula's text, which the editor underlines.
    """

    def __init__(self, message: str, span: Span) -> None:
        super().__init__(message)
        self.message = message
        self.span = span


class AnswerError(CoreError):
    """What a visitor typed can't be this field's value.

    `code` is stable ("not_a_number"); `message` is the sentence shown beside the field.
    """

    def __init__(self, code: str, message: str) -> None:
        super().__init__(message)
        self.code = code
        # Whatever is said here is ours: it can be said in other languages, too.
        self.message = message if isinstance(message, Sentence) else Sentence(message)


@dataclass(frozen=True, kw_only=True, slots=True)
class Problem:
    """One thing that is wrong with a document: `path` is where ("pages.0.blocks.2.minimum")."""

    path: str
    message: str


class DefinitionError(CoreError):
    """The document is no form definition; `problems` lists everything that is wrong, not just the first thing."""

    def __init__(self, problems: list[Problem]) -> None:
        super().__init__("; ".join(f"{problem.path}: {problem.message}" for problem in problems))
        self.problems = problems


def where_it_failed(error: BaseException) -> list[str]:
    """Return the kind of an error and where it arose, without its message.

    Messages of databases, parsers and models quote what they were given: answers, and whoever gave them.
    """
    state = getattr(error, "sqlstate", None)
    lines = [f"{type(error).__module__}.{type(error).__qualname__}{f' ({state})' if state else ''}"]
    lines += [f"{each.filename}:{each.lineno} {each.name}" for each in traceback.extract_tb(error.__traceback__)]
    cause = error.__cause__ or error.__context__
    return lines if cause is None else [*lines, "after", *where_it_failed(cause)]
