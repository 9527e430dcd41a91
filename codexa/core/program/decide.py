"""Whether a condition can hold and can fail, decided by trying every answer that could make a difference.

Decided for conditions over yes/no, choice and number fields that compare a field with a constant, and for one
comparison of a linear term; for all others the answer is "unknown".
"""

import itertools
import math
from collections.abc import Callable, Iterable, Iterator, Sequence
from decimal import Decimal
from enum import Enum
from typing import Any

from codexa.core.definition.parts import Question
from codexa.core.fields.decimals import MAX_WHOLE_DIGITS
from codexa.core.fields.opinions import PickedType
from codexa.core.fields.options import OTHER, Optioned, choice_of
from codexa.core.fields.several_choices import SeveralChoicesField
from codexa.core.formula import convert, tree
from codexa.core.formula.check import Typed
from codexa.core.formula.scope import Home
from codexa.core.formula.types import NUMBERS, Kind
from codexa.core.formula.values import Choice, Choices
from codexa.core.program.facts import Formula
from codexa.core.program.places import Place, Spot
from codexa.core.program.program import Program

_MOST_TRIES = 4_000
_MOST_SETS = 10  # options of which all sets are tried
_COMPARED = frozenset({"=", "<>", "<", "<=", ">", ">="})
_ORDERED = frozenset({"<", "<=", ">", ">="})
_FAR = Decimal(10) ** MAX_WHOLE_DIGITS


class Decided(Enum):
    """What is known of a condition."""

    NEVER = "never"  # holds for no answers
    ALWAYS = "always"  # holds for all answers
    BOTH = "both"  # holds for some and fails for some
    UNKNOWN = "unknown"


def decide(program: Program, formula: Formula) -> Decided:
    """Return whether a condition holds for some answers and fails for some."""
    typed = formula.compiled.typed
    if typed is None or formula.compiled.findings:
        return Decided.UNKNOWN
    linear = _is_linear_comparison(typed)
    if not (linear or _is_decidable(typed)):
        return Decided.UNKNOWN
    places = _places_read(program, formula)
    if places is None:
        return Decided.UNKNOWN
    constants = [node.value * sign for node, sign in _numbers_in(typed.node)]
    candidates = [list(_candidates(place, [] if linear else constants)) for place in places.values()]
    if math.prod(map(len, candidates)) > _MOST_TRIES:
        return Decided.UNKNOWN
    return _tried(formula, list(places), candidates)


class UndecidedError(Exception):
    """Trying every answer that could make a difference can't tell."""


def find_answers(
    program: Program, formulas: Sequence[Formula], wanted: Callable[[Sequence[bool]], bool]
) -> dict[str, Any] | None:
    """Return answers, by the fields' ids, for which such conditions hold as is wanted; None where there are none.

    Raises UndecidedError.
    """
    places: dict[Spot, Place] = {}
    constants: list[Decimal] = []
    for formula in formulas:
        typed = formula.compiled.typed
        known = _places_read(program, formula)
        if typed is None or formula.compiled.findings or formula.kind or known is None or not _is_decidable(typed):
            raise UndecidedError
        places |= known
        constants += [node.value * sign for node, sign in _numbers_in(typed.node)]
    candidates = [list(_candidates(place, constants)) for place in places.values()]
    if math.prod(map(len, candidates)) > _MOST_TRIES:
        raise UndecidedError
    at = {(spot.kind, spot.slot): index for index, spot in enumerate(places)}
    for combination in itertools.product(*candidates):
        held = [_value(each.compiled.typed, "", at, combination) is True for each in formulas if each.compiled.typed]
        if wanted(held):
            return {place.block.id: value for place, value in zip(places.values(), combination, strict=True)}
    return None


