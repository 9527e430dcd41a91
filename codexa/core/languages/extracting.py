"""The texts that a form says by itself, as a template to translate (gettext's *.pot)."""

import io
from pathlib import Path

from babel.messages.catalog import Catalog
from babel.messages.extract import extract_from_dir
from babel.messages.pofile import write_po

from codexa.core.definition.wording import COUNTED, MESSAGES, SHORT_WORDS, Wording

_CORE = Path(__file__).parent.parent
# What takes a text to translate, and where: its first argument, the second of an error, a text of one and of many.
_KEYWORDS = {"Sentence": None, "counted": (1, 2), "AnswerError": (2,), "translated": None}
_PLACES = ("core/fields", "core/program", "core/tables", "services")


def template() -> Catalog:
    """Return every text to translate: messages by their names, the words of every form, sentences by themselves."""
    catalogue = Catalog(project="Codexa", charset="utf-8", fuzzy=False)
    usual = {each.name: each for each in MESSAGES}
    for name in SHORT_WORDS:
        catalogue.add(getattr(Wording(), name), context=name)
    for message in MESSAGES:
        if message.name in COUNTED:
            texts = (usual[COUNTED[message.name]].usual, message.usual)
            catalogue.add(texts, context=message.name, auto_comments=[message.when])
        elif message.usual and message.name not in COUNTED.values():
            catalogue.add(message.usual, context=message.name, auto_comments=[message.when])
    for text in sorted(_sentences(), key=str):
        catalogue.add(text)
    return catalogue


def _sentences() -> set[str | tuple[str, ...]]:
    found: set[str | tuple[str, ...]] = set()
    for place in _PLACES:
        for _, _, text, _, _ in extract_from_dir(_CORE.parent / place, keywords=_KEYWORDS, strip_comment_tags=True):
            texts = tuple(each for each in text if each) if isinstance(text, tuple) else (text,)
            found.add(texts if len(texts) > 1 else texts[0])
    return found


def template_text() -> str:
    """Return the template as text, without what differs from day to day."""
    file = io.BytesIO()
    write_po(file, template(), no_location=True, omit_header=True, width=110)
    return file.getvalue().decode()
