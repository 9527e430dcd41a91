"""The mail to whoever's turn it is: a response has come to the part that their groups change."""

import html
from collections.abc import Mapping
from typing import Any
from uuid import UUID

from codexa.core.sentences import Sentence
from codexa.services.accounts.mail_words import Say, notice_to
from codexa.settings import Settings
from codexa.store import rehearsals, standings
from codexa.store.database import Connect

_YOURS = Sentence("{form}, response {number}: {part} is yours to fill in")
_AT_THE_PART = Sentence("Response {number} to {form} is at the part {part}, which you fill in.")
_OPEN = Sentence("Open it")
_CHANGES_NOTHING = Sentence("Opening it changes nothing.")


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
    # A remark is for whoever reads the mail, in the words of who made it.
    said = f"<p>{html.escape(found.by_name)}: {html.escape(found.remark)}</p>" if found.remark else ""
    known = {"number": number, "form": found.form_name, "part": found.name}

    def write(say: Say) -> tuple[str, str]:
        link = say.link(f"{settings.public_address}/part/{form}/{number}", _OPEN)
        return say(_YOURS, **known), say.paragraph(_AT_THE_PART, **known) + said + link + say.paragraph(
            _CHANGES_NOTHING
        )

    return notice_to(connect, [email for _, email in to], write)
