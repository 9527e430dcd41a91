"""Where values stand: a spot for each, in the form's values or in the rows of a kind."""

from dataclasses import dataclass
from typing import Any

from codexa.core.program.places import FIRST_IN_ROW, Spot


@dataclass(frozen=True, kw_only=True, slots=True)
class OrderSpots:
    """Where the parts of an order stand: its lines, discounts, shipping, and all of it with the total."""

    lines: Spot
    discounts: Spot
    shipping: Spot
    total: Spot


class Spots:
    """Hands out spots. The form's first two values are TRUE and FALSE.

    `values` are the spots of fields, repeats and figures by id; `rows` where rows stand: of a repeat all of them, of a
    row kind its own.
    """

    def __init__(self) -> None:
        self.initial: list[Any] = [True, False]
        self.row_sizes: dict[str, int] = {}
        self.values: dict[str, Spot] = {}
        self.rows: dict[str, Spot] = {}

    def new(self, kind: str = "", initial: Any = None) -> Spot:
        """Return a new spot in the form's values or in the rows of a kind."""
        if not kind:
            self.initial.append(initial)
            return Spot("", len(self.initial) - 1)
        self.row_sizes[kind] += 1
        return Spot(kind, self.row_sizes[kind] - 1)

    def add_rows(self, kind: str) -> None:
        """Make room for the rows of a kind."""
        self.rows[kind] = self.new(initial=())
        self.row_sizes[kind] = FIRST_IN_ROW
