"""File and photo upload: files that are sent before the form is handed in."""

import math
from collections.abc import Mapping
from decimal import Decimal
from typing import Annotated, Any, Literal

from pydantic import Field as Setting

from codexa.core.definition.parts import FieldFace, Question
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import NO_SETTINGS, Facet, Family, FieldType, Medium, Region, Sampling
from codexa.core.formula.types import NUMBER, TEXT, Kind, Type
from codexa.core.formula.values import Files, UploadedFile
from codexa.core.sentences import Sentence

PictureType = Literal["jpeg", "png", "gif", "webp", "heic", "avif"]
PICTURE_TYPES: tuple[PictureType, ...] = ("jpeg", "png", "gif", "webp", "heic", "avif")
FileKind = Literal["picture", "pdf", "document", "table", "sound", "film", "archive"]
# What each kind lets in, as media types found in a file's first bytes (not what its name says).
MEDIA_TYPES: dict[str, frozenset[str]] = {
    "picture": frozenset(f"image/{each}" for each in PICTURE_TYPES),
    "pdf": frozenset({"application/pdf"}),
    "document": frozenset(
        {
            "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
            "application/vnd.oasis.opendocument.text",
            "application/msword",
            "application/rtf",
            "text/plain",
        }
    ),
    "table": frozenset(
        {
            "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            "application/vnd.oasis.opendocument.spreadsheet",
            "application/vnd.ms-excel",
            "text/plain",
        }
    ),
    "sound": frozenset({"audio/mpeg", "audio/mp4", "audio/ogg", "audio/x-wav", "audio/x-flac"}),
    "film": frozenset({"video/mp4", "video/webm", "video/quicktime", "video/x-matroska"}),
    "archive": frozenset({"application/zip"}),
}
PICTURE_WORDS: dict[PictureType, str] = {
    "jpeg": "JPEG", "png": "PNG", "gif": "GIF", "webp": "WebP", "heic": "HEIC", "avif": "AVIF"
}  # fmt: skip
KIND_WORDS: dict[FileKind, str] = {
    "pdf": "PDF", "document": "text document", "table": "table", "sound": "sound", "film": "film", "archive": "zip"
}  # fmt: skip
MAX_MEGABYTES = 100
_WITH_SMALL = MEDIA_TYPES["picture"] - {"image/avif"}


class FileUploadFace(FieldFace):
    """What the browser may know of an upload: which kinds of files, how many, and how large each.

    Of pictures those of `picture_types` are let in.
    """

    type: Literal["file_upload"] = "file_upload"
    kinds: tuple[FileKind, ...] = ("picture", "pdf", "document", "table")
    picture_types: tuple[PictureType, ...] = PICTURE_TYPES
    most: Annotated[int, Setting(ge=1, le=50)] = 5
    megabytes: Annotated[int, Setting(ge=1, le=MAX_MEGABYTES)] = 10


class FileUploadField(FileUploadFace, Question):
    """Up to `most` files of these kinds, each of at most so many `megabytes` (of 1,000,000 bytes).

    With `heic_as_jpeg` photos in HEIC are kept as JPEG, which every program opens.
    """

    personal: bool = True
    heic_as_jpeg: bool = False

    @property
    def media_types(self) -> frozenset[str]:
        """The media types that are let in."""
        pictures = {f"image/{each}" for each in self.picture_types}
        return frozenset(
            each for kind in self.kinds for each in MEDIA_TYPES[kind] if kind != "picture" or each in pictures
        )

    @property
    def wanted(self) -> str:
        """The kinds that are let in, in words, pictures by their types."""
        pictures = [PICTURE_WORDS[each] for each in self.picture_types]
        words = (pictures if kind == "picture" else [KIND_WORDS[kind]] for kind in self.kinds)
        return ", ".join(each for kind in words for each in kind)


