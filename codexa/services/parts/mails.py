"""The mail to whoever's turn it is: a response has come to the part that their groups change."""

import html
from collections.abc import Mapping
from typing import Any
from uuid import UUID

from codexa.services.accounts.notices import notice
from codexa.settings import Settings
from codexa.store import rehearsals, standings
from codexa.store.database import Connect


def arrived_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail that a response waits for a part; none where it has gone on since."""
    form, number = UUID(about["form"]), about["number"]
    with connect() as connection:
        found = standings.find(connection, form=form, number=number)
        if found is None or found.turn != about["turn"] or rehearsals.is_rehearsal(connection, team=found.team_id):
            return None
        to = standings.addresses(connection, team=found.team_id, groups=found.groups)
    if not to:
        return None
    address = html.escape(f"{settings.public_address}/part/{form}/{number}")
    said = f"<p>{html.escape(found.by_name)}: {html.escape(found.remark)}</p>" if found.remark else ""
    text = (
        f"<p>Response {number} to {html.escape(found.form_name)} is at the part {html.escape(found.name)}, which you "
        f'fill in.</p>{said}<p><a href="{address}">Open it</a></p><p>Opening it changes nothing.</p>'
    )
    subject = f"{found.form_name}, response {number}: {found.name} is yours to fill in"
    return notice(to=[email for _, email in to], subject=subject, text=text)
