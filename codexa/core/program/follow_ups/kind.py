"""What a kind of follow-up is: one module each."""

from abc import ABC, abstractmethod
from collections.abc import Iterator
from typing import Any, ClassVar, Generic, TypeVar

from codexa.core.form.follow_ups import FollowUp
from codexa.core.program.evaluate import State
from codexa.core.program.findings import Finding
from codexa.core.program.program import Program

Model = TypeVar("Model", bound=FollowUp)


class FollowUpKind(ABC, Generic[Model]):
    """A kind of follow-up: what it does with a response, and what it needs from the form."""

    kind_name: ClassVar[str]
    title: ClassVar[str]

    @abstractmethod
    def content(self, state: State, follow_up: Model) -> dict[str, Any] | None:
        """Return what is to be done as JSON; None where there is nobody to do it for."""

    @abstractmethod
    def told(self, content: dict[str, Any]) -> str:
        """Return that in one line."""

    @abstractmethod
    def findings(self, program: Program, follow_up: Model) -> Iterator[Finding]:
        """Yield what it lacks."""


def holds(state: State, owner: str, setting: str) -> bool:
    """Say whether a condition of a follow-up holds; where there is none it does."""
    formula = state.program.formula(owner, setting)
    return formula is None or formula.compiled.run(state.values, state.context) is True
