"""Answers what forms ask of the team's tables, from the database: each question once in an evaluation."""

from collections.abc import Callable, Iterator
from contextlib import ExitStack, contextmanager
from uuid import UUID

from codexa.core.formula.values import ChosenRecord
from codexa.core.look_ups import MOST_TRIED, Found, KeptRecord, LookUp, Tables
from codexa.core.responses.folding import folded
from codexa.store import look_ups
from codexa.store.database import Connect, Connection
from codexa.store.look_ups import Whose

_TRIED_AT_ONCE = 500


class KeptTables:
    """The tables of a team as they are in the database."""

    def __init__(self, connection: Callable[[], Connection], whose: Whose) -> None:
        """Take in where a connection comes from once one is needed, and whose tables are asked."""
        self._connection, self._whose = connection, whose
        self._known: dict[LookUp, Found] = {}
        self.queries = 0  # how often the database was asked

    def look_up(self, asked: LookUp) -> Found:
        """Return what is found; nothing where there is no such table."""
        if asked not in self._known:
            self._known[asked] = self._found(asked) if look_ups.is_id(asked.table) else _nothing(asked)
        return self._known[asked]

    def _found(self, asked: LookUp) -> Found:
        if not asked.first and not asked.chosen:
            return Found()
        tests = look_ups.tests_of(asked.condition)
        if tests:
            return self._tried(asked, lambda record: all(each.test(record) for each in tests))
        fetched = self._fetch(asked, first=0, most=asked.first + 1 if asked.first else 0)
        return _told(asked, fetched.listed, fetched.chosen)

    def _tried(self, asked: LookUp, test: Callable[[ChosenRecord], bool]) -> Found:
        """Return what is found where a formula has to be worked out for each record, of so many as may be."""
        listed: list[KeptRecord] = []
        chosen: list[KeptRecord] = []
        for first in range(0, MOST_TRIED, _TRIED_AT_ONCE):
            fetched = self._fetch(asked, first=first, most=_TRIED_AT_ONCE if asked.first else 0)
            if not first:
                chosen = [each for each in fetched.chosen if test(_as_chosen(each))]
            listed += [each for each in fetched.listed if test(_as_chosen(each))]
            if len(fetched.listed) < _TRIED_AT_ONCE or len(listed) > asked.first:
                break
        return _told(asked, listed, chosen)

    def _fetch(self, asked: LookUp, *, first: int, most: int) -> look_ups.Fetched:
        self.queries += 1
        return look_ups.fetch(self._connection(), asked, self._whose, first=first, most=most)


def _nothing(asked: LookUp) -> Found:
    return Found(chosen=(None,) * len(asked.chosen))


def _as_chosen(record: KeptRecord) -> ChosenRecord:
    return ChosenRecord(record.name, number=record.number, values=record.values)


def _told(asked: LookUp, listed: list[KeptRecord], chosen: list[KeptRecord]) -> Found:
    return Found(
        listed=tuple(listed[: asked.first]),
        more=len(listed) > asked.first > 0,
        chosen=tuple(_meant(each, chosen) for each in asked.chosen),
    )


def _meant(asked: int | str, chosen: list[KeptRecord]) -> KeptRecord | None:
    """Return the record that is meant: of two with one name neither."""
    if isinstance(asked, int):
        return next((each for each in chosen if each.number == asked), None)
    named = [each for each in chosen if folded(each.name) == folded(asked)]
    return named[0] if len(named) == 1 else None


@contextmanager
def tables_for(connect: Connect, form: UUID) -> Iterator[Tables]:
    """Give the tables of a form's team; a connection is taken once something is asked, and given back at the end."""
    with ExitStack() as stack:
        taken: list[Connection] = []

        def connection() -> Connection:
            if not taken:
                taken.append(stack.enter_context(connect()))
            return taken[0]

        yield KeptTables(connection, Whose(form=form))


def tables_in(connection: Connection, form: UUID) -> Tables:
    """Return the tables of a form's team as a transaction sees them."""
    return KeptTables(lambda: connection, Whose(form=form))


def tables_beside(connection: Connection, table: UUID, *, offered_only: bool = True) -> Tables:
    """Return the tables of a table's team as a transaction sees them; all records, or those that are offered."""
    return KeptTables(lambda: connection, Whose(table=table, offered_only=offered_only))
