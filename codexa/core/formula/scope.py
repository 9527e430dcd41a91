"""What the names in a formula stand for."""

from dataclasses import dataclass
from typing import Protocol

from codexa.core.formula.types import Type


@dataclass(frozen=True, kw_only=True, slots=True)
class Reference:
    """What a name stands for.

    `slot` is its place among the values that the compiled function gets; `type` what may stand there. `can_fail` is
    false where the value can never be an error (a visitor's answer), so that it may be fetched before it is needed.
    """

    slot: int
    type: Type
    can_fail: bool = True


class Scope(Protocol):
    """Finds names; each form, and each kind of row, is one."""

    def find(self, parts: tuple[str, ...]) -> Reference | None:
        """Return what the name stands for, or None where there is no such name."""

    def nearest(self, parts: tuple[str, ...]) -> str | None:
        """Return a name that exists and is written nearly so, for "did you mean"."""
