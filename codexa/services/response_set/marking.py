"""Marking responses: moving one to a status, or giving some a status, a tag, a person."""

from collections.abc import Sequence
from uuid import UUID

from codexa.services.errors import MovedMeanwhileError, NotFoundError, ViewRefusedError
from codexa.store import marking, views
from codexa.store.database import Connect, Connection
from codexa.store.marking import Mark
from codexa.store.sessions import SignedIn


def move(connect: Connect, *, who: SignedIn, form: UUID, number: int, was: str, status: str) -> None:
    """Move a response from the status in which it was seen to another ("" is none).

    Raises MovedMeanwhileError where somebody else has moved it, NotFoundError.
    """
    with connect() as connection:
        _require_status(connection, who, form, status)
        moved = marking.move(
            connection, team=who.team_id, form=form, person=who.person_id, number=number, was=was, status=status
        )
        now = marking.status_now(connection, team=who.team_id, form=form, number=number)
        labels = {each["code"]: each["label"] for each in views.statuses(connection, team=who.team_id, form=form) or ()}
    if now is None:
        raise NotFoundError
    if not moved and now[0] != status:
        place = labels.get(now[0], now[0]) or "no status"
        raise MovedMeanwhileError(
            f"{now[1] or 'Somebody'} has moved response {number} to “{place}” meanwhile. It stays there."
        )


def mark(connect: Connect, *, who: SignedIn, form: UUID, numbers: Sequence[int], kind: Mark, value: str) -> int:
    """Mark responses and return how many were changed. Raises NotFoundError, ViewRefusedError."""
    with connect() as connection:
        require_value(connection, who, form, kind=kind, value=value)
        known = {"team": who.team_id, "form": form, "actor": who.person_id}
        return len(marking.mark(connection, **known, numbers=numbers, kind=kind, value=value))


def require_value(connection: Connection, who: SignedIn, form: UUID, *, kind: Mark, value: str) -> None:
    """Raise ViewRefusedError where responses can't be marked so, NotFoundError where the team has no such form."""
    if kind in ("tag", "untag") and not value:
        raise ViewRefusedError("A tag needs at least one letter or digit. Write one.")
    _require_status(connection, who, form, value if kind == "status" else "")


def _require_status(connection: Connection, who: SignedIn, form: UUID, status: str) -> None:
    known = views.statuses(connection, team=who.team_id, form=form)
    if known is None:
        raise NotFoundError
    if status and status not in {each["code"] for each in known}:
        raise ViewRefusedError("This status is not there any more. Choose another.")


def note(connect: Connect, *, who: SignedIn, form: UUID, number: int, words: str) -> None:
    """Keep a person's note with a response. Raises NotFoundError."""
    with connect() as connection:
        kept = marking.note(connection, team=who.team_id, form=form, person=who.person_id, number=number, note=words)
        if not kept:
            raise NotFoundError
