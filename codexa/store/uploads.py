"""Uploads: what is known of the files that visitors sent."""

from collections.abc import Iterable
from dataclasses import dataclass
from uuid import UUID

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("uploads")


@dataclass(frozen=True, kw_only=True, slots=True)
class Upload:
    """A file: `size` in bytes, `media_type` as found inside it."""

    id: UUID
    block_id: str
    name: str
    media_type: str
    size: int
    has_thumbnail: bool


def insert_upload(connection: Connection, upload: Upload, *, form: UUID) -> None:
    """Take up a file that was stored."""
    values = {name: getattr(upload, name) for name in ("id", "name", "media_type", "size", "has_thumbnail")}
    connection.execute(_QUERIES["insert_upload"], {**values, "form": form, "block": upload.block_id})


def find_uploads(connection: Connection, *, form: UUID, ids: Iterable[UUID]) -> dict[str, Upload]:
    """Return the files among these that were sent to the form and belong to no response yet, by id."""
    rows = many(connection, _QUERIES["find_uploads"], form=form, ids=list(ids))
    return {str(row["id"]): Upload(**row) for row in rows}


def find_upload_of_team(connection: Connection, *, team: UUID, form: UUID, id: UUID) -> Upload | None:  # noqa: A002
    """Return what is known of a file that a response of the team's form names."""
    row = one(connection, _QUERIES["find_upload_of_team"], team=team, form=form, id=id)
    return Upload(**row) if row else None


def claim_uploads(connection: Connection, *, form: UUID, number: int, ids: Iterable[UUID]) -> None:
    """Tie files to the response that names them."""
    connection.execute(_QUERIES["claim_uploads"], {"form": form, "number": number, "ids": list(ids)})


def delete_unclaimed(connection: Connection, *, hours: int) -> list[UUID]:
    """Forget files that no response has named for so many hours, and return their ids."""
    return [row["id"] for row in many(connection, _QUERIES["delete_unclaimed"], hours=hours)]
