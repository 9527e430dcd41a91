"""A mail's body: HTML that mail programs draw alike (tables, styles in place, nothing loaded), and the same as text."""

import html
import re
from collections.abc import Sequence
from typing import Any

from codexa.core.definition.rich_text import plain

_FONT = "font-family:Georgia,'Times New Roman',serif;font-size:16px;line-height:24px;color:#1f2630"
_BREAKS = re.compile(r"(?i)</(p|li|h4|blockquote|tr)>|<br\s*/?>")


def as_html(title: str, pieces: Sequence[dict[str, Any]], accent: str) -> str:
    """Return the HTML document of a mail."""
    body = "".join(_piece_as_html(each, accent) for each in pieces)
    return (
        '<!doctype html><html><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">'
        f'<meta name="color-scheme" content="light dark"><title>{html.escape(title)}</title></head>'
        '<body style="margin:0;padding:0;background:#f2f3f5">'
        '<table role="presentation" width="100%" cellpadding="0" cellspacing="0"><tr><td align="center">'
        '<table role="presentation" width="100%" cellpadding="0" cellspacing="0" style="max-width:600px">'
        f'<tr><td style="height:6px;background:{accent}"></td></tr>'
        f'<tr><td style="padding:24px;background:#ffffff;{_FONT}">{body}</td></tr>'
        "</table></td></tr></table></body></html>"
    )


def _piece_as_html(piece: dict[str, Any], accent: str) -> str:
    if "html" in piece:
        text: str = piece["html"]
        return text.replace("<p>", '<p style="margin:0 0 16px">')
    if "bars" in piece:
        return "".join(_bar(each, accent) for each in piece["bars"])
    rows = "".join(
        '<tr><td style="padding:6px 12px 6px 0;border-bottom:1px solid #dfe3e8;color:#5b6472;vertical-align:top">'
        f'{html.escape(label)}</td><td style="padding:6px 0;border-bottom:1px solid #dfe3e8">{_lines(text)}</td></tr>'
        for label, text in piece["answers"]
    )
    return f'<table width="100%" cellpadding="0" cellspacing="0" style="margin:0 0 16px">{rows}</table>'


def _lines(text: str) -> str:
    return html.escape(text).replace("\n", "<br>")


def _bar(bar: dict[str, Any], accent: str) -> str:
    width = max(1, round(100 * bar["share"]))
    return (
        f'<p style="margin:0 0 2px">{html.escape(bar["label"])}: <strong>{html.escape(bar["text"])}</strong></p>'
        '<table role="presentation" width="100%" cellpadding="0" cellspacing="0" style="margin:0 0 12px"><tr>'
        f'<td width="{width}%" style="height:10px;background:{accent}"></td>'
        f'<td width="{100 - width}%" style="height:10px;background:#e6e9ee"></td></tr></table>'
    )


def as_text(pieces: Sequence[dict[str, Any]]) -> str:
    """Return the same as plain text."""
    return "\n\n".join(filter(None, map(_piece_as_text, pieces))) + "\n"


def _piece_as_text(piece: dict[str, Any]) -> str:
    if "html" in piece:
        lines = (plain(each or "") for each in _BREAKS.sub("\n", piece["html"]).split("\n"))
        return "\n".join(each for each in lines if each)
    if "bars" in piece:
        return "\n".join(f"{bar['label']}: {bar['text']}" for bar in piece["bars"])
    return "\n".join(f"{label}: {text}" for label, text in piece["answers"])
