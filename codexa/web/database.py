"""The request's way to the database."""

from contextlib import AbstractContextManager
from pathlib import Path

from flask import current_app
from psycopg_pool import ConnectionPool

from codexa.services.answering import Programs
from codexa.store.database import Connection


def pool() -> ConnectionPool[Connection]:
    """Return this process's pool of connections."""
    found: ConnectionPool[Connection] = current_app.extensions["codexa_pool"]
    return found


def connection() -> AbstractContextManager[Connection]:
    """Return a connection for a `with`, which is one transaction: kept at its end, undone by an error."""
    return pool().connection()


def files_folder() -> Path:
    """Return the folder where uploads lie."""
    return Path(current_app.config["SETTINGS"].files)


def programs() -> Programs:
    """Return this process's compiled editions."""
    found: Programs = current_app.extensions["codexa_programs"]
    return found
