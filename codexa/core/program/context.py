"""What a form can know beside its answers; passed in, so that the same input always gives the same state."""

import datetime
from dataclasses import dataclass


@dataclass(frozen=True, kw_only=True, slots=True)
class Context:
    """The surroundings of one evaluation: `now` is aware, in the form's time zone."""

    now: datetime.datetime

    @property
    def today(self) -> datetime.date:
        """The date where the form is at home."""
        return self.now.date()
