"""What is filtered, as a file: written while it is read, in the same memory for any number."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace
from datetime import datetime
from pathlib import Path
from typing import TypeVar
from uuid import UUID

import orjson

from codexa.core.fields.field_type import Medium
from codexa.core.responses.holds import Holds
from codexa.services.editions import Editions
from codexa.services.errors import BehindError, TooManyError
from codexa.services.of_team import OfTeam
from codexa.services.response_csv import IN_ROWS, CsvFashion, csv_lines
from codexa.services.response_grid import ResponseTable
from codexa.services.response_set.asking import RECEIVED
from codexa.services.response_set.documents import document
from codexa.services.response_set.looking import Look
from codexa.services.response_set.opening import open_set
from codexa.services.response_set.workbook import write_workbook
from codexa.store import ledger_queries, responses
from codexa.store.database import Connect
from codexa.store.ledger_queries import Asked
from codexa.store.responses import AnswersRow

Kept = TypeVar("Kept", bound=AnswersRow)
_ByNumbers = Callable[..., Mapping[int, Kept]]
_AT_ONCE = 1_000


class Export:
    """What is looked at, on its way out: each batch is read by itself, so that a slow line holds no connection."""

    def __init__(
        self,
        connect: Connect,
        editions: Editions,
        *,
        who: OfTeam,
        form: UUID,
        look: Look,
        tries: bool,
        on_rows: Callable[[int], None] | None = None,
    ) -> None:
        """Prepare; what was handed in for practice is there with `tries`. `on_rows` is told of each batch how many.

        Raises NotFoundError, ConditionError, BehindError.
        """
        self._connect, self._editions, self._on_rows = connect, editions, on_rows
        self._opened = open_set(connect, editions, who=who, form=form)
        if self._opened.behind:
            raise BehindError
        chosen = self._opened.asking.chosen(look.filter)
        self._chosen = chosen.with_practice() if tries else chosen
        self._sorts = self._opened.asking.sorts(look.sorts)

    def since(self, moment: datetime) -> None:
        """Leave out what came before a moment."""
        came = Asked(column=RECEIVED, holds=Holds.MOMENT, how="at_least", stretch=(moment, None))
        self._chosen = replace(self._chosen, besides=(*self._chosen.besides, came))

    def as_csv(self, fashion: CsvFashion, only: Sequence[str] | None = None) -> Iterator[str]:
        """Yield it line by line; with `only`, these columns in their order, but those that are gone."""
        table = ResponseTable(self._editions, form=self._opened.form, numbers=self._opened.numbers)
        facets = [each for each in self._opened.facets if each.id in IN_ROWS]
        known = {each.id: each for each in (*table.columns, *facets)}
        columns = None if only is None else [known[each] for each in only if each in known]
        whole = any(each in facets for each in columns or ())
        found = self._all(responses.by_numbers) if whole else self._all(responses.answers_by_numbers)
        yield from csv_lines(table, found, fashion, columns)

    def as_json_lines(self, only: Sequence[str] | None = None) -> Iterator[bytes]:
        """Yield a JSON object for each response, a line each (JSON Lines)."""
        for response in self._all(responses.by_numbers):
            yield orjson.dumps(document(self._editions, self._opened.form, response, only)) + b"\n"

    def as_json(self, only: Sequence[str] | None = None) -> Iterator[bytes]:
        """Yield the same as one JSON array."""
        before = b"[\n"
        for line in self.as_json_lines(only):
            yield before + line.rstrip()
            before = b",\n"
        yield b"[]\n" if before == b"[\n" else b"\n]\n"

    def as_workbook(self, path: Path, medium: Medium) -> None:
        """Write it into a file. Raises TooManyError where a workbook would take too long."""
        with self._connect() as connection:
            count, exact = ledger_queries.count(connection, self._opened.ledger, self._chosen)
        if not exact:
            raise TooManyError(
                f"A workbook takes at most {ledger_queries.EXACT:,} responses, and these are about {count:,}. "
                "Filter them, take CSV, or have it made in the background."
            )
        self.as_whole_workbook(path, medium)

    def as_whole_workbook(self, path: Path, medium: Medium) -> None:
        """Write all of it into a file, however long that takes; a sheet has room for a million rows."""
        write_workbook(path, self._editions, self._opened, self._all(responses.answers_by_numbers), medium)

    def _all(self, by_numbers: _ByNumbers[Kept]) -> Iterator[Kept]:
        opened, after = self._opened, None
        while True:
            with self._connect() as connection:
                found = ledger_queries.page(
                    connection, opened.ledger, self._chosen, self._sorts, most=_AT_ONCE, after=after
                )
                rows = by_numbers(connection, form=opened.form, numbers=[each.number for each in found])
            yield from (rows[each.number] for each in found if each.number in rows)
            if self._on_rows is not None:
                self._on_rows(len(rows))
            if len(found) < _AT_ONCE:
                return
            after = found[-1]
