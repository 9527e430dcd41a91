"""The roll of a team's members: a table whose records they are; begun by the team, with its groups to choose from."""

from collections.abc import Mapping, Sequence
from typing import Any
from uuid import UUID

from codexa.core.fields.several_choices import SeveralChoicesField
from codexa.core.tables.members import EMAIL, GROUPS, compared_email, members_definition
from codexa.core.tables.table import Table, table_of
from codexa.services.audit import note
from codexa.services.errands.asking import ask
from codexa.services.errors import NotFoundError
from codexa.services.members.mails import INVITATION
from codexa.services.tables import rights
from codexa.services.tables.records import Changing, Typed
from codexa.services.tables.tables import document_of, opened
from codexa.services.tables.working_out import work_out_anew
from codexa.store import groups as group_store
from codexa.store import members as store
from codexa.store import tables, team
from codexa.store.database import Connect, Connection
from codexa.store.members import Accounts
from codexa.store.sessions import SignedIn

MOST_INVITED = 2_000


class NotEnrolledError(Exception):
    """Somebody can't be made a member: what is wrong, for the team."""


def begin(connect: Connect, *, who: SignedIn, further: Sequence[Mapping[str, Any]] = ()) -> UUID:
    """Return the table of the team's members; it is made where there is none, with `further` columns."""
    with connect() as connection:
        team.lock_team(connection, team=who.team_id)
        known = store.members_table(connection, team=who.team_id)
        if known is not None:
            return known.id
        made = make(connection, who.team_id, further)
        note(connection, who, "members begun")
    return made


def make(connection: Connection, team_id: UUID, further: Sequence[Mapping[str, Any]] = ()) -> UUID:
    """Make the table of a team's members, which has none."""
    groups = {each.code: each.name for each in group_store.list_groups(connection, team=team_id)}
    definition = members_definition(groups)
    table = table_of({**definition, "columns": [*definition["columns"], *further]})
    made = tables.insert_table(connection, team=team_id, name=table.definition.name, definition=document_of(table))
    store.set_members_table(connection, team=team_id, table=made)
    return made


def find(connect: Connect, *, who: SignedIn) -> tuple[UUID, Accounts] | None:
    """Return the table of the team's members and how their accounts stand; None where there is none."""
    with connect() as connection:
        row = store.members_table(connection, team=who.team_id)
        if row is None or not rights.may_see(row, who):
            return None
        return row.id, store.accounts(connection, table=row.id)


def offer_groups(connection: Connection, *, team: UUID, groups: Mapping[str, str]) -> None:
    """Have members choose among these groups, names by code; what is kept of others stays, and counts no more."""
    row = store.members_table(connection, team=team)
    if row is None:
        return
    row = tables.lock_table(connection, team=team, table=row.id)
    assert row is not None
    table = table_of(members_definition(groups, row.definition))
    revision = tables.set_definition(
        connection, table=row.id, name=table.definition.name, definition=document_of(table)
    )
    work_out_anew(connection, team=team, table_id=row.id, table=table, revision=revision)


def enrol(connection: Connection, *, team: UUID, email: str, name: str, groups: Sequence[str]) -> tuple[UUID, bool]:
    """Return the account of whoever has this e-mail, and whether it was made just now; groups are added to theirs.

    Two at once make one: the table is locked. `email` is as `member_address` gives it. Raises
    NotEnrolledError with what the table of members asks for besides.
    """
    row = store.members_table(connection, team=team)
    table_id = make(connection, team) if row is None else row.id
    known = opened(tables.lock_table(connection, team=team, table=table_id)).table
    found = store.find_by_email(connection, team=team, email=compared_email(email))
    offered = [each for each in groups if GROUPS in known.columns]
    if found is None:
        answers = {EMAIL: email, "name": name, **({GROUPS: _chosen(known, offered)} if offered else {})}
        typed = Typed(number=None, revision=None, cells={}, answers=answers)
    else:
        kept = tables.lock_records(connection, table=table_id, numbers=[found.number])[found.number].kept
        more = [each for each in offered if each not in kept.get(GROUPS, [])]
        if not more:
            return store.as_member(connection, table=table_id, number=found.number), False
        answers = {GROUPS: _chosen(known, [*kept.get(GROUPS, []), *more])}
        typed = Typed(number=found.number, revision=None, cells={}, answers=answers)
    rows, wrong = Changing(connection, table_id, known, None).keep([typed])
    if wrong:
        raise NotEnrolledError(wrong[0].message)
    return store.as_member(connection, table=table_id, number=rows[0].number), found is None


def _chosen(table: Table, codes: Sequence[str]) -> list[str]:
    column = table.columns[GROUPS]
    assert isinstance(column, SeveralChoicesField)
    return [each.id for each in column.options if each.code in codes]


def invite(connect: Connect, *, who: SignedIn, numbers: Sequence[int]) -> int:
    """Write to members, by the numbers of their records, that they have an account; return to how many.

    Raises NotFoundError where the team has no members.
    """
    with connect() as connection:
        row = store.members_table(connection, team=who.team_id)
        if row is None:
            raise NotFoundError("The team has no members yet. Begin with them in Team.")
        rights.allowed(row, who, changes=True)
        there = tables.lock_records(connection, table=row.id, numbers=list(numbers)[:MOST_INVITED])
        for number in sorted(there):
            member = store.as_member(connection, table=row.id, number=number)
            store.note_invited(connection, member=member)
            ask(connection, INVITATION, {"team": str(who.team_id), "member": str(member)}, team=who.team_id)
        note(connection, who, "members invited", count=len(there))
    return len(there)
