"""What the proof says of a form's further languages: what is missing, was made of other words, or lost a value."""

import textwrap
from collections.abc import Iterator

from codexa.core.definition.translation import FurtherLanguage
from codexa.core.form.form import FORM
from codexa.core.form.translating import (
    Translated,
    languages_of,
    leads_to_one_website,
    lost_and_unknown,
    translations,
)
from codexa.core.languages import own_name
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.named_words import named_words
from codexa.core.program.program import Program

_REMEDY = "Translate it in Languages."
_MOST_QUOTED = 60  # characters


def language_findings(program: Program) -> Iterator[Finding]:
    """Yield what is wrong with translations, and which formulas depend on the language."""
    languages = list(languages_of(program.form))
    for language in languages:
        yield from _of_language(program, language)
    if languages:
        yield from _compared_labels(program)


def _of_language(program: Program, language: FurtherLanguage) -> Iterator[Finding]:
    name, found = own_name(language.locale), translations(program.form, language)
    missing = [each for each in found if each.standing == "missing" and each.site.has_words]
    changed = [each for each in found if each.standing == "changed"]
    if missing:
        yield _of_all(name, missing, "no_translation", "has no translation", "have no translation")
    if changed:
        yield _of_all(name, changed, "old_translation", "has changed since", "have changed since")
    for each in found:
        if each.standing != "missing":
            yield from _of_one(name, language.locale, each)


def _of_all(name: str, found: list[Translated], code: str, one: str, several: str) -> Finding:
    quoted = textwrap.shorten(found[0].site.text, _MOST_QUOTED, placeholder=" …")
    told = f"“{quoted}” {one}" if len(found) == 1 else f"{len(found)} texts {several}, the first is “{quoted}”"
    return doubt(code, f"{name}: {told}.", _REMEDY, _owner(found[0]), "languages")


def _of_one(name: str, locale: str, each: Translated) -> Iterator[Finding]:
    lost, unknown = lost_and_unknown(each)
    place = f"languages.{locale}.{each.site.at}"
    if unknown:
        message = f"{name}: {{{min(unknown)}}} means nothing there; the text itself has no such value."
        yield error("unknown_value", message, "Correct it in Languages.", _owner(each), place)
    if lost:
        message = f"{name}: the translation of “{each.site.text[:_MOST_QUOTED]}” has lost {{{min(lost)}}}."
        yield doubt("lost_value", message, "Put it back in Languages, or mean it.", _owner(each), place)
    if each.site.how == "address" and not leads_to_one_website(each.text):
        message = f"{name}: “{each.text[:_MOST_QUOTED]}” is no whole web address with its website written out."
        yield error("open_redirect", message, "Write it out in Languages.", _owner(each), place)


def _compared_labels(program: Program) -> Iterator[Finding]:
    for formula in program.formulas:
        if any(subject.words == "labels" for named in named_words(program, formula) for subject in named.subjects):
            message = "A formula compares what an option is called, which reads otherwise in other languages."
            owner = None if formula.owner == FORM else formula.owner
            yield doubt("label_compared", message, "Compare its code.", owner, formula.setting)


def _owner(found: Translated) -> str | None:
    return None if found.site.owner == FORM else found.site.owner
