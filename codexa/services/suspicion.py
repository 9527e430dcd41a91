"""What tells a machine from a person who fills in a form: quietly, and never by a puzzle.

What is suspected is held and seen by the team, who lets it through or removes it; nothing is lost.
"""

import hmac
import time
from collections.abc import Iterator
from uuid import UUID

from codexa.services.marks import mark_of
from codexa.settings import Settings

_LEAST_SECONDS = 2  # in which nobody reads a form, fills it in and sends it

REASONS = {
    "trap": "a box that people don't see was filled in",
    "quick": "it was sent within two seconds of opening the form",
    "unopened": "it was sent without the form's page",
}


def opened_now(form: UUID, settings: Settings) -> str:
    """Return what says that a form's page was given out at this moment."""
    moment = str(int(time.time()))
    return f"{moment}.{_mark(form, moment, settings)}"


def reasons(form: UUID, settings: Settings, *, trap: str, opened: str) -> Iterator[str]:
    """Yield the names of the reasons for which a response is suspected."""
    if settings.hold_suspected != "yes":
        return
    moment, _, mark = opened.partition(".")
    if trap:
        yield "trap"
    if not moment.isdigit() or not hmac.compare_digest(mark.encode(), _mark(form, moment, settings).encode()):
        yield "unopened"
    elif time.time() - int(moment) < _LEAST_SECONDS:
        yield "quick"


def _mark(form: UUID, moment: str, settings: Settings) -> str:
    return mark_of(f"opened {form} {moment}", settings)[:24]
