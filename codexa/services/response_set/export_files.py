"""Files of responses that are made by a job: of any number, with progress, to be stopped, and fetched in pieces."""

from collections.abc import Callable, Iterable
from contextlib import suppress
from dataclasses import asdict
from pathlib import Path
from typing import Literal
from uuid import UUID

from codexa.core.fields.field_type import Medium
from codexa.core.responses.conditions import ConditionError, Filter
from codexa.services.editions import Editions
from codexa.services.errands.asking import ask
from codexa.services.errors import BehindError, NotFoundError
from codexa.services.follow_ups.outcomes import TryLaterError
from codexa.services.of_team import Team
from codexa.services.response_csv import CsvFashion
from codexa.services.response_set.exporting import Export
from codexa.services.response_set.looking import Look
from codexa.store import export_files as store
from codexa.store.database import Connect
from codexa.store.export_files import FileRow
from codexa.store.sessions import SignedIn

ERRAND = "file of responses made"
FileKind = Literal["csv", "xlsx", "json", "jsonl"]
KEPT_HOURS = 24
_FOLDER = "exports"


def ask_for(
    connect: Connect, *, who: SignedIn, form: UUID, look: Look, kind: FileKind, fashion: CsvFashion, name: str
) -> UUID:
    """Have a file made of what is looked at, and return its id. Raises NotFoundError."""
    about = {
        "kind": kind,
        "filter": look.filter.model_dump(mode="json"),
        "sorts": list(look.sorts),
        "fashion": asdict(fashion) | {"medium": fashion.medium.value},
    }
    with connect() as connection:
        file = store.insert_file(connection, team=who.team_id, form=form, person=who.person_id, name=name, about=about)
        if file is None:
            raise NotFoundError
        ask(connection, ERRAND, {"file": str(file)}, team=who.team_id)
    return file


def list_files(connect: Connect, *, who: SignedIn, form: UUID) -> list[FileRow]:
    """Return the files of a form, newest first."""
    with connect() as connection:
        return store.list_files(connection, team=who.team_id, form=form)


def find(connect: Connect, folder: Path, *, who: SignedIn, form: UUID, file: UUID) -> tuple[Path, str]:
    """Return where a file lies and what it is called. Raises NotFoundError where it is not done, or gone."""
    found = next((each for each in list_files(connect, who=who, form=form) if each.id == file), None)
    path = path_of(folder, file)
    if found is None or found.state != "done" or not path.exists():
        raise NotFoundError("This file is not there (any more). Have it made again.")
    return path, found.name


def delete(connect: Connect, folder: Path, *, who: SignedIn, form: UUID, file: UUID) -> None:
    """Forget a file; one that is being made is made no further. Raises NotFoundError."""
    with connect() as connection:
        if not store.delete_file(connection, team=who.team_id, form=form, file=file):
            raise NotFoundError
    remove(folder, [file])


def path_of(folder: Path, file: UUID) -> Path:
    """Return where a file lies, in the folder of uploads."""
    return folder / _FOLDER / str(file)


def remove(folder: Path, files: Iterable[UUID]) -> None:
    """Delete files from disk, if they are there."""
    for each in files:
        path_of(folder, each).unlink(missing_ok=True)


class _UnwantedError(Exception):
    """Nobody wants the file any more."""


def make(connect: Connect, editions: Editions, folder: Path, file: UUID) -> str:
    """Make a file, and say how that ended. Raises TryLaterError where responses are still being read in."""
    with connect() as connection:
        wanted = store.find_file(connection, file=file)
    if wanted is None:
        return "nobody wants it any more"
    rows = 0

    def note(count: int) -> None:
        nonlocal rows
        rows += count
        with connect() as connection:
            if not store.note_rows(connection, file=file, rows=rows):
                raise _UnwantedError

    path = path_of(folder, file)
    path.parent.mkdir(exist_ok=True, mode=0o750)
    state, result = "done", ""
    try:
        _write(connect, editions, wanted, path, note)
    except _UnwantedError:
        path.unlink(missing_ok=True)
        return "nobody wants it any more"
    except BehindError as error:
        raise TryLaterError(error.message) from None
    except (ConditionError, NotFoundError) as error:
        state, result = "failed", error.message
        path.unlink(missing_ok=True)
    size = path.stat().st_size if state == "done" else 0
    with connect() as connection:
        store.end_file(connection, file=file, state=state, rows=rows, size=size, result=result)
    return f"{rows} responses written" if state == "done" else result


def _write(connect: Connect, editions: Editions, wanted: store.Wanted, path: Path, note: Callable[[int], None]) -> None:
    about = wanted.about
    fashion = CsvFashion(**{**about["fashion"], "medium": Medium(about["fashion"]["medium"])})
    look = Look(filter=Filter.model_validate(about["filter"]), sorts=tuple(about["sorts"]))
    export = Export(
        connect,
        editions,
        who=Team(wanted.team_id),
        form=wanted.form_id,
        look=look,
        tries=fashion.tries,
        on_rows=note,
    )
    match about["kind"]:
        case "xlsx":
            export.as_whole_workbook(path, fashion.medium)
        case "json":
            _write_lines(path, export.as_json())
        case "jsonl":
            _write_lines(path, export.as_json_lines())
        case _:
            _write_lines(path, (line.encode() for line in export.as_csv(fashion)))


def _write_lines(path: Path, lines: Iterable[bytes]) -> None:
    with path.open("wb") as file:
        file.writelines(lines)


def tidy(connect: Connect, folder: Path) -> None:
    """Forget the files of yesterday."""
    with connect() as connection:
        old = store.delete_old(connection, hours=KEPT_HOURS)
    with suppress(OSError):
        remove(folder, old)
