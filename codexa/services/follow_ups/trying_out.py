"""What would follow from answers to a draft, in full, with nothing sent; and a mail of it sent to who asks."""

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.core.program.evaluate import evaluate
from codexa.core.program.follow_ups import MOMENTS, Due, as_if, due, told
from codexa.core.program.program import Program
from codexa.services.answering import Given
from codexa.services.context import context_of
from codexa.services.errands.asking import ask
from codexa.services.errors import NotFoundError
from codexa.services.follow_ups.mail_layout import shown_mail
from codexa.services.people import written_to
from codexa.services.tables.looking_up import tables_for
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn

_NUMBER = 1  # of a response that is only tried


@dataclass(frozen=True, kw_only=True, slots=True)
class Shown:
    """A follow-up as it would be done: in one line, and of a mail its HTML and text."""

    follow_up: str
    told: str
    html: str
    text: str
    content: dict[str, Any]


def follow_ups_of(connect: Connect, program: Program, form: UUID, given: Given) -> list[Shown]:
    """Return what would follow from these answers, in order."""
    found = _due(connect, program, form, given)
    # What changes later is the same entry again.
    return [_shown(each, program.form.locale) for each in found if not each.content.get("only_change")]


def _due(connect: Connect, program: Program, form: UUID, given: Given) -> list[Due]:
    people = written_to(connect, program.form, form)
    with tables_for(connect, form) as tables:
        context = context_of(program.form, given.link, people=people, tables=tables, visitor=given.visitor)
        state = evaluate(program, given.answers, context.with_number(_NUMBER))
    found = ((moment, as_if(state, moment)) for moment in MOMENTS)
    return [each for moment, then in found if then is not None for each in due(then, moment)]


def _shown(each: Due, locale: str) -> Shown:
    mail = shown_mail(each.content) if each.kind == "email" else None
    return Shown(
        follow_up=each.follow_up,
        told=told(each, locale),
        html=mail.html if mail else "",
        text=mail.text if mail else "",
        content=each.content,
    )


@dataclass(frozen=True, kw_only=True, slots=True)
class Tried:
    """Which follow-up of a draft is tried, and with which answers."""

    follow_up: str
    given: Given


def send_try(connect: Connect, program: Program, form: UUID, tried: Tried, *, who: SignedIn) -> None:
    """Have a mail of a draft sent to who asks alone, marked as a try.

    Raises NotFoundError where these answers set no such mail off.
    """
    due = _due(connect, program, form, tried.given)
    found = next((each for each in due if each.follow_up == tried.follow_up), None)
    if found is None or found.kind != "email":
        raise NotFoundError("With these answers this mail would not be sent. Choose other answers above.")
    alone = {"to": [who.email], "cc": [], "bcc": [], "subject": f"Try: {found.content['subject']}"}
    with connect() as connection:
        ask(connection, "mail tried", {"content": found.content | alone}, team=who.team_id)
