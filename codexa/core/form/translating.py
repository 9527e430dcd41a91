"""A form in its further languages: every text that visitors read, what it reads there, and what is missing."""

import re
from collections import defaultdict
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any, Literal, TypeVar, cast

from codexa.core.definition.figures import Figure
from codexa.core.definition.formulas import INSERTION
from codexa.core.definition.parts import Block, InsertedText, Part, RowKind, VisitorText
from codexa.core.definition.rich_text import plain, sanitised
from codexa.core.definition.translation import FurtherLanguage, Translation
from codexa.core.definition.wording import SHORT_WORDS, Wording, met_when
from codexa.core.form.follow_ups import FollowUp
from codexa.core.form.form import FORM, Confirmation, Form, Page

_OWNERS = (Page, Block, RowKind, Figure, Confirmation, FollowUp)
_USUAL = Wording()
_ADDRESS = re.compile(r"https?://([^\s/?]+)(?:[/?]\S*)?$")
_LISTED = re.compile(r"(.+?)s?$")
PartModel = TypeVar("PartModel", bound=Part)
How = Literal["text", "html", "address"]


@dataclass(frozen=True, kw_only=True, slots=True)
class VisitorTextSite:
    """A text that visitors read: where it stands, in the language of the form.

    `at` is its address, `owner` the id of what owns it (FORM for the form itself), `what` its setting in words; `how`
    says what it is written in.
    """

    at: str
    owner: str
    what: str
    text: str
    how: How

    @property
    def values(self) -> frozenset[str]:
        """The names in it that stand for values."""
        return values_in(self.text)

    @property
    def has_words(self) -> bool:
        """Whether there is anything in it to translate."""
        seen = plain(self.text) if self.how == "html" else self.text
        return self.how != "address" and any(each.isalpha() for each in INSERTION.sub("", seen))


Standing = Literal["done", "missing", "changed"]


@dataclass(frozen=True, kw_only=True, slots=True)
class Translated:
    """What a text reads in another language.

    `standing` is "changed" where it was made of other words, `of`, than are there now; a missing `text` is "".
    """

    site: VisitorTextSite
    text: str
    of: str
    standing: Standing


def values_in(text: str) -> frozenset[str]:
    """Return the names in a text that stand for values, in small letters."""
    return frozenset(match[1].lower() for match in INSERTION.finditer(text) if match[1])


def visitor_texts(form: Form) -> list[VisitorTextSite]:
    """Return every text that visitors read, in the order of the form; what each form says by itself is not among it."""
    found: list[VisitorTextSite] = []

    def note(site: VisitorTextSite) -> str:
        found.append(site)
        return site.text

    _mapped(form, note)
    return found


def in_language(form: Form, locale: str) -> Form:
    """Return the form as it reads in one of its further languages; in the form's own words what is not translated."""
    language = next((each for each in form.languages if each.locale == locale), None)
    if language is None or locale == form.locale:
        return form
    known = _Known(form, language)

    def translated(site: VisitorTextSite) -> str:
        text = known.of(site).text
        if site.how == "address":
            return text if leads_to_one_website(text) else site.text
        return site.text if not text else sanitised(text) if site.how == "html" else text

    return _mapped(form, translated).model_copy(update={"locale": locale})


def leads_to_one_website(address: str) -> bool:
    """Whether a web address names the website that it leads to, without inserted values in it."""
    found = _ADDRESS.match(address)
    return found is not None and "{" not in found[1]


def translations(form: Form, language: FurtherLanguage) -> list[Translated]:
    """Return every text that visitors read with what it reads in a language, in the order of the form."""
    sites = visitor_texts(form)
    known = _Known(form, language, sites)
    return [known.of(site) for site in sites]


class _Known:
    """Finds the translations of texts: where they stand, or where they stood before a list was put in another order."""

    def __init__(self, form: Form, language: FurtherLanguage, sites: list[VisitorTextSite] | None = None) -> None:
        self._texts = language.texts
        self._of_owner: dict[tuple[str, str], str] = {}
        for at, each in language.texts.items():
            if each.text:
                self._of_owner.setdefault((owner_of(at), each.of), each.text)
        self._now: dict[str, set[str]] = defaultdict(set)
        for site in visitor_texts(form) if sites is None else sites:
            self._now[site.owner].add(site.text)

    def of(self, site: VisitorTextSite) -> Translated:
        """Return what a text reads in this language."""
        own = self._texts.get(site.at)
        if own is not None and own.of == site.text:
            return Translated(site=site, text=own.text, of=own.of, standing="done" if own.text else "missing")
        if (moved := self._of_owner.get((site.owner, site.text))) is not None:
            return Translated(site=site, text=moved, of=site.text, standing="done")
        if own is not None and own.text and own.of not in self._now[site.owner]:
            return Translated(site=site, text=own.text, of=own.of, standing="changed")
        return Translated(site=site, text="", of="", standing="missing")


def owner_of(at: str) -> str:
    """Return the id of what owns the text at an address."""
    return at.partition(".")[0]


def lost_and_unknown(found: Translated) -> tuple[frozenset[str], frozenset[str]]:
    """Return the values that a translation has lost, and those that the text does not have."""
    values = values_in(found.text)
    return found.site.values - values, values - found.site.values


