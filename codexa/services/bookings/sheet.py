"""The booking sheet: who has which slot on a day, for the people who receive them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from uuid import UUID

from codexa.core.fields.field_type import Medium
from codexa.core.fields.options import Optioned
from codexa.core.fields.slot import SlotField
from codexa.core.fields.slot_times import SlotTimes
from codexa.core.form.form import Form
from codexa.core.program.claim_names import slot_in, slots_from
from codexa.services.bookings.booking import let_move_up
from codexa.services.drafts import require
from codexa.services.editions import Editions
from codexa.services.errors import NotFoundError
from codexa.services.response_columns import Column
from codexa.services.response_grid import ResponseTable
from codexa.store import claims, responses
from codexa.store import editions as editions_store
from codexa.store.claims import SlotTaker
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn

_PEOPLE = ("name", "email", "phone", "short_text")  # types of fields that tell who somebody is
_MOST_COLUMNS = 4


@dataclass(frozen=True, kw_only=True, slots=True)
class Taker:
    """A response with places of a slot, or which waits for them: who it is, by column."""

    number: int
    pieces: int
    waiting: bool
    cells: dict[str, str]


@dataclass(frozen=True, kw_only=True, slots=True)
class SheetSlot:
    """A slot of a day: when it begins and ends by the clock, where, its places, and who has them.

    Where the live edition has it no more, it has no places of its own, and no end.
    """

    name: str
    starts: str
    ends: str
    at: str
    at_label: str
    places: int
    taken: int
    closed: bool
    takers: list[Taker]


@dataclass(frozen=True, kw_only=True, slots=True)
class Sheet:
    """The slots of a block on a day, and which columns tell who has them; all slot blocks of the form, with labels.

    `before` and `after` are the next days that have slots, for what leads on.
    """

    blocks: list[tuple[str, str]]
    block: str
    day: date
    columns: list[tuple[str, str]]
    slots: list[SheetSlot]
    before: date | None
    after: date | None


def sheet(connect: Connect, editions: Editions, *, who: SignedIn, form: UUID, block: str, day: date) -> Sheet:
    """Return the booking sheet of a day. Raises NotFoundError where the form is none of the team's, or has no slots."""
    require(connect, who=who, form=form)
    with connect() as connection:
        live = editions_store.live_of_form(connection, form=form)
        numbers = editions_store.numbers_of_form(connection, team=who.team_id, form=form) or []
    edition = None if live is None else editions.form(form, live)
    fields = [] if edition is None else [each for each in edition.blocks() if isinstance(each, SlotField)]
    chosen = next((each for each in fields if each.id == block), fields[0] if fields else None)
    if chosen is None or edition is None:
        raise NotFoundError("This form has no slots that visitors could book.")
    table = ResponseTable(editions, form=form, numbers=numbers)
    told = [(each.id, each.label) for each in _people(edition, table)]
    times = chosen.times(edition.time_zone)
    with connect() as connection:
        first, last = slots_from(chosen.id, day), slots_from(chosen.id, day + timedelta(days=1))
        found = claims.slots_between(connection, form=form, first=first, last=last)
        takers = claims.who_has_slots(connection, form=form, names=[each.name for each in found])
        rows = responses.by_numbers(connection, form=form, numbers=[each.number for each in takers])
    only = [column for column, _ in told]
    cells = {number: table.cells(row, Medium.PAGE, only) for number, row in rows.items()}
    labels = place_labels(edition, chosen)
    slots = []
    for each in found:
        start, at = slot_in(each.name)
        known = times.find(start, at)
        slots.append(
            SheetSlot(
                name=each.name,
                starts=start,
                ends="" if known is None else known.end.isoformat()[:16],
                at=at,
                at_label=labels.get(at, at),
                places=each.capacity,
                taken=each.taken,
                closed=each.closed,
                takers=list(_takers(takers, each.name, cells)),
            )
        )
    before, after = _around(times, day)
    blocks = [(each.id, each.label or each.key) for each in fields]
    return Sheet(blocks=blocks, block=chosen.id, day=day, columns=told, slots=slots, before=before, after=after)


def _people(edition: Form, table: ResponseTable) -> list[Column]:
    kinds = {each.id: each.type for each in edition.fields()}
    known = [each for each in table.columns if kinds.get(each.id) in _PEOPLE]
    return sorted(known, key=lambda each: _PEOPLE.index(kinds[each.id]))[:_MOST_COLUMNS]


def place_labels(edition: Form, block: SlotField) -> dict[str, str]:
    """Return what the places are called at which slots of a block are offered, by code."""
    asked = next((each for each in edition.fields() if each.id == block.by and isinstance(each, Optioned)), None)
    return {} if asked is None else {each.code: each.label for each in asked.options}


def _takers(takers: Sequence[SlotTaker], name: str, cells: dict[int, dict[str, str]]) -> Iterator[Taker]:
    for each in takers:
        if each.name == name:
            yield Taker(
                number=each.number,
                pieces=each.quantity,
                waiting=each.waiting_since is not None,
                cells=cells.get(each.number, {}),
            )


def _around(times: SlotTimes, day: date) -> tuple[date | None, date | None]:
    """Return the last day with slots before a day, and the first one after it."""
    days = sorted({each.start.date() for each in times.all})
    before = [each for each in days if each < day]
    after = next((each for each in days if each > day), None)
    return (before[-1] if before else None), after


def set_closed(connect: Connect, *, who: SignedIn, form: UUID, name: str, closed: bool) -> None:
    """Close a slot of the live edition for everybody, or open it again; who has it keeps it. Raises NotFoundError."""
    require(connect, who=who, form=form)
    with connect() as connection:
        if not claims.close_slot(connection, form=form, name=name, closed=closed):
            raise NotFoundError("There is no such slot any more.")
        if not closed:
            let_move_up(connection, form)
