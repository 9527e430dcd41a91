"""Saved views of a form's responses, and the statuses that its team has given them."""

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("views")


@dataclass(frozen=True, kw_only=True, slots=True)
class ViewRow:
    """A saved view: its name, what it is, whether it opens first, and who made it."""

    id: UUID
    name: str
    content: dict[str, Any]
    opens_first: bool
    made_by: str | None


def list_views(connection: Connection, *, team: UUID, form: UUID) -> list[ViewRow]:
    """Return the views of a form, by name."""
    return [ViewRow(**row) for row in many(connection, _QUERIES["list_views"], team=team, form=form)]


def save_view(
    connection: Connection,
    *,
    team: UUID,
    form: UUID,
    person: UUID,
    view: UUID | None,
    name: str,
    content: dict[str, Any],
    opens_first: bool,
) -> UUID | None:
    """Keep a view, a new one or `view` anew; None where the form or the view is gone, or the name is another's."""
    if opens_first:
        connection.execute(_QUERIES["none_first"], {"team": team, "form": form})
    values = {"team": team, "form": form, "person": person, "view": view, "name": name, "opens_first": opens_first}
    query = _QUERIES["insert_view" if view is None else "update_view"]
    row = one(connection, query, **values, content=Jsonb(content))
    return None if row is None else UUID(str(row["id"]))


def delete_view(connection: Connection, *, team: UUID, form: UUID, view: UUID) -> bool:
    """Forget a view; False where there is none."""
    return one(connection, _QUERIES["delete_view"], team=team, form=form, view=view) is not None


def statuses(connection: Connection, *, team: UUID, form: UUID) -> list[dict[str, Any]] | None:
    """Return a form's statuses as they are kept; None where the team has no such form."""
    row = one(connection, _QUERIES["statuses"], team=team, form=form)
    return None if row is None else list(row["statuses"])


def set_statuses(connection: Connection, *, team: UUID, form: UUID, statuses: list[dict[str, Any]]) -> bool:
    """Give a form other statuses; False where the team has no such form."""
    values = {"team": team, "form": form, "statuses": Jsonb(statuses)}
    return one(connection, _QUERIES["set_statuses"], **values) is not None


def known_tags(connection: Connection, *, form: UUID) -> list[str]:
    """Return the tags that a form's responses have, by name."""
    return [row["tag"] for row in many(connection, _QUERIES["known_tags"], form=form)]


def known_links(connection: Connection, *, form: UUID) -> list[tuple[int, str]]:
    """Return what a form's sealed links were made with: id and name."""
    return [(row["id"], row["name"]) for row in many(connection, _QUERIES["known_links"], form=form)]
