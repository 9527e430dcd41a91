"""The built front end: which files belong to which entry."""

import json
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any

_BUILT = Path(__file__).with_name("static") / "built"


class NotBuiltError(Exception):
    """The front end is not built. Run ./run demo, or: cd frontend && npm ci && npm run build."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Entry:
    """The addresses of an entry's script, of the chunks that it needs at once, and of its styles."""

    script: str
    chunks: tuple[str, ...]
    styles: tuple[str, ...]


@lru_cache(maxsize=8)
def entry(name: str) -> Entry:
    """Return an entry ("app" or "form") from the build's manifest. Raises NotBuiltError."""
    manifest = _manifest()
    first = manifest[f"src/{name}/main.tsx"]
    chunks = _imported(manifest, first)
    files = [first, *(manifest[chunk] for chunk in chunks)]
    styles = dict.fromkeys(style for each in files for style in each.get("css", ()))
    return Entry(
        script=_address(first["file"]),
        chunks=tuple(_address(manifest[chunk]["file"]) for chunk in chunks),
        styles=tuple(map(_address, styles)),
    )


@lru_cache(maxsize=2)
def written_styles(name: str) -> str:
    """Return the styles of an entry as they stand in its page: it is painted without asking for them first."""
    files = (_BUILT / each.removeprefix("/static/built/") for each in entry(name).styles)
    return "".join(each.read_text(encoding="utf-8") for each in files)


@lru_cache(maxsize=8)
def piece(source: str) -> tuple[str, ...]:
    """Return the addresses of a piece that a script fetches by itself, and of what that needs. Raises NotBuiltError."""
    manifest = _manifest()
    part = manifest[source]
    return tuple(_address(each["file"]) for each in (part, *(manifest[each] for each in _imported(manifest, part))))


def _manifest() -> dict[str, Any]:
    try:
        found: dict[str, Any] = json.loads((_BUILT / ".vite" / "manifest.json").read_text(encoding="utf-8"))
    except FileNotFoundError:
        raise NotBuiltError(NotBuiltError.__doc__) from None
    return found


def _imported(manifest: dict[str, Any], part: dict[str, Any]) -> list[str]:
    found: list[str] = []
    waiting = list(part.get("imports", ()))
    while waiting:
        chunk = waiting.pop(0)
        if chunk not in found:
            found.append(chunk)
            waiting.extend(manifest[chunk].get("imports", ()))
    return found


def _address(file: str) -> str:
    return f"/static/built/{file}"
