"""What a form's page shows before its script has come: on a slow line that is seconds."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from codexa.core.definition.brand import Brand
from codexa.core.definition.palette import palette
from codexa.core.form.form import FORM
from codexa.core.program.faces import ConfirmationFace, FormFace


@dataclass(frozen=True, kw_only=True, slots=True)
class FirstView:
    """The title and lead, the heading of the welcome or first page, the labels of its fields, and the brand's colours.

    All of it is what visitors may know: it is read off the face and the first state.
    """

    title: str
    lead: str
    heading: str
    labels: tuple[str, ...]
    colours: Mapping[str, str]
    classes: str
    pictured: bool
    received: bool = False


def first_view(face: FormFace, state: Mapping[str, Any]) -> FirstView:
    """Return what stands in the page itself."""
    heading, labels = _begins_with(face, state)
    return FirstView(
        title=face.title,
        lead=face.lead,
        heading=heading,
        labels=tuple(labels),
        colours=colours_of(face.brand),
        **_standing(face.brand),
    )


def received_view(face: FormFace, confirmation: ConfirmationFace) -> FirstView:
    """Return what stands in the page of a confirmation itself."""
    colours = colours_of(face.brand)
    title, heading = face.title, confirmation.title
    return FirstView(
        title=title, lead="", heading=heading, labels=(), colours=colours, received=True, **_standing(face.brand)
    )


def _standing(brand: Brand) -> dict[str, Any]:
    """Return how the form stands on its page, so that nothing moves once its script has come (`form/brand.ts`)."""
    picture = "" if brand.header_picture else " cx-no-picture"
    return {
        "classes": f"cx-layout-{brand.layout} cx-width-{brand.width}{picture}",
        "pictured": bool(brand.header_picture) and brand.layout in ("banner", "wide"),
    }


def _begins_with(face: FormFace, state: Mapping[str, Any]) -> tuple[str, list[str]]:
    texts = state.get("texts", {})
    if face.welcome is not None:
        return texts.get(FORM, {}).get("welcome.title", face.welcome.title), []
    path = state["path"]
    page = next((each for each in face.pages if path and each.id == path[0]), None)
    if page is None:
        return "", []
    blocks = [(block, state["blocks"].get(block.id, {})) for block in page.blocks]
    shown = [(block, facts) for block, facts in blocks if facts.get("shown") and getattr(block, "label", "")]
    labels = [facts.get("texts", {}).get("label", getattr(block, "label", "")) for block, facts in shown]
    return texts.get(page.id, {}).get("title", page.title), labels


def colours_of(brand: Brand) -> dict[str, str]:
    """Return the colours of a brand that stand in a page itself, by name."""
    found = palette(brand)
    return {
        "accent": brand.accent,
        "on-accent": found["on_accent"],
        "banner": brand.banner or brand.accent,
        "on-banner": found["on_banner"],
        "sheet": brand.paper,
        "ink": brand.ink,
        "title": found["title"],
        "ground": brand.ground,
    }
