"""From a formula's text to its tree."""

import threading
from dataclasses import dataclass, replace
from decimal import Decimal
from pathlib import Path
from typing import Any

from cachetools import LRUCache, cached
from lark import Lark, Token, Transformer, UnexpectedCharacters, UnexpectedEOF, UnexpectedInput, UnexpectedToken

from codexa.core.errors import FormulaSyntaxError, Span
from codexa.core.formula import tree

MAX_LENGTH = 8_000  # characters
MAX_DEPTH = 100  # levels; the code that is written out nests no deeper than Python's own reader allows
MAX_NUMBER_EXPONENT = 6_000  # the greatest power of ten that arithmetic here can hold is 6144


_MOST_KEPT = 300_000  # characters of the formulas whose trees are kept; a tree takes about a hundred bytes for each


@cached(LRUCache(_MOST_KEPT, getsizeof=lambda found: found.size), key=str, lock=threading.Lock())
def _read(text: str) -> "_Kept":
    return _Kept(tree=_parsed(text), size=len(text) + 1)


@dataclass(frozen=True, slots=True)
class _Kept:
    tree: tree.Tree
    size: int


def forget_trees() -> None:
    """Forget the trees that are kept; for benchmarks."""
    _read.cache_clear()


def parse(text: str) -> tree.Tree:
    """Return the tree of a formula's text (with or without a leading "=").

    Raises FormulaSyntaxError with the place of what can't be read.
    """
    return _read(text).tree


def _parsed(text: str) -> tree.Tree:
    if len(text) > MAX_LENGTH:
        raise FormulaSyntaxError(
            f"This formula has {len(text)} characters; the most is {MAX_LENGTH}. Split it into several figures.",
            Span(start=MAX_LENGTH, end=len(text)),
        )
    try:
        result: tree.Tree = _PARSER.parse(text)  # type: ignore[assignment]  # lark's stubs know no transformer
    except UnexpectedInput as error:
        raise _syntax_error(text, error) from None
    if tree.depth(result) > MAX_DEPTH:
        raise FormulaSyntaxError(
            f"This formula is nested more than {MAX_DEPTH} levels deep. Split it into several figures.",
            Span(start=0, end=len(text)),
        )
    return result


def _syntax_error(text: str, error: UnexpectedInput) -> FormulaSyntaxError:
    if not text.strip().lstrip("="):
        return FormulaSyntaxError("There is no formula here yet.", Span(start=0, end=len(text)))
    at_end = isinstance(error, UnexpectedEOF) or (isinstance(error, UnexpectedToken) and error.token.type == "$END")
    if at_end:
        return FormulaSyntaxError(_unfinished(text), Span(start=max(0, len(text.rstrip()) - 1), end=len(text)))
    start = error.pos_in_stream or 0
    if isinstance(error, UnexpectedCharacters):
        if text[start] == '"':
            return FormulaSyntaxError('This text has no closing ".', Span(start=start, end=len(text)))
        return FormulaSyntaxError(f"The sign {text[start]} has no meaning here.", Span(start=start, end=start + 1))
    word = str(error.token) if isinstance(error, UnexpectedToken) else text[start]
    span = Span(start=start, end=start + len(word))
    if word == ")":
        return FormulaSyntaxError("Something is missing before this ), or it closes nothing.", span)
    return FormulaSyntaxError(f"{word} can't follow here; an operator such as + or & may be missing before it.", span)


def _unfinished(text: str) -> str:
    missing = text.count("(") - text.count(")")
    return "A closing ) is missing." if missing > 0 else "The formula stops in the middle; something must follow."


def _span(items: list[Any]) -> Span:
    # Lark hands no positions to a builder that works while it reads; every token is kept so that the edges are here.
    first, last = items[0], items[-1]
    return Span(
        start=int(first.start_pos or 0) if isinstance(first, Token) else first.span.start,
        end=int(last.end_pos or 0) if isinstance(last, Token) else last.span.end,
    )


class _Builder(Transformer[Token, Any]):
    """Makes our nodes while lark reads: no second walk, and no recursion however deep the text nests."""

    def start(self, items: list[Any]) -> tree.Tree:
        result: tree.Tree = items[-1]
        return result

    def inner(self, items: list[Any]) -> tree.Tree:
        result: tree.Tree = replace(items[1], span=_span(items))
        return result

    def number(self, items: list[Token]) -> tree.Number:
        value = Decimal(str(items[0]))
        if value and abs(value.adjusted()) > MAX_NUMBER_EXPONENT:
            raise FormulaSyntaxError("This number is too large or too small to calculate with.", _span(items))
        return tree.Number(value=value, span=_span(items))

    def text(self, items: list[Token]) -> tree.Text:
        return tree.Text(value=str(items[0])[1:-1].replace('""', '"'), span=_span(items))

    def name(self, items: list[Token]) -> tree.Tree:
        word = str(items[0])
        if word.upper() in ("TRUE", "FALSE"):
            return tree.Boolean(value=word.upper() == "TRUE", span=_span(items))
        return tree.Name(text=word, span=_span(items))

    def unary(self, items: list[Any]) -> tree.Unary:
        return tree.Unary(operator=str(items[0]), operand=items[1], span=_span(items))

    def percent(self, items: list[Any]) -> tree.Percent:
        return tree.Percent(operand=items[0], span=_span(items))

    def binary(self, items: list[Any]) -> tree.Binary:
        return tree.Binary(left=items[0], operator=str(items[1]), right=items[2], span=_span(items))

    def argument(self, items: list[Any]) -> tree.Tree:
        return items[0] if items else tree.Missing()

    def arguments(self, items: list[Any]) -> tuple[tree.Tree, ...]:
        arguments = tuple(item for item in items if not isinstance(item, Token))
        return () if arguments == (tree.Missing(),) else arguments

    def call(self, items: list[Any]) -> tree.Tree:
        function = str(items[0]).upper()
        if function in ("TRUE", "FALSE") and not items[2]:
            return tree.Boolean(value=function == "TRUE", span=_span(items))
        return tree.Call(function=function, arguments=items[2], span=_span(items))


_PARSER = Lark(
    Path(__file__).with_name("grammar.lark").read_text(encoding="utf-8"),
    parser="lalr",
    transformer=_Builder(),
    keep_all_tokens=True,
    maybe_placeholders=False,
)