def _tried(formula: Formula, spots: list[Spot], candidates: list[list[Any]]) -> Decided:
    assert formula.compiled.typed is not None
    places = {(spot.kind, spot.slot): index for index, spot in enumerate(spots)}
    results = set()
    for combination in itertools.product(*candidates):
        results.add(_value(formula.compiled.typed, formula.kind, places, combination) is True)
        if len(results) == 2:
            return Decided.BOTH
    return Decided.ALWAYS if results == {True} else Decided.NEVER


def _value(part: Typed, kind: str, places: dict[tuple[str, int], int], given: tuple[Any, ...]) -> Any:
    """Return the value of the few kinds of nodes that are decided, as the general conversions see it.

    Compiling each condition once more would take longer than all that is tried.
    """
    node = part.node
    if isinstance(node, tree.Name):
        assert part.reference is not None
        return given[places["" if part.reference.home is Home.FORM else kind, part.reference.slot]]
    if isinstance(node, tree.Number | tree.Text | tree.Boolean):
        return node.value
    values = [_value(each, kind, places, given) for each in part.parts]
    if isinstance(node, tree.Unary):
        return -convert.number(values[0]) if node.operator == "-" else convert.number(values[0])
    if isinstance(node, tree.Binary):
        return _OPERATORS[node.operator](*values)
    assert isinstance(node, tree.Call)
    return _CALLS[node.function](values)


_OPERATORS: dict[str, Callable[[Any, Any], Any]] = {
    "=": convert.equal,
    "<>": lambda left, right: not convert.equal(left, right),
    "<": convert.less,
    "<=": convert.not_more,
    ">": lambda left, right: convert.less(right, left),
    ">=": lambda left, right: convert.not_more(right, left),
    "+": lambda left, right: convert.number(left) + convert.number(right),
    "-": lambda left, right: convert.number(left) - convert.number(right),
    "*": lambda left, right: convert.number(left) * convert.number(right),
}
_CALLS: dict[str, Callable[[list[Any]], Any]] = {
    "AND": lambda values: all(map(convert.condition, values)),
    "OR": lambda values: any(map(convert.condition, values)),
    "NOT": lambda values: not convert.condition(values[0]),
    "XOR": lambda values: sum(map(convert.condition, values)) % 2 == 1,
    "IF": lambda values: values[1] if convert.condition(values[0]) else values[2] if len(values) > 2 else False,
    "ISBLANK": lambda values: values[0] is None,
    "HAS": lambda values: values[1].casefold() in {each.casefold() for each in _codes(values[0])},
}


def _codes(value: Any) -> Iterable[str]:
    return () if value is None else value if isinstance(value, Choices) else (value,)


def _places_read(program: Program, formula: Formula) -> dict[Spot, Place] | None:
    by_spot = _places_by_spot(program)
    spots = formula.reads()
    if len(spots) < len(formula.compiled.reads) or any(each.facet for each in formula.compiled.reads):
        return None
    places = {spot: by_spot.get(spot) for spot in spots}
    known = {spot: place for spot, place in places.items() if place and _can_be_tried(place)}
    return known if len(known) == len(places) else None


def _places_by_spot(program: Program) -> dict[Spot, Place]:
    memory: dict[Spot, Place] = program.__dict__.setdefault("_places_by_spot", {})
    if not memory:
        memory |= {place.value: place for place in program.places.values() if place.value is not None}
    return memory


def _can_be_tried(place: Place) -> bool:
    block = place.block
    if not isinstance(block, Question) or place.field_type is None:
        return False
    if isinstance(block, SeveralChoicesField):
        return len(block.options) <= _MOST_SETS
    is_choice = place.field_type.value_type(block).kind in (Kind.CHOICE, Kind.CHOICES)
    return isinstance(block, Optioned) or not is_choice


