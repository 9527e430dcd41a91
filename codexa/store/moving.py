"""Personal desks, and forms that move to another team."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("moving")


@dataclass(frozen=True, kw_only=True, slots=True)
class FormToMove:
    """What of a form hangs on its team; `live` is what visitors get, None where it was never published."""

    name: str
    slug: str
    draft: dict[str, Any]
    access: dict[str, Any]
    live: dict[str, Any] | None


def own_desk(connection: Connection, *, person: UUID) -> UUID | None:
    """Return somebody's personal desk; None where they have none yet."""
    row = one(connection, _QUERIES["own_desk"], person=person)
    return row["id"] if row else None


def insert_desk(connection: Connection, *, person: UUID, slug: str, name: str) -> UUID | None:
    """Make somebody's personal desk, and return it; None where they have one, or the slug is taken."""
    row = one(connection, _QUERIES["insert_desk"], person=person, slug=slug, name=name)
    return row["id"] if row else None


def is_personal(connection: Connection, *, team: UUID) -> bool:
    """Say whether a team is somebody's personal desk."""
    return bool(exactly_one(connection, _QUERIES["is_personal"], team=team)["is_personal"])


def slugs_of_teams(connection: Connection, *, slug: str) -> set[str]:
    """Return the slugs of teams that are `slug` or begin with it and a hyphen."""
    return {row["slug"] for row in many(connection, _QUERIES["slugs_of_teams"], slug=slug)}


def form_to_move(connection: Connection, *, team: UUID, form: UUID) -> FormToMove | None:
    """Return what of a form hangs on its team; nobody else changes it until the transaction ends."""
    row = one(connection, _QUERIES["form_to_move"], team=team, form=form)
    return FormToMove(**row) if row else None


def who_uses_table(
    connection: Connection, *, team: UUID, form: UUID, table: UUID, tables: Collection[UUID]
) -> list[str]:
    """Return what else of a team than a form, and these tables, names a table."""
    known = {"team": team, "form": form, "tables": list(tables), "known_as": table.hex, "id": str(table)}
    return [row["name"] for row in many(connection, _QUERIES["who_uses_table"], **known)]


def people_missing(connection: Connection, *, team: UUID, people: Collection[str]) -> list[str]:
    """Return those of some people, by id, who are not in a team, by name."""
    return [row["name"] for row in many(connection, _QUERIES["people_missing"], team=team, people=list(people))]


def move_form(
    connection: Connection,
    *,
    form: UUID,
    source: UUID,
    team: UUID,
    before: str,
    slug: str,
    tables: Sequence[UUID],
    person: UUID,
) -> None:
    """Move a form, with tables, to another team under an address; the one that it had `before` leads on."""
    known = {"form": form, "source": source, "team": team, "before": before, "slug": slug, "tables": list(tables)}
    connection.execute(_QUERIES["move_form"], {**known, "person": person})


def forms_of_desk(connection: Connection, *, person: UUID) -> list[tuple[UUID, str]]:
    """Return the forms on somebody's personal desk, by id and name."""
    return [(row["id"], row["name"]) for row in many(connection, _QUERIES["forms_of_desk"], person=person)]


def count_teams(connection: Connection, *, person: UUID) -> int:
    """Return in how many teams somebody is, beside their own desk."""
    return int(exactly_one(connection, _QUERIES["count_teams"], person=person)["count"])
