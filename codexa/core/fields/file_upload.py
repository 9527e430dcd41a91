"""File and photo upload: files that are sent before the form is handed in."""

from collections.abc import Mapping
from decimal import Decimal
from typing import Annotated, Any, Literal

from pydantic import Field as Setting

from codexa.core.definition.parts import FieldFace, Question
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import NO_SETTINGS, Facet, Family, FieldType, Medium, Region, Sampling
from codexa.core.formula.types import NUMBER, TEXT, Kind, Type
from codexa.core.formula.values import Files, UploadedFile

FileKind = Literal["picture", "pdf", "document", "table", "sound", "film", "archive"]
# What each kind lets in, as media types found in a file's first bytes (not what its name says).
MEDIA_TYPES: dict[str, frozenset[str]] = {
    "picture": frozenset({"image/jpeg", "image/png", "image/gif", "image/webp", "image/heic", "image/avif"}),
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
MAX_MEGABYTES = 100


class FileUploadFace(FieldFace):
    """What the browser may know of an upload: which kinds of files, how many, and how large each."""

    type: Literal["file_upload"] = "file_upload"
    kinds: tuple[FileKind, ...] = ("picture", "pdf", "document", "table")
    most: Annotated[int, Setting(ge=1, le=50)] = 5
    megabytes: Annotated[int, Setting(ge=1, le=MAX_MEGABYTES)] = 10


class FileUploadField(FileUploadFace, Question):
    """Up to `most` files of these kinds, each of at most so many `megabytes` (of 1,000,000 bytes)."""


class FileUploadType(FieldType[FileUploadField]):
    """File or photo upload."""

    name = "file_upload"
    title = "File or photo"
    family = Family.FILES
    purpose = "Photos or other files, checked by what is in them."
    face = FileUploadFace
    block = FileUploadField
    can_be_wrong = True

    def findings(self, block: FileUploadField) -> list[tuple[str, str, str]]:
        """No kind of file."""
        return [] if block.kinds else [("kinds", "No kind of file is let in.", "Choose at least one kind.")]

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
            return f"Send at most {block.most} file{'s' if block.most > 1 else ''}."
        return next((wrong for each in value if (wrong := file_problem(each, block))), None)

    def limits(self, block: FileUploadField) -> str:
        """The limits in words."""
        return f"at most {block.most}, each up to {block.megabytes} MB: {', '.join(block.kinds)}"

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
        return f"{file.name} is too large; send at most {block.megabytes} MB."
    if not any(file.media_type in MEDIA_TYPES[kind] for kind in block.kinds):
        return f"{file.name} is of another kind than is wanted here ({', '.join(block.kinds)})."
    return None


def _file(known: dict[str, Any]) -> UploadedFile:
    return UploadedFile(
        id=str(known["id"]), name=str(known["name"]), size=int(known["size"]), media_type=str(known["type"])
    )
