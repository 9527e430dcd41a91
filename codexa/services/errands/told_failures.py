"""Telling a form's team by mail that follow-ups did not work: once in a while, with all of them, not once for each."""

import datetime
import html
from collections.abc import Mapping
from typing import Any
from uuid import UUID

from codexa.core.sentences import Sentence
from codexa.services.accounts.mail_words import Say, notice_to
from codexa.services.errands.asking import ask
from codexa.settings import Settings
from codexa.store import forms, people, runs
from codexa.store.database import Connect, Connection

_HOURS = 24  # between two such mails of a form
_GATHERED = datetime.timedelta(minutes=1)  # what fails together is told together
_MOST_TOLD = 20

_DID_NOT_WORK = Sentence("Follow-ups of {form} did not work")
_HERE = Sentence("What follows from responses to {form} did not work here:")
_ONE = Sentence("Response {number}, {name}: {result}")
_MORE = Sentence("There are more; the list in Codexa has them.")
_SEE = Sentence("See what is not done yet")
_MEND = Sentence("Mend the cause, and have it done again. Further ones of this form are told of tomorrow.")


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
    more = len(failures) > _MOST_TOLD

    def write(say: Say) -> tuple[str, str]:
        items = "".join(
            f"<li>{html.escape(say(_ONE, number=each.number, name=each.name, result=each.result))}</li>"
            for each in failures[:_MOST_TOLD]
        )
        text = f"{say.paragraph(_HERE, form=found.name)}<ul>{items}</ul>{say.paragraph(_MORE) if more else ''}"
        text += say.link(f"{settings.public_address}/forms/{form}/follow-ups", _SEE) + say.paragraph(_MEND)
        return say(_DID_NOT_WORK, form=found.name), text

    return notice_to(connect, owners, write)
