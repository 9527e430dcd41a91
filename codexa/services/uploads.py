"""Files that visitors send: what they are is found inside them, and no web server hands them out."""

import unicodedata
from collections.abc import Mapping
from pathlib import Path
from typing import IO, Any
from uuid import UUID, uuid4

import filetype  # type: ignore[import-untyped]  # the package ships no types

from codexa.core.fields.file_upload import FileUploadField, file_problem
from codexa.core.formula.values import UploadedFile
from codexa.core.program.program import Program
from codexa.services import pictures
from codexa.services.errors import FileRefusedError, NotFoundError
from codexa.store import uploads
from codexa.store.database import Connection
from codexa.store.uploads import Upload

_THUMBNAIL = (320, 320)
_MOST_NAME = 150  # characters
_AT_ONCE = 64 * 1024  # bytes read at a time
_HEAD = 8_192  # bytes in which a file's type is found


def store(
    connection: Connection, program: Program, folder: Path, *, form: UUID, block: str, name: str, content: IO[bytes]
) -> Upload:
    """Keep a file that a visitor sends for a field, and return what is known of it.

    Raises NotFoundError where the field takes no files, FileRefusedError with what is wrong with this one.
    """
    place = program.places.get(block)
    if place is None or not isinstance(place.block, FileUploadField):
        raise NotFoundError("This form has no such field for files. Reload the page.")
    upload_id, shown_name = uuid4(), clean_name(name)
    folder.mkdir(parents=True, exist_ok=True)
    path = folder / str(upload_id)
    try:
        size = _write(content, path, place.block.megabytes * 1_000_000, shown_name)
        known = UploadedFile(id=str(upload_id), name=shown_name, size=size, media_type=media_type_of(path))
        _refuse(file_problem(known, place.block))
        has_thumbnail = _make_thumbnail(path, known)
    except BaseException:
        remove(folder, upload_id)
        raise
    upload = Upload(
        id=upload_id,
        block_id=block,
        name=shown_name,
        media_type=known.media_type,
        size=size,
        has_thumbnail=has_thumbnail,
    )
    uploads.insert_upload(connection, upload, form=form)
    return upload


def _refuse(problem: str | None) -> None:
    if problem:
        raise FileRefusedError(problem)


def clean_name(name: str) -> str:
    """Return a file's name without folders and control characters, of bounded length."""
    last = name.replace("\\", "/").rsplit("/", 1)[-1]
    kept = "".join(sign for sign in unicodedata.normalize("NFC", last) if unicodedata.category(sign)[0] != "C")
    return kept.strip()[-_MOST_NAME:] or "file"


def _write(content: IO[bytes], path: Path, most: int, name: str) -> int:
    size = 0
    with path.open("xb") as file:
        while piece := content.read(_AT_ONCE):
            size += len(piece)
            if size > most:
                raise FileRefusedError(f"{name} is too large; send at most {most // 1_000_000} MB.")
            file.write(piece)
    if size == 0:
        raise FileRefusedError(f"{name} is empty. Choose the file again.")
    return size


def media_type_of(path: Path) -> str:
    """Return the media type found in a file's first bytes; text is told by being UTF-8 without control characters."""
    with path.open("rb") as file:
        head = file.read(_HEAD)
    kind = filetype.guess(head)
    if kind is not None:
        return str(kind.mime)
    if _is_open_document(head):
        return head[38:].split(b"PK", 1)[0].decode("ascii", "ignore")
    try:
        text = head[: len(head) - 4 or None].decode("utf-8", "ignore" if len(head) == _HEAD else "strict")
    except UnicodeDecodeError:
        return "application/octet-stream"
    control = any(unicodedata.category(sign) == "Cc" and sign not in "\t\n\r\f" for sign in text)
    marked_up = text.lstrip().lower().startswith(("<!doctype", "<html", "<svg", "<?xml", "<script"))
    return "application/octet-stream" if control or marked_up else "text/plain"


