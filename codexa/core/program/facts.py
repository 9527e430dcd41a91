"""The facts of a form: what is worked out, from what, in which order, and the code that does it."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from graphlib import CycleError, TopologicalSorter
from typing import Any

from codexa.core.context import Context
from codexa.core.definition.parts import FormulaText
from codexa.core.formula.compile import Compiled
from codexa.core.formula.scope import Home
from codexa.core.program.places import Spot
from codexa.core.program.scope import AnyScope, response_number

_PARTS_PER_STEP = 4


@dataclass(frozen=True, kw_only=True)
class Formula:
    """A formula of the form, compiled.

    `owner` is the id of the page, block, row kind, figure or confirmation that has it (or FORM), `setting` where in
    it, `kind` the row kind in whose rows it is worked out.
    """

    owner: str
    setting: str
    mark: FormulaText
    compiled: Compiled
    scope: AnyScope
    kind: str = ""

    @cached_property
    def steps(self) -> int:
        """About how many steps it takes to work out once, lists and texts aside (see metering)."""
        parts = 0 if self.compiled.typed is None else sum(1 for _ in self.compiled.typed.walk())
        return 1 + parts // _PARTS_PER_STEP

    @property
    def needs_number(self) -> bool:
        """Whether it is worked out only once the response has its number."""
        return self.knows(response_number)

    def knows(self, facet: Callable[[Context], Any]) -> bool:
        """Whether it reads this of its surroundings."""
        return any(each.facet is facet for each in self.compiled.reads)

    def reads(self) -> tuple[Spot, ...]:
        """Return the spots that it reads."""
        homes = {Home.FORM: "", Home.ROW: self.kind}
        return tuple(Spot(homes[each.home], each.slot) for each in self.compiled.reads if each.home in homes)


@dataclass(frozen=True, kw_only=True, slots=True)
class Fact:
    """One thing that is true of a form: whose and which, where its value stands, what it reads, and its code.

    `code` works on `v` (the form's values), `c` (the context) and, in a row kind, `r` (a row's values). `steps` is
    about what it costs each time.
    """

    owner: str
    name: str
    spot: Spot
    reads: tuple[Spot, ...]
    code: tuple[str, ...] = ()
    formula: Formula | None = None
    steps: int = 0


def in_order(reads: Mapping[Spot, Sequence[Spot]]) -> tuple[list[Spot], list[list[Spot]]]:
    """Return spots in an order in which each comes after all it reads, and the circles that were in the way.

    `reads` maps every spot to the spots that it reads. A circle is a list of spots, each reading the next; the spots in
    circles come first in the order, as if they read nothing.
    """
    graph = {spot: list(read) for spot, read in reads.items()}
    circles: list[list[Spot]] = []
    while True:
        try:
            return list(TopologicalSorter(graph).static_order()), circles
        except CycleError as error:
            # graphlib names a circle as [a, b, c, a], where b reads a.
            circle = list(reversed(error.args[1][1:]))
            circles.append(circle)
            for spot in circle:
                graph[spot] = []
