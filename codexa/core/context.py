"""What a form can know beside its answers; passed in, so that the same input always gives the same state."""

import datetime
from collections.abc import Mapping
from dataclasses import dataclass, field, replace


@dataclass(frozen=True, kw_only=True, slots=True)
class Context:
    """The surroundings of one evaluation.

    `now` is aware, in the form's time zone; `locale` the form's language; `visitor` who is signed in ("email", "name"),
    with the names of their `groups`; `link` what came with the address; `number` the response's own number,
    known only once it is saved.
    """

    now: datetime.datetime
    locale: str = "en"
    visitor: Mapping[str, str] = field(default_factory=dict)
    groups: frozenset[str] = frozenset()
    link: Mapping[str, str] = field(default_factory=dict)
    number: int | None = None

    @property
    def today(self) -> datetime.date:
        """The date where the form is at home."""
        return self.now.date()

    def with_number(self, number: int) -> "Context":
        """Return the same surroundings once the response is saved under that number."""
        return replace(self, number=number)
