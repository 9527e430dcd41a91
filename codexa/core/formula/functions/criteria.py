"""What an item must be to be counted, added or found (OpenFormula 4.11.8): `">=5"`, `"<>x"`, `"a*"`, or a value.

A text criterion may begin with a comparison. What follows is compared as what it can be: `"=5"` finds the number 5 and
the text "5", `"2026-03-05"` a date, `"TRUE"` yes. `*` stands for any text, `?` for one character, and `~` before one of
the three for itself; upper and lower case are the same. Items of another kind are passed over.
"""

import datetime
import operator
import re
from collections.abc import Callable
from decimal import Decimal
from functools import lru_cache
from typing import Any

import re2  # type: ignore[import-untyped]  # the package ships no types

from codexa.core.formula import convert
from codexa.core.formula.columns import Column
from codexa.core.formula.metering import folded, spend
from codexa.core.formula.values import Choice, Choices, ErrorCode, compared, fail

Fits = list[bool]
Sieve = Callable[[list[Any]], Fits]

_WRITTEN = re.compile(r"(<=|>=|<>|<|>|=)?(.*)", re.DOTALL)
_DATE = re.compile(r"\d{4}-\d\d-\d\d", re.ASCII)
_TIME = re.compile(r"\d\d:\d\d(:\d\d)?", re.ASCII)
_USUAL = 60  # characters of a criterion that is worth remembering
_MOST_WILD = 255  # characters of a text with wildcards
_WILD = re.compile(r"~[*?~]|[*?]")
_YES_NO = {"true": True, "false": False}
_COMPARISONS: dict[str, Callable[[Any, Any], bool]] = {
    "<": operator.lt,
    "<=": operator.le,
    ">": operator.gt,
    ">=": operator.ge,
}


def fitting(items: list[Any], criterion: Any) -> Fits:
    """Return for each item whether it meets the criterion. Raises FormulaFailure where that takes too many steps."""
    if criterion.__class__ is str and len(criterion) <= _USUAL:
        sign, value, sieve = _read_before(criterion)
    else:
        sign, value = _read(criterion)
        sieve = None
    if sign == "=" and isinstance(items, Column):
        places = items.positions(value) if _is_one_kind(value) else None
        if places is not None:
            fits = [False] * len(items)
            for place in places:
                fits[place] = True
            return fits
    spend(len(items) >> 2)
    return (sieve or _sieve(sign, value))(items)


@lru_cache(maxsize=512)
def _read_before(criterion: str) -> tuple[str, Any, Sieve]:
    sign, value = _read(criterion)
    return sign, value, _sieve(sign, value)


def matching(value: Any) -> Sieve:
    """Return what finds items equal to a value, a text with wildcards among them; never those of another kind."""
    if is_wild(value):
        return _pattern(value)
    if value.__class__ is Decimal:
        return _equal_number(value)
    if isinstance(value, str) and value and not isinstance(value, Choice):
        return _equal_text(value)
    return lambda items: [convert.equal(item, value) for item in items]


def is_wild(value: Any) -> bool:
    """Say whether a value is a text with wildcards."""
    return _is_text(value) and ("*" in value or "?" in value or "~" in value)


def _is_text(value: Any) -> bool:
    return isinstance(value, str) and not isinstance(value, Choice)


def _read(criterion: Any) -> tuple[str, Any]:
    if not _is_text(criterion):
        return "=", criterion
    match = _WRITTEN.fullmatch(criterion)
    assert match is not None
    return match[1] or "=", match[2].strip() if match[1] else match[2]


def _is_one_kind(value: Any) -> bool:
    """Say whether only items of the value's own kind can be equal to it, which an index knows."""
    return not _is_text(value) or not (is_wild(value) or _meaning(value) is not None)


def _meaning(text: str) -> Any:
    """Return what else than itself a criterion's text can be: a number, a date, a time, yes or no; None for nothing."""
    number = convert.plain_number(text)
    if number is not None:
        return compared(number)
    try:
        if _DATE.fullmatch(text):
            return datetime.date.fromisoformat(text)
        if _TIME.fullmatch(text):
            return datetime.time.fromisoformat(text)
    except ValueError:
        return None
    return _YES_NO.get(text.casefold())


def _sieve(sign: str, value: Any) -> Sieve:
    if sign == "<>":
        among = _equal(value)
        return lambda items: [not fit for fit in among(items)]
    return _equal(value) if sign == "=" else _ordered(_COMPARISONS[sign], value)


def _equal(value: Any) -> Sieve:
    meaning = _meaning(value) if _is_text(value) else None
    as_itself = matching(value)
    if meaning is None:
        return as_itself
    as_meant = matching(meaning)
    return lambda items: list(map(operator.or_, as_itself(items), as_meant(items)))


def _equal_number(value: Decimal) -> Sieve:
    wanted = compared(value)
    return lambda items: [
        compared(item) == wanted
        if item.__class__ is Decimal
        else isinstance(item, Choice | Choices) and compared(item.counts) == wanted
        for item in items
    ]


def _equal_text(value: str) -> Sieve:
    wanted = folded(value)
    return lambda items: [
        folded(item) == wanted if isinstance(item, str) else isinstance(item, Choices) and convert.equal(item, value)
        for item in items
    ]


@lru_cache(maxsize=512)
def _compiled(text: str) -> Any:
    pieces, end = [], 0
    for wild in _WILD.finditer(text):
        pieces += [re2.escape(text[end : wild.start()]), _piece(wild[0])]
        end = wild.end()
    return re2.compile("(?s)" + "".join(pieces) + re2.escape(text[end:]))


def _pattern(text: str) -> Sieve:
    if len(text) > _MOST_WILD:
        fail(ErrorCode.VALUE, f"A text with * or ? to look for has at most {_MOST_WILD} characters.")
    pattern = _compiled(text.casefold())

    def sift(items: list[Any]) -> Fits:
        spend(sum(len(item) for item in items if isinstance(item, str)) >> 3)
        return [isinstance(item, str) and pattern.fullmatch(folded(item)) is not None for item in items]

    return sift


def _piece(wild: str) -> str:
    return {"*": ".*", "?": "."}.get(wild) or re2.escape(wild[1])


def _ordered(compare: Callable[[Any, Any], bool], value: Any) -> Sieve:
    """Return what finds items that stand so to a criterion's text, or to what it means."""
    meaning = _meaning(value)
    if isinstance(meaning, Decimal):
        return lambda items: [
            compare(compared(item), meaning)
            if item.__class__ is Decimal
            else isinstance(item, Choice | Choices) and compare(compared(item.counts), meaning)
            for item in items
        ]
    wanted = folded(value) if meaning is None else meaning
    return lambda items: [_in_order(compare, item, wanted) for item in items]


def _in_order(compare: Callable[[Any, Any], bool], item: Any, wanted: Any) -> bool:
    if isinstance(wanted, str):
        return bool(wanted) and isinstance(item, str) and compare(folded(item), wanted)
    if not convert.have_order(item, wanted):
        return False
    # -1, 0 or 1: a moment and a date have an order too, which Python's own comparison does not know.
    return compare(convert.less(wanted, item) - convert.less(item, wanted), 0)