class FileUploadType(FieldType[FileUploadField]):
    """File or photo upload."""

    name = "file_upload"
    title = "File or photo"
    family = Family.FILES
    purpose = "Photos or other files, checked by what is in them."
    face = FileUploadFace
    block = FileUploadField
    can_be_wrong = True
    linkable = False

    def findings(self, block: FileUploadField) -> list[tuple[str, str, str]]:
        """No kind of file, or of picture."""
        if not block.media_types:
            return [("kinds", "No kind of file is let in.", "Choose at least one kind, and of pictures one type.")]
        return []

    def value_type(self, block: FileUploadField) -> Type:
        """Files, or blank."""
        return Type(kind=Kind.FILES, may_be_blank=True)

    def facets(self, block: FileUploadField) -> dict[str, Facet]:
        """How many files there are, and their names."""
        return {
            "count": Facet(NUMBER, lambda value: Decimal(len(value))),
            "names": Facet(TEXT, lambda value: ", ".join(each.name for each in value)),
        }

    def parse(self, raw: Any, block: FileUploadField, region: Region) -> Files | None:
        """Return the files of a list of what is known of each; whoever calls the core vouches for it."""
        if not isinstance(raw, list) or not all(isinstance(each, dict) for each in raw):
            raise AnswerError("not_files", "Choose files to send.")
        try:
            return Files(_file(each) for each in raw) or None
        except (KeyError, TypeError, ValueError):
            raise AnswerError("not_files", "A file is not here any more. Remove it and send it again.") from None

    def adopt(self, value: Any, block: FileUploadField, region: Region) -> Any:
        """Return nothing: no formula gives files."""
        return None

    def check(
        self, value: Files, block: FileUploadField, region: Region, settings: Mapping[str, Any] = NO_SETTINGS
    ) -> str | None:
        """The number of files, and for each its size and type."""
        if len(value) > block.most:
            return Sentence.counted(
                "Send at most {count} file; these are {given}.",
                "Send at most {count} files; these are {given}.",
                count=block.most,
                given=len(value),
            )
        return next((wrong for each in value if (wrong := file_problem(each, block))), None)

    def limits(self, block: FileUploadField) -> str:
        """The limits in words."""
        return f"at most {block.most}, each up to {block.megabytes} MB: {block.wanted}"

    def present(self, value: Files, block: FileUploadField, region: Region, medium: Medium) -> str:
        """The names."""
        return ", ".join(each.name for each in value)

    def dump(self, value: Files) -> list[dict[str, Any]]:
        """What is known of each file."""
        return [{"id": each.id, "name": each.name, "size": each.size, "type": each.media_type} for each in value]

    def load(self, stored: list[dict[str, Any]], block: FileUploadField) -> Files:
        """The files."""
        return Files(_file(each) for each in stored)

    def answer_schema(self, block: FileUploadField) -> dict[str, Any]:
        """A list of what is known of each file."""
        texts = {name: {"type": "string"} for name in ("id", "name", "type")}
        file = {"type": "object", "properties": {**texts, "size": {"type": "integer"}}, "required": [*texts, "size"]}
        return {"type": "array", "items": file}

    def sample(self, block: FileUploadField, how: Sampling) -> None:
        """Nothing: a sample has no file to send."""
        return


def file_problem(file: UploadedFile, block: FileUploadField) -> str | None:
    """Return what is wrong with one file, as a sentence for the visitor, or None."""
    if file.size > block.megabytes * 1_000_000:
        return too_large(file.name, file.size, block)
    if file.media_type not in block.media_types:
        return Sentence(
            "{name} is of another kind than is wanted here. Send one of these: {kinds}.",
            name=file.name,
            kinds=block.wanted,
        )
    return None


def is_shown_small(media_type: str) -> bool:
    """Say whether a file is a picture of a kind of which small ones are made."""
    return media_type in _WITH_SMALL


def too_large(name: str, size: int | None, block: FileUploadField) -> str:
    """Return the sentence for a file that is larger than the field takes; `size` in bytes, None where it went on."""
    if size is None:
        return Sentence("{name} is too large; send at most {most} MB.", name=name, most=block.megabytes)
    rounded = math.ceil(size / 100_000) / 10
    return Sentence(
        "{name} is too large ({size} MB); send at most {most} MB.", name=name, size=rounded, most=block.megabytes
    )


def _file(known: dict[str, Any]) -> UploadedFile:
    return UploadedFile(
        id=str(known["id"]), name=str(known["name"]), size=int(known["size"]), media_type=str(known["type"])
    )
