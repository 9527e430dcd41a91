"""Removing responses, and bringing them back for thirty days, with what they had claimed."""

from collections.abc import Sequence
from uuid import UUID

from codexa.services.bookings import booking
from codexa.store import marking
from codexa.store.database import Connect, Connection
from codexa.store.sessions import SignedIn


def remove(connect: Connect, *, who: SignedIn, form: UUID, numbers: Sequence[int]) -> list[int]:
    """Remove responses, and return the numbers of those that were; what they had claimed is free again.

    What waits for money, or is paid by a plan that runs, stays.
    """
    with connect() as connection:
        return remove_within(connection, team=who.team_id, form=form, actor=who.person_id, numbers=numbers)


def remove_within(
    connection: Connection, *, team: UUID, form: UUID, actor: UUID | None, numbers: Sequence[int]
) -> list[int]:
    """Remove responses as `remove` does, in a transaction that is under way."""
    removed = marking.remove(connection, team=team, form=form, actor=actor, numbers=numbers)
    for number in removed:
        booking.release(connection, form, number)
    return removed


def bring_back(connect: Connect, *, who: SignedIn, form: UUID, numbers: Sequence[int]) -> list[int]:
    """Bring responses back, with what they had claimed, whatever is left; return the numbers of those that were."""
    with connect() as connection:
        return bring_back_within(connection, team=who.team_id, form=form, actor=who.person_id, numbers=numbers)


def bring_back_within(
    connection: Connection, *, team: UUID, form: UUID, actor: UUID | None, numbers: Sequence[int]
) -> list[int]:
    """Bring responses back as `bring_back` does, in a transaction that is under way."""
    back = marking.bring_back(connection, team=team, form=form, actor=actor, numbers=numbers)
    for number in back:
        booking.take_again(connection, form, number)
    return back
