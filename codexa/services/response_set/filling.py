"""Filling a form's ledger: responses become rows of typed values, read with the edition that each was given to.

No connection is held while responses are read. Two who fill at once do no harm: what one took up, the other leaves.
"""

from collections.abc import Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import Any, Self
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.fields.field_type import Medium
from codexa.core.form.form import Form
from codexa.core.responses.folding import folded
from codexa.core.responses.holds import UNREADABLE, Holds, comparable
from codexa.services.editions import Editions
from codexa.services.errands.asking import ask
from codexa.services.form_columns import FormColumns
from codexa.services.response_columns import LINK, Held, HeldField, held_in, source_of
from codexa.store import editions as editions_store
from codexa.store import ledger_indexes, ledgers
from codexa.store.database import Connect, patient_connection
from codexa.store.ledgers import Entry, Ledger, Source

ERRAND = "responses taken up"
# What a request takes up by itself; more is a job's.
_AT_ONCE = 2_500
_BATCH = 2_000
_MOST_ROUNDS = 20
# From so many responses on a ledger has indexes beside that of its order.
INDEXED_FROM = 20_000
_MOST_WORDS = 1_000_000  # signs of one response


class Filling:
    """Takes up the responses of one form."""

    def __init__(self, connect: Connect, editions: Editions, *, form: UUID, numbers: Sequence[int]) -> None:
        """Prepare for a form with these editions. Raises NotFoundError."""
        self._connect, self._editions, self._form = connect, editions, form
        self.columns = FormColumns(editions, form=form, numbers=numbers)
        self._held: dict[int, _Edition | None] = {}

    def ledger(self) -> Ledger:
        """Return the form's ledger with all its columns, made or widened where that is needed."""
        wanted = self._wanted()
        with self._connect() as connection:
            found = ledgers.find_ledger(connection, form=self._form)
            if found is not None and any(found.columns.get(each, holds) is not holds for each, holds in wanted.items()):
                # A field has another type by now: what its column holds can't be compared with the new values.
                ledgers.forget(connection, form=self._form)
            elif found is not None and (wanted.keys() <= found.columns.keys() or _is_full(found)):
                return found
            return ledgers.set_up(connection, form=self._form, columns=wanted)

    def _wanted(self) -> dict[str, Holds]:
        return {column.id: column.holds for column in self.columns.all}

    def catch_up(self) -> tuple[Ledger, int]:
        """Take up what is new or changed, where that is little; return the ledger and how much is not in it.

        Where it is more, a job is asked for.
        """
        for _ in range(_MOST_ROUNDS):
            ledger = self.ledger()
            with self._connect() as connection:
                missing = ledgers.behind(connection, form=self._form)
                if missing > _AT_ONCE and ledgers.ask_for_filling(connection, form=self._form):
                    ask(connection, ERRAND, {"form": str(self._form)})
            if missing == 0 or missing > _AT_ONCE:
                return ledger, missing
            self._take_up(ledger)
        return ledger, missing

    def fill(self) -> int:
        """Take up all that is new or changed, and return how many responses that were."""
        taken = 0
        while True:
            ledger = self.ledger()
            with self._connect() as connection:
                if ledgers.behind(connection, form=self._form) == 0:
                    ledgers.filled(connection, form=self._form)
                    return taken
            taken += self._take_up(ledger)

    def _take_up(self, ledger: Ledger) -> int:
        with self._connect() as connection:
            sources, upto = ledgers.new_sources(connection, form=self._form, after=ledger.upto, most=_BATCH)
            changes = ledgers.changed(connection, form=self._form, most=_BATCH)
        added = list(self._entries(sources, ledger))
        again = list(self._entries(changes.sources, ledger))
        with self._connect() as connection:
            if upto > ledger.upto:
                ledgers.add_new(connection, ledger, added, upto=upto)
        if changes.due:
            with self._connect() as connection:
                ledgers.take_up(connection, ledger, again, changes)
        return len(added) + len(again)

    def _entries(self, sources: Sequence[Source], ledger: Ledger) -> Iterator[Entry]:
        for source in sources:
            edition = self._edition(source.edition)
            values, words = ({}, "") if edition is None else edition.entry(source, self.columns, ledger)
            values |= {
                column: folded(str(value))
                for name, value in source.told.get("link", {}).items()
                if (column := LINK + name) in ledger.columns and value
            }
            yield Entry(facets=_facets(source), values=values, words=words)

    def _edition(self, number: int) -> "_Edition | None":
        if number not in self._held:
            read = self._editions.readable(self._form, number)
            self._held[number] = None if read is None else _Edition(read)
        return self._held[number]


