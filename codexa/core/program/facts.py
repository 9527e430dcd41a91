"""The facts of a form: what is worked out, from what, in which order."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from graphlib import CycleError, TopologicalSorter

from codexa.core.definition.parts import Block, FormulaText
from codexa.core.formula.compile import Compiled


@dataclass(frozen=True, kw_only=True, slots=True)
class Formula:
    """A formula of a block, compiled: `setting` is the block's setting that holds it, `mark` what it works out."""

    block: Block
    setting: str
    mark: FormulaText
    compiled: Compiled


def in_order(reads: Mapping[int, Sequence[int]]) -> tuple[list[int], list[list[int]]]:
    """Return slots in an order in which each comes after all it reads, and the circles that were in the way.

    `reads` maps every slot to the slots that it reads. A circle is a list of slots, each reading the next; the slots in
    circles come first in the order, as if they read nothing.
    """
    graph = {slot: list(read) for slot, read in reads.items()}
    circles: list[list[int]] = []
    while True:
        try:
            return list(TopologicalSorter(graph).static_order()), circles
        except CycleError as error:
            # graphlib names a circle as [a, b, c, a], where b reads a.
            circle = list(reversed(error.args[1][1:]))
            circles.append(circle)
            for slot in circle:
                graph[slot] = []