def _is_decidable(part: Typed) -> bool:
    node = part.node
    match node:
        case tree.Boolean():
            return True
        case tree.Name():
            return part.type.kind is Kind.YES_NO
        case tree.Call(function="AND" | "OR" | "NOT" | "XOR" | "IF"):
            return all(map(_is_decidable, part.parts))
        case tree.Call(function="ISBLANK"):
            return isinstance(part.parts[0].node, tree.Name) and _has_candidates(part.parts[0])
        case tree.Call(function="HAS"):
            return isinstance(part.parts[0].node, tree.Name) and isinstance(part.parts[1].node, tree.Text)
        case tree.Binary(operator=operator) if operator in _COMPARED:
            left, right = part.parts
            return (_is_constant(left) and (_is_constant(right) or _is_named(right))) or (
                _is_named(left) and _is_constant(right)
            )
    return False


def _is_named(part: Typed) -> bool:
    return isinstance(part.node, tree.Name) and _has_candidates(part)


def _has_candidates(part: Typed) -> bool:
    return part.type.kind in NUMBERS | {Kind.YES_NO, Kind.CHOICE, Kind.CHOICES} and not part.type.is_list


def _is_constant(part: Typed) -> bool:
    node = part.node.operand if isinstance(part.node, tree.Unary) else part.node
    return isinstance(node, tree.Number | tree.Text | tree.Boolean)


def _is_linear_comparison(part: Typed) -> bool:
    node = part.node
    if not isinstance(node, tree.Binary) or node.operator not in _ORDERED:
        return False
    return all(map(_is_linear, part.parts)) and any(isinstance(each.node, tree.Binary) for each in part.parts)


def _is_linear(part: Typed) -> bool:
    match part.node:
        case tree.Name():
            return part.type.kind in NUMBERS
        case tree.Number():
            return True
        case tree.Unary():
            return _is_linear(part.parts[0])
        case tree.Binary(operator="+" | "-"):
            return all(map(_is_linear, part.parts))
        case tree.Binary(operator="*"):
            return all(map(_is_linear, part.parts)) and any(isinstance(each.node, tree.Number) for each in part.parts)
    return False


def _numbers_in(node: tree.Tree, sign: int = 1) -> Iterator[tuple[tree.Number, int]]:
    if isinstance(node, tree.Number):
        yield node, sign
    turned = -sign if isinstance(node, tree.Unary) and node.operator == "-" else sign
    for child in tree.children(node):
        yield from _numbers_in(child, turned)


def _candidates(place: Place, constants: list[Decimal]) -> Iterator[Any]:
    block = place.block
    yield None
    assert place.field_type is not None
    match place.field_type.value_type(block).kind:
        case Kind.YES_NO:
            yield from (True, False)
        case Kind.CHOICE | Kind.CHOICES if isinstance(block, Optioned):
            yield from _choices(block)
        case Kind.NUMBER | Kind.MONEY:
            yield from _numbers(place, constants)


def _choices(block: Optioned) -> Iterator[Any]:
    choices = [choice_of(option) for option in block.options] + ([Choice(OTHER)] if block.other else [])
    if not isinstance(block, SeveralChoicesField):
        yield from choices
        return
    for count in range(1, len(choices) + 1):
        yield from map(Choices, itertools.combinations(choices, count))


def _numbers(place: Place, constants: list[Decimal]) -> Iterator[Decimal]:
    assert place.field_type is not None
    block: Any = place.block
    if isinstance(place.field_type, PickedType):
        least, most, step = place.field_type.bounds(block)
        start = least
    else:
        limits = [getattr(block, name, None) for name in ("minimum", "maximum")]
        least, most = (far if limit is None else limit for limit, far in zip(limits, (-_FAR, _FAR), strict=True))
        digits = place.field_type.value_type(block).digits
        start, step = Decimal(0), Decimal(1).scaleb(-(digits.decimals if digits else 10))
    # Around each constant those that can be entered, so that none between two constants is passed over.
    below = (start + (each - start) // step * step for each in constants if least <= each <= most)
    near = {each + step * shift for each in below for shift in (-1, 0, 1, 2)}
    yield from sorted({least, most} | {each for each in near if least <= each <= most})
