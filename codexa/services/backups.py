"""Backup and restore: the database and the files that belong to it, in one folder."""

import json
import os
import shutil
import subprocess
from collections.abc import Sequence
from pathlib import Path

from codexa.store import uploads
from codexa.store.database import Database

_DUMP, _FILES, _LIST = "database.dump", "files", "backup.json"
_SECONDS = 3_600


class BackupError(Exception):
    """The backup or restore stopped; the message says why and what to do."""


def back_up(database: Database, address: str, files: Path, folder: Path) -> int:
    """Write a backup into a new folder and return how many files it holds.

    The database comes first, files after it: they are written once, never changed, and nothing is tidied up meanwhile,
    so that every file that the database knows is there. Raises BackupError.
    """
    if folder.exists() and any(folder.iterdir()):
        raise BackupError(f"{folder} is not empty. Name a new folder.")
    folder.mkdir(parents=True, exist_ok=True, mode=0o750)
    with database.connection() as connection:
        uploads.hold_tidying(connection)
        _run("pg_dump", ["--format=custom", f"--file={folder / _DUMP}", "--no-owner", "--no-privileges", address])
        known = uploads.all_files(connection)
    (folder / _DUMP).chmod(0o640)
    (folder / _FILES).mkdir(mode=0o750)
    for relative in known:
        _copy(files, folder / _FILES, relative)
    (folder / _LIST).write_text(json.dumps({"files": sorted(known)}), encoding="utf-8")
    return len(known)


def restore(address: str, files: Path, folder: Path) -> int:
    """Bring a backup back into an empty database and an empty folder of files; return how many files came.

    Raises BackupError where either holds something already, or the backup is not whole.
    """
    try:
        known: list[str] = json.loads((folder / _LIST).read_text(encoding="utf-8"))["files"]
    except (OSError, ValueError, KeyError):
        raise BackupError(f"{folder} holds no whole backup: {_LIST} is missing or can't be read.") from None
    missing = next((each for each in known if not (folder / _FILES / each).is_file()), None)
    if missing is not None:
        raise BackupError(f"The backup is not whole: {_FILES}/{missing} is missing.")
    if files.exists() and any(files.iterdir()):
        raise BackupError(f"{files} is not empty. Set CODEXA_FILES to a new folder.")
    if _run("psql", ["-XtAc", "SELECT count(*) FROM pg_tables WHERE schemaname = 'public'", address]).strip() != "0":
        raise BackupError("The database is not empty. Set CODEXA_DATABASE to a new one.")
    options = ["--no-owner", "--no-privileges", "--exit-on-error", "--single-transaction"]
    _run("pg_restore", [*options, f"--dbname={address}", str(folder / _DUMP)])
    for relative in known:
        _copy(folder / _FILES, files, relative)
    return len(known)


def _copy(source: Path, target: Path, relative: str) -> None:
    (target / relative).parent.mkdir(parents=True, exist_ok=True, mode=0o750)
    # A small picture is missing where none could be made.
    if (source / relative).exists():
        shutil.copy2(source / relative, target / relative)


def _run(program: str, options: Sequence[str]) -> str:
    command = [_find(program), *options]
    done = subprocess.run(command, capture_output=True, text=True, check=False, timeout=_SECONDS)  # noqa: S603
    if done.returncode:
        raise BackupError(f"{program} stopped: {done.stderr.strip()[-2000:]}")
    return done.stdout


def _find(program: str) -> str:
    found = shutil.which(program) or next(
        (str(path) for path in sorted(Path("/usr/lib/postgresql").glob(f"*/bin/{program}"), reverse=True)), None
    )
    if found is None or not os.access(found, os.X_OK):
        raise BackupError(f"{program} is not on this machine. Install postgresql-client.")
    return found
