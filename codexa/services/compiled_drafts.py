"""Drafts as this process knows them: each is compiled once, and held against itself once, however often it is asked."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from hashlib import sha256
from uuid import UUID

from codexa.core.form.form import Form
from codexa.core.form.upgrades import read_stored
from codexa.core.formula import convert
from codexa.core.program.bounds import range_of_figure
from codexa.core.program.compiling import compile_form
from codexa.core.program.findings import Finding
from codexa.core.program.notes import Links, Note, links, notes
from codexa.core.program.program import Program
from codexa.core.program.proof import proof
from codexa.core.program.translated import program_in_language
from codexa.services.bounded_cache import BoundedCache
from codexa.services.errors import NotFoundError
from codexa.store import forms
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn

# Bytes of the documents that are kept; as with editions, a program takes about forty times as much memory.
_MOST_COMPILED, _MOST_SAID = 1_000_000, 1_000_000


@dataclass(frozen=True, kw_only=True, slots=True)
class Said:
    """What the core says of a draft without looking at answers or tables, by the ids of its parts.

    `ranges` are those of numeric figures by id: their `least` and `greatest` as plain text, None where there is no such
    end.
    """

    program: Program
    findings: tuple[Finding, ...]
    notes: dict[str, tuple[Note, ...]]
    links: dict[str, Links]
    ranges: dict[str, dict[str, str | None]]


class CompiledDrafts:
    """The drafts that were opened, saved or tried of late. No connection is held while one is compiled."""

    def __init__(self, connect: Connect) -> None:
        self._connect = connect
        # By what stands in them: what was saved is tried next, and an undone step is compiled already.
        self._programs: BoundedCache[Program] = BoundedCache(_MOST_COMPILED)
        self._of_revisions: BoundedCache[Program] = BoundedCache(_MOST_COMPILED)
        self._said: BoundedCache[Said] = BoundedCache(_MOST_SAID)

    def program(self, *, who: SignedIn, form: UUID, shown: str = "", language: str = "") -> Program:
        """Return a form's saved draft, compiled; `shown` in another way, in another `language` ("" for its own).

        Raises NotFoundError, DefinitionError where it can't be read.
        """
        with self._connect() as connection:
            revision = forms.find_revision(connection, team=who.team_id, form=form)
        if revision is None:
            raise NotFoundError
        own = self._of_revisions.get((form, revision, shown), lambda: self._saved(who, form, shown))
        if language not in own.form.locales[1:]:
            return own
        return self._of_revisions.get(
            (form, revision, shown, language),
            lambda: (program_in_language(own, language), len(own.form.model_dump_json())),
        )

    def said(self, draft: Form, people: Mapping[str, str] | None, groups: Collection[str]) -> Said:
        """Return what the core says of a draft; `people` and `groups` are those of its team, as `proof` takes them."""
        digest, size = _digest(draft)
        team = (None if people is None else tuple(sorted(people.items())), tuple(sorted(groups)))

        def say() -> tuple[Said, int]:
            program = self._compiled(draft)
            said = Said(
                program=program,
                findings=proof(program, people, groups),
                notes=notes(program),
                links=links(program),
                ranges={figure: _range(program, figure) for figure in program.figures},
            )
            return said, size

        return self._said.get((digest, team), say)

    def _saved(self, who: SignedIn, form: UUID, shown: str) -> tuple[Program, int]:
        with self._connect() as connection:
            found = forms.find_form(connection, team=who.team_id, form=form)
        if found is None:
            raise NotFoundError
        draft = read_stored(found.draft | ({"presentation": shown} if shown else {}))
        return self._compiled(draft), _digest(draft)[1]

    def _compiled(self, draft: Form) -> Program:
        digest, size = _digest(draft)
        return self._programs.get(digest, lambda: (compile_form(draft), size))


def _digest(draft: Form) -> tuple[bytes, int]:
    document = draft.model_dump_json().encode()
    return sha256(document).digest(), len(document)


def _range(program: Program, figure: str) -> dict[str, str | None]:
    found = range_of_figure(program, figure)
    ends = {"least": found.least, "greatest": found.greatest}
    return {name: None if end is None else convert.text(end) for name, end in ends.items()}
