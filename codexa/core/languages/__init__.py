"""The languages in which a form says what it says by itself: gettext catalogues (`*.po`) beside this file."""

import gettext
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from babel import Locale
from babel.messages.catalog import Catalog
from babel.messages.pofile import read_po

# By ISO 639-1 code, each by its own name.
LANGUAGES = {
    "en": "English",
    "de": "Deutsch",
    "fr": "Français",
    "es": "Español",
    "it": "Italiano",
    "nl": "Nederlands",
    "pt": "Português",
    "pl": "Polski",
    "da": "Dansk",
    "sv": "Svenska",
    "cs": "Čeština",
    "tr": "Türkçe",
    "ar": "العربية",
    "ja": "日本語",
}
_FOLDER = Path(__file__).parent
_COUNTS = (*range(200), 1_000, 1_000_000)  # in which every plural form of a language is met


@dataclass(frozen=True, slots=True)
class _Words:
    """A catalogue that was read, and which plural form a count takes in it (gettext, Plural-Forms)."""

    catalogue: Catalog
    form_of: Callable[[int], int]


def language_of(locale: str) -> str:
    """Return the language of a locale that we have words in ("de" for "de_AT"), English where we have none."""
    language = locale.partition("_")[0]
    return language if language in LANGUAGES else "en"


def direction_of(locale: str) -> str:
    """Return in which direction a locale's script runs, "ltr" or "rtl" (Unicode CLDR)."""
    return Locale.parse(locale).text_direction


def own_name(locale: str) -> str:
    """Return what the people of a locale call its language, with its country where it has one (Unicode CLDR)."""
    if locale in LANGUAGES:
        return LANGUAGES[locale]
    name = Locale.parse(locale).get_display_name() or locale
    return name[:1].upper() + name[1:]


@cache
def _words(language: str) -> _Words | None:
    path = _FOLDER / f"{language}.po"
    if language == "en" or not path.exists():
        return None
    with path.open("rb") as file:
        found = read_po(file, locale=language)
    return _Words(found, gettext.c2py(found.plural_expr))


def translated(english: str, locale: str, context: str = "") -> str:
    """Return a text in the language of a locale; as it is where we have no words for it. `context` names a message."""
    words = _words(language_of(locale))
    found = words.catalogue.get(english, context or None) if words and english else None
    return str(found.string) if found and found.string else english


def counted(one: str, many: str, count: int, locale: str, context: str = "") -> str:
    """Return the one of two texts, or of as many as a language has, that goes with a count."""
    words = _words(language_of(locale))
    forms = _forms(words, one, context) if words else ()
    if words is None or not forms:
        return one if count == 1 else many
    return forms[words.form_of(count)]


def _forms(words: _Words, one: str, context: str) -> tuple[str, ...]:
    found = words.catalogue.get(one, context or None)
    return tuple(found.string) if found and isinstance(found.string, (tuple, list)) and all(found.string) else ()


def forms_by_category(one: str, locale: str, context: str) -> Iterator[tuple[str, str]]:
    """Yield what a counted text is in each plural category of a locale (CLDR: "one", "few" …), where we have words."""
    words = _words(language_of(locale))
    forms = _forms(words, one, context) if words else ()
    if words is None or not forms:
        return
    category_of = Locale.parse(locale).plural_form
    yield from {category_of(count): forms[words.form_of(count)] for count in _COUNTS}.items()
