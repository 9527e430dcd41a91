"""Pictures for the demo's tables, drawn anew each time: a made-up night, with one thing in it."""

import io
from random import Random

from PIL import Image, ImageDraw

_SIZE = (640, 480)
_SKIES = ((14, 24, 52), (38, 22, 58), (8, 44, 52), (52, 30, 20))
_LIGHTS = ((246, 214, 120), (228, 132, 104), (150, 200, 236), (236, 236, 226))


def night(seed: str) -> bytes:
    """Return a picture as PNG, the same for the same seed."""
    chance = Random(seed)  # noqa: S311 - no secret hangs on it
    sky, light = chance.choice(_SKIES), chance.choice(_LIGHTS)
    picture = Image.new("RGB", _SIZE, sky)
    draw = ImageDraw.Draw(picture)
    for _ in range(140):
        x, y, size = chance.randrange(_SIZE[0]), chance.randrange(380), chance.choice((1, 1, 1, 2, 3))
        draw.ellipse((x, y, x + size, y + size), fill=(235, 235, 220))
    chance.choice((_moon, _comet, _ringed, _pair))(draw, chance, light, sky)
    hills = [(x, 380 + chance.randrange(60)) for x in range(0, _SIZE[0] + 80, 80)]
    draw.polygon([(0, 480), *hills, (640, 480)], fill=(6, 8, 14))
    made = io.BytesIO()
    picture.save(made, "PNG")
    return made.getvalue()


_Colour = tuple[int, int, int]


def _moon(draw: ImageDraw.ImageDraw, chance: Random, light: _Colour, sky: _Colour) -> None:
    x, y = chance.randrange(120, 400), chance.randrange(60, 160)
    draw.ellipse((x, y, x + 160, y + 160), fill=light)
    draw.ellipse((x + 50, y - 10, x + 200, y + 150), fill=sky)


def _comet(draw: ImageDraw.ImageDraw, chance: Random, light: _Colour, _sky: _Colour) -> None:
    x, y = chance.randrange(360, 480), chance.randrange(80, 160)
    draw.polygon([(x, y), (x - 280, y + 150), (x - 240, y + 190), (x + 24, y + 28)], fill=(110, 124, 150))
    draw.ellipse((x - 22, y - 16, x + 34, y + 40), fill=light)


def _ringed(draw: ImageDraw.ImageDraw, chance: Random, light: _Colour, _sky: _Colour) -> None:
    x, y = chance.randrange(180, 340), chance.randrange(90, 180)
    draw.ellipse((x - 60, y + 44, x + 180, y + 84), outline=(214, 200, 170), width=9)
    draw.ellipse((x, y, x + 120, y + 120), fill=light)


def _pair(draw: ImageDraw.ImageDraw, chance: Random, light: _Colour, _sky: _Colour) -> None:
    x, y = chance.randrange(200, 340), chance.randrange(100, 200)
    draw.ellipse((x, y, x + 70, y + 70), fill=light)
    draw.ellipse((x + 92, y + 50, x + 136, y + 94), fill=(160, 190, 240))
