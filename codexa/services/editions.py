"""Published editions as this process knows them: read once, compiled once, never out of date."""

from dataclasses import dataclass, replace
from typing import Any, Protocol
from uuid import UUID

import orjson

from codexa.core.context import EVERYBODY, Context, PaymentFacts
from codexa.core.errors import DefinitionError
from codexa.core.fields.field_type import Region
from codexa.core.form.form import Form
from codexa.core.form.upgrades import read_stored
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import State
from codexa.core.program.kept import state_of_kept
from codexa.core.program.program import Program
from codexa.core.program.translated import program_in_language
from codexa.services.bounded_cache import BoundedCache
from codexa.services.errors import NotFoundError
from codexa.services.response_columns import Column, columns_of
from codexa.store import editions
from codexa.store.database import Connect

# Bytes of the documents that are kept; a program takes about forty times as much memory, a form about fifteen times.
_MOST_COMPILED, _MOST_READ = 2_000_000, 4_000_000
_MOST_COLUMNS = 100_000  # of all editions together, with their options and parts


class Answered(Protocol):
    """A response as it is kept: its edition, its answers, and what it was told when it was accepted."""

    @property
    def edition(self) -> int:
        """The edition that was answered."""

    @property
    def answers(self) -> dict[str, Any]:
        """JSON values by block id."""

    @property
    def told(self) -> dict[str, Any]:
        """The surroundings, as JSON."""


@dataclass(frozen=True, slots=True)
class _Columns:
    columns: tuple[Column, ...] | None
    region: Region | None = None


class Editions:
    """The editions that were asked for of late. No connection is held while one is read or compiled."""

    def __init__(self, connect: Connect) -> None:
        self._connect = connect
        self._forms: BoundedCache[Form] = BoundedCache(_MOST_READ)
        self._programs: BoundedCache[Program] = BoundedCache(_MOST_COMPILED)
        self._columns: BoundedCache[_Columns] = BoundedCache(_MOST_COLUMNS)

    def form(self, form: UUID, number: int) -> Form:
        """Return an edition. Raises NotFoundError."""
        return self._forms.get((form, number), lambda: self._read(form, number))

    def readable(self, form: UUID, number: int) -> Form | None:
        """Return an edition, or None where it can't be read any more. Raises NotFoundError."""
        try:
            return self.form(form, number)
        except DefinitionError:
            return None

    def program(self, form: UUID, number: int, *, shown: str = "", language: str = "") -> Program:
        """Return an edition, compiled; `shown` in another way, in another `language` than its own ("" for that).

        A language that it does not have is its own. Raises NotFoundError.
        """
        own = self._programs.get((form, number, shown), lambda: self._compile(form, number, shown))
        if language not in own.form.locales[1:]:
            return own
        return self._programs.get(
            (form, number, shown, language), lambda: (program_in_language(own, language), self._read(form, number)[1])
        )

    def accepted(
        self,
        form: UUID,
        response: Answered,
        number: int,
        payment: PaymentFacts | None = None,
        *,
        for_team: bool = False,
    ) -> State:
        """Return the state in which a response was accepted, in its visitor's language, or `for_team` in the form's.

        Raises NotFoundError.
        """
        context = Context.from_json(response.told, number=number).with_payment(payment)
        program = self.program(form, response.edition, language="" if for_team else context.locale)
        known = replace(context, locale=program.form.locale, at_part=EVERYBODY if for_team else None)
        return state_of_kept(program, response.answers, known)

    def columns(self, form: UUID, number: int) -> tuple[Column, ...] | None:
        """Return what an edition's responses have as columns, or None where it can't be read. Raises NotFoundError.

        A grid shows those of all editions, which are too many to keep whole.
        """
        return self._columns.get((form, number), lambda: self._columns_of(form, number)).columns

    def region(self, form: UUID, number: int) -> Region | None:
        """Return where an edition is at home, or None where it can't be read. Raises NotFoundError."""
        return self._columns.get((form, number), lambda: self._columns_of(form, number)).region

    def _columns_of(self, form: UUID, number: int) -> tuple["_Columns", int]:
        try:
            read = self._read(form, number)[0]
        except DefinitionError:
            return _Columns(None), 1
        columns = columns_of(read)
        return _Columns(columns, read.region), 1 + sum(1 + len(each.options) + len(each.parts) for each in columns)

    def _read(self, form: UUID, number: int) -> tuple[Form, int]:
        with self._connect() as connection:
            definition = editions.find_definition(connection, form=form, number=number)
        if definition is None:
            raise NotFoundError
        return read_stored(definition), len(orjson.dumps(definition))

    def _compile(self, form: UUID, number: int, shown: str) -> tuple[Program, int]:
        read, size = self._read(form, number)
        return compile_form(read.model_copy(update={"presentation": shown}) if shown else read), size
