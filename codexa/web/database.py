"""The request's way to the database, and to what the process keeps of it."""

from contextlib import AbstractContextManager
from dataclasses import dataclass
from pathlib import Path

from flask import current_app

from codexa.services.admission import Admissions
from codexa.services.compiled_drafts import CompiledDrafts
from codexa.services.editions import Editions
from codexa.services.own_pages import OwnPages
from codexa.settings import Settings
from codexa.store.database import Connection, Database

_EXPORT_SECONDS = 60


@dataclass(frozen=True, kw_only=True)
class Kept:
    """What a web process has: its connections, those of exports apart, and the forms that it has compiled."""

    database: Database
    exports: Database
    editions: Editions
    admissions: Admissions
    compiled_drafts: CompiledDrafts

    @classmethod
    def of(cls, settings: Settings) -> "Kept":
        """Make what these settings say; nothing connects yet."""
        database = Database(settings.database, int(settings.pool_size))
        exports = Database(settings.database, int(settings.export_pool_size), statement_seconds=_EXPORT_SECONDS)
        connect = database.connection
        editions = Editions(connect)
        return cls(
            database=database,
            exports=exports,
            editions=editions,
            admissions=Admissions(connect, editions, settings),
            compiled_drafts=CompiledDrafts(connect),
        )

    def close(self) -> None:
        """Close all connections."""
        self.database.close()
        self.exports.close()


def _kept() -> Kept:
    found: Kept = current_app.extensions["codexa"]
    return found


def own_pages() -> OwnPages:
    """Return what makes the private addresses of responses."""
    return OwnPages(settings=current_app.config["SETTINGS"])


def connection() -> AbstractContextManager[Connection]:
    """Return a connection for a `with`, which is one transaction: kept at its end, undone by an error.

    Never held while a network, a file or a compile is waited for.
    """
    return _kept().database.connection()


def export_connection() -> AbstractContextManager[Connection]:
    """Return a connection for an export, which may hold it for as long as somebody's line takes."""
    return _kept().exports.connection()


def editions() -> Editions:
    """Return this process's editions."""
    return _kept().editions


def admissions() -> Admissions:
    """Return what this process knows of who may fill in which form."""
    return _kept().admissions


def compiled_drafts() -> CompiledDrafts:
    """Return the drafts that this process has compiled."""
    return _kept().compiled_drafts


def files_folder() -> Path:
    """Return the folder where uploads lie."""
    return Path(current_app.config["SETTINGS"].files)
