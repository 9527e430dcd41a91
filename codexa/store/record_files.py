"""Files in the columns of tables: what is known of them."""

from uuid import UUID

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries
from codexa.store.uploads import Upload

_QUERIES = queries("record_files")


def insert_file(connection: Connection, upload: Upload, *, table: UUID, number: int) -> None:
    """Take up a file that was stored for a record."""
    values = {name: getattr(upload, name) for name in ("id", "name", "media_type", "size", "has_thumbnail")}
    connection.execute(_QUERIES["insert_file"], {**values, "table": table, "number": number})


def find_file(connection: Connection, *, team: UUID, table: UUID, id: UUID) -> Upload | None:  # noqa: A002
    """Return what is known of a file of a table of the team."""
    row = one(connection, _QUERIES["find_file"], team=team, table=table, id=id)
    return Upload(**row) if row else None


def sent_upload(connection: Connection, *, form: UUID, id: UUID) -> Upload | None:  # noqa: A002
    """Return what is known of a file that a response to a form has brought."""
    row = one(connection, _QUERIES["sent_upload"], form=form, id=id)
    return Upload(**row) if row else None


def delete_left_over(connection: Connection, *, hours: int) -> list[UUID]:
    """Forget files, stored so many hours ago, of records that are gone for good; return their ids."""
    return [row["id"] for row in many(connection, _QUERIES["delete_left_over"], hours=hours)]
