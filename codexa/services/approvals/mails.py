"""Mails about decisions: to who decides, as their turn comes, as it is nearly over, and to who stands in."""

from collections.abc import Mapping
from datetime import UTC
from typing import Any
from uuid import UUID

from babel.dates import format_datetime

from codexa.core.sentences import Sentence
from codexa.services.accounts.mail_words import Say, notice_to
from codexa.settings import Settings
from codexa.store import approvals as store
from codexa.store import rehearsals
from codexa.store.database import Connect

_ASKED = Sentence("A decision waits for you: {about}"), Sentence("You are asked to decide: {about}, response {number}.")
_REMINDED = (
    Sentence("A decision still waits for you: {about}"),
    Sentence("It is soon over time: decide: {about}, response {number}."),
)
_OVERDUE = (
    Sentence("A decision is over time: {about}"),
    Sentence("You stand in, and may decide now: {about}, response {number}."),
)
_UNTIL = Sentence("Until {moment} UTC.")
_DECIDE = Sentence("Look at it and decide")
_NOTHING_CHANGES = Sentence("Opening it changes nothing; you sign in first.")


def asked_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail that asks for a decision; none where that step was decided already."""
    return _mail(connect, settings, about, _ASKED)


def reminder_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail that reminds of it."""
    return _mail(connect, settings, about, _REMINDED)


def overdue_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail to who stands in; none where nobody does."""
    return _mail(connect, settings, about, _OVERDUE, only_standing_in=True)


def _mail(
    connect: Connect,
    settings: Settings,
    asked: Mapping[str, Any],
    words: tuple[Sentence, Sentence],
    *,
    only_standing_in: bool = False,
) -> dict[str, Any] | None:
    with connect() as connection:
        approval = store.find(connection, approval=UUID(asked["approval"]))
        if approval is None or approval.state != "asked" or approval.at_step != asked["step"]:
            return None
        if rehearsals.is_rehearsal(connection, team=approval.team_id):
            return None
        may = store.who_may(connection, approval=approval.id)
    deciders = [each for each in may if each.stands_in or not only_standing_in]
    if not deciders:
        return None
    about = approval.subject or approval.name
    step = f"{about} ({approval.step_name})" if approval.step_name else about
    subject, asks = words

    def write(say: Say) -> tuple[str, str]:
        text = say.paragraph(asks, about=step, number=approval.number)
        if approval.due_at is not None:
            text += say.paragraph(_UNTIL, moment=format_datetime(approval.due_at, "d MMMM y, HH:mm", UTC, say.locale))
        text += say.link(f"{settings.public_address}/decisions/{approval.id}", _DECIDE)
        return say(subject, about=about), text + say.paragraph(_NOTHING_CHANGES)

    return notice_to(connect, sorted({each.email for each in deciders}), write)
