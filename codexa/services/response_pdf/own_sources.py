"""What a PDF may load: typefaces that ship with Codexa, uploads of the response, and pictures of the form."""

import io
from functools import cache
from pathlib import Path
from uuid import UUID

from weasyprint.urls import URLFetcher, URLFetcherResponse

import codexa
from codexa.core.definition.brand import Typeface
from codexa.services import pictures, uploads
from codexa.services.follow_ups.mail_pictures import read_picture

_BUILT = Path(codexa.__file__).parent / "web" / "static" / "built" / "assets"
# Where browsers find them.
FACES_AT = "/static/built/assets"
_SIDE = 1_400  # pixels that a picture has at most on paper
# The files of each typeface begin with its name; those of other scripts than Latin follow where there are any.
FACES: dict[Typeface, str] = {
    "source_sans": "source-sans-3",
    "source_serif": "source-serif-4",
    "inter": "inter",
    "work_sans": "work-sans",
    "nunito": "nunito",
    "karla": "karla",
    "montserrat": "montserrat",
    "lora": "lora",
    "bitter": "bitter",
    "fraunces": "fraunces",
    "device": "source-sans-3",
}


_SCRIPTS = ("latin", "latin-ext", "greek", "cyrillic", "cyrillic-ext", "vietnamese")


def scripts_of(name: str) -> tuple[str, ...]:
    """Return the scripts that a typeface has files for; the others fall back on the first."""
    return _SCRIPTS if name.startswith("source-") else ("latin",)


class OwnSources(URLFetcher):  # type: ignore[misc]  # the package has no types
    """Gives what "codexa:" names, and data URLs; refuses everything else."""

    def __init__(self, files: Path) -> None:
        super().__init__(allowed_protocols=["data"])
        self._files = files

    def fetch(self, url: str, headers: dict[str, str] | None = None) -> URLFetcherResponse:
        """Return what a URL names. Raises ValueError where that is nothing of ours."""
        if url.startswith("data:image/"):
            return super().fetch(url, headers)
        what, _, name = url.removeprefix("codexa:/").partition("/")
        if not url.startswith("codexa:/") or what not in ("face", "upload", "pictures"):
            raise ValueError(f"{url[:80]} is not read for a PDF")
        if what == "face":
            return URLFetcherResponse(url, face_file(name).read_bytes(), {"Content-Type": "font/woff2"})
        if what == "upload":
            return URLFetcherResponse(url, self._upload(UUID(name)), {"Content-Type": "image/jpeg"})
        found = read_picture(f"/pictures/{name}", self._files)
        if found is None:
            raise ValueError("this picture is gone")
        return URLFetcherResponse(url, found.content, {"Content-Type": f"image/{found.subtype}"})

    def _upload(self, upload: UUID) -> bytes:
        path = uploads.content(self._files, upload)
        small = pictures.shrunk(path, str(upload), uploads.media_type_of(path), (_SIDE, _SIDE))
        if small is None:
            raise ValueError("this picture takes too much to unpack")
        written = io.BytesIO()
        small.convert("RGB").save(written, "JPEG", quality=82)
        return written.getvalue()


@cache
def face_file(name: str) -> Path:
    """Return the file of a typeface by name and script, such as "source-sans-3-latin". Raises ValueError."""
    found = next(iter(sorted(_BUILT.glob(f"{name}-wght-normal-*.woff2"))), None)
    if found is None:
        raise ValueError(f"there is no typeface {name}")
    return found
