"""A digest by mail: what came to a team's forms, and what waits for the person who reads it."""

import html
from collections.abc import Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from codexa.services.accounts.notices import notice
from codexa.services.errands.asking import ask
from codexa.settings import Settings
from codexa.store import accounts, attention
from codexa.store.attention import Waiting
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn

ERRAND = "digest"


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
    lines = [line for each in waiting if (line := _line(each, came.get(each.form_id, 0), settings))]
    if person is None or not lines:
        return None
    new = sum(came.values())
    subject = f"{_counted(new, 'new response')} in Codexa" if new else "What waits for you in Codexa"
    text = f"<p>{html.escape(person.name)}, this came in and waits:</p><ul>{''.join(lines)}</ul>"
    more = f'<p><a href="{settings.public_address}/account">How often this mail comes</a> is up to you.</p>'
    return notice(to=[person.email], subject=subject, text=text + more)


def _line(waiting: Waiting, came: int, settings: Settings) -> str:
    """Return what is told of a form, "" where there is nothing."""
    told = [
        _counted(came, "new response") if came else "",
        f"{_counted(waiting.held, 'response')} held as suspected" if waiting.held else "",
        f"{_counted(waiting.failed, 'follow-up')} that did not work" if waiting.failed else "",
        f"{_counted(waiting.mine, 'response')} in your hands" if waiting.mine else "",
    ]
    if not any(told):
        return ""
    address = f"{settings.public_address}/forms/{waiting.form_id}/responses"
    return f'<li><a href="{address}">{html.escape(waiting.name)}</a>: {", ".join(filter(None, told))}</li>'


def _counted(count: int, noun: str) -> str:
    return f"{count:,} {noun}{'' if count == 1 else 's'}"
