"""Opening pictures that people send: only formats that browsers show, none that would exhaust memory."""

import threading
import warnings
from pathlib import Path

from PIL import Image, ImageOps
from pillow_heif import register_heif_opener

from codexa.services.errors import FileRefusedError, TooBusyError

MAX_PIXELS = 60_000_000  # a picture of more is no photo
# Formats that Pillow may open; each further one is a further way in.
FORMATS = {
    "image/jpeg": "JPEG",
    "image/png": "PNG",
    "image/gif": "GIF",
    "image/webp": "WEBP",
    "image/heic": "HEIF",
}
_MOST_COST = 96_000_000  # for unpacking one picture: about its bytes of memory, or a third of a second
# What each pixel costs, in bytes or in time that stands for as many, measured (bench/hostile.py). A plain JPEG is
# unpacked no larger than it is wanted; a progressive one holds the coefficients of the whole.
_PER_PIXEL = {"JPEG": 0, "PNG": 6, "GIF": 7, "WEBP": 14, "HEIF": 7}
_PROGRESSIVE = 4
register_heif_opener()
# One at a time in each process: memory is what pictures need most.
_UNPACKING = threading.Lock()
_WAIT_SECONDS = 10.0


def shrunk(path: Path, name: str, media_type: str, size: tuple[int, int]) -> Image.Image | None:
    """Return a picture no larger than `size`, turned as its camera was held; None where unpacking it takes too much.

    Raises FileRefusedError where it has too many pixels or is no picture, TooBusyError where others take too long.
    """
    if not _UNPACKING.acquire(timeout=_WAIT_SECONDS):
        raise TooBusyError
    try:
        return _opened_and_shrunk(path, name, media_type, size)
    except FileRefusedError:
        raise
    except Image.DecompressionBombError:
        raise FileRefusedError(f"{name} has too many pixels. Send a smaller one.") from None
    except Exception:  # Pillow raises whatever its formats do on what is no picture
        raise FileRefusedError(f"{name} is damaged, or no picture at all. Choose another file.") from None
    finally:
        _UNPACKING.release()


def _opened_and_shrunk(path: Path, name: str, media_type: str, size: tuple[int, int]) -> Image.Image | None:
    with warnings.catch_warnings():
        warnings.simplefilter("ignore", Image.DecompressionBombWarning)
        with Image.open(path, formats=[FORMATS[media_type]]) as picture:
            _refuse_too_many_pixels(picture, name)
            if _cost(picture, FORMATS[media_type]) > _MOST_COST:
                return None
            picture.draft("RGB", size)
            # Smaller first, then the rest: every other step copies the whole.
            picture.thumbnail(size, reducing_gap=2.0)
            return ImageOps.exif_transpose(picture)


def _cost(picture: Image.Image, kind: str) -> int:
    progressive = kind == "JPEG" and "progressive" in picture.info
    return picture.width * picture.height * (_PROGRESSIVE if progressive else _PER_PIXEL[kind])


def _refuse_too_many_pixels(picture: Image.Image, name: str) -> None:
    if picture.width * picture.height > MAX_PIXELS:
        size = f"{picture.width} × {picture.height}"
        raise FileRefusedError(f"{name} has too many pixels ({size}). Send a smaller one.")
