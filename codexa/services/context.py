"""The surroundings in which a form is worked out now."""

import datetime
from collections.abc import Mapping
from zoneinfo import ZoneInfo

from codexa.core.context import NOBODY, NOTHING_TAKEN, Context
from codexa.core.form.form import Form
from codexa.core.look_ups import NO_TABLES, Tables
from codexa.services.visitors import GUEST, Visitor


def context_of(
    form: Form,
    link: Mapping[str, str] | None = None,
    *,
    at: datetime.datetime | None = None,
    people: Mapping[str, str] = NOBODY,
    taken: Mapping[str, int] = NOTHING_TAKEN,
    tables: Tables = NO_TABLES,
    visitor: Visitor = GUEST,
) -> Context:
    """Return the surroundings of this moment (or `at`, aware) in the form's time zone.

    `link` came with the address; `people` are those of the team, where the form writes to some,
    `taken` how much is gone of what runs out, `tables` what the team's tables answer; `visitor` is who
    fills in.
    """
    zone = ZoneInfo(form.time_zone)
    now = datetime.datetime.now(zone) if at is None else at.astimezone(zone)
    return Context(
        now=now,
        locale=form.locale,
        visitor=visitor.facts,
        groups=visitor.groups,
        link=dict(link or {}),
        people=people,
        taken=taken,
        tables=tables,
    )
