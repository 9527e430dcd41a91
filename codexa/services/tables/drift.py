"""Forms held against the tables as they are now: what they name that is not there any more."""

from uuid import UUID

from codexa.core.form.form import Form
from codexa.core.form.known_tables import KnownTable
from codexa.core.program.findings import Finding
from codexa.core.program.program import Program
from codexa.core.program.table_drift import table_drift
from codexa.core.tables.table import known_table
from codexa.services.editions import Editions
from codexa.services.tables.tables import opened
from codexa.store import tables
from codexa.store.database import Connect
from codexa.store.look_ups import is_id


def tables_now(connect: Connect, form: UUID, draft: Form) -> dict[str, KnownTable]:
    """Return the tables that a form knows as they are now, by id; those that are not its team's are left out."""
    ids = [UUID(each.id) for each in draft.tables if is_id(each.id)]
    if not ids:
        return {}
    with connect() as connection:
        rows = tables.tables_of_form(connection, form=form, tables=ids)
    return {row.id.hex: known_table(row.id.hex, opened(row).table) for row in rows}


def drift(connect: Connect, form: UUID, program: Program) -> list[Finding]:
    """Return what a form names of its tables that is not there any more."""
    if not program.form.tables:
        return []
    return list(table_drift(program, tables_now(connect, form, program.form)))


def carry_out(connect: Connect, editions: Editions, table: UUID) -> str:
    """Note of each live edition that knows a table what it names and no table has any more."""
    with connect() as connection:
        found = tables.forms_that_know(connection, table=table)
    for form, edition in found:
        note(connect, editions, form, edition)
    return f"{len(found)} forms held against it"


def note(connect: Connect, editions: Editions, form: UUID, edition: int) -> None:
    """Note what an edition names of tables that they do not have any more, for the desk."""
    findings = drift(connect, form, editions.program(form, edition))
    words = None if not findings else " ".join(dict.fromkeys(each.message for each in findings))[:500]
    with connect() as connection:
        tables.note_drift(connection, form=form, edition=edition, words=words)
