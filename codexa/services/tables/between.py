"""A form made of a table's columns, and a table made of a form's fields."""

from dataclasses import dataclass
from uuid import UUID

from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.form.upgrades import read_stored
from codexa.core.tables.between import form_of_table, table_of_form
from codexa.core.tables.table import known_table
from codexa.services import desk
from codexa.services.drafts import find
from codexa.services.tables import tables
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn


def make_form(connect: Connect, *, who: SignedIn, table: UUID) -> UUID:
    """Make a form that asks for a table's columns and keeps each answer there, and return its id.

    Raises NotFoundError.
    """
    opened = tables.show(connect, who=who, table=table)
    named = {each.table for each in opened.table.columns.values() if isinstance(each, RecordChoiceField)}
    others = {
        each.id.hex: known_table(each.id.hex, tables.show(connect, who=who, table=each.id).table)
        for each in tables.list_tables(connect, who=who)
        if each.id.hex in named
    }
    return desk.import_form(connect, who=who, document=form_of_table(opened.id.hex, opened.table, others))


@dataclass(frozen=True, kw_only=True, slots=True)
class MadeTable:
    """A table that was made of a form, and the labels of what it has no column for."""

    id: UUID
    left_out: list[str]


def make_table(connect: Connect, *, who: SignedIn, form: UUID) -> MadeTable:
    """Make a table with a column for each field of a form's draft. Raises NotFoundError, DefinitionError."""
    found = table_of_form(read_stored(find(connect, who=who, form=form).draft))
    return MadeTable(id=tables.create(connect, who=who, definition=found.definition), left_out=list(found.left_out))