def _is_open_document(head: bytes) -> bool:
    return head.startswith(b"PK\x03\x04") and head[30:38] == b"mimetype"


def _make_thumbnail(path: Path, known: UploadedFile) -> bool:
    if known.media_type not in pictures.FORMATS:
        return False
    with pictures.opened(path, known.name, known.media_type, draft=_THUMBNAIL) as picture:
        small = picture.convert("RGB")
        small.thumbnail(_THUMBNAIL)
        small.save(_thumbnail_path(path), "JPEG", quality=82)
    return True


def _thumbnail_path(path: Path) -> Path:
    return path.with_name(f"{path.name}.small")


def thumbnail(folder: Path, upload: UUID) -> Path:
    """Return where the small picture of an upload lies. Raises NotFoundError."""
    return _existing(_thumbnail_path(folder / str(upload)))


def content(folder: Path, upload: UUID) -> Path:
    """Return where an upload lies. Raises NotFoundError."""
    return _existing(folder / str(upload))


def _existing(path: Path) -> Path:
    if not path.exists():
        raise NotFoundError("This file is gone.")
    return path


def remove(folder: Path, upload: UUID) -> None:
    """Delete a file and its small picture, if they are there."""
    path = folder / str(upload)
    path.unlink(missing_ok=True)
    _thumbnail_path(path).unlink(missing_ok=True)


def with_files(
    connection: Connection, program: Program, form: UUID, answers: Mapping[str, Any]
) -> tuple[dict[str, Any], list[UUID]]:
    """Return the answers with what is known of each file in place of its id, and the ids of the files named.

    Only what the database knows is believed; an id that it does not know stays, and is refused by the field.
    """
    blocks = {block_id for block_id, place in program.places.items() if isinstance(place.block, FileUploadField)}
    if not blocks:
        return dict(answers), []
    ids = [each for raw in _file_answers(program, blocks, answers) for each in _ids_in(raw)]
    known = uploads.find_uploads(connection, form=form, ids=ids) if ids else {}
    return _filled(program, blocks, answers, known), [upload.id for upload in known.values()]


def _file_answers(program: Program, blocks: set[str], answers: Mapping[str, Any]) -> list[Any]:
    found = [answers[block] for block in blocks if block in answers]
    for row in _rows_of(program, answers):
        found += [raw for block, raw in row["values"].items() if block in blocks]
    return found


def _rows_of(program: Program, answers: Mapping[str, Any]) -> list[dict[str, Any]]:
    lists = [answers[repeat] for repeat in program.repeats if isinstance(answers.get(repeat), list)]
    return [row for rows in lists for row in rows if isinstance(row, dict) and isinstance(row.get("values"), dict)]


def _ids_in(raw: Any) -> list[UUID]:
    ids = []
    for each in raw if isinstance(raw, list) else []:
        try:
            ids.append(UUID(each))
        except (ValueError, AttributeError, TypeError):
            continue
    return ids


def _filled(
    program: Program, blocks: set[str], answers: Mapping[str, Any], known: Mapping[str, Upload]
) -> dict[str, Any]:
    def filled(raw: Any, block: str) -> Any:
        if not isinstance(raw, list):
            return raw
        found = [known.get(each) if isinstance(each, str) else None for each in raw]
        return [_facts(each) if each is not None and each.block_id == block else None for each in found]

    result = {block: filled(raw, block) if block in blocks else raw for block, raw in answers.items()}
    for repeat in program.repeats:
        rows = answers.get(repeat)
        if isinstance(rows, list):
            result[repeat] = [_filled_row(row, blocks, filled) for row in rows]
    return result


def _filled_row(row: Any, blocks: set[str], filled: Any) -> Any:
    if not isinstance(row, dict) or not isinstance(row.get("values"), dict):
        return row
    values = {block: filled(raw, block) if block in blocks else raw for block, raw in row["values"].items()}
    return {**row, "values": values}


def _facts(upload: Upload) -> dict[str, Any]:
    return {"id": str(upload.id), "name": upload.name, "size": upload.size, "type": upload.media_type}
