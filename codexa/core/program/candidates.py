"""The values that could make a difference to a condition: of the fields, scores, bands and profiles that it reads."""

import itertools
import math
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Any

from codexa.core.definition.figures import BandsFigure, CounterFigure, ProfileFigure, ScoredQuestion, ScoreFigure
from codexa.core.definition.parts import Field, Question
from codexa.core.fields.decimals import MAX_WHOLE_DIGITS
from codexa.core.fields.field_type import Medium
from codexa.core.fields.opinions import PickedType
from codexa.core.fields.options import OTHER, Optioned, choice_of
from codexa.core.fields.several_choices import SeveralChoicesField
from codexa.core.formula import tree
from codexa.core.formula.types import NUMBERS, Kind
from codexa.core.formula.values import ZERO, Choice, Choices
from codexa.core.program.bounds import is_answered
from codexa.core.program.facts import Formula
from codexa.core.program.figure_kinds import most_picks
from codexa.core.program.places import Place
from codexa.core.program.program import Program
from codexa.core.program.scope import presenter

_MOST_SETS = 10  # options of which all sets are tried
_MOST_SUMS = 2_000  # of the points of a score
_FAR = Decimal(10) ** MAX_WHOLE_DIGITS
Path = tuple[str, ...]


@dataclass(frozen=True, kw_only=True, slots=True)
class Variable:
    """What a condition reads: whose it is (an id), its values that matter, and how they are told.

    `hangs` says that its values hang on others, so that they can't be tried freely beside these.
    """

    owner: str
    values: tuple[Any, ...]
    tell: Callable[[Any], str]
    hangs: bool = False


def variables_of(program: Program, formulas: Sequence[Formula], *, handed_in: bool) -> dict[Path, Variable] | None:
    """Return what such conditions read, by name; None where one of them can't be tried.

    With `handed_in` a field that must be answered is never blank.
    """
    names = names_read(formulas)
    constants = numbers_in(formulas)
    found: dict[Path, Variable] = {}
    for path in names:
        variable = _variable(program, formulas[0], path, constants, handed_in=handed_in)
        if variable is None:
            return None
        found[path] = variable
    if len(found) > 1 and any(each.hangs for each in found.values()):
        return None
    return found


def names_read(formulas: Iterable[Formula]) -> set[Path]:
    """Return the names that stand in formulas."""
    return {node.parts for formula in formulas for node in _names(formula)}


def _names(formula: Formula) -> Iterator[tree.Name]:
    typed = formula.compiled.typed
    nodes = tree.walk(typed.node) if typed is not None else iter(())
    return (node for node in nodes if isinstance(node, tree.Name))


def numbers_in(formulas: Iterable[Formula]) -> list[Decimal]:
    """Return the numbers that stand in formulas, with their sign."""
    return [value for formula in formulas for value in _numbers_in(formula)]


def texts_in(formulas: Iterable[Formula]) -> list[str]:
    """Return the texts that stand in formulas, each once."""
    typed = (each.compiled.typed for each in formulas)
    nodes = (node for each in typed if each is not None for node in tree.walk(each.node))
    return list(dict.fromkeys(node.value for node in nodes if isinstance(node, tree.Text)))


def values_that_matter(place: Place, constants: list[Decimal]) -> list[Any]:
    """Return the values of a field that could make a difference beside such numbers; none where they can't be told."""
    return list(_candidates(place, constants)) if _can_be_tried(place) else []


def _numbers_in(formula: Formula) -> Iterator[Decimal]:
    def walk(node: tree.Tree, sign: int) -> Iterator[Decimal]:
        if isinstance(node, tree.Number):
            yield node.value * sign
        turned = -sign if isinstance(node, tree.Unary) and node.operator == "-" else sign
        for child in tree.children(node):
            yield from walk(child, turned)

    return walk(formula.compiled.typed.node, 1) if formula.compiled.typed is not None else iter(())


def _variable(
    program: Program, formula: Formula, path: Path, constants: list[Decimal], *, handed_in: bool
) -> Variable | None:
    entry = formula.scope.entry(path)
    if entry is None:
        return None
    figure = program.figures.get(entry.owner)
    if figure is not None:
        values = _of_figure(program, figure.figure, path)
        tell = presenter(program.region)
        return Variable(owner=entry.owner, values=values, tell=tell, hangs=True) if values else None
    place = program.places.get(entry.owner)
    if place is None or len(path) > 1 or not _can_be_tried(place):
        return None
    blank = () if handed_in and is_answered(place) else (None,)
    return Variable(
        owner=entry.owner,
        values=(*blank, *_candidates(place, constants)),
        tell=lambda value: _told(program, place, value),
    )


def _told(program: Program, place: Place, value: Any) -> str:
    assert place.field_type is not None
    return "blank" if value is None else place.field_type.present(value, place.block, program.region, Medium.PAGE)


def _of_figure(program: Program, figure: Any, path: Path) -> tuple[Any, ...] | None:
    """Return all that a part of a figure can be; None where that can't be told."""
    if isinstance(figure, ScoreFigure) and len(path) == 1:
        return _sums([_points(program, question) for question in figure.questions])
    if isinstance(figure, CounterFigure):
        return _sums([(figure.start,), *((ZERO, each.by) for each in figure.counts)])
    if isinstance(figure, ProfileFigure) and len(path) == 1:
        return (*(profile.code for profile in figure.profiles), *([None] if figure.tie == "none" else []))
    if isinstance(figure, BandsFigure) and path[1:] == ("label",):
        return tuple(dict.fromkeys(band.label for band in figure.bands))
    return None


def _points(program: Program, question: ScoredQuestion) -> tuple[Decimal, ...]:
    """Return what answers to a question can be worth, a blank one too."""
    if question.right:
        return (ZERO, question.worth)
    place = program.places.get(question.field)
    most = most_picks(place.block) if place is not None and isinstance(place.block, Field) else 1
    points = list(question.points.values())
    if most == 1:
        return (ZERO, *points)
    counts = range(min(len(points), most or len(points), _MOST_SETS) + 1)
    return tuple(sum(each, ZERO) for count in counts for each in itertools.combinations(points[:_MOST_SETS], count))


def _sums(choices: Iterable[Sequence[Decimal]]) -> tuple[Decimal, ...] | None:
    sums = {ZERO}
    for each in choices:
        sums = {total + value for total in sums for value in each}
        if len(sums) > _MOST_SUMS:
            return None
    return tuple(sorted(sums))


def _can_be_tried(place: Place) -> bool:
    block = place.block
    if not isinstance(block, Question) or place.field_type is None:
        return False
    if isinstance(block, SeveralChoicesField):
        return len(block.options) <= _MOST_SETS
    kind = place.field_type.value_type(block).kind
    return isinstance(block, Optioned) if kind in (Kind.CHOICE, Kind.CHOICES) else kind in (Kind.YES_NO, *NUMBERS)


def _candidates(place: Place, constants: list[Decimal]) -> Iterator[Any]:
    block = place.block
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


def combinations_of(variables: dict[Path, Variable], most: int) -> Iterator[dict[Path, Any]] | None:
    """Return every combination of values, by name; None where there are more than `most`."""
    if math.prod(len(each.values) for each in variables.values()) > most:
        return None
    products = itertools.product(*(each.values for each in variables.values()))
    return (dict(zip(variables, values, strict=True)) for values in products)
