"""Suspected responses: seen by the team, who lets them through or removes them."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from codexa.services.bookings import booking
from codexa.services.editions import Editions
from codexa.services.errors import NotFoundError
from codexa.services.follow_ups.keeping import Happened, keep_due
from codexa.services.own_pages import OwnPages
from codexa.services.suspicion import REASONS
from codexa.store import responses
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn


@dataclass(frozen=True, kw_only=True, slots=True)
class Held:
    """A response that is held, and why, in words; or that was, and is `removed`."""

    number: int
    received_at: datetime
    reasons: list[str]
    removed: bool


def list_held(connect: Connect, *, who: SignedIn, form: UUID) -> list[Held]:
    """Return what is held of a form's responses, newest first."""
    with connect() as connection:
        rows = responses.list_held(connection, team=who.team_id, form=form)
    return [
        Held(
            number=each.number,
            received_at=each.received_at,
            reasons=[REASONS.get(one, one) for one in each.suspected],
            removed=each.removed,
        )
        for each in rows
    ]


def let_through(
    connect: Connect, editions: Editions, pages: OwnPages, *, who: SignedIn, form: UUID, number: int
) -> None:
    """Take a response for a person's: it is complete, and what follows from that is done. Raises NotFoundError."""
    with connect() as connection:
        found = responses.find_response(connection, team=who.team_id, form=form, number=number)
    if found is None:
        raise NotFoundError
    state = editions.accepted(form, found, number)
    with connect() as connection:
        if not responses.let_through(connection, team=who.team_id, form=form, number=number, person=who.person_id):
            raise NotFoundError
        event = Happened(form=form, number=number, moments=("handed in", "complete", "day"))
        keep_due(connection, state, event, pages)


def remove(connect: Connect, *, who: SignedIn, form: UUID, number: int) -> None:
    """Remove a response that is held; what it had claimed is free again. Raises NotFoundError."""
    with connect() as connection:
        if not responses.remove_held(connection, team=who.team_id, form=form, number=number, person=who.person_id):
            raise NotFoundError
        booking.release(connection, form, number)


def bring_back(connect: Connect, *, who: SignedIn, form: UUID, number: int) -> None:
    """Hold a response again that was removed, with what it had claimed, whatever is left. Raises NotFoundError."""
    with connect() as connection:
        if not responses.bring_back_held(connection, team=who.team_id, form=form, number=number, person=who.person_id):
            raise NotFoundError
        booking.take_again(connection, form, number)
