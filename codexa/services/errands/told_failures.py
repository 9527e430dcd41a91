"""Telling a form's team by mail that follow-ups did not work: once in a while, with all of them, not once for each."""

import datetime
import html
from collections.abc import Mapping
from typing import Any
from uuid import UUID

from codexa.services.accounts.notices import notice
from codexa.services.errands.asking import ask
from codexa.settings import Settings
from codexa.store import forms, people, runs
from codexa.store.database import Connect, Connection

_HOURS = 24  # between two such mails of a form
_GATHERED = datetime.timedelta(minutes=1)  # what fails together is told together
_MOST_TOLD = 20


def tell_failure(connection: Connection, *, form: UUID) -> None:
    """Have the owners of a form's team told that follow-ups failed, unless they were told of late."""
    team = runs.tell_failure(connection, form=form, hours=_HOURS)
    if team is not None:
        at = datetime.datetime.now(datetime.UTC) + _GATHERED
        ask(connection, "failed follow-ups told", {"form": str(form), "team": str(team)}, team=team, at=at)


def failures_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """Return the mail that tells what did not work; None where all was done again since."""
    form, team = UUID(about["form"]), UUID(about["team"])
    with connect() as connection:
        failures = runs.list_failures(connection, form=form, most=_MOST_TOLD + 1)
        found = forms.find_form(connection, team=team, form=form)
        owners = [each.email for each in people.list_people(connection, team=team) if each.role == "owner"]
    if not failures or found is None or not owners:
        return None
    items = "".join(
        f"<li>Response {each.number}, {html.escape(each.name)}: {html.escape(each.result)}</li>"
        for each in failures[:_MOST_TOLD]
    )
    more = "<p>There are more; the list in Codexa has them.</p>" if len(failures) > _MOST_TOLD else ""
    address = f"{settings.public_address}/forms/{form}/follow-ups"
    return notice(
        to=owners,
        subject=f"Follow-ups of {found.name} did not work",
        text=f"<p>What follows from responses to {html.escape(found.name)} did not work here:</p><ul>{items}</ul>{more}"
        f'<p><a href="{address}">See what is not done yet</a>, mend the cause, and have it done again. '
        f"Further ones of this form are told of tomorrow.</p>",
    )
