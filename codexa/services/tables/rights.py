"""Who may see a table, and who may change it: everybody of the team from a role on, as its owners say."""

from collections.abc import Iterator, Sequence
from typing import Literal, Protocol
from uuid import UUID

from codexa.core.errors import DefinitionError, Problem
from codexa.core.form.follow_ups import RecordFollowUp
from codexa.core.form.form import Form
from codexa.services.audit import note
from codexa.services.errors import NotAllowedError, NotFoundError
from codexa.store import tables
from codexa.store.database import Connect
from codexa.store.look_ups import is_id
from codexa.store.sessions import SignedIn
from codexa.store.tables import Rights, TableRow

SeenBy = Literal["viewer", "reviewer", "editor", "owner"]
ChangedBy = Literal["reviewer", "editor", "owner"]
_RANKS = {"viewer": 0, "reviewer": 1, "editor": 2, "owner": 3}


class Seen(Protocol):
    """A table, with who sees and who changes it: from a role on, and some groups besides."""

    @property
    def seen_by(self) -> str:
        """The role from which on it is seen."""

    @property
    def seen_groups(self) -> Sequence[str]:
        """The groups who see it besides."""

    @property
    def changed_groups(self) -> Sequence[str]:
        """The groups who change it besides."""


class Changed(Seen, Protocol):
    """The same with the role from which on it is changed."""

    @property
    def changed_by(self) -> str:
        """The role."""


def may_see(row: Seen, who: SignedIn) -> bool:
    """Say whether a person may see a table: whoever changes it may."""
    inside = not {*row.seen_groups, *row.changed_groups}.isdisjoint(who.groups)
    return inside or _RANKS[who.team_role] >= _RANKS[row.seen_by]


def may_change(row: Changed, who: SignedIn) -> bool:
    """Say whether a person may change a table's records; whoever may, may see them."""
    inside = not set(row.changed_groups).isdisjoint(who.groups)
    return inside or (may_see(row, who) and _RANKS[who.team_role] >= _RANKS[row.changed_by])


def allowed(row: TableRow | None, who: SignedIn, *, changes: bool) -> TableRow:
    """Return a table that a person may see, or change. Raises NotFoundError, NotAllowedError."""
    if row is None:
        raise NotFoundError
    if not (may_change if changes else may_see)(row, who):
        raise NotAllowedError
    return row


def grant(connect: Connect, rights: Rights, *, who: SignedIn, table: UUID) -> None:
    """Say who may see and change a table; who may change it sees it. Raises NotFoundError, DefinitionError."""
    seen_by, changed_by = rights.seen_by, rights.changed_by
    if _RANKS[changed_by] < _RANKS[seen_by]:
        message = "who may change a table sees it; let the same people see it, or fewer change it"
        raise DefinitionError([Problem(path="changed_by", message=message)])
    with connect() as connection:
        if not tables.set_rights(connection, rights, team=who.team_id, table=table):
            raise NotFoundError
        row = tables.find_table(connection, team=who.team_id, table=table)
        told = {"seen": _told(seen_by, rights.seen_groups), "changed": _told(changed_by, rights.changed_groups)}
        note(connection, who, "table rights", name=row.name if row else "", **told)


def _told(role: str, groups: Sequence[str]) -> str:
    return ", ".join([f"{role}s and above", *groups])


def refuse_beyond_rights(connect: Connect, *, who: SignedIn, former: Form | None, draft: Form) -> None:
    """Raise DefinitionError where a draft shows or fills a table that its author may not see or change.

    What the `former` draft had of it may stay as it was: somebody else, who may, has put it there.
    """
    ids = [UUID(each.id) for each in draft.tables if is_id(each.id)]
    if not ids:
        return
    with connect() as connection:
        rows = {row.id.hex: row for row in tables.find_tables(connection, team=who.team_id, tables=ids)}
    if all(may_change(row, who) for row in rows.values()):
        return
    problems = [*_shown(rows, who, former, draft), *_filled(rows, who, former, draft)]
    if problems:
        raise DefinitionError(problems)


def _shown(rows: dict[str, TableRow], who: SignedIn, before: Form | None, draft: Form) -> Iterator[Problem]:
    for at, known in enumerate(draft.tables):
        row = rows.get(known.id)
        if row is None or may_see(row, who) or (before is not None and known == before.table(known.id)):
            continue
        message = f"you may not see the table {row.name}; ask an owner of the team"
        yield Problem(path=f"tables.{at}", message=message)


def _filled(rows: dict[str, TableRow], who: SignedIn, before: Form | None, draft: Form) -> Iterator[Problem]:
    kept = {each.id: each for each in before.follow_ups} if before is not None else {}
    for at, follow_up in enumerate(draft.follow_ups):
        if not isinstance(follow_up, RecordFollowUp) or kept.get(follow_up.id) == follow_up:
            continue
        for step in follow_up.steps:
            row = rows.get(step.table)
            if row is not None and not may_change(row, who):
                message = f"you may not change the table {row.name}; ask an owner of the team"
                yield Problem(path=f"follow_ups.{at}", message=message)
