"""Anonymising responses: what tells of a person is forgotten for ever, what is counted stays."""

from collections.abc import Sequence
from uuid import UUID

from codexa.core.responses.anonymising import anonymised, personal_in
from codexa.services.editions import Editions
from codexa.services.files_in_answers import files_in
from codexa.store import anonymising as store
from codexa.store.anonymising import Named
from codexa.store.database import Connection


class Anonymising:
    """Anonymises responses of one form; its editions are read before a connection is taken."""

    def __init__(self, editions: Editions, *, form: UUID, numbers: Sequence[int]) -> None:
        """Prepare for the form's editions of these numbers. Raises NotFoundError."""
        self._form = form
        readable = [each for each in numbers if editions.readable(form, each) is not None]
        self._programs = {each: editions.program(form, each) for each in readable}
        newest = self._programs[max(readable)].form if readable else None
        self._personal = {
            each: personal_in(program.form, newest) for each, program in self._programs.items() if newest is not None
        }

    def anonymise(
        self, connection: Connection, *, numbers: Sequence[int], person: UUID | None
    ) -> tuple[list[int], list[UUID]]:
        """Anonymise responses; return the numbers of those that were, and the ids of files to be deleted afterwards.

        What waits for money, for somebody to let it through, or for its visitor stays as it is, and what was given to
        an edition that can't be read any more loses all its answers. `person` did it, None for the clock.
        """
        left_over = [self._left_over(each) for each in store.lock(connection, form=self._form, numbers=numbers)]
        kept_files = [
            file
            for each in left_over
            if each.edition in self._programs
            for files in files_in(self._programs[each.edition], each.answers).values()
            for file in files
        ]
        files = store.replace(connection, form=self._form, left_over=left_over, kept_files=kept_files, person=person)
        return [each.number for each in left_over], files

    def _left_over(self, row: Named) -> Named:
        program = self._programs.get(row.edition)
        if program is None:
            told = {**row.told, "visitor": {}, "groups": [], "link": {}}
            return Named(number=row.number, edition=row.edition, answers={}, computed={}, told=told)
        personal = self._personal[row.edition]
        found = anonymised(program, personal, answers=row.answers, computed=row.computed, told=row.told)
        return Named(
            number=row.number,
            edition=row.edition,
            answers=found.answers,
            computed=found.computed,
            told=found.told,
        )
