"""What a visitor's browser loads first for a public form: scripts gzipped, and fonts."""

import gzip
from pathlib import Path

from bench.measuring import report
from codexa.web.built import entry

_STATIC = Path(__file__).parent.parent / "codexa" / "web"
_FONTS = ("source-sans-3-latin-wght-normal", "source-serif-4-latin-600-normal")


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    form = entry("form")
    scripts = [_STATIC / address.lstrip("/") for address in (form.script, *form.chunks)]
    kilobytes = sum(len(gzip.compress(script.read_bytes())) for script in scripts) / 1000
    fonts = [path for name in _FONTS for path in (_STATIC / "static" / "built" / "assets").glob(f"{name}*.woff2")]
    font_kilobytes = sum(path.stat().st_size for path in fonts) / 1000
    light = report("public_form_script", kilobytes, "KB gzipped", 95, at_least=False)
    return report("public_form_fonts", font_kilobytes, "KB", 60, at_least=False) and light