def _is_full(ledger: Ledger) -> bool:
    return len(ledger.columns) >= ledgers.MOST_COLUMNS


class _Edition:
    """What it takes to read the responses to an edition: of each value where it is kept, and what it holds."""

    def __init__(self, form: Form) -> None:
        self._region, self._zone = form.region, ZoneInfo(form.time_zone)
        self._kept = [_Kept.of(held_id, held) for held_id, held in held_in(form).items()]

    def entry(self, source: Source, columns: FormColumns, ledger: Ledger) -> tuple[dict[str, Any], str]:
        """Return a response's values to compare, by column id, and all its words to search in."""
        stored = source.computed | source.answers
        values: dict[str, Any] = {}
        words: list[str] = []
        for kept in self._kept:
            value = stored.get(kept.source)
            if value is None:
                continue
            column = columns.id_of(source.edition, kept.id)
            with suppress(*UNREADABLE):
                read = self._value(kept, value)
                if column in ledger.columns:
                    values[column] = read
                words += self._words(kept, value, read)
        # Between two answers stands what nobody looks for: no part reaches from one into the next.
        return values, " \n ".join(words)[:_MOST_WORDS]

    def _value(self, kept: "_Kept", value: Any) -> Any:
        # A text is kept as programs read it; what has parts is put together by its field.
        if isinstance(kept.held, HeldField) and (kept.holds is not Holds.TEXT or isinstance(value, str)):
            return comparable(value, kept.holds, self._zone)
        return kept.held.value(value, self._region)

    def _words(self, kept: "_Kept", value: Any, read: Any) -> list[str]:
        if read is None or not kept.searched:
            return []
        match kept.holds:
            case Holds.TEXT:
                return [read]
            case Holds.CHOICE | Holds.CHOICES if not _has_own_words(value):
                return [kept.labels.get(code, code) for code in ([read] if isinstance(read, str) else read)]
            case _:
                return [folded(kept.held.text(value, self._region, Medium.PAGE))]


def _has_own_words(value: Any) -> bool:
    return isinstance(value, dict) or (isinstance(value, list) and any(isinstance(each, dict) for each in value))


_SEARCHED = frozenset({Holds.TEXT, Holds.CHOICE, Holds.CHOICES, Holds.FILES, Holds.ROWS})


@dataclass(frozen=True, kw_only=True, slots=True)
class _Kept:
    """A value of a response: where it is kept, what it holds, its options' labels folded, if searched."""

    id: str
    source: str
    held: Held
    holds: Holds
    labels: dict[str, str]
    searched: bool

    @classmethod
    def of(cls, held_id: str, held: Held) -> Self:
        column = held.column("")
        return cls(
            id=held_id,
            source=source_of(held_id),
            held=held,
            holds=column.holds,
            labels={each.code: folded(each.label) for each in column.options},
            searched=column.holds in _SEARCHED and not column.calculated,
        )


def _facets(source: Source) -> dict[str, Any]:
    return {
        "number": source.number,
        "edition": source.edition,
        "received_at": source.received_at,
        "stage": source.stage,
        "payment": source.payment,
        "decision": source.decision,
        "booking": source.booking,
        "at_part": source.at_part,
        "status": source.status or None,
        "practice": source.test,
        "held": source.held,
        "way": source.came.get("way") or None,
        "page": folded(str(source.came.get("page") or "")) or None,
        "link": None if source.batch is None else str(source.batch),
        "sealed_link": None if source.sealed_link is None else str(source.sealed_link),
        "tags": source.tags or None,
        "person": None if source.person_id is None else str(source.person_id),
        "language": str(source.told.get("locale") or "") or None,
    }


def of_form(connect: Connect, editions: Editions, form: UUID) -> Filling:
    """Return what takes up a form's responses, whoever asks. Raises NotFoundError."""
    with connect() as connection:
        numbers = editions_store.all_numbers(connection, form=form)
    return Filling(connect, editions, form=form, numbers=numbers)


def fill(connect: Connect, editions: Editions, form: UUID, address: str) -> str:
    """Take up all of a form's responses, make the indexes it wants, and say what was done."""
    taken = of_form(connect, editions, form).fill()
    made = index(address, form)
    return f"{taken} responses taken up{', indexes made' if made else ''}"


def index(address: str, form: UUID) -> bool:
    """Make the indexes of a ledger that is large enough; False where it is not. `address` is the database's."""
    with patient_connection(address) as connection:
        ledger = ledgers.find_ledger(connection, form=form)
        if ledger is None or ledger.upto < INDEXED_FROM:
            return False
        ledger_indexes.make_indexes(connection, ledger)
    return True
