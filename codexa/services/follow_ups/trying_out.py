"""What would follow from answers to a draft, in full, with nothing sent; and a mail of it sent to who asks."""

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.core.program.evaluate import evaluate
from codexa.core.program.follow_ups import MOMENTS, Due, due
from codexa.core.program.program import Program
from codexa.services.context import context_of
from codexa.services.errors import NotFoundError
from codexa.services.follow_ups.mail_layout import as_html, as_text
from codexa.store import queue
from codexa.store.database import Connect

TRY_TASK = "send_try"
_NUMBER = 1  # of a response that is only tried


@dataclass(frozen=True, kw_only=True, slots=True)
class Shown:
    """A follow-up as it would be done: in one line, and of a mail its HTML and text."""

    follow_up: str
    told: str
    html: str
    text: str
    content: dict[str, Any]


def follow_ups_of(program: Program, answers: dict[str, Any], link: dict[str, str]) -> list[Shown]:
    """Return what would follow from these answers, in order."""
    return [_shown(each) for each in _due(program, answers, link)]


def _due(program: Program, answers: dict[str, Any], link: dict[str, str]) -> list[Due]:
    state = evaluate(program, answers, context_of(program.form, link).with_number(_NUMBER))
    return [each for moment in MOMENTS for each in due(state, moment)]


def _shown(each: Due) -> Shown:
    pieces = each.content.get("pieces")
    return Shown(
        follow_up=each.follow_up,
        told=each.told,
        html="" if pieces is None else as_html(each.content["subject"], pieces, each.content["accent"]),
        text="" if pieces is None else as_text(pieces),
        content=each.content,
    )


@dataclass(frozen=True, kw_only=True, slots=True)
class Tried:
    """Which follow-up of a draft is tried, with which answers, and to whom the mail goes instead."""

    follow_up: str
    answers: dict[str, Any]
    link: dict[str, str]
    to: str


def send_try(connect: Connect, program: Program, form: UUID, tried: Tried) -> None:
    """Have a mail of a draft sent to one address alone, marked as a try.

    Raises NotFoundError where these answers set no such mail off.
    """
    found = next((each for each in _due(program, tried.answers, tried.link) if each.follow_up == tried.follow_up), None)
    if found is None or found.kind != "email":
        raise NotFoundError("With these answers this mail would not be sent. Choose other answers above.")
    alone = {"to": [tried.to], "cc": [], "bcc": [], "subject": f"Try: {found.content['subject']}"}
    with connect() as connection:
        queue.defer(connection, TRY_TASK, {"form": str(form), "content": found.content | alone})
