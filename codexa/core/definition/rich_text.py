"""Rich text: the little HTML that authors may use, everything else taken out (nh3)."""

import html
from collections.abc import Callable
from functools import partial
from typing import Annotated
from urllib.parse import quote

import nh3
from pydantic import AfterValidator

from codexa.core.definition.formulas import INSERTION
from codexa.core.definition.parts import InsertedText, VisitorText, Words

_TAGS = {"p", "br", "strong", "em", "u", "s", "ul", "ol", "li", "a", "h4", "blockquote", "sub", "sup", "span"}
_CLASSES = {"cx-small", "cx-large", "cx-centre", "cx-end", "cx-accent"}
_CLASSED = ("p", "h4", "li", "span")
_ATTRIBUTES = {"a": {"href"}}
_SCHEMES = {"http", "https", "mailto", "tel"}


def sanitised(text: str) -> str:
    """Return HTML with only what rich text may hold: paragraphs, lists, emphasis, links, size, alignment, accent."""
    return nh3.clean(
        text,
        tags=_TAGS,
        attributes=_ATTRIBUTES,
        allowed_classes=dict.fromkeys(_CLASSED, _CLASSES),
        url_schemes=_SCHEMES,
        link_rel="noopener noreferrer",
    )


def limits() -> dict[str, list[str]]:
    """Return what a text may hold, for the editor that says what will be taken out."""
    return {"tags": sorted(_TAGS), "classed": list(_CLASSED), "classes": sorted(_CLASSES), "schemes": sorted(_SCHEMES)}


RichText = Annotated[Words, AfterValidator(sanitised), InsertedText("html"), VisitorText()]


def plain(text: str) -> str:
    """Return rich text without its tags, in one line."""
    return " ".join(html.unescape(nh3.clean(text.replace("<", " <"), tags=set())).split())


_WRITTEN: dict[str, Callable[[str], str]] = {"text": str, "html": html.escape, "address": partial(quote, safe="")}


def filled_in(text: str, value_of: Callable[[str], str], into: str) -> str:
    """Return a text with each `{name}` replaced by its value, escaped as HTML or a web address (RFC 3986) wants it."""

    def replaced(name: str | None, whole: str) -> str:
        if name is None:
            return whole[0]
        return _WRITTEN[into](value_of(name))

    return INSERTION.sub(lambda match: replaced(match[1], match[0]), text)
