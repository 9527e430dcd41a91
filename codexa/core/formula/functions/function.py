"""What a function of the formula language is."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Any, Protocol

from codexa.core.errors import Span
from codexa.core.formula import tree
from codexa.core.formula.types import Type


class Role(StrEnum):
    """How the place where a value is used sees it."""

    VALUE = "value"  # as it is, blank included
    NUMBER = "number"  # blank is 0, a choice is its number
    TEXT = "text"  # blank is "", a choice is its code
    CONDITION = "condition"  # blank is no, a number is yes unless 0
    DATE = "date"  # a date; ISO 8601 text is read as one
    NUMBERS = "numbers"  # a number or a list of them
    MEASURES = "measures"  # a number, a date or a time, or a list of them: what has an order and a middle
    CONDITIONS = "conditions"  # yes or no, or a list of them
    VALUES = "values"  # a value or a list of them
    OR_FAILED = "or failed"  # the same, and a failure is a value too
    ROWS = "rows"  # a repeat
    LIST = "list"  # a list of its own; a single value is a list of one


LISTS = frozenset({Role.NUMBERS, Role.MEASURES, Role.CONDITIONS, Role.VALUES, Role.OR_FAILED, Role.LIST})


class Argument(Protocol):
    """A part of a typed formula, as a function that writes its own code sees it."""

    @property
    def node(self) -> tree.Tree:
        """What was written."""

    @property
    def type(self) -> Type:
        """What is known of its value."""

    @property
    def parts(self) -> "Sequence[Argument]":
        """Its operands or arguments."""


@dataclass(frozen=True, slots=True)
class Remark:
    """What is wrong in a call as it is written, at its place in the formula's text; or only doubtful."""

    span: Span
    message: str
    is_doubt: bool = False


class CodeWriter(Protocol):
    """What writes the code of a formula, as a function sees it; see `emit.Emitter`."""

    def emit(self, part: Any, role: Role) -> str:
        """Write a part as the place sees it."""

    def convert(self, code: str, kind: Type, role: Role) -> str:
        """Write the conversion of a value to a role."""

    def or_failed(self, part: Any) -> str:
        """Write a part as a value that a failure stands in."""

    def flat_list(self, parts: Any, role: Role) -> str:
        """Write values and lists as one list."""

    def helper(self, function: object) -> str:
        """Return the name under which the code may use a function or table."""

    def constant(self, value: object) -> str:
        """Return the name of a constant."""

    def constant_in(self, value: bool, role: Role) -> str:
        """Return yes or no as the place sees it."""

    def variable(self) -> str:
        """Return the name of a variable that nothing else has."""


@dataclass(frozen=True, slots=True)
class Parameter:
    """One argument: its name in the documentation and how it is seen."""

    name: str
    role: Role
    optional: bool = False
    repeated: bool = False  # the last one only: any number of further arguments like it


@dataclass(frozen=True, slots=True)
class Example:
    """A formula without names and what it gives, as text; run as a test and printed in the reference."""

    formula: str
    result: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Function:
    """A function: what it takes and gives, what it is for, and either Python to call or code to write out.

    `emit` writes the code itself where arguments are computed only when needed (IF, AND) or where bare operators are
    quicker than a call (SUM). `needs_context` passes the surroundings (today, who is signed in) as first argument.
    With `sees_failures` an argument that failed is handed over as a `Failed`; every other function fails with it.
    `differs` says where an author who knows spreadsheets would be surprised, and `look` what is wrong in a call as it
    is written.
    """

    name: str
    parameters: tuple[Parameter, ...]
    result: Type | Callable[[list[Type]], Type]
    purpose: str
    examples: tuple[Example, ...]
    call: Callable[..., Any] | None = None
    emit: Callable[[CodeWriter, Argument, Role], str] | None = None
    needs_context: bool = False
    sees_failures: bool = False
    differs: str = ""
    look: Callable[[Argument], Iterable[Remark]] | None = None
    # What one call costs in steps (see metering), and how many characters of its texts one step does; 0: too little.
    steps: int = 0
    characters: int = 0

    @property
    def is_metered(self) -> bool:
        """Whether its calls are counted."""
        return self.steps > 0 or self.characters > 0

    @property
    def least(self) -> int:
        """How many arguments there must be."""
        return sum(not parameter.optional for parameter in self.parameters)

    @property
    def most(self) -> int | None:
        """How many arguments there may be; None for any number."""
        return None if self.parameters and self.parameters[-1].repeated else len(self.parameters)

    @property
    def signature(self) -> str:
        """The call as the documentation shows it: "ROUND(number, [decimals])"."""
        words = [f"[{each.name}]" if each.optional else each.name for each in self.parameters]
        return f"{self.name}({', '.join(words)}{', …' if self.most is None else ''})"

    def parameter(self, index: int) -> Parameter:
        """Return the parameter that argument number `index` (from 0) belongs to."""
        return self.parameters[min(index, len(self.parameters) - 1)]


def function(
    name: str,
    parameters: tuple[Parameter, ...],
    result: Type | Callable[[list[Type]], Type],
    purpose: str,
    call: Callable[..., Any],
    *examples: tuple[str, str],
    needs_context: bool = False,
    sees_failures: bool = False,
    steps: int = 0,
    characters: int = 0,
    differs: str = "",
    look: Callable[[Argument], Iterable[Remark]] | None = None,
) -> Function:
    """Return a function that is plain Python; `examples` are pairs of a formula and its result as text."""
    return Function(
        name=name,
        parameters=parameters,
        result=result,
        purpose=purpose,
        examples=tuple(Example(*each) for each in examples),
        call=call,
        needs_context=needs_context,
        sees_failures=sees_failures,
        steps=steps,
        characters=characters,
        differs=differs,
        look=look,
    )
