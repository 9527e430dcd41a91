"""Who fills in a form: nobody known, a member, or somebody of the team; said by the server's session alone.

The page of a form carries a pass: which session opened it, for that form, with a mark of ours. It works where a browser
keeps cookies back, as in a frame on a website, and for nothing but that form.
"""

import hmac
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from datetime import timedelta
from typing import Literal
from uuid import UUID

from codexa.core.context import visitor_facts
from codexa.services.marks import mark_of
from codexa.settings import Settings
from codexa.store import members as store
from codexa.store.database import Connection
from codexa.store.members import Visiting

# Of a member's session, or of one of the workbench.
Kind = Literal["m", "p"]
_MARK = 40  # signs


@dataclass(frozen=True, kw_only=True, slots=True)
class Visitor:
    """Who fills in: what formulas know of them, their groups by code, and whose the response will be."""

    facts: Mapping[str, str] = field(default_factory=dict)
    groups: frozenset[str] = frozenset()
    member_id: UUID | None = None
    person_id: UUID | None = None

    @property
    def is_known(self) -> bool:
        """Whether somebody is signed in."""
        return bool(self.member_id or self.person_id)

    @property
    def claim(self) -> str:
        """The name under which what is one person's is counted, "" for nobody known."""
        known = self.member_id or self.person_id
        return f"visitor:{known}" if known else ""


GUEST = Visitor()


def visitor_named(email: str, name: str, groups: Iterable[str]) -> Visitor:
    """Return a visitor of whom formulas know this, and nobody keeps a response: to look at a form as they would."""
    return Visitor(facts=visitor_facts(email, name), groups=frozenset(groups))


def pass_of(kind: Kind, session: UUID, form: UUID, settings: Settings) -> str:
    """Return what a form's page carries to say who has opened it."""
    return f"{kind}.{session.hex}.{_mark(kind, session, form, settings)}"


def _mark(kind: str, session: UUID, form: UUID, settings: Settings) -> str:
    return mark_of(f"pass {kind} {session.hex} {form}", settings)[:_MARK]


def visitor_of(connection: Connection, form: UUID, ticket: str, settings: Settings, idle: timedelta) -> Visitor:
    """Return who fills in a form by a pass; nobody known where it is none, is another form's, or the session ended."""
    kind, _, rest = ticket.partition(".")
    session, _, mark = rest.partition(".")
    try:
        session_id = UUID(hex=session)
    except ValueError:
        return GUEST
    if not hmac.compare_digest(mark.encode(), _mark(kind, session_id, form, settings).encode()):
        return GUEST
    if kind == "m":
        return _told(store.find_visiting(connection, session=session_id, form=form))
    return _told(store.find_person_visiting(connection, session=session_id, form=form, idle=idle))


def _told(found: Visiting | None) -> Visitor:
    if found is None:
        return GUEST
    named = visitor_named(found.email, found.name, found.groups)
    return replace(named, member_id=found.member_id, person_id=found.person_id)
