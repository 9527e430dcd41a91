"""Opening pictures that people send: only formats that browsers show, none that would exhaust memory."""

import warnings
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from PIL import Image, ImageOps

from codexa.services.errors import FileRefusedError

MAX_PIXELS = 60_000_000  # a picture of more is no photo; unpacking it could exhaust memory
# Formats that Pillow may open; each further one is a further way in.
FORMATS = {"image/jpeg": "JPEG", "image/png": "PNG", "image/gif": "GIF", "image/webp": "WEBP"}


@contextmanager
def opened(path: Path, name: str, media_type: str, draft: tuple[int, int] | None = None) -> Iterator[Image.Image]:
    """Open a picture, turned as its camera was held; with `draft` no larger than is needed for that size, if quicker.

    Raises FileRefusedError where it has too many pixels or is no picture; what is done with it inside counts too.
    """
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", Image.DecompressionBombWarning)
            with Image.open(path, formats=[FORMATS[media_type]]) as picture:
                _refuse_too_many_pixels(picture, name)
                if draft:
                    picture.draft("RGB", draft)
                yield ImageOps.exif_transpose(picture)
    except FileRefusedError:
        raise
    except Image.DecompressionBombError:
        raise FileRefusedError(f"{name} has too many pixels. Send a smaller one.") from None
    except Exception:  # Pillow raises whatever its formats do on what is no picture
        raise FileRefusedError(f"{name} is damaged, or no picture at all. Choose another file.") from None


def _refuse_too_many_pixels(picture: Image.Image, name: str) -> None:
    if picture.width * picture.height > MAX_PIXELS:
        size = f"{picture.width} × {picture.height}"
        raise FileRefusedError(f"{name} has too many pixels ({size}). Send a smaller one.")
