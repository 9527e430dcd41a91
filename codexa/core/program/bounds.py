"""Between which numbers a formula's result lies, as far as the limits of fields and the formula's own shape tell."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Any

from codexa.core.definition.figures import CounterFigure, ScoredQuestion, ScoreFigure
from codexa.core.definition.parts import Field, Question
from codexa.core.fields.opinions import PickedType
from codexa.core.fields.options import Optioned
from codexa.core.fields.several_choices import SeveralChoicesField
from codexa.core.formula import tree
from codexa.core.formula.check import Typed
from codexa.core.formula.types import NUMBERS, Kind
from codexa.core.formula.values import HUNDREDTH, ONE, ZERO
from codexa.core.program.facts import Formula
from codexa.core.program.figure_kinds import most_picks
from codexa.core.program.figures import marker
from codexa.core.program.places import ALWAYS, Place
from codexa.core.program.program import Program

_MOST_LEVELS = 12  # of figures that read figures


@dataclass(frozen=True, kw_only=True, slots=True)
class Range:
    """From the least to the greatest, both included; None where there is no such end, or none is known."""

    least: Decimal | None = None
    greatest: Decimal | None = None


_ANY = Range()
_COUNT = Range(least=ZERO)


def range_of(program: Program, formula: Formula) -> Range:
    """Return the range of a formula's results; a field that must be answered counts as answered."""
    return _Ranges(program).of_formula(formula, 0)


def range_of_figure(program: Program, figure: str) -> Range:
    """Return the range of a figure's value, by the figure's id; of bands and profiles none is known."""
    return _Ranges(program).of_figure(program.figures[figure].figure, 0)


class _Ranges:
    def __init__(self, program: Program) -> None:
        self.program = program

    def of_formula(self, formula: Formula | None, level: int) -> Range:
        if formula is None or formula.compiled.typed is None or level > _MOST_LEVELS:
            return _ANY
        return self._of(formula.compiled.typed, formula, level)

    def _of(self, part: Typed, formula: Formula, level: int) -> Range:
        def each(parts: Iterable[Typed]) -> list[Range]:
            return [self._of(inner, formula, level) for inner in parts]

        match part.node:
            case tree.Number(value=value):
                return Range(least=value, greatest=value)
            case tree.Name():
                return self._of_name(part, formula, level)
            case tree.Percent():
                return _times(each(part.parts)[0], Range(least=HUNDREDTH, greatest=HUNDREDTH))
            case tree.Unary(operator=sign):
                inner = each(part.parts)[0]
                return _negated(inner) if sign == "-" else inner
            case tree.Binary(operator=operator) if operator in _OPERATORS:
                return _OPERATORS[operator](*each(part.parts))
            case tree.Call(function=function) if function in _CALLS:
                return _CALLS[function](each(part.parts))
            case tree.Call(function=function) if function in _BRANCHES:
                return _either(each(_BRANCHES[function](part.parts)))
        return _ANY

    def _of_name(self, part: Typed, formula: Formula, level: int) -> Range:
        assert isinstance(part.node, tree.Name)
        entry = formula.scope.entry(part.node.parts)
        if entry is None or len(part.node.parts) > 1:
            return _ANY
        place, figure = self.program.places.get(entry.owner), self.program.figures.get(entry.owner)
        if figure is not None:
            return self.of_figure(figure.figure, level)
        if place is None:
            return _ANY
        if not place.answered:
            return self.of_formula(self.program.formula(entry.owner, "formula"), level + 1)
        found = _of_answer(place)
        return found if is_answered(place) else _either([found, Range(least=ZERO, greatest=ZERO)])

    def of_figure(self, figure: Any, level: int) -> Range:
        if isinstance(figure, ScoreFigure):
            return _sum([self._of_question(question) for question in figure.questions])
        if isinstance(figure, CounterFigure):
            return Range(
                least=figure.start + sum((min(each.by, ZERO) for each in figure.counts), ZERO),
                greatest=figure.start + sum((max(each.by, ZERO) for each in figure.counts), ZERO),
            )
        return (
            self.of_formula(self.program.formula(figure.id, "formula"), level + 1)
            if not hasattr(figure, "bands")
            else _ANY
        )

    def _of_question(self, question: ScoredQuestion) -> Range:
        place = self.program.places.get(question.field)
        most = most_picks(place.block) if place is not None and isinstance(place.block, Field) else 1
        losses = sorted(min(points, ZERO) for points in question.points.values())
        least = ZERO if question.right else sum(losses[:most], ZERO)
        return Range(least=least, greatest=marker(question, most)(None).greatest)


