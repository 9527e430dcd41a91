"""Slots of a table's records: each record that says when makes one."""

import datetime
from collections.abc import Iterable, Mapping
from contextlib import suppress
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any
from zoneinfo import ZoneInfo

from pydantic import ValidationError

from codexa.core.definition.parts import Identifier, OptionalIdentifier, Part
from codexa.core.fields import field_type_of
from codexa.core.fields.field_type import Medium
from codexa.core.fields.slot_times import AtCode, Minutes, Places, SingleSlot, code_of, is_there
from codexa.core.responses.holds import UNREADABLE
from codexa.core.tables.records import texts_of
from codexa.core.tables.table import Table


class UsualSlot(Part):
    """What a slot is like where a record says nothing else."""

    minutes: Minutes
    places: Places
    at: AtCode


class SlotColumns(Part):
    """Which columns, by id, have a slot's day (or its day and time), time, minutes, places and where; "" for none."""

    day: Identifier
    time: OptionalIdentifier = ""
    minutes: OptionalIdentifier = ""
    places: OptionalIdentifier = ""
    at: OptionalIdentifier = ""


@dataclass(frozen=True, kw_only=True, slots=True)
class SlotsFound:
    """The slots that records make, and of those that make none by number why."""

    slots: list[SingleSlot] = field(default_factory=list)
    wrong: dict[int, str] = field(default_factory=dict)


@dataclass(frozen=True, kw_only=True)
class SlotReader:
    """Makes slots of a table's records.

    What a record does not say is as in `usual`; moments are told by the clock of `zone`; `places` are the labels of
    what slots are offered at, by code, and a record names one by either.
    """

    table: Table
    columns: SlotColumns
    usual: UsualSlot
    zone: ZoneInfo
    places: Mapping[str, str]

    def read(self, records: Iterable[tuple[int, Mapping[str, Any]]]) -> SlotsFound:
        """Return the slots of records, which are given by number with what is kept of them."""
        found = SlotsFound()
        for number, kept in records:
            made = self._slot(kept)
            if isinstance(made, SingleSlot):
                found.slots.append(made)
            else:
                found.wrong[number] = made
        return found

    @cached_property
    def _named(self) -> dict[str, str]:
        return {text.casefold(): code for code, label in self.places.items() for text in (code, label)}

    def _slot(self, kept: Mapping[str, Any]) -> SingleSlot | str:
        starts = self._starts(kept)
        if starts is None:
            return "has no day and time."
        where = texts_of(self.table, kept, Medium.PAGE).get(self.columns.at, "")
        at = self._named.get(where.casefold()) if where else self.usual.at
        if at is None:
            return f"is at “{where}”, and there is no such place."
        plain = texts_of(self.table, kept, Medium.CSV)
        counts = {
            setting: _whole(plain.get(column, str(getattr(self.usual, setting))))
            for setting, column in (("minutes", self.columns.minutes), ("places", self.columns.places))
        }
        try:
            slot = SingleSlot.model_validate({"starts": code_of(starts), "at": at, **counts})
        except ValidationError as error:
            setting = str(error.errors()[0]["loc"][0])
            return f"has “{counts[setting]}” for {setting}; write a whole number that a slot can have."
        if is_there(slot, self.zone):
            return slot
        return f"is at {starts:%H:%M} on {starts.day} {starts:%B %Y}, which no clock shows."

    def _starts(self, kept: Mapping[str, Any]) -> datetime.datetime | None:
        day, time = self._value(kept, self.columns.day), self._value(kept, self.columns.time)
        if isinstance(day, datetime.datetime):
            return day.astimezone(self.zone).replace(tzinfo=None)
        if isinstance(day, datetime.date) and isinstance(time, datetime.time):
            return datetime.datetime.combine(day, time)
        return None

    def _value(self, kept: Mapping[str, Any], column_id: str) -> Any:
        column = self.table.columns.get(column_id)
        if column is None or kept.get(column_id) is None:
            return None
        with suppress(*UNREADABLE):
            return field_type_of(column).load(kept[column_id], column)
        return None


def _whole(text: str) -> int | str:
    return int(text) if text.isdecimal() else text
