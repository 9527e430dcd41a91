"""Uploads: what is known of the files that visitors sent."""

from collections.abc import Iterable
from dataclasses import dataclass
from uuid import UUID

from codexa.store.database import Connection, exactly_one, many, one
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


@dataclass(frozen=True, kw_only=True, slots=True)
class Waiting:
    """Bytes of files that no response names yet: sent to a form, and sent from a network to any form."""

    of_form: int
    of_network: int


def insert_upload(connection: Connection, upload: Upload, *, form: UUID, visit: str, network: str) -> None:
    """Take up a file that was stored: on which visit it came, and from which network."""
    values = {name: getattr(upload, name) for name in ("id", "name", "media_type", "size", "has_thumbnail")}
    known = {"form": form, "block": upload.block_id, "visit": visit, "network": network}
    connection.execute(_QUERIES["insert_upload"], {**values, **known})


def sizes_waiting(connection: Connection, *, form: UUID, network: str) -> Waiting:
    """Return how much waits for a response."""
    row = exactly_one(connection, _QUERIES["sizes_waiting"], form=form, network=network)
    return Waiting(of_form=int(row["of_form"]), of_network=int(row["of_network"]))


def find_uploads(connection: Connection, *, form: UUID, visit: str, ids: Iterable[UUID]) -> dict[str, Upload]:
    """Return the files among these that were sent to the form on that visit and belong to no response yet, by id."""
    rows = many(connection, _QUERIES["find_uploads"], form=form, visit=visit, ids=list(ids))
    return {str(row["id"]): Upload(**row) for row in rows}


def lock_uploads(connection: Connection, *, form: UUID, ids: Iterable[UUID]) -> set[UUID]:
    """Keep files for this transaction and return those that could be: no response has them."""
    return {row["id"] for row in many(connection, _QUERIES["lock_uploads"], form=form, ids=list(ids))}


def find_upload_of_team(connection: Connection, *, team: UUID, form: UUID, id: UUID) -> Upload | None:  # noqa: A002
    """Return what is known of a file that a response of the team's form names."""
    row = one(connection, _QUERIES["find_upload_of_team"], team=team, form=form, id=id)
    return Upload(**row) if row else None


def claim_uploads(connection: Connection, *, form: UUID, number: int, ids: Iterable[UUID]) -> None:
    """Tie files, locked before, to the response that names them."""
    connection.execute(_QUERIES["claim_uploads"], {"form": form, "number": number, "ids": list(ids)})


def delete_unclaimed(connection: Connection, *, hours: int) -> list[UUID]:
    """Forget files that no response has named for so many hours, and return their ids."""
    return [row["id"] for row in many(connection, _QUERIES["delete_unclaimed"], hours=hours)]


def hold_tidying(connection: Connection) -> None:
    """Let nothing be tidied up until the transaction ends; waits for a tidying that goes on."""
    connection.execute(_QUERIES["hold_tidying"])


def all_files(connection: Connection) -> list[str]:
    """Return every file that the database knows, as a path below the folder of files."""
    return [row["path"] for row in many(connection, _QUERIES["all_files"])]
