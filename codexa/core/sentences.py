"""Sentences that the core says to visitors: written in English where they are due, read in the form's language."""

import re
from typing import Any, Self

from codexa.core.languages import counted, translated

_NAME = re.compile(r"\{(\w+)\}")


class Sentence(str):
    """A sentence with its `values` put in; what it is made of stays known, so that it can be said in any language.

    With `many`, the same of several, `values["count"]` decides between the two. What is written where one is made is
    found by the extraction of texts to translate (`languages/extracting.py`): as it stands, not put together.
    """

    __slots__ = ("many", "template", "values")

    template: str
    many: str
    values: dict[str, Any]

    def __new__(cls, template: str, many: str = "", **values: Any) -> Self:
        """Return the sentence in English."""
        words = many if many and values["count"] != 1 else template
        made = super().__new__(cls, filled(words, values))
        made.template, made.many, made.values = template, many, values
        return made

    @classmethod
    def counted(cls, one: str, many: str, **values: Any) -> Self:
        """Return a sentence about one or several, as `count` among its values says."""
        return cls(one, many, **values)

    def said_in(self, locale: str) -> str:
        """Return the sentence in the language of a locale; in English where we know no other words."""
        if self.many:
            words = counted(self.template, self.many, self.values["count"], locale)
        else:
            words = translated(self.template, locale)
        return filled(words, {name: in_language(each, locale) for name, each in self.values.items()})


def filled(words: str, values: dict[str, Any]) -> str:
    """Return words with each `{name}` replaced by its value; what stands within a value stays as it is."""
    return _NAME.sub(lambda found: str(values.get(found[1], found[0])), words)


def in_language(text: Any, locale: str) -> Any:
    """Return a sentence of ours in the language of a locale; what an author or a visitor wrote stays as it is."""
    return text.said_in(locale) if isinstance(text, Sentence) else text
