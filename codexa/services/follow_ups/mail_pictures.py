"""Pictures in a mail: read from where they lie, in formats that programs for mail show, and named for its parts."""

import base64
import binascii
import io
from dataclasses import dataclass
from pathlib import Path
from uuid import UUID

from PIL import Image

from codexa.services.brands import picture_path
from codexa.services.uploads import media_type_of

_SHOWN = {"image/png": "png", "image/jpeg": "jpeg"}
_PICTURES = "/pictures/"


@dataclass(frozen=True, kw_only=True, slots=True)
class MailPicture:
    """A picture that goes along in a mail: its bytes, and "png" or "jpeg"."""

    content: bytes
    subtype: str


def read_picture(source: str, files: Path) -> MailPicture | None:
    """Return the picture of a data URL (RFC 2397) or of a path on this server; None where there is none to show."""
    if source.startswith("data:image/"):
        return _from_data(source)
    if not source.startswith(_PICTURES):
        return None
    try:
        path = picture_path(files, UUID(source.removeprefix(_PICTURES)))
        media_type = media_type_of(path)
        if media_type in _SHOWN:
            return MailPicture(content=path.read_bytes(), subtype=_SHOWN[media_type])
        return _as_png(path)
    except (ValueError, OSError):
        return None


def _from_data(source: str) -> MailPicture | None:
    head, _, encoded = source.partition(",")
    subtype = _SHOWN.get(head.removeprefix("data:").removesuffix(";base64"))
    if subtype is None:
        return None
    try:
        return MailPicture(content=base64.b64decode(encoded, validate=True), subtype=subtype)
    except binascii.Error:
        return None


def _as_png(path: Path) -> MailPicture:
    # It was written by us, so that its size is known to be bounded.
    with Image.open(path, formats=["WEBP"]) as picture:
        written = io.BytesIO()
        picture.convert("RGBA").save(written, "PNG")
    return MailPicture(content=written.getvalue(), subtype="png")
