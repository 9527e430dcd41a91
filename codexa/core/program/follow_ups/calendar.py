"""An entry in a calendar of another system: from when to when, called what, where, in whose calendar."""

from collections.abc import Iterator
from typing import Any

from codexa.core.form.follow_ups import CalendarFollowUp, Moment
from codexa.core.formula.convert import text as as_text
from codexa.core.program.evaluate import State
from codexa.core.program.findings import Finding, error
from codexa.core.program.follow_ups.calendar_entry import calendar_entry, entry_findings
from codexa.core.program.follow_ups.kind import FollowUpKind, holds
from codexa.core.program.program import Program

# What changes an entry that is there, whenever it was made; the last two take it out.
CHANGES: tuple[Moment, ...] = ("rebooked", "moved up", "cancelled", "denied")
_TAKES_OUT: tuple[Moment, ...] = ("cancelled", "denied")
_MOST_TEXT = 4_000  # characters


class CalendarKind(FollowUpKind[CalendarFollowUp]):
    """Calendar entry."""

    kind_name = "calendar"
    title = "Calendar entry"

    def content(self, state: State, follow_up: CalendarFollowUp) -> dict[str, Any] | None:
        """Return the entry and in which calendar it stands; nothing where there is no day, or no calendar is meant."""
        entry, calendar = calendar_entry(state, follow_up), self._calendar(state, follow_up)
        if entry is None or not calendar:
            return None
        place = state.program.questions.get(follow_up.guest)
        return {
            "calendar": calendar,
            "entry": entry | {"text": state.text(follow_up.id, "text", follow_up.text)[:_MOST_TEXT]},
            "guest": "" if place is None else as_text(state.value(place)) or "",
            "only_change": False,
        }

    @staticmethod
    def _calendar(state: State, follow_up: CalendarFollowUp) -> str:
        """Return the id of the first calendar that is meant."""
        meant = (
            each.calendar
            for at, each in enumerate(follow_up.calendars)
            if each.calendar and holds(state, follow_up.id, f"calendars.{at}.when")
        )
        return next(meant, "")

    def change(self, state: State, follow_up: CalendarFollowUp, moment: str) -> dict[str, Any] | None:
        """Return what is to become, at a later moment, of an entry that is there."""
        content = self.content(state, follow_up)
        if content is None:
            return None
        cancelled = content["entry"] | {"cancelled": moment in _TAKES_OUT}
        return content | {"entry": cancelled, "only_change": True}

    def told(self, content: dict[str, Any]) -> str:
        """Return what stands there, and from when."""
        entry = content["entry"]
        if entry["cancelled"]:
            return f"a calendar entry taken out: {entry['title']}"
        begin = "a calendar entry changed" if content["only_change"] else "a calendar entry"
        return f"{begin}: {entry['title']}, {entry['starts'][:16].replace('T', ' ')}"

    def findings(self, program: Program, follow_up: CalendarFollowUp) -> Iterator[Finding]:
        """Yield what is needed and not said: a calendar, and a day."""
        if not any(each.calendar for each in follow_up.calendars):
            message = "It is not said in which calendar the entry stands."
            yield error("no_calendar", message, "Choose one; they are made in Team.", follow_up.id, "calendars")
        if not follow_up.entry:
            yield error("no_day", "The entry has no day.", "Choose a slot or a date.", follow_up.id, "entry")
        yield from entry_findings(program, follow_up)
        if follow_up.guest and follow_up.guest not in program.questions:
            message = "Who is invited is said by a field that is not there any more."
            yield error("no_field", message, "Choose another, or nobody.", follow_up.id, "guest")
