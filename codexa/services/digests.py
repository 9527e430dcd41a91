"""A digest by mail: what came to a team's forms, and what waits for the person who reads it."""

import html
from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Any
from uuid import UUID

from codexa.core.sentences import Sentence
from codexa.services.accounts.mail_words import Say, notice_in
from codexa.services.errands.asking import ask
from codexa.settings import Settings
from codexa.store import accounts, attention
from codexa.store.attention import Waiting
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn

ERRAND = "digest"
_NEW_IN_CODEXA = Sentence.counted("{count} new response in Codexa", "{count} new responses in Codexa", count=0)
_WAITS = Sentence("What waits for you in Codexa")
_CAME_IN = Sentence("{name}, this came in and waits:")
_HOW_OFTEN = Sentence("Choose how often this mail comes")
_NEW = Sentence.counted("{count} new response", "{count} new responses", count=0)
_HELD = Sentence.counted("{count} response held as suspected", "{count} responses held as suspected", count=0)
_FAILED = Sentence.counted("{count} follow-up that did not work", "{count} follow-ups that did not work", count=0)
_MINE = Sentence.counted("{count} response in your hands", "{count} responses in your hands", count=0)


def how_often(connect: Connect, *, who: SignedIn) -> str:
    """Return how often a person is told of their team: none, daily, weekly."""
    with connect() as connection:
        return attention.digest(connection, team=who.team_id, person=who.person_id)


def tell(connect: Connect, *, who: SignedIn, every: str) -> None:
    """Tell a person of their team so often."""
    with connect() as connection:
        attention.set_digest(connection, team=who.team_id, person=who.person_id, digest=every)


def ask_for_due(connect: Connect) -> None:
    """Have the digests sent that are due."""
    with connect() as connection:
        for each in attention.take_due(connection):
            about = {"person": str(each.person_id), "team": str(each.team_id), "since": each.since.isoformat()}
            ask(connection, ERRAND, about, team=each.team_id)


def digest_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """Return the mail; None where nothing came and nothing waits, so that nobody is written to for nothing."""
    team, person_id = UUID(about["team"]), UUID(about["person"])
    with connect() as connection:
        person = accounts.find_person(connection, person=person_id)
        waiting = attention.waiting(connection, team=team, person=person_id)
        came = attention.came(connection, team=team, since=datetime.fromisoformat(about["since"]))
    if person is None or not any(_told(each, came) for each in waiting):
        return None
    new = sum(came.values())

    def write(say: Say) -> tuple[str, str]:
        subject = say(_NEW_IN_CODEXA, count=new) if new else say(_WAITS)
        lines = "".join(_line(say, each, _told(each, came), settings) for each in waiting)
        text = f"{say.paragraph(_CAME_IN, name=person.name)}<ul>{lines}</ul>"
        return subject, text + say.link(f"{settings.public_address}/account", _HOW_OFTEN)

    return notice_in(person.language, [person.email], write)


def _told(waiting: Waiting, came: Mapping[UUID, int]) -> list[tuple[Sentence, int]]:
    """Return what is told of a form, and how many there are of each."""
    counts = (
        (_NEW, came.get(waiting.form_id, 0)),
        (_HELD, waiting.held),
        (_FAILED, waiting.failed),
        (_MINE, waiting.mine),
    )
    return [(sentence, count) for sentence, count in counts if count]


def _line(say: Say, waiting: Waiting, told: Sequence[tuple[Sentence, int]], settings: Settings) -> str:
    """Return the line of a form, "" where there is nothing."""
    if not told:
        return ""
    address = f"{settings.public_address}/forms/{waiting.form_id}/responses"
    words = ", ".join(say(sentence, count=count) for sentence, count in told)
    return f'<li><a href="{address}">{html.escape(waiting.name)}</a>: {html.escape(words)}</li>'