def is_answered(place: Place) -> bool:
    """Say whether a form is handed in only with an answer to it."""
    block = place.block
    required = isinstance(block, Question) and block.required.strip().upper() == "TRUE"
    return required and place.conditions.shown is ALWAYS


def _of_answer(place: Place) -> Range:
    block: Any = place.block
    assert place.field_type is not None
    kind = place.field_type.value_type(block).kind
    if isinstance(place.field_type, PickedType):
        least, most, _ = place.field_type.bounds(block)
        return Range(least=least, greatest=most)
    if isinstance(block, Optioned) and kind in (Kind.CHOICE, Kind.CHOICES):
        counts = [option.counts_as for option in block.options] + ([ZERO] if block.other else [])
        if isinstance(block, SeveralChoicesField) or kind is Kind.CHOICES:
            return Range(
                least=sum((min(each, ZERO) for each in counts), ZERO),
                greatest=sum((max(each, ZERO) for each in counts), ZERO),
            )
        return Range(least=min(counts, default=ZERO), greatest=max(counts, default=ZERO))
    if kind in NUMBERS:
        return Range(least=getattr(block, "minimum", None), greatest=getattr(block, "maximum", None))
    return Range(least=ZERO, greatest=ONE) if kind is Kind.YES_NO else _ANY


def _negated(inner: Range) -> Range:
    return Range(
        least=None if inner.greatest is None else -inner.greatest,
        greatest=None if inner.least is None else -inner.least,
    )


def _plus(left: Range, right: Range) -> Range:
    return Range(
        least=None if left.least is None or right.least is None else left.least + right.least,
        greatest=None if left.greatest is None or right.greatest is None else left.greatest + right.greatest,
    )


def _times(left: Range, right: Range) -> Range:
    ends = (left.least, left.greatest, right.least, right.greatest)
    if None not in ends:
        products = [one * other for one in ends[:2] for other in ends[2:] if one is not None and other is not None]
        return Range(least=min(products), greatest=max(products))
    above = all(each.least is not None and each.least >= 0 for each in (left, right))
    return Range(least=(left.least or ZERO) * (right.least or ZERO)) if above else _ANY


def _through(left: Range, right: Range) -> Range:
    if right.least is not None and right.least == right.greatest and right.least > 0:
        part = ONE / right.least
        return _times(left, Range(least=part, greatest=part))
    above = left.least is not None and left.least >= 0 and right.least is not None and right.least >= 0
    return _COUNT if above else _ANY


def _either(ranges: Sequence[Range]) -> Range:
    leasts, greatests = [each.least for each in ranges], [each.greatest for each in ranges]
    return Range(
        least=None if None in leasts or not leasts else min(each for each in leasts if each is not None),
        greatest=None if None in greatests or not greatests else max(each for each in greatests if each is not None),
    )


def _sum(ranges: list[Range]) -> Range:
    total = Range(least=ZERO, greatest=ZERO)
    for each in ranges:
        total = _plus(total, each)
    return total


def _greatest(ranges: list[Range]) -> Range:
    known = [each.least for each in ranges if each.least is not None]
    return Range(least=max(known, default=None), greatest=_either(ranges).greatest)


def _smallest(ranges: list[Range]) -> Range:
    return _negated(_greatest([_negated(each) for each in ranges]))


def _rounded(ranges: list[Range]) -> Range:
    inner = ranges[0]
    return Range(least=ZERO if inner.least is not None and inner.least >= 0 else None)


_COUNTING = ("ABS", "COUNT", "COUNTA", "COUNTBLANK", "COUNTIF", "COUNTIFS", "LEN", "ROWCOUNT", "WORDS")
_ROUNDING = ("ROUND", "ROUNDUP", "ROUNDDOWN", "TRUNC", "INT", "CEILING", "FLOOR", "MROUND")
_OPERATORS: dict[str, Callable[[Range, Range], Range]] = {
    "+": _plus,
    "-": lambda left, right: _plus(left, _negated(right)),
    "*": _times,
    "/": _through,
}
_CALLS: dict[str, Callable[[list[Range]], Range]] = {
    "SUM": _sum,
    "MAX": _greatest,
    "MIN": _smallest,
    **dict.fromkeys(_COUNTING, lambda _: _COUNT),
    **dict.fromkeys(_ROUNDING, _rounded),
}
# Of which of its arguments the result is one.
_BRANCHES: dict[str, Callable[[Sequence[Typed]], Sequence[Typed]]] = {
    "IF": lambda parts: parts[1:] if len(parts) > 2 else (),
    "IFS": lambda parts: parts[1::2],
    "CHOOSE": lambda parts: parts[1:],
    "IFERROR": lambda parts: parts,
    "SWITCH": lambda parts: [*parts[2::2], *(parts[-1:] if len(parts) % 2 == 0 else ())],
}
