"""Slots of a table's records, worked out to be looked at; nothing is kept."""

from collections.abc import Mapping
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.fields.slot_times import MAX_SLOTS
from codexa.core.responses.conditions import Filter
from codexa.core.tables.slots import SlotColumns, SlotReader, SlotsFound, UsualSlot
from codexa.services.errors import TooManyError
from codexa.services.tables.records import every, page
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn


def slots_of_table(
    connect: Connect,
    *,
    who: SignedIn,
    table: UUID,
    columns: SlotColumns,
    usual: UsualSlot,
    time_zone: str,
    places: Mapping[str, str],
) -> SlotsFound:
    """Return the slots of the records that are offered, as `SlotReader` makes them, in a time zone (IANA).

    Raises NotFoundError, and TooManyError where the table has more records than a block can have slots.
    """
    count = page(connect, who=who, table=table, filter_=Filter(), sort="", first=0, most=1).count
    if count > MAX_SLOTS:
        raise TooManyError(f"A slot block has at most {MAX_SLOTS:,} slots, and this table has {count:,} records.")
    known, rows = every(connect, who=who, table=table, filter_=Filter())
    reader = SlotReader(table=known, columns=columns, usual=usual, zone=ZoneInfo(time_zone), places=places)
    return reader.read((row.number, row.kept) for row in rows if row.offered)
