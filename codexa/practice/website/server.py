"""Serves the practice website: gunicorn "codexa.practice.website.server:application()"."""

import os
from dataclasses import dataclass, field

from flask import Flask, Response, render_template, request

# What a live picture may be asked for: the attributes of a place, by the name in the address.
_ASKED = (
    "as", "title", "button", "opener", "after", "leaving", "width", "room", "values", "fragment", "colour", "on",
    "close", "list", "shown", "language", "greeting",
)  # fmt: skip


@dataclass(frozen=True, kw_only=True)
class Place:
    """Where a form stands on a page: its address at Codexa, and the attributes of its place; "frame" is a plain one."""

    form: str
    title: str
    kind: str = "page"
    attributes: dict[str, str] = field(default_factory=dict)
    room: int = 640


@dataclass(frozen=True, kw_only=True)
class Page:
    """A page of the website: its words, what stands on it, and how it is made; `content` is read at Codexa.

    `strict` gives it a policy that lets in nothing inline; `late` has its places put there by a script; `rough` has
    styles that squeeze frames.
    """

    address: str
    title: str
    words: str
    places: tuple[Place, ...]
    below: str = ""
    content: str = ""
    strict: bool = False
    late: bool = False
    rough: bool = False


_VISIT = Place(form="alderlight/plan-a-visit", title="Plan your visit", attributes={"fragment": ""}, room=900)
_SHOP = Place(
    form="alderlight/star-shop-order",
    title="Order from the star shop",
    kind="pop-up",
    attributes={"button": "Order now", "opener": ".order", "leaving": "", "list": "happened"},
)
_QUOTE = Place(
    form="alderlight/travelling-dome-quote",
    title="What does the Travelling Dome cost?",
    kind="tab",
    attributes={"button": "Ask for a quote"},
)
_QUIZ = Place(
    form="alderlight/northern-sky-quiz",
    title="Northern sky quiz",
    kind="corner",
    attributes={
        "button": "Quiz of the month",
        "width": "420",
        "shown": "chat",
        "greeting": "How well do you know the northern sky? Three minutes, and you know.",
        "after": "4",
    },
)
_SIGHTING = Place(
    form="alderlight/join-and-share-a-sighting",
    title="Share a sighting",
    kind="pop-up",
    attributes={"button": "Share what you saw"},
)
_WATCHER = Place(form="alderlight/night-watcher-profile", title="Which night-watcher are you?", kind="frame", room=760)

PAGES = (
    Page(
        address="visit",
        title="Plan a visit",
        words="Tell us who is coming, and we keep the dome open for you.",
        places=(_VISIT,),
        below="Bus 7 stops at the foot of the hill; from there it is fifteen minutes on foot.",
    ),
    Page(
        address="patrons",
        title="Become a patron",
        words="Schools come for nothing, and nobody is turned away on a clear night: patrons make that so.",
        places=(Place(form="alderlight/patron-programme", title="Become a patron of the observatory", room=900),),
    ),
    Page(
        address="shop",
        title="Star shop",
        words="Star charts, lanterns with red glass, and mugs that keep tea warm until dawn.",
        places=(_SHOP,),
    ),
    Page(
        address="dome",
        title="Travelling Dome",
        words="We bring the sky to your school: a dome for thirty, a projector, and somebody who knows the stories.",
        places=(_QUOTE,),
    ),
    Page(
        address="sky",
        title="The sky this month",
        words="Vega stands high in the south, and the Perseids begin in the last week.",
        places=(_QUIZ,),
    ),
    Page(
        address="watchers",
        title="Night-watchers",
        words="Some of us count meteors, some draw the Moon. Which one are you?",
        places=(_WATCHER,),
    ),
    Page(
        address="sightings",
        title="Sightings",
        words="What our members and visitors have seen of late.",
        places=(_SIGHTING, _QUIZ),
        content="alderlight/sightings",
    ),
    Page(
        address="everything",
        title="Everything at once",
        words="Three forms on one page, each in its own way, put there by a script once the page is ready.",
        places=(_QUIZ, _VISIT, _SHOP),
        late=True,
    ),
    Page(
        address="strict",
        title="Under a strict policy",
        words="This page lets in nothing inline, and frames and scripts from one place alone.",
        places=(_VISIT, _SHOP),
        below="What stands below does not move.",
        strict=True,
    ),
    Page(
        address="rough",
        title="Under rough styles",
        words="This page squeezes every frame and every button that it can reach.",
        places=(_VISIT, _QUOTE),
        rough=True,
    ),
)


def application() -> Flask:
    """Return the website; CODEXA_PUBLIC_ADDRESS says where the forms that it shows are."""
    forms = os.environ.get("CODEXA_PUBLIC_ADDRESS", "http://127.0.0.1:8780")
    site = Flask("codexa.practice.website")

    @site.get("/")
    def home() -> str:
        return render_template("home.html", pages=PAGES, forms=forms)

    @site.get("/<address>")
    def page(address: str) -> Response:
        found = next((each for each in PAGES if each.address == address), None)
        if found is None:
            return Response(render_template("gone.html", pages=PAGES), 404)
        response = Response(render_template("page.html", page=found, pages=PAGES, forms=forms))
        if found.strict:
            policy = f"default-src 'none'; style-src 'self'; img-src data:; script-src {forms}; frame-src {forms}"
            response.headers["Content-Security-Policy"] = policy
        return response

    @site.get("/stand")
    def stand() -> str:
        """Any form in any way, for a live picture of it."""
        attributes = {name: request.args[name][:500] for name in _ASKED if name in request.args}
        kind = attributes.pop("as", "page")
        room = attributes.get("room", "")
        place = Place(
            form=request.args.get("form", "")[:200],
            title=attributes.pop("title", "Form"),
            kind=kind,
            attributes=attributes,
            room=int(room) if room.isdigit() and len(room) < 6 else 640,
        )
        return render_template("stand.html", place=place, forms=forms, pages=PAGES)

    return site
