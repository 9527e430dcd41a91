"""What the names in a formula stand for."""

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from typing import Any, Protocol

from codexa.core.formula.types import Type


class Home(StrEnum):
    """Where a value stands while a formula runs; the text of each member is its name in the code written out."""

    FORM = "v"  # the form's values
    ROW = "r"  # the values of the row that the formula is worked out for
    OPTION = "o"  # the option that a filter is worked out for
    CONTEXT = "c"  # the surroundings: who is signed in, what came with the link


@dataclass(frozen=True, kw_only=True, slots=True)
class Reference:
    """What a name stands for.

    `slot` is its place among the values of its `home`; `type` what may stand there. `can_fail` is false where the value
    can never be an error (a visitor's answer), so that it may be fetched before it is needed. `facet` takes a part of
    the value, and is never given a blank.
    """

    slot: int
    type: Type
    can_fail: bool = True
    home: Home = Home.FORM
    facet: Callable[[Any], Any] | None = None


class Scope(Protocol):
    """Finds names; each form, and each kind of row, is one."""

    def find(self, parts: tuple[str, ...]) -> Reference | None:
        """Return what the name stands for, or None where there is no such name."""

    def nearest(self, parts: tuple[str, ...]) -> str | None:
        """Return a name that exists and is written nearly so, for "did you mean"."""
