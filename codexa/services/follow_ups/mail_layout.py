"""A mail's body: HTML that mail programs draw alike (tables, styles in place, nothing loaded), and the same as text."""

import html
import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from codexa.core.definition.rich_text import plain

_LETTERS = {"serif": "Georgia,'Times New Roman',serif", "sans-serif": "Arial,Helvetica,sans-serif"}
_BREAKS = re.compile(r"(?i)</(p|li|h4|blockquote|tr)>|<br\s*/?>")
_OPENED = re.compile(r'<(p|h4|li|span)(?: class="([a-z -]*)")?>')
_STYLES = {
    "p": "margin:0 0 16px",
    "h4": "margin:0 0 8px;font-size:18px",
    "cx-small": "font-size:14px",
    "cx-large": "font-size:20px;line-height:28px",
    "cx-centre": "text-align:center",
    "cx-end": "text-align:right",
}
# Programs for mail that know a dark scheme take this; to the others it means nothing.
_DARK = (
    "@media (prefers-color-scheme:dark){.ground{background:#12161d!important}.paper{background:#1c222b!important;"
    "color:#e8ebf0!important}.quiet{color:#aab3c0!important}.paper a{color:#a9c1ff!important}}"
)

# Gives the address by which a mail shows a picture; None where it can't.
Source = Callable[[str], str | None]


@dataclass(frozen=True, kw_only=True, slots=True)
class ShownMail:
    """A mail as it is read: its HTML, with pictures from where they lie, and its plain text."""

    html: str
    text: str


def shown_mail(content: Mapping[str, Any]) -> ShownMail:
    """Return a mail as it is shown in the workbench."""
    return ShownMail(html=as_html(content, lambda source: source), text=as_text(content["pieces"]))


def as_html(content: Mapping[str, Any], source: Source) -> str:
    """Return the HTML document of a mail; `source` gives the address of each picture in it."""
    brand = content["brand"]
    words = f"font-family:{_LETTERS[brand['letters']]};font-size:16px;line-height:24px;color:{brand['ink']}"
    logo = _picture(brand["logo"], brand["logo_alternative"], source, most=180) if brand["logo"] else ""
    body = logo + "".join(_piece_as_html(each, brand["accent"], source) for each in content["pieces"])
    table = 'role="presentation" width="100%" cellpadding="0" cellspacing="0"'
    return (
        f'<!doctype html><html lang="{content["locale"].replace("_", "-")}">'
        '<head><meta charset="utf-8"><meta name="viewport" content="width=device-width">'
        f'<meta name="color-scheme" content="light dark"><title>{html.escape(content["subject"])}</title>'
        f"<style>{_DARK}</style></head>"
        f'<body class="ground" style="margin:0;padding:0;background:{brand["ground"]}">'
        f'<table {table}><tr><td align="center" style="padding:24px 8px"><table {table} style="max-width:600px">'
        f'<tr><td style="height:6px;background:{brand["accent"]}"></td></tr>'
        f'<tr><td class="paper" style="padding:24px;background:{brand["paper"]};{words}">{body}</td></tr>'
        "</table></td></tr></table></body></html>"
    )


def _piece_as_html(piece: Mapping[str, Any], accent: str, source: Source) -> str:
    if "html" in piece:
        return _text(piece["html"], accent)
    if "bars" in piece:
        return "".join(_bar(each, accent) for each in piece["bars"])
    if "picture" in piece:
        return _picture(piece["picture"], piece["alternative"], source, most=552)
    if "left_out" in piece:
        return f'<p style="{_STYLES["p"]}">{html.escape(_left_out(piece))}</p>'
    rows = "".join(
        '<tr><td class="quiet" style="padding:6px 12px 6px 0;border-bottom:1px solid #dfe3e8;color:#5b6472;'
        f'vertical-align:top">{html.escape(label)}</td>'
        f'<td style="padding:6px 0;border-bottom:1px solid #dfe3e8;vertical-align:top">{_lines(text)}</td></tr>'
        for label, text in piece["answers"]
    )
    return f'<table width="100%" cellpadding="0" cellspacing="0" style="margin:0 0 16px">{rows}</table>'


def _text(text: str, accent: str) -> str:
    """Return rich text with its styles in place: programs for mail drop classes."""

    def styled(found: re.Match[str]) -> str:
        names = [found[1], *(found[2] or "").split()]
        known = _STYLES | {"cx-accent": f"color:{accent}"}
        style = ";".join(known[each] for each in names if each in known)
        return f'<{found[1]} style="{style}">' if style else f"<{found[1]}>"

    return _OPENED.sub(styled, text).replace("<a ", f'<a style="color:{accent}" ')


def _picture(picture: str, alternative: str, source: Source, *, most: int) -> str:
    address = source(picture)
    if address is None:
        return f'<p style="{_STYLES["p"]}">{html.escape(alternative)}</p>' if alternative else ""
    return (
        f'<p style="{_STYLES["p"]}"><img src="{html.escape(address)}" alt="{html.escape(alternative)}" '
        f'style="max-width:{most}px;width:100%;height:auto;border:0"></p>'
    )


def _lines(text: str) -> str:
    return html.escape(text).replace("\n", "<br>")


def _bar(bar: Mapping[str, Any], accent: str) -> str:
    width = max(1, round(100 * bar["share"]))
    return (
        f'<p style="margin:0 0 2px">{html.escape(bar["label"])}: <strong>{html.escape(bar["text"])}</strong></p>'
        '<table role="presentation" width="100%" cellpadding="0" cellspacing="0" style="margin:0 0 12px"><tr>'
        f'<td width="{width}%" style="height:10px;background:{accent}"></td>'
        f'<td width="{100 - width}%" style="height:10px;background:#e6e9ee"></td></tr></table>'
    )


def _left_out(piece: Mapping[str, Any]) -> str:
    return f"Too large to go along; Codexa has them: {', '.join(piece['left_out'])}"


def as_text(pieces: Sequence[Mapping[str, Any]]) -> str:
    """Return the same as plain text."""
    return "\n\n".join(filter(None, map(_piece_as_text, pieces))) + "\n"


def _piece_as_text(piece: Mapping[str, Any]) -> str:
    if "html" in piece:
        lines = (plain(each or "") for each in _BREAKS.sub("\n", _with_addresses(piece["html"])).split("\n"))
        return "\n".join(each for each in lines if each)
    if "bars" in piece:
        return "\n".join(f"{bar['label']}: {bar['text']}" for bar in piece["bars"])
    if "picture" in piece:
        return f"[{piece['alternative']}]" if piece["alternative"] else ""
    if "left_out" in piece:
        return _left_out(piece)
    return "\n".join(f"{label}: {text}" for label, text in piece["answers"])


_LINK = re.compile(r'<a [^>]*?href="([^"]*)"[^>]*>(.*?)</a>', re.DOTALL)


def _with_addresses(text: str) -> str:
    """Return rich text in which each link is followed by its address, which plain text has no other place for."""
    return _LINK.sub(lambda found: found[2] if found[1] in found[2] else f"{found[2]} ({found[1]})", text)
