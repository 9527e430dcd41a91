"""Removing responses, and bringing them back for thirty days, with what they had claimed."""

from collections.abc import Sequence
from uuid import UUID

from codexa.store import claims, marking
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn


def remove(connect: Connect, *, who: SignedIn, form: UUID, numbers: Sequence[int]) -> list[int]:
    """Remove responses, and return the numbers of those that were; what they had claimed is free again.

    What waits for money, or is paid by a plan that runs, stays.
    """
    with connect() as connection:
        removed = marking.remove(connection, team=who.team_id, form=form, actor=who.person_id, numbers=numbers)
        for number in removed:
            claims.release(connection, form=form, number=number)
    return removed


def bring_back(connect: Connect, *, who: SignedIn, form: UUID, numbers: Sequence[int]) -> list[int]:
    """Bring responses back, with what they had claimed, whatever is left; return the numbers of those that were."""
    with connect() as connection:
        back = marking.bring_back(connection, team=who.team_id, form=form, actor=who.person_id, numbers=numbers)
        for number in back:
            claims.take_again(connection, form=form, number=number)
    return back
