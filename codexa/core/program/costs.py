"""What working a form out can cost at most, told before it is published."""

from collections.abc import Iterator
from dataclasses import dataclass

from codexa.core.definition.parts import Field, Repeat, blocks_within
from codexa.core.formula.metering import MOST_STEPS
from codexa.core.program.facts import Formula
from codexa.core.program.places import KindPlace, RepeatPlace
from codexa.core.program.program import Program

MOST_CELLS = 10_000  # answers in the rows of one repeat
_ITEMS_PER_STEP = 32  # of a list that a formula goes over, as metering counts


@dataclass(frozen=True, kw_only=True, slots=True)
class Costly:
    """A repeat that is more than can be worked out: its id, whether no answer could be taken then, and why in words."""

    repeat: str
    stops: bool
    message: str


def costly_repeats(program: Program) -> Iterator[Costly]:
    """Yield repeats whose greatest number of rows is too much."""
    for place in program.repeats.values():
        repeat = place.block
        assert isinstance(repeat, Repeat)
        widest = max((sum(isinstance(b, Field) for b, _ in blocks_within(k.blocks)) for k in repeat.kinds), default=0)
        if widest * repeat.max_rows > MOST_CELLS:
            message = f"{repeat.max_rows} rows of {widest} fields are {widest * repeat.max_rows:,} answers; "
            yield Costly(repeat=repeat.id, stops=True, message=f"{message}at most {MOST_CELLS:,} can be worked out.")
        elif max((_steps(program, place, kind) for kind in place.kinds), default=0) > MOST_STEPS:
            message = f"With {repeat.max_rows} rows this takes too long to work out; what is computed would be a dash."
            yield Costly(repeat=repeat.id, stops=False, message=message)


def _steps(program: Program, place: RepeatPlace, kind: KindPlace) -> int:
    repeat = place.block
    assert isinstance(repeat, Repeat)
    rows = repeat.max_rows if kind.kind.max_rows is None else min(repeat.max_rows, kind.kind.max_rows)
    each = sum(1 + fact.steps for fact in program.facts.values() if fact.spot.kind == kind.kind.id)
    lists = sum(_lists(formula) for formula in program.formulas if formula.kind == kind.kind.id)
    return rows * (each + lists * rows // _ITEMS_PER_STEP)


def _lists(formula: Formula) -> int:
    typed = formula.compiled.typed
    return 0 if typed is None else sum(part.reference is not None and part.type.is_list for part in typed.walk())
