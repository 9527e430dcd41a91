"""The further languages of a draft, as those see them who translate it."""

from dataclasses import dataclass
from uuid import UUID

from codexa.core.definition.translation import FurtherLanguage
from codexa.core.form.form import Form
from codexa.core.form.translating import Translated, languages_of, lost_and_unknown, translations
from codexa.core.form.upgrades import read_stored
from codexa.core.languages import own_name
from codexa.services.drafts import find
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn


@dataclass(frozen=True, kw_only=True, slots=True)
class Progress:
    """How much of a language is translated: so many of so many texts; `name` is its own."""

    locale: str
    name: str
    done: int
    all: int


@dataclass(frozen=True, kw_only=True, slots=True)
class ToTranslate:
    """A text and what it reads in a language; `same` is how the same words are translated elsewhere, or ""."""

    found: Translated
    lost: list[str]
    unknown: list[str]
    same: str


def draft_of(connect: Connect, *, who: SignedIn, form: UUID) -> Form:
    """Return a form's saved draft. Raises NotFoundError, DefinitionError where it can't be read."""
    return read_stored(find(connect, who=who, form=form).draft)


def progress(form: Form) -> list[Progress]:
    """Return how far each further language is."""
    return [_progress(form, each) for each in languages_of(form)]


def _progress(form: Form, language: FurtherLanguage) -> Progress:
    wanted = [each for each in translations(form, language) if each.site.has_words]
    done = sum(each.standing == "done" for each in wanted)
    return Progress(locale=language.locale, name=own_name(language.locale), done=done, all=len(wanted))


def language_of(form: Form, locale: str) -> FurtherLanguage:
    """Return a language of the form; one that it does not have has no texts yet."""
    return next((each for each in form.languages if each.locale == locale), FurtherLanguage(locale=locale))


def to_translate(form: Form, locale: str) -> list[ToTranslate]:
    """Return every text that visitors read with what it reads in a language."""
    texts = translations(form, language_of(form, locale))
    elsewhere = {each.site.text: each.text for each in texts if each.standing == "done"}
    return [_to_translate(each, "" if each.standing == "done" else elsewhere.get(each.site.text, "")) for each in texts]


def _to_translate(found: Translated, same: str) -> ToTranslate:
    lost, unknown = lost_and_unknown(found) if found.text else ((), ())
    return ToTranslate(found=found, lost=sorted(lost), unknown=sorted(unknown), same=same)
