"""The groups of a team, and who of its people is in them; those of members stand in their records."""

from dataclasses import dataclass
from uuid import UUID

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("groups")


@dataclass(frozen=True, kw_only=True, slots=True)
class Group:
    """A group: formulas know it by its `code`, people by its `name`; `people` are those of the team in it."""

    code: str
    name: str
    people: list[UUID]


def list_groups(connection: Connection, *, team: UUID) -> list[Group]:
    """Return the groups of a team, by name."""
    return [Group(**row) for row in many(connection, _QUERIES["list_groups"], team=team)]


def codes_for(connection: Connection, *, form: UUID) -> list[str]:
    """Return the codes of the groups of the team that a form belongs to."""
    return [row["code"] for row in many(connection, _QUERIES["codes_for"], form=form)]


def insert_group(connection: Connection, *, team: UUID, code: str, name: str) -> bool:
    """Make a group; False where another has the name or the code."""
    return one(connection, _QUERIES["insert_group"], team=team, code=code, name=name) is not None


def name_group(connection: Connection, *, team: UUID, code: str, name: str) -> bool:
    """Give a group another name; False where there is no such group, or another has the name."""
    return one(connection, _QUERIES["name_group"], team=team, code=code, name=name) is not None


def delete_group(connection: Connection, *, team: UUID, code: str) -> str | None:
    """Take a group away, and return what it was called; None where there is none."""
    row = one(connection, _QUERIES["delete_group"], team=team, code=code)
    return row["name"] if row else None


def set_in(connection: Connection, *, team: UUID, code: str, person: UUID, inside: bool) -> None:
    """Put a person of the team into a group, or take them out."""
    known = {"team": team, "code": code, "person": person}
    connection.execute(_QUERIES["put_in" if inside else "take_from"], known)


def forms_reading(connection: Connection, *, team: UUID, code: str) -> list[str]:
    """Return the names of the forms that name a group, or let it fill in."""
    quoted = f'"{code.lower()}\\"'.replace('"', '\\"', 1)  # as it stands in a formula's text, in JSON
    return [row["name"] for row in many(connection, _QUERIES["forms_reading"], team=team, code=code, quoted=quoted)]
