"""The team's brands and pictures."""

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("brands")


@dataclass(frozen=True, kw_only=True, slots=True)
class SavedBrand:
    """A brand of the team: `look` is its JSON, `forms` how many use it, of which so many are `waiting` with it."""

    id: UUID
    name: str
    look: dict[str, Any]
    forms: int
    waiting: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Picture:
    """A picture that was stored: `size` in bytes, width and height in pixels."""

    id: UUID
    name: str
    media_type: str
    size: int
    width: int
    height: int


def list_brands(connection: Connection, *, team: UUID) -> list[SavedBrand]:
    """Return the team's brands by name."""
    return [SavedBrand(**row) for row in many(connection, _QUERIES["list_brands"], team=team)]


def insert_brand(connection: Connection, *, team: UUID, name: str, look: dict[str, Any]) -> UUID | None:
    """Keep a brand and return its id; None where the team has one of that name."""
    row = one(connection, _QUERIES["insert_brand"], team=team, name=name, look=Jsonb(look))
    return row["id"] if row else None


def set_brand(connection: Connection, *, team: UUID, brand: UUID, look: dict[str, Any]) -> bool:
    """Change a brand; False where the team has none of that id."""
    return one(connection, _QUERIES["set_brand"], team=team, brand=brand, look=Jsonb(look)) is not None


def give_to_waiting_drafts(connection: Connection, *, team: UUID, brand: UUID, person: UUID) -> None:
    """Put a brand's look into the drafts of forms that use it and wait for their next edition, as new states."""
    connection.execute(_QUERIES["give_to_waiting_drafts"], {"team": team, "brand": brand, "person": person})


def delete_brand(connection: Connection, *, team: UUID, brand: UUID) -> bool:
    """Delete a brand; False where the team has none of that id."""
    return one(connection, _QUERIES["delete_brand"], team=team, brand=brand) is not None


def find_look_of_form(connection: Connection, *, form: UUID, brand: str) -> dict[str, Any] | None:
    """Return how the brand of that id (any text) looks now, where the form belongs to the same team."""
    row = one(connection, _QUERIES["find_look_of_form"], form=form, brand=brand)
    return row["look"] if row else None


def insert_picture(connection: Connection, picture: Picture, *, team: UUID) -> None:
    """Take up a picture that was stored."""
    names = ("id", "name", "media_type", "size", "width", "height")
    connection.execute(_QUERIES["insert_picture"], {**{name: getattr(picture, name) for name in names}, "team": team})


def delete_unused_pictures(connection: Connection, *, days: int) -> list[UUID]:
    """Delete pictures older than so many days that nothing of their team names, and return their ids."""
    return [row["id"] for row in many(connection, _QUERIES["delete_unused_pictures"], days=days)]


def find_picture(connection: Connection, *, picture: UUID) -> str | None:
    """Return the media type of a picture."""
    row = one(connection, _QUERIES["find_picture"], picture=picture)
    return row["media_type"] if row else None