def follow_renaming(before: Form, after: Form) -> Form:
    """Return the form after a renaming with the names in its translations rewritten as in the texts themselves."""
    if not after.languages:
        return after
    changed = {
        (old.owner, old.text): (new.text, _renamed_values(old.text, new.text))
        for old, new in zip(visitor_texts(before), visitor_texts(after), strict=True)
        if old.text != new.text
    }
    languages = tuple(_with_renamed(each, changed) for each in after.languages)
    return after.model_copy(update={"languages": languages}) if changed else after


def _with_renamed(
    language: FurtherLanguage, changed: Mapping[tuple[str, str], tuple[str, dict[str, str]]]
) -> FurtherLanguage:
    texts = dict(language.texts)
    for at, each in language.texts.items():
        if (found := changed.get((owner_of(at), each.of))) is not None:
            of, names = found
            texts[at] = Translation(of=of, text=_with_values(each.text, names))
    return language.model_copy(update={"texts": texts})


def _renamed_values(old: str, new: str) -> dict[str, str]:
    before, after = ([match[1] for match in INSERTION.finditer(each) if match[1]] for each in (old, new))
    return {name: other for name, other in zip(before, after, strict=True) if name != other}


def _with_values(text: str, names: Mapping[str, str]) -> str:
    return INSERTION.sub(lambda match: f"{{{names[match[1]]}}}" if match[1] in names else match[0], text)


# Walking a form


@cache
def _marked(model: type[Part]) -> dict[str, How]:
    """Return the settings of a model that visitors read."""
    found: dict[str, How] = {}
    for name, setting in model.model_fields.items():
        if any(isinstance(mark, VisitorText) for mark in setting.metadata):
            found[name] = next((mark.into for mark in setting.metadata if isinstance(mark, InsertedText)), "text")
    return found


Change = Callable[[VisitorTextSite], str]


def _mapped(form: Form, change: Change) -> Form:
    return _of_part(form, change, FORM, "")


def _of_part(part: PartModel, change: Change, owner: str, below: str) -> PartModel:
    if isinstance(part, FollowUp) and not part.for_visitor:
        return part
    if isinstance(part, _OWNERS):
        owner, below = part.id, ""
    marked, changes = _marked(type(part)), {}
    for name in type(part).model_fields:
        old = getattr(part, name)
        if _is_not_read(part, name):
            continue
        new = _of_value(old, change, owner, below + name, marked.get(name))
        if new is not old:
            changes[name] = new
    return _copied(part, changes) if changes else part


def _is_not_read(part: Part, name: str) -> bool:
    """Whether a text is said in every language by itself, as it was never changed, or is not shown at all."""
    if isinstance(part, Wording):
        return name in SHORT_WORDS and getattr(part, name) == getattr(_USUAL, name)
    return name == "other_label" and not getattr(part, "other", True)


def _of_value(value: Any, change: Change, owner: str, setting: str, how: How | None) -> Any:
    if how is not None:
        return _of_marked(value, change, owner, setting, how)
    if isinstance(value, Part):
        return _of_part(value, change, owner, f"{setting}.")
    if isinstance(value, tuple) and value and isinstance(value[0], Part):
        new = tuple(
            _of_part(each, change, owner, f"{setting}.{_name_in_list(each, index)}.")
            for index, each in enumerate(value)
        )
        return value if all(one is other for one, other in zip(value, new, strict=True)) else new
    return value


def _name_in_list(part: Part, index: int) -> str:
    """Return what tells a part in a list from the others even when they are moved, else its place."""
    return str(getattr(part, "id", None) or getattr(part, "code", None) or index)


def _of_marked(value: Any, change: Change, owner: str, setting: str, how: How) -> Any:
    if isinstance(value, dict):
        new = {name: _of_marked(each, change, owner, f"{setting}.{name}", how) for name, each in value.items()}
        return new if new != value else value
    if not value.strip():
        return value
    text = change(VisitorTextSite(at=f"{owner}.{setting}", owner=owner, what=_in_words(setting), text=value, how=how))
    return value if text == value else text


def _in_words(setting: str) -> str:
    """Return a setting in words: "options.first.label" is "option"."""
    steps = setting.split(".")
    if steps[0] == "wording":
        return met_when(steps[-1]).lower()
    if len(steps) == 1:
        return steps[0].replace("_", " ")
    listed = cast(re.Match[str], _LISTED.match(steps[0].replace("_", " ")))[1]
    last = steps[-1].replace("_", " ")
    return listed if last in ("label", "name", "text") else f"{listed}, {last}"


def _copied(part: PartModel, changes: Mapping[str, Any]) -> PartModel:
    copied = part.model_copy(update=changes)
    # What was worked out of the old words and kept beside them is no part of the copy.
    for name in copied.__dict__.keys() - type(part).model_fields.keys():
        del copied.__dict__[name]
    return copied


def languages_of(form: Form) -> Iterator[FurtherLanguage]:
    """Yield the languages that the form can be filled in beside its own."""
    return (each for each in form.languages if each.locale != form.locale)
