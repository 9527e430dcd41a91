"""Whether a condition can hold and can fail, decided by trying every answer that could make a difference.

Decided for conditions over yes/no, choice and number fields, scores, bands and profiles that compare them with a
constant, and for one comparison of a linear term; for all others the answer is "unknown".
"""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from enum import Enum
from typing import Any

from codexa.core.formula import convert, tree
from codexa.core.formula.check import Typed
from codexa.core.formula.types import NUMBERS, Kind
from codexa.core.formula.values import Choices
from codexa.core.program.candidates import Path, Variable, combinations_of, variables_of
from codexa.core.program.facts import Formula
from codexa.core.program.program import Program

_MOST_TRIES = 4_000
_COMPARED = frozenset({"=", "<>", "<", "<=", ">", ">="})
_ORDERED = frozenset({"<", "<=", ">", ">="})


class Decided(Enum):
    """What is known of a condition."""

    NEVER = "never"  # holds for no answers
    ALWAYS = "always"  # holds for all answers
    BOTH = "both"  # holds for some and fails for some
    UNKNOWN = "unknown"


def decide(program: Program, formula: Formula) -> Decided:
    """Return whether a condition holds for some answers and fails for some."""
    typed = formula.compiled.typed
    if typed is None or formula.compiled.findings or not (_is_linear_comparison(typed) or _is_decidable(typed)):
        return Decided.UNKNOWN
    variables = variables_of(program, [formula], handed_in=False)
    combinations = None if variables is None else combinations_of(variables, _MOST_TRIES)
    if combinations is None:
        return Decided.UNKNOWN
    results = set()
    for given in combinations:
        results.add(_value(typed, given) is True)
        if len(results) == 2:
            return Decided.BOTH
    return Decided.ALWAYS if results == {True} else Decided.NEVER


class UndecidedError(Exception):
    """Trying every answer that could make a difference can't tell."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Tried:
    """What conditions read, by name, and of every combination of values which of them hold."""

    variables: dict[Path, Variable]
    outcomes: Sequence[tuple[dict[Path, Any], tuple[bool, ...]]]

    def find(self, wanted: Callable[[Sequence[bool]], bool]) -> dict[str, Any] | None:
        """Return values, by the ids of what has them, for which they hold as is wanted; None where there are none."""
        for given, held in self.outcomes:
            if wanted(held):
                return {self.variables[path].owner: value for path, value in given.items()}
        return None

    def told(self, owner: str, value: Any) -> str:
        """Return a value of what has that id, in words."""
        return next(each for each in self.variables.values() if each.owner == owner).tell(value)


def try_all(program: Program, formulas: Sequence[Formula], *, handed_in: bool) -> Tried:
    """Try conditions with every combination of values that could make a difference.

    With `handed_in` what must be answered is answered. Raises UndecidedError.
    """
    for formula in formulas:
        typed = formula.compiled.typed
        if typed is None or formula.compiled.findings or formula.kind or not _is_decidable(typed):
            raise UndecidedError
    variables = variables_of(program, formulas, handed_in=handed_in)
    combinations = None if variables is None else combinations_of(variables, _MOST_TRIES)
    if variables is None or combinations is None:
        raise UndecidedError
    conditions = [each.compiled.typed for each in formulas if each.compiled.typed is not None]
    outcomes = [(given, tuple(_value(each, given) is True for each in conditions)) for given in combinations]
    return Tried(variables=variables, outcomes=outcomes)


def _value(part: Typed, given: dict[Path, Any]) -> Any:
    """Return the value of the few kinds of nodes that are decided, as the general conversions see it.

    Compiling each condition once more would take longer than all that is tried.
    """
    node = part.node
    if isinstance(node, tree.Name):
        return given[node.parts]
    if isinstance(node, tree.Number | tree.Text | tree.Boolean):
        return node.value
    values = [_value(each, given) for each in part.parts]
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
    return part.type.kind in NUMBERS | {Kind.YES_NO, Kind.CHOICE, Kind.CHOICES, Kind.TEXT} and not part.type.is_list


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
