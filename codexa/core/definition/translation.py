"""A form's further languages: what visitors read, in other words than the author's first."""

from typing import Annotated

from annotated_types import Len
from babel import Locale, UnknownLocaleError
from pydantic import AfterValidator, StringConstraints
from pydantic import Field as Setting

from codexa.core.definition.parts import Part, Words

MAX_LANGUAGES = 25  # beside the form's own
MAX_TEXTS = 20_000  # of one language


def _locale(text: str) -> str:
    try:
        return str(Locale.parse(text))
    except (UnknownLocaleError, ValueError):
        raise ValueError(f'"{text}" is no language we know; use a code such as en, de or fr_CH') from None


# A locale by its code (Unicode CLDR), such as "de" or "fr_CH".
LocaleCode = Annotated[str, AfterValidator(_locale)]
# Where a text stands: what owns it, and its setting ("adults.label", "topic.options.first.label").
TextAddress = Annotated[str, StringConstraints(min_length=1, max_length=400)]


class Translation(Part):
    """What a text reads in another language, and the text `of` which it is a translation: that may change."""

    of: Words
    text: Words = ""


class FurtherLanguage(Part):
    """A language in which the form can be filled in too, with its texts by where they stand."""

    locale: LocaleCode
    texts: Annotated[dict[TextAddress, Translation], Len(max_length=MAX_TEXTS)] = Setting(default_factory=dict)
