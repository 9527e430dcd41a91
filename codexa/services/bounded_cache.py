"""Keeping what takes long to make, within bounds: how much is kept, and how many make it at once."""

import threading
from collections.abc import Callable, Hashable
from operator import itemgetter
from typing import Any, Generic, TypeVar

from cachetools import LRUCache

from codexa.services.errors import TooBusyError

Made = TypeVar("Made")
_WAIT_SECONDS = 10.0


class BoundedCache(Generic[Made]):
    """What was used last, up to so many units in all (such as bytes of the documents that things were made of).

    One thread makes things at a time: making is work for the processor, and others would make the same.
    """

    def __init__(self, most: int) -> None:
        self._kept: LRUCache[Hashable, tuple[Made, int]] = LRUCache(most, getsizeof=itemgetter(1))
        self._reading = threading.Lock()
        self._making = threading.Lock()

    def get(self, key: Hashable, make: Callable[[], tuple[Made, int]]) -> Made:
        """Return what stands under the key; `make` gives it, and its size, where nothing does.

        Raises TooBusyError where others make things for too long, and what `make` raises.
        """
        if (found := self._find(key)) is not None:
            return found[0]
        if not self._making.acquire(timeout=_WAIT_SECONDS):
            raise TooBusyError
        try:
            if (found := self._find(key)) is not None:
                return found[0]
            made = make()
            self._keep(key, made)
        finally:
            self._making.release()
        return made[0]

    def _find(self, key: Hashable) -> tuple[Made, int] | None:
        with self._reading:
            return self._kept.get(key)

    def _keep(self, key: Hashable, made: tuple[Made, Any]) -> None:
        with self._reading:
            if made[1] <= self._kept.maxsize:
                self._kept[key] = made
