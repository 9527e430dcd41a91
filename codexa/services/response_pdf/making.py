"""Making the sheet of a response from its document (core.program.response_document): as PDF, or for a browser."""

import threading
from collections.abc import Callable, Mapping, Sequence
from pathlib import Path
from typing import Any

from jinja2 import Environment, PackageLoader, select_autoescape

from codexa.services import pictures
from codexa.services.errors import TooBusyError
from codexa.services.response_pdf.typefaces import FACES, FACES_AT, face_file, scripts_of

# One at a time in each process: laying out takes a processor, and memory.
_MAKING = threading.Lock()
_WAIT_SECONDS = 20.0
_MOST_SIGNS = 150_000  # of answers in one document, about fifty pages; laying out more takes too long
_MOST_PICTURES = 40  # in one document; further ones stand there by name
_TEMPLATES = Environment(
    loader=PackageLoader("codexa.services.response_pdf", "templates"), autoescape=select_autoescape()
)


def response_pdf(document: Mapping[str, Any], files: Path) -> bytes:
    """Return the PDF of a response; `files` is the folder of uploads. Raises TooBusyError where others take too long.

    Tagged as PDF/UA (ISO 14289-1) wants it. Nothing is read but our own typefaces, and the pictures that it shows. Of a
    response that is longer than a document holds it has the beginning, and says so.
    """
    text = _sheet(
        document,
        {
            "face": lambda name: f"codexa:/face/{name}",
            "logo": lambda source: f"codexa:{source}" if source.startswith("/") else source,
            "upload": lambda upload: f"codexa:/upload/{upload}",
        },
    )
    if not _MAKING.acquire(timeout=_WAIT_SECONDS):
        raise TooBusyError
    try:
        from codexa.services.response_pdf.laying_out import laid_out  # noqa: PLC0415 - few processes make any

        return laid_out(text, files)
    finally:
        _MAKING.release()


def response_page(document: Mapping[str, Any], *, uploads: str, nonce: str) -> str:
    """Return the same sheet as a page to look at and print; `uploads` is what the address of an upload begins with."""
    addresses: dict[str, Callable[[str], str]] = {
        "face": lambda name: f"{FACES_AT}/{face_file(name).name}",
        "logo": str,
        "upload": lambda upload: f"{uploads}/{upload}/picture",
    }
    return _sheet(document, addresses, nonce)


def _sheet(document: Mapping[str, Any], addresses: Mapping[str, Callable[[str], str]], nonce: str = "") -> str:
    shown = [
        file["id"]
        for page in document["pages"]
        for answer in page["answers"]
        for file in answer["files"]
        if file["type"] in pictures.FORMATS
    ][:_MOST_PICTURES]
    pages, whole = _fitting(document["pages"])
    return _TEMPLATES.get_template("response.html").render(
        document=document,
        pages=pages,
        whole=whole,
        brand=document["brand"],
        faces=FACES,
        scripts=scripts_of,
        shown=frozenset(shown),
        nonce=nonce,
        **addresses,
    )


def _fitting(pages: Sequence[Mapping[str, Any]]) -> tuple[list[dict[str, Any]], bool]:
    """Return the pages with as many answers as a document holds, and whether these are all."""
    room = _MOST_SIGNS
    kept: list[dict[str, Any]] = []
    for page in pages:
        answers: list[Mapping[str, Any]] = []
        for answer in page["answers"]:
            room -= len(answer["label"]) + len(answer["text"])
            if room < 0:
                return [*kept, {"title": page["title"], "answers": answers}], False
            answers.append(answer)
        kept.append({"title": page["title"], "answers": answers})
    return kept, True
