"""Files that never change under their address: served before anything else looks, compressed when they were built."""

from pathlib import Path
from typing import Any
from wsgiref.headers import Headers

from flask import Flask
from whitenoise import WhiteNoise

_STATIC = Path(__file__).with_name("static")
BUILT, EMBED = _STATIC / "built" / "assets", _STATIC / "embed"
_HOUR = 3_600


def install(app: Flask) -> None:
    """Serve what was built, and what websites load."""
    served = WhiteNoise(
        app.wsgi_app,
        max_age=_HOUR,
        immutable_file_test=_is_immutable,
        add_headers_function=_add_headers,
        # Typefaces and pictures are shown by our own pages alone.
        allow_all_origins=False,
    )
    for folder, prefix in ((BUILT, "static/built/assets/"), (EMBED, "embed/")):
        if folder.exists():
            served.add_files(str(folder), prefix=prefix)
    app.wsgi_app = served  # type: ignore[method-assign]


def _is_immutable(_path: str, url: str) -> bool:
    # Built files carry a digest of their content in their name.
    return url.startswith("/static/built/")


def _add_headers(headers: Headers, _path: str, url: str) -> Any:
    headers["X-Content-Type-Options"] = "nosniff"
    if url.startswith("/embed/"):
        # Websites that isolate themselves may still load it.
        headers["Cross-Origin-Resource-Policy"] = "cross-origin"
