"""What a draft is found by: its pages, blocks, row kinds and figures with their numbers, titles and keys."""

from collections.abc import Iterator, Mapping, Sequence
from typing import Any, NamedTuple

from codexa.core.definition.rich_text import plain

_MOST_TITLE = 120  # characters
_NAMES = ("label", "title", "name", "text")


class FoundPart(NamedTuple):
    """A part of a draft: its id, outline number ("2.3", "" beside the pages), title and key."""

    id: str
    number: str
    title: str
    key: str


def outline_words(document: Mapping[str, Any]) -> list[FoundPart]:
    """Return the parts of a stored draft, in the order of the outline; whatever its format, nothing is wrong."""
    found = list(_within(document.get("pages"), ""))
    for name in ("figures", "confirmations", "follow_ups"):
        found += (part._replace(number="") for part in _within(document.get(name), ""))
    return found


def _within(parts: Any, before: str) -> Iterator[FoundPart]:
    for at, part in enumerate(parts if isinstance(parts, Sequence) else (), 1):
        if not isinstance(part, Mapping) or not isinstance(part.get("id"), str):
            continue
        number = f"{before}{at}"
        title = next((text for name in _NAMES if isinstance(text := part.get(name), str) and text.strip()), "")
        yield FoundPart(part["id"], number, plain(title)[:_MOST_TITLE], str(part.get("key", "")))
        for name in ("blocks", "kinds"):
            yield from _within(part.get(name), f"{number}.")
