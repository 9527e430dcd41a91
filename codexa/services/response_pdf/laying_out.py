"""Laying a sheet out as PDF. What does it takes most of a second to load: it is loaded with the first PDF."""

import io
from pathlib import Path
from uuid import UUID

import weasyprint
from weasyprint.urls import URLFetcher, URLFetcherResponse

from codexa.services import pictures, uploads
from codexa.services.follow_ups.mail_pictures import read_picture
from codexa.services.response_pdf.typefaces import face_file

_SIDE = 1_400  # pixels that a picture has at most on paper


def laid_out(text: str, files: Path) -> bytes:
    """Return HTML as tagged PDF (ISO 14289-1); `files` is the folder of uploads, and nothing else is read but ours."""
    page = weasyprint.HTML(string=text, url_fetcher=OwnSources(files), base_url="codexa:/")
    made: bytes = page.write_pdf(pdf_variant="pdf/ua-1", pdf_tags=True)
    return made


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
