"""The visitor's own page of a response: a private address that only this server can have made."""

import hmac
from dataclasses import dataclass, replace
from uuid import UUID

from codexa.core.program.evaluate import State
from codexa.services.marks import mark_of
from codexa.settings import Settings

_MARK = 40  # signs


@dataclass(frozen=True, kw_only=True, slots=True)
class OwnPages:
    """Makes the private addresses of responses, and knows them again."""

    settings: Settings

    def address(self, form: UUID, number: int) -> str:
        """Return the private address of a response."""
        return f"{self.settings.public_address}/r/{form}/{number}/{self._mark(form, number)}"

    def knows(self, form: UUID, number: int, mark: str) -> bool:
        """Whether a mark is that of the response."""
        return hmac.compare_digest(mark.encode(), self._mark(form, number).encode())

    def known_in(self, state: State, form: UUID, number: int) -> State:
        """Return a state in which texts know the response's own page, where one says it."""
        if not state.program.needs_own_page:
            return state
        return replace(state, context=replace(state.context, own_page=self.address(form, number)))

    def _mark(self, form: UUID, number: int) -> str:
        return mark_of(f"own page {form} {number}", self.settings)[:_MARK]
