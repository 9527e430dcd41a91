"""A column of a repeat as formulas get it: a list that finds equal items without going over all of them each time."""

import datetime
from decimal import Decimal
from typing import Any

from codexa.core.formula.metering import spend
from codexa.core.formula.values import Choice, Failed, compared

_Key = tuple[str, Any]


class Column(list[Any]):
    """The values of a column; made anew in each evaluation and never changed in it."""

    __slots__ = ("_by_key",)
    _by_key: dict[_Key, list[int]] | None

    def positions(self, wanted: Any) -> list[int] | None:
        """Return where the items stand, from 0, that equal a value; None where only comparing each can tell.

        What is equal is what `convert.equal` says.
        """
        key = _key(wanted)
        if key is None:
            return None
        try:
            by_key = self._by_key
        except AttributeError:
            by_key = self._indexed()
            self._by_key = by_key
        if by_key is None or (isinstance(wanted, Choice) and by_key.get(_HAS_NUMBERS)):
            return None  # a choice is its number beside a number, and its code beside text
        return by_key.get(key, [])

    def _indexed(self) -> dict[_Key, list[int]] | None:
        spend(len(self))
        by_key: dict[_Key, list[int]] = {}
        for at, item in enumerate(self):
            if item is None or item.__class__ is Failed:
                continue
            key = _key(item)
            if key is None:
                return None
            by_key.setdefault(key, []).append(at)
            if isinstance(item, Choice):
                by_key.setdefault(("number", compared(item.counts)), []).append(at)
            elif key[0] == "number":
                by_key.setdefault(_HAS_NUMBERS, []).append(at)
        return by_key


_HAS_NUMBERS: _Key = ("has", "numbers")


def _key(value: Any) -> _Key | None:
    if value.__class__ is Decimal:
        return ("number", compared(value))
    if value.__class__ is str or value.__class__ is Choice:
        # Empty text equals a blank, which stands in no index.
        return ("text", value.casefold()) if value else None
    if value.__class__ is bool:
        return ("yes/no", value)
    # A moment may equal a date, so it stands in no index.
    return ("date", value) if value.__class__ is datetime.date else None
