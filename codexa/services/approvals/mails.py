"""Mails about decisions: to who decides, as their turn comes, as it is nearly over, and to who stands in."""

import html
from collections.abc import Mapping
from typing import Any
from uuid import UUID

from codexa.services.accounts.notices import notice
from codexa.settings import Settings
from codexa.store import approvals as store
from codexa.store import rehearsals
from codexa.store.database import Connect


def asked_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail that asks for a decision; none where that step was decided already."""
    return _mail(connect, settings, about, "A decision waits for you", "You are asked to decide")


def reminder_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail that reminds of it."""
    return _mail(connect, settings, about, "A decision still waits for you", "It is soon over time: decide")


def overdue_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail to who stands in; none where nobody does."""
    subject, words = "A decision is over time", "You stand in, and may decide now"
    return _mail(connect, settings, about, subject, words, only_standing_in=True)


def _mail(
    connect: Connect,
    settings: Settings,
    asked: Mapping[str, Any],
    subject: str,
    words: str,
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
    address = f"{settings.public_address}/decisions/{approval.id}"
    step = f" ({html.escape(approval.step_name)})" if approval.step_name else ""
    until = "" if approval.due_at is None else f"<p>Until {approval.due_at:%d %B %Y, %H:%M} UTC.</p>"
    return notice(
        to=sorted({each.email for each in deciders}),
        subject=f"{subject}: {about}",
        text=f"<p>{words}: {html.escape(about)}{step}, response {approval.number}.</p>{until}"
        f'<p><a href="{html.escape(address)}">Look at it and decide</a></p>'
        "<p>Opening it changes nothing; you sign in first.</p>",
    )
