"""Files that visitors send: what they are is found inside them, and no web server hands them out."""

import io
import os
import shutil
import threading
import unicodedata
from dataclasses import dataclass, replace
from pathlib import Path
from typing import IO
from uuid import UUID, uuid4

import filetype  # type: ignore[import-untyped]  # the package ships no types

from codexa.core.fields.file_upload import FileUploadField, file_problem, too_large
from codexa.core.formula.values import UploadedFile
from codexa.core.program.program import Program
from codexa.core.sentences import Sentence
from codexa.services import pictures
from codexa.services.errors import FileRefusedError, NotFoundError, TooBusyError
from codexa.store import uploads
from codexa.store.database import Connect
from codexa.store.uploads import Upload

_THUMBNAIL = (320, 320)
_SCREEN = (1_600, 1_600)
_MOST_NAME = 150  # characters
_AT_ONCE = 64 * 1024  # bytes read at a time
_HEAD = 8_192  # bytes in which a file's type is found
_MEGABYTE = 1_000_000
_HEIC = "image/heic"
# Each holds a thread for as long as a visitor's line takes; the others are left for those who fill in.
_ARRIVING = threading.BoundedSemaphore(4)


@dataclass(frozen=True, kw_only=True, slots=True)
class Sent:
    """A file as it arrives: for which field, on which visit, from which network; its length in bytes, where told."""

    form: UUID
    block: str
    name: str
    visit: str
    network: str
    length: int | None
    content: IO[bytes]


@dataclass(frozen=True, kw_only=True, slots=True)
class Quotas:
    """How many megabytes may wait for a response, by form and by network, and how many the disk keeps free."""

    of_form: int
    of_network: int
    free: int


def most_bytes(program: Program, block: str) -> int:
    """Return how large a file the field takes. Raises NotFoundError where it takes none."""
    return _field(program, block).megabytes * _MEGABYTE


def _field(program: Program, block: str) -> FileUploadField:
    place = program.places.get(block)
    if place is None or not isinstance(place.block, FileUploadField):
        raise NotFoundError("This form has no such field for files. Reload the page.")
    return place.block


def store(connect: Connect, program: Program, folder: Path, sent: Sent, quotas: Quotas) -> Upload:
    """Keep a file that a visitor sends for a field, and return what is known of it; no connection is held meanwhile.

    Raises NotFoundError where the field takes no files, FileRefusedError with what is wrong with this one,
    TooBusyError where too many arrive at once.
    """
    field = _field(program, sent.block)
    _refuse_length(sent.length, field, clean_name(sent.name))
    _refuse_over_quota(connect, folder, sent, quotas)
    upload = replace(
        _kept(folder, field, name=sent.name, length=sent.length, content=sent.content), block_id=sent.block
    )
    try:
        with connect() as connection:
            uploads.insert_upload(connection, upload, form=sent.form, visit=sent.visit, network=sent.network)
    except BaseException:
        remove(folder, upload.id)
        raise
    return upload


def keep(
    folder: Path, field: FileUploadField, *, name: str, length: int | None, content: IO[bytes], free: int
) -> Upload:
    """Keep a file that somebody of the team sends, and return what is known of it; it belongs to nothing yet.

    `length` is in bytes where it is told, `free` how many megabytes the disk keeps free. Raises FileRefusedError with
    what is wrong with it, TooBusyError where too many arrive at once.
    """
    folder.mkdir(parents=True, exist_ok=True)
    if shutil.disk_usage(folder).free - (length or 0) < free * _MEGABYTE:
        raise FileRefusedError("The disk is full. Tell whoever runs this server.")
    return _kept(folder, field, name=name, length=length, content=content)


def _kept(folder: Path, field: FileUploadField, *, name: str, length: int | None, content: IO[bytes]) -> Upload:
    upload_id, shown_name = uuid4(), clean_name(name)
    _refuse_length(length, field, shown_name)
    path = folder / str(upload_id)
    try:
        size = _received(content, path, field, shown_name)
        known = UploadedFile(id=str(upload_id), name=shown_name, size=size, media_type=media_type_of(path))
        _refuse(file_problem(known, field))
        if field.heic_as_jpeg and known.media_type == _HEIC:
            known = _as_jpeg(path, known)
            _refuse_length(known.size, field, known.name)
        has_thumbnail = _make_thumbnail(path, known)
        upload = Upload(
            id=upload_id,
            block_id="",
            name=known.name,
            media_type=known.media_type,
            size=known.size,
            has_thumbnail=has_thumbnail,
        )
    except BaseException:
        remove(folder, upload_id)
        raise
    return upload


