"""The request's way to the database."""

from contextlib import AbstractContextManager

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


def programs() -> Programs:
    """Return this process's compiled editions."""
    found: Programs = current_app.extensions["codexa_programs"]
    return found
