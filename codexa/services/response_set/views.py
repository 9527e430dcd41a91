"""Saved views of a form's responses, and the statuses that a team gives them."""

from collections.abc import Sequence
from typing import Any
from uuid import UUID

from codexa.services.errors import NotFoundError, ViewRefusedError
from codexa.store import views
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn
from codexa.store.views import ViewRow


def list_views(connect: Connect, *, who: SignedIn, form: UUID) -> list[ViewRow]:
    """Return the views of a form, by name. Raises NotFoundError."""
    with connect() as connection:
        if views.statuses(connection, team=who.team_id, form=form) is None:
            raise NotFoundError
        return views.list_views(connection, team=who.team_id, form=form)


def save(
    connect: Connect,
    *,
    who: SignedIn,
    form: UUID,
    name: str,
    content: dict[str, Any],
    opens_first: bool,
    view: UUID | None = None,
) -> UUID:
    """Keep a view, a new one or `view` anew, and return its id. Raises ViewRefusedError where its name is taken."""
    with connect() as connection:
        if views.statuses(connection, team=who.team_id, form=form) is None:
            raise NotFoundError
        known = views.list_views(connection, team=who.team_id, form=form)
        saved = views.save_view(
            connection,
            team=who.team_id,
            form=form,
            person=who.person_id,
            view=view,
            name=name,
            content=content,
            opens_first=opens_first,
        )
        if saved is None:
            connection.rollback()
    if saved is not None:
        return saved
    if view is not None and view not in {each.id for each in known}:
        raise NotFoundError("This view is gone: somebody has removed it. Save it under a name of its own.")
    raise ViewRefusedError(f"There is a view called “{name}” already. Choose another name.")


def delete(connect: Connect, *, who: SignedIn, form: UUID, view: UUID) -> None:
    """Forget a view. Raises NotFoundError."""
    with connect() as connection:
        if not views.delete_view(connection, team=who.team_id, form=form, view=view):
            raise NotFoundError


def set_statuses(connect: Connect, *, who: SignedIn, form: UUID, statuses: Sequence[dict[str, Any]]) -> None:
    """Give a form's responses other statuses. Responses keep the code of one that is gone.

    Raises NotFoundError, and ViewRefusedError where two are the same.
    """
    codes, labels = [each["code"] for each in statuses], [each["label"].casefold() for each in statuses]
    if len(set(codes)) < len(codes) or len(set(labels)) < len(labels):
        raise ViewRefusedError("Two statuses have the same name. Give each one of its own.")
    with connect() as connection:
        if not views.set_statuses(connection, team=who.team_id, form=form, statuses=list(statuses)):
            raise NotFoundError
