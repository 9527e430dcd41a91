"""Mails of Codexa itself to people of a team, in the language that each has chosen."""

import html
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from codexa.core.sentences import Sentence
from codexa.services.signing_in import folded
from codexa.store import people
from codexa.store.database import Connect

USUAL = "en"
_LOOK = {
    "accent": "#2B3A8C",
    "ground": "#EDF0F7",
    "paper": "#FFFFFF",
    "ink": "#16202B",
    "letters": "sans-serif",
    "logo": "",
    "logo_alternative": "",
}


@dataclass(frozen=True, slots=True)
class Say:
    """Says sentences in a language, as text or as HTML."""

    locale: str

    def __call__(self, sentence: Sentence, **values: Any) -> str:
        """Return a sentence with values put in, which may be sentences themselves."""
        return Sentence(sentence.template, sentence.many, **values).said_in(self.locale)

    def paragraph(self, sentence: Sentence, **values: Any) -> str:
        """Return it as a paragraph of HTML."""
        return f"<p>{html.escape(self(sentence, **values))}</p>"

    def link(self, address: str, sentence: Sentence) -> str:
        """Return it as a link in a paragraph of its own."""
        return f'<p><a href="{html.escape(address)}">{html.escape(self(sentence))}</a></p>'


# Returns what a mail says: its subject, and its text as HTML.
Write = Callable[[Say], tuple[str, str]]


def notice(*, to: Sequence[str], subject: str, text: str, locale: str = USUAL) -> dict[str, Any]:
    """Return the content of a mail of Codexa itself; `text` is HTML."""
    return {
        "to": list(to),
        "cc": [],
        "bcc": [],
        "reply_to": "",
        "from_name": "Codexa",
        "subject": " ".join(subject.split())[:200],
        "locale": locale,
        "brand": _LOOK,
        "pieces": [{"html": text}],
        "files": [],
        "pdf": None,
        "entry": None,
    }


def notice_in(locale: str, to: Sequence[str], write: Write) -> dict[str, Any]:
    """Return the content of a mail in one language."""
    subject, text = write(Say(locale))
    return notice(to=to, subject=subject, text=text, locale=locale)


def notice_to(connect: Connect, to: Sequence[str], write: Write, *, otherwise: str = USUAL) -> dict[str, Any]:
    """Return the content of a mail to these addresses, in the language of each person; `otherwise` for who is none.

    To people of several languages it is one mail, which says it in each of them, one below another.
    """
    with connect() as connection:
        known = people.languages(connection, emails=[folded(each) for each in to])
    first, *others = dict.fromkeys(known.get(folded(each), otherwise) for each in to)
    content = notice_in(first, to, write)
    content["pieces"] += [{"html": write(Say(each))[1]} for each in others]
    return content
