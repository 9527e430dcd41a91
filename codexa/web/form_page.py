"""The page of a public form: what it shows before its script has come, and what the script goes on with."""

import gzip
from collections.abc import Iterable, Mapping
from types import MappingProxyType
from typing import Any
from urllib.parse import urlencode

import orjson
from flask import Response, current_app, g, render_template, request

from codexa.core.definition.wording import MESSAGES
from codexa.core.form.sharing import Sharing
from codexa.core.languages import direction_of
from codexa.core.program.faces import FormFace
from codexa.store.editions import LiveEdition
from codexa.web.built import entry, piece, written_styles
from codexa.web.entrance import LANGUAGE
from codexa.web.first_view import FirstView

_MORE_INPUTS = "src/fields/more_inputs.ts"
MORE_TYPES = frozenset({
    "address", "all_answers", "dropdown", "grid", "name", "order_summary", "product", "quantity", "rating",
    "record_choice", "repeat", "scale", "slider", "slot",
})  # fmt: skip
_LOADING = next(each.usual for each in MESSAGES if each.name == "loading")
_GZIP_LEVEL = 6
_SCRIPT_SAFE = {ord("<"): "\\u003c", ord(">"): "\\u003e", ord("&"): "\\u0026"}
_BY_THE_LINK: Mapping[str, object] = MappingProxyType({"came": {"way": "link", "page": ""}, "opened": ""})
_NOT_SHARED: Mapping[str, str] = MappingProxyType({})


def form_page(
    face: FormFace,
    first: FirstView,
    data: str,
    *,
    framed: bool,
    own_window: bool = False,
    sends: bool = True,
    shared: Mapping[str, str] = _NOT_SHARED,
    above: str = "",
) -> str:
    """Return the page of a form; `shared` is what other programs show of a link to it, as `shared_of` gives it.

    In a frame that is a window of its own it fills that; in others the frame grows with it. What never `sends` has no
    button for it. `above` is HTML that stands before it.
    """
    return render_template(
        "form.html",
        face=face,
        data=data,
        entry=entry("form"),
        styles=written_styles("form"),
        pieces=piece(_MORE_INPUTS) if _needs_more(face.pages) else (),
        framed=framed,
        own_window=own_window,
        sends=sends,
        shared=shared,
        above=above,
        first=first,
        nonce=g.nonce,
        direction=direction_of(face.locale),
        usual_loading=_LOADING,
        query_in=_query_in,
    )


def _needs_more(parts: Iterable[Any]) -> bool:
    """Whether a form has a type of block whose input comes as a piece of its own (`fields/inputs.ts`)."""
    return any(
        getattr(block, "type", "") in MORE_TYPES or _needs_more((block, *getattr(block, "kinds", ())))
        for part in parts
        for block in getattr(part, "blocks", ())
    )


def _query_in(locale: str) -> str:
    """Return the query of this page's address in another language."""
    kept = {name: value for name, value in request.args.items(multi=True) if name != LANGUAGE}
    return urlencode({**kept, LANGUAGE: locale})


def page_response(page: str) -> Response:
    """Return a page as visitors get it, packed (gzip, RFC 1952) where their browser takes that.

    Nothing in it is both secret and beside what somebody else could put into its address.
    """
    response = Response(page)
    response.vary.add("Accept-Encoding")
    if request.accept_encodings["gzip"]:
        response.set_data(gzip.compress(page.encode(), _GZIP_LEVEL))
        response.headers["Content-Encoding"] = "gzip"
    return response


def page_data(content: dict[str, object]) -> str:
    """Return the JSON of a PublicPage, safe inside a script element."""
    return orjson.dumps({**_BY_THE_LINK, **content}).decode().translate(_SCRIPT_SAFE)


def shared_of(live: LiveEdition, place: str) -> dict[str, str]:
    """Return what other programs show of a link to a form at `place` (Open Graph), with whole addresses."""
    base = current_app.config["SETTINGS"].public_address
    sharing = Sharing.model_validate(live.sharing)
    picture = f"{base}{sharing.picture}" if sharing.picture else ""
    return {**sharing.model_dump(), "picture": picture, "address": f"{base}/f{place}"}
