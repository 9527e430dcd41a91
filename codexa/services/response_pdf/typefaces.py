"""The typefaces that ship with Codexa, as a sheet of a response uses them."""

from functools import cache
from pathlib import Path

import codexa
from codexa.core.definition.brand import Typeface

_BUILT = Path(codexa.__file__).parent / "web" / "static" / "built" / "assets"
# Where browsers find them.
FACES_AT = "/static/built/assets"
# The files of each typeface begin with its name; those of other scripts than Latin follow where there are any.
FACES: dict[Typeface, str] = {
    "source_sans": "source-sans-3",
    "source_serif": "source-serif-4",
    "inter": "inter",
    "work_sans": "work-sans",
    "nunito": "nunito",
    "karla": "karla",
    "montserrat": "montserrat",
    "lora": "lora",
    "bitter": "bitter",
    "fraunces": "fraunces",
    "device": "source-sans-3",
}


_SCRIPTS = ("latin", "latin-ext", "greek", "cyrillic", "cyrillic-ext", "vietnamese")


def scripts_of(name: str) -> tuple[str, ...]:
    """Return the scripts that a typeface has files for; the others fall back on the first."""
    return _SCRIPTS if name.startswith("source-") else ("latin",)


@cache
def face_file(name: str) -> Path:
    """Return the file of a typeface by name and script, such as "source-sans-3-latin". Raises ValueError."""
    found = next(iter(sorted(_BUILT.glob(f"{name}-wght-normal-*.woff2"))), None)
    if found is None:
        raise ValueError(f"there is no typeface {name}")
    return found