def _as_jpeg(path: Path, known: UploadedFile) -> UploadedFile:
    """Put a JPEG in the place of a picture, as large as it is, without what its camera wrote beside it."""
    picture = pictures.shrunk(path, known.name, known.media_type, (pictures.MAX_PIXELS, pictures.MAX_PIXELS))
    if picture is None:
        raise FileRefusedError(
            Sentence("{name} is too large a picture. Send it as JPEG, or a smaller one.", name=known.name)
        )
    with path.open("wb") as file:
        picture.convert("RGB").save(file, "JPEG", quality=90)
    name = f"{Path(known.name).stem}.jpg"
    return UploadedFile(id=known.id, name=name, size=path.stat().st_size, media_type="image/jpeg")


def _refuse(problem: str | None) -> None:
    if problem:
        raise FileRefusedError(problem)


def _refuse_length(length: int | None, field: FileUploadField, name: str) -> None:
    if length is not None and length > field.megabytes * _MEGABYTE:
        raise FileRefusedError(too_large(name, length, field))


def _refuse_over_quota(connect: Connect, folder: Path, sent: Sent, quotas: Quotas) -> None:
    folder.mkdir(parents=True, exist_ok=True)
    with connect() as connection:
        waiting = uploads.sizes_waiting(connection, form=sent.form, network=sent.network)
    more = sent.length or 0
    if waiting.of_network + more > quotas.of_network * _MEGABYTE:
        raise FileRefusedError(
            Sentence("Many files from your network wait to be handed in. Hand yours in, or come back in an hour.")
        )
    full = shutil.disk_usage(folder).free - more < quotas.free * _MEGABYTE
    if full or waiting.of_form + more > quotas.of_form * _MEGABYTE:
        raise FileRefusedError(
            Sentence("This form can take no more files just now. Tell the people whose form this is.")
        )


def _received(content: IO[bytes], path: Path, field: FileUploadField, name: str) -> int:
    if not _ARRIVING.acquire(blocking=False):
        raise TooBusyError("Many files arrive just now. Wait a moment, then send yours again.")
    try:
        return _write(content, path, field, name)
    finally:
        _ARRIVING.release()


def clean_name(name: str) -> str:
    """Return a file's name without folders and control characters, of bounded length."""
    last = name[-4 * _MOST_NAME :].replace("\\", "/").rsplit("/", 1)[-1]
    kept = "".join(sign for sign in unicodedata.normalize("NFC", last) if unicodedata.category(sign)[0] != "C")
    return kept.strip()[-_MOST_NAME:] or "file"


def private(path: str, flags: int) -> int:
    """Open a file that its group may read and nobody else; for `open(…, opener=private)`."""
    return os.open(path, flags, 0o640)


def _write(content: IO[bytes], path: Path, field: FileUploadField, name: str) -> int:
    size, most = 0, field.megabytes * _MEGABYTE
    with open(path, "xb", opener=private) as file:
        while piece := content.read(_AT_ONCE):
            size += len(piece)
            if size > most:
                raise FileRefusedError(too_large(name, None, field))
            file.write(piece)
    if size == 0:
        raise FileRefusedError(Sentence("{name} is empty. Choose the file again.", name=name))
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
    small = pictures.shrunk(path, known.name, known.media_type, _THUMBNAIL)
    if small is None:
        return False
    with open(_thumbnail_path(path), "xb", opener=private) as file:
        small.convert("RGB").save(file, "JPEG", quality=82)
    return True


def _thumbnail_path(path: Path) -> Path:
    return path.with_name(f"{path.name}.small")


def thumbnail(folder: Path, upload: UUID) -> Path:
    """Return where the small picture of an upload lies. Raises NotFoundError."""
    return _existing(_thumbnail_path(folder / str(upload)))


def as_picture(folder: Path, upload: UUID, name: str) -> bytes:
    """Return a picture as JPEG to look at. Raises NotFoundError, and FileRefusedError where it can't be shown."""
    path = content(folder, upload)
    media_type = media_type_of(path)
    shown = pictures.shrunk(path, name, media_type, _SCREEN) if media_type in pictures.FORMATS else None
    if shown is None:
        raise FileRefusedError(f"{name} can't be shown here. Download it.")
    made = io.BytesIO()
    shown.convert("RGB").save(made, "JPEG", quality=85)
    return made.getvalue()


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
