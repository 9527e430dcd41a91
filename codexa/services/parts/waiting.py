"""Which responses stand with the parts of somebody of the team, and where one response stands."""

from dataclasses import dataclass
from uuid import UUID

from codexa.core.form.form import FormPart
from codexa.services.errors import NotFoundError
from codexa.services.payments.settling import Way
from codexa.store import responses, standings
from codexa.store.sessions import SignedIn
from codexa.store.standings import Standing, WaitingPart

_MOST = 200


@dataclass(frozen=True, kw_only=True, slots=True)
class Where:
    """Where a response stands, None for with nobody; `parts` are those of its edition, to which it may be given."""

    standing: Standing | None
    parts: tuple[FormPart, ...]


def waiting_for(way: Way, *, who: SignedIn) -> list[WaitingPart]:
    """Return what stands with the parts of a person, what stands longest first."""
    with way.connect() as connection:
        return standings.waiting_for_person(
            connection, team=who.team_id, person=who.person_id, owner=who.role == "owner", most=_MOST
        )


def where(way: Way, *, who: SignedIn, form: UUID, number: int) -> Where:
    """Return where a response of the team stands. Raises NotFoundError."""
    with way.connect() as connection:
        row = responses.find_response(connection, team=who.team_id, form=form, number=number)
        standing = standings.find(connection, form=form, number=number)
    if row is None:
        raise NotFoundError
    return Where(standing=standing, parts=way.editions.program(form, row.edition).form.parts)
