"""The columns of a form's responses over all its editions, and which of them each edition's values belong to."""

from collections.abc import Sequence
from dataclasses import replace
from uuid import UUID

from codexa.services.editions import Editions
from codexa.services.response_columns import LINK, Column, Option

# Between the id of what an earlier edition asked for in another type, and that type.
_AS = "~"


class FormColumns:
    """The columns of the latest edition in order, then those that only older ones had, without a number.

    A field that has another type by now is a column of its own: its values can't be compared with the new ones.
    Options that only older editions had come after those of the latest.
    """

    def __init__(self, editions: Editions, *, form: UUID, numbers: Sequence[int]) -> None:
        """Put together the columns of the form's editions, by their numbers. Raises NotFoundError."""
        self._all: dict[str, Column] = {}
        self._of: dict[int, dict[str, str]] = {}
        latest = True
        for number in sorted(numbers, reverse=True):
            found = editions.columns(form, number)
            self._of[number] = {} if found is None else {each.id: self._add(each, latest) for each in found}
            latest = latest and found is None

    def _add(self, column: Column, latest: bool) -> str:
        """Add an edition's column, newest edition first, and return the id of the form's."""
        known = self._all.get(column.id)
        as_id = column.id if known is None or known.holds is column.holds else f"{column.id}{_AS}{column.holds.value}"
        known = self._all.get(as_id)
        if known is None:
            added = column if latest else replace(column, number="", earlier=True)
            parts = tuple(replace(each, id=as_id + each.id.removeprefix(column.id)) for each in column.parts)
            self._all[as_id] = replace(added, id=as_id, parts=parts)
        elif known.options != column.options or known.parts != column.parts:
            self._all[as_id] = _merged(known, column)
        return as_id

    @property
    def all(self) -> list[Column]:
        """All columns, in order; those of what links brought come among them."""
        return list(self._all.values())

    @property
    def columns(self) -> list[Column]:
        """Those that responses have values of."""
        return [each for each in self._all.values() if not each.id.startswith(LINK)]

    def id_of(self, edition: int, held_id: str) -> str:
        """Return the column to which an edition's value belongs."""
        return self._of.get(edition, {}).get(held_id, held_id)


def _merged(newer: Column, older: Column) -> Column:
    """Return a column with the options and parts that only the older had, too."""
    parts = {each.id: each for each in newer.parts}
    for each in older.parts:
        known = parts.get(each.id)
        parts[each.id] = _merged(known, each) if known is not None and known.holds is each.holds else known or each
    return replace(newer, options=_all_options(newer.options, older.options), parts=tuple(parts.values()))


def _all_options(newer: tuple[Option, ...], older: tuple[Option, ...]) -> tuple[Option, ...]:
    codes = {each.code for each in newer}
    return newer + tuple(each for each in older if each.code not in codes)


def source_id(column_id: str) -> str:
    """Return the id of what a column shows in its edition: the same, without the type that tells it apart."""
    return column_id.partition(_AS)[0]
