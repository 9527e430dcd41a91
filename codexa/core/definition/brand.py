"""How a form looks: colours, typefaces, pictures, shapes. A brand may be the team's own, shared by many forms."""

from typing import Annotated, Literal

from pydantic import StringConstraints

from codexa.core.definition.parts import Colour, Part, PlainLabel

# The typefaces that ship with Codexa, all under the SIL Open Font License.
Typeface = Literal[
    "source_sans", "source_serif", "inter", "work_sans", "nunito", "karla", "montserrat", "lora", "bitter",
    "fraunces", "device",
]  # fmt: skip

MAX_PICTURE = 400_000  # characters of a picture that is written into the document itself
PictureSource = Annotated[
    str, StringConstraints(max_length=MAX_PICTURE, pattern=r"^(/|data:image/(png|jpeg|webp|svg\+xml);base64,|$)")
]


class Brand(Part):
    """How the form looks.

    `accent` is the colour of buttons, choices and links, `banner` that behind the title (none: the accent), `ground`
    that around the form, `paper` the form's own, `ink` its text. Text on accent and banner may be set by hand
    (`on_accent`, `on_banner`; none: what reads best). What else is drawn follows from these
    (`definition/palette.py`). `layout` is how the form stands on its page: under a banner, bare (as in another page),
    with its picture beside it or behind it, or as wide as its window. `labels` beside fields stand above them where
    there is no room. `saved` is the id of the team's brand that the form uses; where that is changed, visitors see it
    at once, or, as the form `follows` by "edition", once the form was published again.
    """

    accent: Colour = "#2B3A8C"
    banner: Colour | None = None
    on_accent: Colour | None = None
    on_banner: Colour | None = None
    ground: Colour = "#EDF0F7"
    paper: Colour = "#FFFFFF"
    ink: Colour = "#16202B"
    layout: Literal["banner", "bare", "beside", "behind", "wide"] = "banner"
    width: Literal["narrow", "normal", "wide"] = "normal"
    labels: Literal["above", "beside"] = "above"
    text_size: Literal["small", "normal", "large"] = "normal"
    density: Literal["tight", "normal", "airy"] = "normal"
    choices: Literal["list", "tiles", "compact"] = "list"
    typeface: Typeface = "source_sans"
    heading_typeface: Typeface = "source_serif"
    title_align: Literal["start", "centre", "end"] = "start"
    title_size: Literal["small", "normal", "large"] = "normal"
    title_italic: bool = False
    title_underlined: bool = False
    corner: Literal["square", "slight", "round"] = "slight"
    fields: Literal["outlined", "filled", "underlined"] = "outlined"
    button: Literal["like_fields", "pill"] = "like_fields"
    button_width: Literal["words", "full"] = "words"
    button_size: Literal["small", "normal", "large"] = "normal"
    logo: PictureSource = ""
    logo_alternative: PlainLabel = ""
    header_picture: PictureSource = ""
    background_picture: PictureSource = ""
    saved: Annotated[str, StringConstraints(pattern=r"^([0-9a-f-]{36})?$")] = ""
    follows: Literal["at_once", "edition"] = "at_once"
