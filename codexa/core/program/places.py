"""Places: where the facts of a form's pages, blocks, rows and figures stand among the values of a state."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, NamedTuple

from codexa.core.definition.figures import Figure
from codexa.core.definition.parts import Block, Repeat, RowKind
from codexa.core.fields.field_type import FieldType
from codexa.core.form.form import Page
from codexa.core.formula.scope import Home


class Spot(NamedTuple):
    """A place for one value: in the form's own (`kind` is "") or in each row of a row kind (its id)."""

    kind: str
    slot: int

    @property
    def code(self) -> str:
        """How the program's code names it."""
        return f"{Home.ROW if self.kind else Home.FORM}[{self.slot}]"


ALWAYS, NEVER = Spot("", 0), Spot("", 1)  # the form's first two values are TRUE and FALSE
ROW_ADDRESS, ROW_KIND, FIRST_IN_ROW = 0, 1, 2  # what the first values of a row are


@dataclass(frozen=True, kw_only=True)
class Conditions:
    """Where it stands whether something is shown, required and locked, all that it is part of considered."""

    shown: Spot = ALWAYS
    required: Spot = NEVER
    locked: Spot = NEVER


@dataclass(frozen=True, kw_only=True)
class PagePlace:
    """A page: `at` is whether the path comes past it, `following` the index of the page after it."""

    page: Page
    index: int
    conditions: Conditions
    at: Spot
    following: Spot | None


@dataclass(frozen=True, kw_only=True)
class Place:
    """A block's facts; `settings` are the results of other settings that are formulas, by their name.

    `found` is where it stands which records are offered (see record_facts).
    """

    block: Block
    conditions: Conditions
    field_type: FieldType[Any] | None = None
    value: Spot | None = None
    offered: Spot | None = None
    barred: Spot | None = None
    found: Spot | None = None
    settings: Mapping[str, Spot] = field(default_factory=dict)
    checks: tuple[Spot, ...] = ()
    kind: RowKind | None = None
    repeat: Repeat | None = None

    @cached_property
    def answered(self) -> bool:
        """Whether visitors answer it."""
        return self.field_type is not None and self.field_type.answered

    @cached_property
    def read_back(self) -> bool:
        """Whether its value comes from what was kept of a response; what is locked for ever comes from its default."""
        return self.answered and self.value is not None and self.conditions.locked is not ALWAYS

    def address(self, row: Sequence[Any]) -> str:
        """Return where its answer is: the block's id, in a row "repeat/row/block"."""
        return f"{row[ROW_ADDRESS]}{self.block.id}" if row else self.block.id


@dataclass(frozen=True, kw_only=True)
class KindPlace:
    """A row kind: `rows` is where the list of its rows stands, `places` the blocks of each row."""

    kind: RowKind
    index: int
    conditions: Conditions
    rows: Spot
    places: tuple[Place, ...]
    checks: tuple[Spot, ...]


@dataclass(frozen=True, kw_only=True)
class RepeatPlace(Place):
    """A repeat: `all_rows` is where the rows of all kinds stand in the visitor's order."""

    kinds: tuple[KindPlace, ...] = ()
    all_rows: Spot = ALWAYS

    @cached_property
    def _by_name(self) -> dict[str, KindPlace]:
        return {each.kind.key: each for each in reversed(self.kinds)} | {each.kind.id: each for each in self.kinds}

    def kind_named(self, name: Any) -> KindPlace | None:
        """Return the row kind of that id or key."""
        return self._by_name.get(name) if isinstance(name, str) else None


@dataclass(frozen=True, kw_only=True)
class FigurePlace:
    """A figure and where its value stands."""

    figure: Figure
    value: Spot
