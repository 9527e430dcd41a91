"""Live feeds: addresses that give a view of a form's responses to whoever has them."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("feeds")


@dataclass(frozen=True, kw_only=True, slots=True)
class FeedRow:
    """A feed as its team sees it; `view` is the view's name, `sealed` its secret, encrypted."""

    id: UUID
    view_id: UUID
    view: str
    sealed: bytes
    made_by: str | None
    made_at: datetime
    last_fetched_at: datetime | None
    fetches: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Gives:
    """What a feed gives: of which form of which team, with how many `editions`, and the content of its view."""

    id: UUID
    form_id: UUID
    team_id: UUID
    slug: str
    content: dict[str, Any]
    editions: int


def insert_feed(
    connection: Connection, *, team: UUID, form: UUID, view: UUID, person: UUID, digest: bytes, sealed: bytes
) -> UUID | None:
    """Make a feed of a view and return its id; None where the team has no such view."""
    values = {"team": team, "form": form, "view": view, "person": person, "digest": digest, "sealed": sealed}
    row = one(connection, _QUERIES["insert_feed"], **values)
    return row["id"] if row else None


def list_feeds(connection: Connection, *, team: UUID, form: UUID) -> list[FeedRow]:
    """Return the feeds of a form, newest first."""
    return [FeedRow(**row) for row in many(connection, _QUERIES["list_feeds"], team=team, form=form)]


def delete_feed(connection: Connection, *, team: UUID, form: UUID, feed: UUID) -> bool:
    """End a feed for ever; False where there is none."""
    return one(connection, _QUERIES["delete_feed"], team=team, form=form, feed=feed) is not None


def find_feed(connection: Connection, *, digest: bytes) -> Gives | None:
    """Return what a secret gives, None where it gives nothing (any more)."""
    row = one(connection, _QUERIES["find_feed"], digest=digest)
    return Gives(**row) if row else None


def fetched(connection: Connection, *, feed: UUID) -> None:
    """Note that a feed was fetched now."""
    connection.execute(_QUERIES["fetched"], {"feed": feed})
