"""Mails about decisions: to who decides, as their turn comes, as it is nearly over, and to who stands in."""

import html
from collections.abc import Mapping
from typing import Any
from uuid import UUID

from codexa.services.accounts.notices import notice
from codexa.settings import Settings
from codexa.store import approvals as store
from codexa.store.approvals import Approval, MayDecide
from codexa.store.database import Connect


def asked_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail that asks for a decision; none where that step was decided already."""
    found = _open(connect, about)
    if found is None:
        return None
    approval, deciders = found
    return _mail(settings, approval, deciders, "A decision waits for you", "You are asked to decide")


def reminder_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail that reminds of it."""
    found = _open(connect, about)
    if found is None:
        return None
    approval, deciders = found
    return _mail(settings, approval, deciders, "A decision still waits for you", "It is soon over time: decide")


def overdue_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail to who stands in; none where nobody does."""
    found = _open(connect, about)
    if found is None:
        return None
    approval, deciders = found
    standing_in = [each for each in deciders if each.stands_in]
    return _mail(settings, approval, standing_in, "A decision is over time", "You stand in, and may decide now")


def _open(connect: Connect, about: Mapping[str, Any]) -> tuple[Approval, list[MayDecide]] | None:
    with connect() as connection:
        approval = store.find(connection, approval=UUID(about["approval"]))
        if approval is None or approval.state != "asked" or approval.at_step != about["step"]:
            return None
        return approval, store.who_may(connection, approval=approval.id)


def _mail(
    settings: Settings, approval: Approval, deciders: list[MayDecide], subject: str, words: str
) -> dict[str, Any] | None:
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
