"""How sending can end."""

from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True, kw_only=True, slots=True)
class Exchange:
    """What another system was sent beside the body, {"address", "headers"}, and its {"status", "headers", "body"}."""

    request: dict[str, Any]
    reply: dict[str, Any] | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Done:
    """It was done: what came of it, in words, and the exchange where another system was told."""

    result: str
    delivery: Exchange | None = None


class _NotDoneError(Exception):
    """It did not work; `delivery` is what was sent to another system and answered, where anything was."""

    def __init__(self, message: str, delivery: Exchange | None = None) -> None:
        super().__init__(message)
        self.delivery = delivery


class TryLaterError(_NotDoneError):
    """It did not work now and may work later; the message says why, for the team."""


class NeverError(_NotDoneError):
    """It can't work, however often it is tried; the message says why, for the team."""
