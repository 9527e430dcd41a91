"""Translations as files that translators work with: XLIFF 2.1 (OASIS), and CSV (RFC 4180)."""

import csv
import io
from collections.abc import Mapping
from dataclasses import dataclass
from xml.etree.ElementTree import Element, ParseError, SubElement, register_namespace, tostring

from defusedxml.common import DefusedXmlException
from defusedxml.ElementTree import fromstring

from codexa.core.definition.translation import Translation
from codexa.core.form.form import Form
from codexa.core.form.translating import Translated, visitor_texts
from codexa.services.errors import TableRefusedError
from codexa.services.response_csv import defused
from codexa.services.spreadsheets import read_table

MOST_BYTES = 8 * 1024 * 1024
_XLIFF = "urn:oasis:names:tc:xliff:document:2.0"
_WHERE, _WHAT, _TEXT, _TRANSLATION = "Where", "What", "Text", "Translation"
_STATES = {"done": "translated", "missing": "initial", "changed": "initial"}
_MOST_WORDS = 5_000


@dataclass(frozen=True, kw_only=True, slots=True)
class Passed:
    """A line of a file that was passed over: where it would stand, and why."""

    at: str
    reason: str


@dataclass(frozen=True, kw_only=True, slots=True)
class FoundTranslations:
    """What a file brings: translations by where they stand, how many of other words, and what was passed over."""

    texts: dict[str, Translation]
    changed: int
    passed: list[Passed]


def as_xliff(form: Form, locale: str, texts: list[Translated]) -> bytes:
    """Return the texts of a language as XLIFF, each a unit whose name is its address."""
    register_namespace("", _XLIFF)
    root = Element(f"{{{_XLIFF}}}xliff", {"version": "2.1", "srcLang": _tag(form.locale), "trgLang": _tag(locale)})
    file = SubElement(root, f"{{{_XLIFF}}}file", {"id": "form", "original": form.name})
    for number, each in enumerate(texts, 1):
        unit = SubElement(file, f"{{{_XLIFF}}}unit", {"id": f"u{number}", "name": each.site.at})
        notes = SubElement(unit, f"{{{_XLIFF}}}notes")
        SubElement(notes, f"{{{_XLIFF}}}note").text = each.site.what
        segment = SubElement(unit, f"{{{_XLIFF}}}segment", {"state": _STATES[each.standing]})
        for name, text in (("source", each.site.text), ("target", each.text)):
            if text:
                part = SubElement(segment, f"{{{_XLIFF}}}{name}", _PRESERVED)
                part.text = text
    content: bytes = tostring(root, encoding="utf-8", xml_declaration=True)
    return content


_PRESERVED = {"{http://www.w3.org/XML/1998/namespace}space": "preserve"}


def as_csv(texts: list[Translated]) -> str:
    """Return the texts of a language as CSV, with a byte-order mark for spreadsheets."""
    buffer = io.StringIO()
    writer = csv.writer(buffer, lineterminator="\r\n", quoting=csv.QUOTE_ALL)
    writer.writerow([_WHERE, _WHAT, _TEXT, _TRANSLATION])
    for each in texts:
        writer.writerow([each.site.at, each.site.what, defused(each.site.text), defused(each.text)])
    return "\ufeff" + buffer.getvalue()


def read_translations(form: Form, locale: str, content: bytes) -> FoundTranslations:
    """Return what a file has of a language, XLIFF or CSV by what it begins with.

    Raises TableRefusedError where it can't be read, is of another language, or too large.
    """
    if len(content) > MOST_BYTES:
        raise TableRefusedError(f"The file has {len(content):,} bytes; {MOST_BYTES:,} are taken.")
    is_xml = content.lstrip(b"\xef\xbb\xbf \t\r\n").startswith(b"<")
    lines = _lines_of_xliff(content, locale) if is_xml else _lines_of_csv(content)
    return _found(form, lines)


def _tag(locale: str) -> str:
    return locale.replace("_", "-")


_Line = tuple[str, str, str]  # address, text, translation


def _lines_of_xliff(content: bytes, locale: str) -> list[_Line]:
    try:
        root = fromstring(content, forbid_dtd=True)
    except (ParseError, DefusedXmlException, ValueError) as error:
        raise TableRefusedError(f"The file is no XLIFF that can be read: {error}. Export it again.") from None
    if root.tag != f"{{{_XLIFF}}}xliff":
        raise TableRefusedError("The file is no XLIFF 2. Export the texts here, and have that file translated.")
    target = root.get("trgLang", "")
    if target.replace("-", "_").lower() != locale.lower():
        raise TableRefusedError(f"The file is in “{target}”, not in “{_tag(locale)}”. Choose its language first.")
    return [
        (unit.get("name", ""), _text_of(unit, "source"), _text_of(unit, "target"))
        for unit in root.iter(f"{{{_XLIFF}}}unit")
    ]


def _text_of(unit: Element, name: str) -> str:
    # A tool may have cut a text into several segments.
    return "".join("".join(part.itertext()) for part in unit.iter(f"{{{_XLIFF}}}{name}"))


def _lines_of_csv(content: bytes) -> list[_Line]:
    table = read_table(content)
    missing = [each for each in (_WHERE, _TEXT, _TRANSLATION) if each not in table.headers]
    if missing:
        raise TableRefusedError(f"The table has no column “{missing[0]}”. Keep the columns of the export.")
    return [
        (line.cells.get(_WHERE, ""), _plain(line.cells.get(_TEXT, "")), _plain(line.cells.get(_TRANSLATION, "")))
        for line in table.lines
    ]


def _plain(cell: str) -> str:
    """Return a cell without the sign that keeps spreadsheets from taking it for a formula."""
    return cell[1:] if cell.startswith("'") and defused(cell[1:]) == cell else cell


def _found(form: Form, lines: list[_Line]) -> FoundTranslations:
    sites = {each.at: each.text for each in visitor_texts(form)}
    texts: dict[str, Translation] = {}
    changed, passed = 0, []
    for at, of, text in lines:
        if reason := _refused(sites, at, text):
            passed.append(Passed(at=at[:100], reason=reason))
        elif text.strip():
            same = _same(sites[at], of)
            changed += not same
            texts[at] = Translation(of=sites[at] if same else of[:_MOST_WORDS], text=text)
    return FoundTranslations(texts=texts, changed=changed, passed=passed)


def _refused(sites: Mapping[str, str], at: str, text: str) -> str:
    if at not in sites:
        return "The form has no such text any more."
    return f"It has more than {_MOST_WORDS:,} characters." if len(text) > _MOST_WORDS else ""


def _same(text: str, other: str) -> bool:
    return " ".join(text.split()) == " ".join(other.split())
