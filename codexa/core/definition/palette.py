"""What a brand's colours make of each other: text, links, errors and edges that read well on every brand.

The browser draws with the same colours (`frontend/src/form/colours.ts`); `tests/cases/palettes.json` holds both to it.
"""

from collections.abc import Iterator

from codexa.core.definition.brand import Brand
from codexa.core.definition.colour import MIN_CONTRAST, contrast

_WHITE, _BLACK = "#FFFFFF", "#000000"
_WRONG = "#A62B14"
_EDGE_CONTRAST = 3.0  # of what is no text (WCAG 2.2, 1.4.11)
_STEPS = 20


def mixed(colour: str, other: str, share: float) -> str:
    """Return a colour with so much of another in it, from 0 to 1, channel by channel (sRGB)."""
    pairs = ((int(colour[at : at + 2], 16), int(other[at : at + 2], 16)) for at in (1, 3, 5))
    return "#" + "".join(f"{int(one * (1 - share) + two * share + 0.5):02X}" for one, two in pairs)


def text_on(ground: str, brand: Brand) -> str:
    """Return the colour of text on a coloured ground: ink, paper or white, and black or white where none reads well."""
    best = max((brand.ink, brand.paper, _WHITE), key=lambda text: contrast(text, ground))
    if contrast(best, ground) >= MIN_CONTRAST:
        return best
    return max((_WHITE, _BLACK), key=lambda text: contrast(text, ground))


def readable(colour: str, grounds: tuple[str, ...], least: float = MIN_CONTRAST) -> str:
    """Return a colour as it is, or with as much white or black in it as it takes to be seen on all those grounds."""
    target = max((_WHITE, _BLACK), key=lambda each: contrast(each, grounds[0]))
    for step in range(_STEPS):
        found = mixed(colour, target, step / _STEPS)
        if all(contrast(found, ground) >= least for ground in grounds):
            return found
    return target


def palette(brand: Brand) -> dict[str, str]:
    """Return every colour that a form is drawn with, as "#RRGGBB", by what it is for.

    `tint` is the ground of what was chosen, `quiet` of a filled field, `deep` of a button under the pointer.
    """
    banner = brand.banner or brand.accent
    tint, quiet = mixed(brand.paper, brand.accent, 0.08), mixed(brand.paper, brand.ink, 0.04)
    deep = mixed(brand.accent, brand.ink, 0.38)
    grounds = (brand.paper, tint, quiet)
    return {
        "on_accent": brand.on_accent or text_on(brand.accent, brand),
        "on_banner": brand.on_banner or text_on(banner, brand),
        "deep": deep,
        "on_deep": text_on(deep, brand),
        "tint": tint,
        "quiet": quiet,
        "line": mixed(brand.paper, brand.ink, 0.17),
        "edge": readable(mixed(brand.paper, brand.ink, 0.55), (brand.paper,), _EDGE_CONTRAST),
        "ring": readable(mixed(brand.accent, _WHITE, 0.45), (brand.paper, tint), _EDGE_CONTRAST),
        "ink_2": readable(mixed(brand.paper, brand.ink, 0.78), grounds),
        "link": readable(brand.accent, grounds),
        "title": readable(deep, grounds),
        "wrong": readable(_WRONG, grounds),
    }


def contrasts(brand: Brand) -> Iterator[tuple[str, str, float]]:
    """Yield what is read on what, as (setting, words, contrast ratio); WCAG 2.2, 1.4.3 wants 4.5 of each."""
    found = palette(brand)
    banner = brand.banner or brand.accent

    def worst(text: str) -> float:
        return min(contrast(text, ground) for ground in (brand.paper, found["tint"], found["quiet"]))

    on_accent = "accent" if brand.on_accent is None else "on_accent"
    on_banner = "banner" if brand.on_banner is None else "on_banner"
    yield on_accent, "Text on the accent colour", contrast(found["on_accent"], brand.accent)
    yield "accent", "Text on a button under the pointer", contrast(found["on_deep"], found["deep"])
    yield on_banner, "The title on its banner", contrast(found["on_banner"], banner)
    yield "ink", "Text on the paper", contrast(brand.ink, brand.paper)
    yield "ink", "Text on what was chosen", contrast(brand.ink, found["tint"])
    yield "ink", "Text in a filled field", contrast(brand.ink, found["quiet"])
    yield "paper", "Links on the paper", worst(found["link"])
    yield "paper", "Help and hints on the paper", worst(found["ink_2"])
    yield "paper", "What is wrong, on the paper", worst(found["wrong"])
    yield "paper", "Titles of pages on the paper", worst(found["title"])


def weak_contrasts(brand: Brand) -> list[tuple[str, str, float]]:
    """Return those of them that are too weak to read well: of each setting the weakest."""
    weakest: dict[str, tuple[str, str, float]] = {}
    for each in contrasts(brand):
        if each[2] < min(MIN_CONTRAST, weakest.get(each[0], each)[2] + 1e-9):
            weakest[each[0]] = each
    return list(weakest.values())
