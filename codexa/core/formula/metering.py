"""Counts what working a form out costs, and stops with an error value where it is too much.

A step is about a microsecond of one processor. Most of what formulas do costs far less than its share in the formula's
own text and is not counted; what grows with lists, with rows and with long texts is.
"""

import threading
from collections.abc import Callable
from typing import Any, TypeVar

from codexa.core.formula.values import ErrorCode, ErrorValue, Failed, fail

MOST_STEPS = 60_000
_TOO_MUCH = "This takes more steps than a form may take. Use fewer rows, or shorter lists and texts."
TOO_MUCH = Failed(ErrorValue(code=ErrorCode.NUMBER, message=_TOO_MUCH))
LONG = 1_024  # characters; shorter texts cost next to nothing
MAX_TEXT = 50_000  # characters; a longer result is an error, so that a formula can't exhaust memory
_MANY = 60  # items; so do shorter lists


_Value = TypeVar("_Value")


class _Meter(threading.local):
    left: int = MOST_STEPS


_meter = _Meter()


def begin(most: int = MOST_STEPS) -> None:
    """Let what follows in this thread take as many steps as may be."""
    _meter.left = most


def spend(steps: int) -> None:
    """Count steps; raises FormulaFailure where there are too many."""
    _meter.left -= steps
    if _meter.left < 0:
        fail(ErrorCode.NUMBER, _TOO_MUCH)


def afford(steps: int) -> bool:
    """Count steps and say whether they may be taken."""
    _meter.left -= steps
    return _meter.left >= 0


def folded(text: str) -> str:
    """Return a text as comparisons see it: in no case of letters."""
    if len(text) > LONG:
        spend(len(text) >> 8)
    return text.casefold()


def counted(values: list[Any]) -> list[Any]:
    """Count what going over a list costs, and return it."""
    if len(values) > _MANY:
        spend(len(values) >> 5)
    return values


def bounded(text: _Value) -> _Value:
    """Return a text that is not too long, or a value that is none; raises FormulaFailure."""
    if isinstance(text, str) and len(text) > MAX_TEXT:
        fail(ErrorCode.VALUE, f"This text would be longer than {MAX_TEXT} characters.")
    return text


def metered(call: Callable[..., Any], steps: int, characters: int) -> Callable[..., Any]:
    """Return a function that counts what it costs: `steps` each time, and one for so many `characters` of a long text.

    What it does with lists is counted where they are handed over.
    """

    def run(*arguments: Any) -> Any:
        spend(steps)
        return call(*arguments)

    def run_on_texts(text: Any, *further: Any) -> Any:
        if len(text) > LONG:
            spend(len(text) // characters)
            return bounded(call(text, *further))
        for each in further:
            if each.__class__ is str and len(each) > LONG:
                spend(len(each) // characters)
        return call(text, *further)

    return run_on_texts if characters else run
