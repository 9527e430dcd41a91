"""The groups of a team: made, named, taken away; members choose among them by a column of their table."""

from uuid import UUID

from codexa.core.definition.keys import code_from
from codexa.services.audit import note
from codexa.services.errors import NameTakenError, NotFoundError
from codexa.services.members import roll
from codexa.store import groups as store
from codexa.store import people, team
from codexa.store.database import Connect, Connection
from codexa.store.groups import Group
from codexa.store.sessions import SignedIn

MOST_GROUPS = 200


def list_groups(connect: Connect, *, who: SignedIn) -> list[Group]:
    """Return the groups of the team, by name."""
    with connect() as connection:
        return store.list_groups(connection, team=who.team_id)


def codes_for(connect: Connect, form: UUID) -> list[str]:
    """Return the codes of the groups that formulas of a form can ask for."""
    with connect() as connection:
        return store.codes_for(connection, form=form)


def make(connect: Connect, *, who: SignedIn, name: str) -> str:
    """Make a group, and return its code. Raises NameTakenError where one has that name, or there are too many."""
    name = " ".join(name.split())
    with connect() as connection:
        team.lock_team(connection, team=who.team_id)
        known = store.list_groups(connection, team=who.team_id)
        if len(known) >= MOST_GROUPS:
            raise NameTakenError(f"A team has at most {MOST_GROUPS} groups. Take one away first.")
        code = code_from(name, {each.code for each in known})
        if not store.insert_group(connection, team=who.team_id, code=code, name=name):
            raise _taken(name)
        note(connection, who, "group made", name=name)
        _offer(connection, who)
    return code


def rename(connect: Connect, *, who: SignedIn, code: str, name: str) -> None:
    """Give a group another name; formulas go on knowing it by its code. Raises NotFoundError, NameTakenError."""
    name = " ".join(name.split())
    with connect() as connection:
        before = _named(connection, who, code)
        if not store.name_group(connection, team=who.team_id, code=code, name=name):
            raise _taken(name)
        note(connection, who, "group renamed", name=name, before=before)
        _offer(connection, who)


def take_away(connect: Connect, *, who: SignedIn, code: str) -> None:
    """Take a group away: nobody is in it any more, whatever formulas say. Raises NotFoundError."""
    with connect() as connection:
        team.lock_team(connection, team=who.team_id)
        name = store.delete_group(connection, team=who.team_id, code=code)
        if name is None:
            raise NotFoundError("This group is gone already.")
        note(connection, who, "group taken away", name=name)
        _offer(connection, who)


def hanging(connect: Connect, *, who: SignedIn, code: str) -> list[str]:
    """Return the names of the forms that name a group or let it fill in."""
    with connect() as connection:
        return store.forms_reading(connection, team=who.team_id, code=code)


def set_in(connect: Connect, *, who: SignedIn, code: str, person: UUID, inside: bool) -> None:
    """Put a person of the team into a group, or take them out, at once. Raises NotFoundError."""
    with connect() as connection:
        group = _named(connection, who, code)
        if team.role_of(connection, team=who.team_id, person=person) is None:
            raise NotFoundError("This person is not in the team any more.")
        store.set_in(connection, team=who.team_id, code=code, person=person, inside=inside)
        kind = "put into a group" if inside else "taken out of a group"
        note(connection, who, kind, person=people.name_of(connection, person=person), name=group)


def _named(connection: Connection, who: SignedIn, code: str) -> str:
    team.lock_team(connection, team=who.team_id)
    found = next((each for each in store.list_groups(connection, team=who.team_id) if each.code == code), None)
    if found is None:
        raise NotFoundError("This group is gone. Look at the groups again.")
    return found.name


def _taken(name: str) -> NameTakenError:
    return NameTakenError(f"There is a group {name} already. Take another name.")


def _offer(connection: Connection, who: SignedIn) -> None:
    names = {each.code: each.name for each in store.list_groups(connection, team=who.team_id)}
    roll.offer_groups(connection, team=who.team_id, groups=names)
