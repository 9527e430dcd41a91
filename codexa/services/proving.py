"""A draft held against itself and against its team: its people, groups, calendars and tables as they are now."""

from collections.abc import Mapping
from uuid import UUID

from codexa.core.program.findings import Finding
from codexa.core.program.program import Program
from codexa.core.program.proof import proof
from codexa.services import groups
from codexa.services.calendars import calendars
from codexa.services.tables.drift import drift
from codexa.store.database import Connect


def findings_of(
    connect: Connect, form: UUID, program: Program, people: Mapping[str, str] | None
) -> tuple[Finding, ...]:
    """Return every finding about a form; `people` are those of its team, as in Context."""
    return (*proof(program, people, groups.codes_for(connect, form)), *beside_the_draft(connect, form, program))


def beside_the_draft(connect: Connect, form: UUID, program: Program) -> tuple[Finding, ...]:
    """Return those findings that hang on calendars and tables as they are now."""
    return (*calendars.gone(connect, form, program), *drift(connect, form, program))
