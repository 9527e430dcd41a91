"""Whose data is asked for, whoever asks: a person who is signed in, a key, a feed."""

from dataclasses import dataclass
from typing import Protocol
from uuid import UUID


class OfTeam(Protocol):
    """Somebody or something of a team; every query that it causes is bound to it."""

    @property
    def team_id(self) -> UUID:
        """The team."""
        ...


@dataclass(frozen=True, slots=True)
class Team:
    """A team itself, where no person asks."""

    team_id: UUID
