"""Draws the pictures of the example forms, skies and domes, and puts them into their documents.

Run `python -m docs.draw_pictures`; the same pictures come of it each time.
"""

import base64
import re
from collections.abc import Iterator
from pathlib import Path
from random import Random

_EXAMPLES = Path(__file__).parent.parent / "examples"
_WIDTH, _HEIGHT = 800, 1000
_PICTURE = re.compile(r'("header_picture": ")[^"]*(")')


def _stars(chance: Random, count: int, lowest: int) -> Iterator[str]:
    """Yield stars above a height: few bright ones, many faint."""
    for _ in range(count):
        x, y, size = chance.randint(0, _WIDTH), chance.randint(0, lowest), 0.6 + 2.2 * chance.random() ** 4
        yield f'<circle cx="{x}" cy="{y}" r="{size:.1f}" opacity="{0.35 + 0.65 * chance.random():.2f}"/>'


def _sky(top: str, bottom: str, inside: str, *, seed: int, stars: int, lowest: int = 760) -> str:
    """Return a sky with stars, and what stands before it."""
    found = "".join(_stars(Random(seed), stars, lowest))  # noqa: S311 - a picture, no secret
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {_WIDTH} {_HEIGHT}"'
        ' preserveAspectRatio="xMidYMid slice">'
        f'<linearGradient id="s" x2="0" y2="1"><stop stop-color="{top}"/><stop offset="1" stop-color="{bottom}"/>'
        f'</linearGradient><rect width="{_WIDTH}" height="{_HEIGHT}" fill="url(#s)"/>'
        f'<g fill="#fff7e0">{found}</g>{inside}</svg>'
    )


def _hill(colour: str, height: int) -> str:
    return f'<path fill="{colour}" d="M0 {height + 90}Q200 {height - 60} 420 {height}T800 {height - 20}V1000H0z"/>'


def _dome(x: int, y: int, size: int, wall: str, roof: str) -> str:
    """Return an observatory's dome with its slit open."""
    half = size // 2
    return (
        f'<path fill="{roof}" d="M{x - half} {y}a{half} {half} 0 0 1 {size} 0z"/>'
        f'<path fill="#0b1020" d="M{x + size // 12} {y}V{y - half + 4}h{size // 7}V{y}z"/>'
        f'<path fill="{wall}" d="M{x - half + 6} {y}h{size - 12}v{size // 3}h-{size - 12}z"/>'
    )


def _milky_way() -> str:
    return (
        '<g fill="#dfe6ff" opacity=".10"><ellipse cx="420" cy="380" rx="560" ry="120" transform="rotate(-38 420 380)"/>'
        '<ellipse cx="440" cy="370" rx="480" ry="64" transform="rotate(-38 440 370)"/></g>'
    )


def _constellation() -> str:
    points = [(180, 300), (280, 240), (360, 290), (470, 280), (600, 330), (590, 450), (460, 420), (470, 280)]
    way = " ".join(f"{x},{y}" for x, y in points)
    marks = "".join(f'<circle cx="{x}" cy="{y}" r="6"/>' for x, y in points)
    line = f'<polyline points="{way}" fill="none" stroke="#fff7e0" opacity=".5" stroke-width="2"/>'
    return f'{line}<g fill="#ffe7a8">{marks}</g>'


def pictures() -> dict[str, str]:
    """Return the pictures as SVG, by the example that each belongs to."""
    dome = _hill("#16243a", 780) + _dome(470, 760, 190, "#8794a8", "#c3ccd9") + _hill("#0c1526", 870)
    tent = _hill("#3c2a33", 800) + _dome(330, 850, 300, "#b9603f", "#d98a5f") + _hill("#2a1c24", 930)
    return {
        "patron_programme": _sky("#0b1a3a", "#5a4a78", _milky_way() + dome, seed=1, stars=240),
        "northern_sky_quiz": _sky(
            "#060a1c", "#1c2450", _milky_way() + _constellation(), seed=2, stars=420, lowest=1000
        ),
        "travelling_dome_quote": _sky("#22304f", "#d08a6a", tent, seed=3, stars=90, lowest=520),
    }


def _small(top: str, bottom: str, inside: str, *, seed: int, stars: int) -> str:
    """Return a picture of an option: a few stars are enough."""
    return _sky(top, bottom, inside, seed=seed, stars=stars).replace("0 0 800 1000", "0 200 800 600")


def _curtain(x: int, colour: str) -> str:
    return f'<path fill="{colour}" opacity=".35" d="M{x} 250q60 120 10 260t40 240h90q-60-120-20-250t-20-250z"/>'


def option_pictures() -> dict[str, dict[str, str]]:
    """Return pictures of options as SVG, by the example and the id of the option."""
    hill, sun = _hill("#141c30", 720), '<circle cx="560" cy="640" r="70" fill="#ffb070" opacity=".9"/>'
    aurora = "".join(_curtain(120 + 150 * at, ("#7dffb0", "#9af0d0", "#c59bff")[at % 3]) for at in range(4))
    burst = (
        '<g stroke="#fff3d0" stroke-width="5"><path d="M400 320V600M260 460H540M300 360L500 560M500 360L300 560"/></g>'
    )
    glow = '<circle cx="400" cy="460" r="90" fill="#ffd9a0" opacity=".35"/>'
    nova = f'{glow}{burst}<circle cx="400" cy="460" r="34" fill="#fff"/>'
    head = '<circle cx="258" cy="632" r="20" fill="#fff"/>'
    tail = '<path fill="#dfeaff" opacity=".5" d="M250 640L690 260L640 340z"/>' + head
    moon = '<circle cx="420" cy="380" r="70" fill="#f4efdc"/><circle cx="450" cy="365" r="62" fill="#0b1130"/>'
    return {
        "night_watcher_profile": {
            "n10": _small("#3a3560", "#e08a5a", sun + hill, seed=4, stars=10),
            "n11": _small("#050818", "#16204a", moon + hill, seed=5, stars=60),
            "n12": _small("#27406a", "#f2c79a", sun + hill, seed=6, stars=16),
            "n50": _small("#06101f", "#123040", aurora + hill, seed=7, stars=40),
            "n51": _small("#0a0718", "#2a1638", nova + hill, seed=8, stars=40),
            "n52": _small("#081024", "#1d2c56", tail + hill, seed=9, stars=40),
        }
    }


def _address(picture: str) -> str:
    return f"data:image/svg+xml;base64,{base64.b64encode(picture.encode()).decode()}"


def _put(name: str, place: re.Pattern[str], picture: str) -> None:
    """Put a picture into an example where a pattern has its place between two groups."""
    path = _EXAMPLES / f"{name}.json"
    text, found = place.subn(rf"\g<1>{_address(picture)}\g<2>", path.read_text(encoding="utf-8"))
    if found != 1:
        raise SystemExit(f"{path} has no place for a picture: {place.pattern}")
    path.write_text(text, encoding="utf-8")


def main() -> None:
    """Write each picture into its example, as the picture of its brand, or of an option."""
    for name, picture in pictures().items():
        _put(name, _PICTURE, picture)
    for name, of_options in option_pictures().items():
        for option, picture in of_options.items():
            _put(name, re.compile(rf'("id": "{option}",[^}}]*?"picture": ")[^"]*(")'), picture)


if __name__ == "__main__":
    main()
