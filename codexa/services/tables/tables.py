"""The team's tables: made, given other columns, deleted."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any
from uuid import UUID

import orjson

from codexa.core.definition.parts import Field
from codexa.core.errors import DefinitionError, Problem
from codexa.core.fields import field_type_of
from codexa.core.fields.file_upload import FileUploadField
from codexa.core.tables.members import members_problems
from codexa.core.tables.table import Table, table_of
from codexa.services.audit import note
from codexa.services.bounded_cache import BoundedCache
from codexa.services.errands.asking import ask
from codexa.services.errors import ClashError, NotFoundError, RecordRefusedError
from codexa.services.tables.retyping import retype
from codexa.services.tables.rights import allowed, may_see
from codexa.services.tables.working_out import take_anew, work_out_anew
from codexa.store import content, members, tables
from codexa.store.database import Connect, Connection
from codexa.store.sessions import SignedIn
from codexa.store.tables import ListedTable, TableRow

HELD_AGAINST = "forms held against a table"  # an errand, see drift
# Tables by id and revision, of which each is what it is for good; in bytes of what they were made of.
_KNOWN: BoundedCache[Table] = BoundedCache(50_000_000)
# What a new table begins with.
_FIRST = {"id": "c1", "type": "short_text", "key": "name", "label": "Name", "required": "TRUE"}


@dataclass(frozen=True, kw_only=True, slots=True)
class OpenedTable:
    """A table with its revision, and from which role on it is seen and changed, and by which groups besides."""

    id: UUID
    revision: int
    table: Table
    seen_by: str = "reviewer"
    changed_by: str = "editor"
    seen_groups: Sequence[str] = ()
    changed_groups: Sequence[str] = ()


def list_tables(connect: Connect, *, who: SignedIn) -> list[ListedTable]:
    """Return the team's tables that a person may see, by name."""
    with connect() as connection:
        found = tables.list_tables(connection, team=who.team_id)
    return [each for each in found if may_see(each, who)]


def create(connect: Connect, *, who: SignedIn, definition: Mapping[str, Any]) -> UUID:
    """Make a table; without columns it has one for names. Raises DefinitionError."""
    document = {**definition, "columns": definition.get("columns") or [_FIRST]}
    made = table_of(document)
    with connect() as connection:
        _refuse_taken_address(connection, who.team_id, None, made)
        return tables.insert_table(
            connection, team=who.team_id, name=made.definition.name, definition=document_of(made)
        )


def document_of(table: Table) -> dict[str, Any]:
    """Return a table's definition as JSON."""
    return table.definition.model_dump(mode="json")


def opened(row: TableRow | None) -> OpenedTable:
    """Return a table as it is kept. Raises NotFoundError."""
    if row is None:
        raise NotFoundError
    known = _KNOWN.get((row.id, row.revision), lambda: _made(row))
    rights = {name: getattr(row, name) for name in ("seen_by", "changed_by", "seen_groups", "changed_groups")}
    return OpenedTable(id=row.id, revision=row.revision, table=known, **rights)


def _made(row: TableRow) -> tuple[Table, int]:
    made = table_of(row.definition)
    return made, len(orjson.dumps(row.definition)) + len(made.program.source)


def show(connect: Connect, *, who: SignedIn, table: UUID, changes: bool = False) -> OpenedTable:
    """Return a table of the team that a person may see, or change. Raises NotFoundError, NotAllowedError."""
    with connect() as connection:
        row = tables.find_table(connection, team=who.team_id, table=table)
    return opened(allowed(row, who, changes=changes))


def save(connect: Connect, *, who: SignedIn, table: UUID, revision: int, definition: Mapping[str, Any]) -> OpenedTable:
    """Give a table other columns or another name; its records are worked out anew where that matters.

    Raises NotFoundError, NotAllowedError, ClashError where somebody else changed it meanwhile, DefinitionError: where a
    definition is wrong, a column's key is another than it was, what is kept can't be read as another type, or two
    records have the same in a column that no two may.
    """
    after = table_of(definition)
    with connect() as connection:
        row = tables.lock_table(connection, team=who.team_id, table=table)
        before = opened(allowed(row, who, changes=True))
        if before.revision != revision:
            raise ClashError("Somebody else has changed this table meanwhile. Look at it, then change it again.")
        _refuse_taken_address(connection, who.team_id, table, after)
        problems = list(_changed_for_good(before.table, after))
        if members.is_members(connection, table=table):
            problems += members_problems(before.table, after)
        if problems:
            raise DefinitionError(problems)
        retype(connection, table_id=table, before=before.table, after=after, person=who.person_id)
        # What is compared is what people read: other options or another language may make two alike.
        is_alike = _is_told_alike(before.table, after)
        if not is_alike and (after.definition.once or before.table.definition.once):
            take_anew(connection, table_id=table, table=after)
        saved = tables.set_definition(
            connection, table=table, name=after.definition.name, definition=document_of(after)
        )
        if not is_alike:
            work_out_anew(connection, team=who.team_id, table_id=table, table=after, revision=saved)
        if tables.forms_that_know(connection, table=table):
            ask(connection, HELD_AGAINST, {"table": str(table)})
    return replace(before, revision=saved, table=after)


def _refuse_taken_address(connection: Connection, team: UUID, table: UUID | None, after: Table) -> None:
    """Raise DefinitionError where another table of the team is published at the same address."""
    published = after.definition.published
    if published is not None and content.is_taken(connection, team=team, table=table, address=published.address):
        message = "another table is published at this address; take another one"
        raise DefinitionError([Problem(path="published.address", message=message)])


def _changed_for_good(before: Table, after: Table) -> Iterable[Problem]:
    """Yield what a column never changes: its key, which formulas name, and whether it is typed or worked out."""
    for at, column in enumerate(after.definition.columns):
        known = before.columns.get(column.id)
        if known is not None and known.key != column.key:
            message = f"the key of a column is for good: it is {known.key}, and formulas call it so"
            yield Problem(path=f"columns.{at}.key", message=message)
        now = after.columns.get(column.id)
        if known is not None and now is not None and _is_kept_as(known) != _is_kept_as(now):
            message = "what is typed, what is worked out and files are read as none of the others; add another column"
            yield Problem(path=f"columns.{at}.type", message=message)


def _is_kept_as(column: Field) -> str:
    if isinstance(column, FileUploadField):
        return "files"
    return "typed" if field_type_of(column).answered else "worked out"


def _is_told_alike(before: Table, after: Table) -> bool:
    """Whether records stay as they are: only names, labels, help or the order of columns changed."""
    said = {"label", "help", "width", "placeholder"}

    def bare(table: Table) -> dict[str, Any]:
        columns = {each.id: each.model_dump(mode="json", exclude=said) for each in table.columns.values()}
        rest = table.definition.model_dump(mode="json", exclude={"name", "columns", "published"})
        return {**rest, "named_by": table.named_by, "columns": columns}

    return bare(before) == bare(after)


def delete(connect: Connect, *, who: SignedIn, table: UUID) -> None:
    """Take a table away. Raises NotFoundError, NotAllowedError."""
    name = show(connect, who=who, table=table, changes=True).table.definition.name
    with connect() as connection:
        if members.is_members(connection, table=table):
            raise RecordRefusedError("These are the team's members, who sign in by this table. It stays.")
        if not tables.delete_table(connection, team=who.team_id, table=table):
            raise NotFoundError
        note(connection, who, "table deleted", name=name)
        if tables.forms_that_know(connection, table=table):
            ask(connection, HELD_AGAINST, {"table": str(table)})
