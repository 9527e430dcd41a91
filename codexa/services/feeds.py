"""Live feeds: a secret address that gives a view of a form's responses to spreadsheets and reporting tools."""

import hashlib
import secrets
from dataclasses import dataclass
from datetime import UTC, datetime
from uuid import UUID

import orjson

from codexa.services.audit import note_form
from codexa.services.encryption import decrypted, encrypted
from codexa.services.errors import NotFoundError
from codexa.settings import Settings
from codexa.store import feeds, forms, ledgers
from codexa.store.database import Connect
from codexa.store.feeds import FeedRow, Gives
from codexa.store.sessions import SignedIn

_BYTES = 32


@dataclass(frozen=True, kw_only=True, slots=True)
class Feed:
    """A feed as its team sees it; `address` is without its ending, ".csv" or ".json"."""

    id: UUID
    view_id: UUID
    view: str
    address: str
    made_by: str | None
    made_at: datetime
    last_fetched_at: datetime | None
    fetches: int


def make(connect: Connect, settings: Settings, *, who: SignedIn, form: UUID, view: UUID) -> UUID:
    """Make a feed of a view and return its id. Raises NotFoundError."""
    secret = secrets.token_urlsafe(_BYTES)
    with connect() as connection:
        made = feeds.insert_feed(
            connection,
            team=who.team_id,
            form=form,
            view=view,
            person=who.person_id,
            digest=_digest(secret),
            sealed=encrypted(secret, settings),
        )
        if made is not None:
            note_form(connection, who, "feed opened", form)
    if made is None:
        raise NotFoundError("This view is gone: somebody has removed it.")
    return made


def list_feeds(connect: Connect, settings: Settings, *, who: SignedIn, form: UUID) -> list[Feed]:
    """Return the feeds of a form, newest first. Raises NotFoundError."""
    with connect() as connection:
        if forms.find_revision(connection, team=who.team_id, form=form) is None:
            raise NotFoundError
        rows = feeds.list_feeds(connection, team=who.team_id, form=form)
    return [_feed(row, settings) for row in rows]


def _feed(row: FeedRow, settings: Settings) -> Feed:
    secret = decrypted(row.sealed, settings)
    return Feed(
        id=row.id,
        view_id=row.view_id,
        view=row.view,
        address="" if secret is None else f"{settings.public_address}/feed/{secret}",
        made_by=row.made_by,
        made_at=row.made_at,
        last_fetched_at=row.last_fetched_at,
        fetches=row.fetches,
    )


def end(connect: Connect, *, who: SignedIn, form: UUID, feed: UUID) -> None:
    """End a feed for ever. Raises NotFoundError."""
    with connect() as connection:
        if not feeds.delete_feed(connection, team=who.team_id, form=form, feed=feed):
            raise NotFoundError
        note_form(connection, who, "feed ended", form)


def find(connect: Connect, *, secret: str) -> tuple[Gives, str]:
    """Return what a feed gives, and what tells whether that has changed since (for an ETag). Raises NotFoundError."""
    with connect() as connection:
        found = feeds.find_feed(connection, digest=_digest(secret))
        if found is None:
            raise NotFoundError("There is no feed at this address, or it was ended. Ask whoever gave it to you.")
        feeds.fetched(connection, feed=found.id)
        turn = ledgers.turn(connection, form=found.form_id)
    # Some conditions are about days from today.
    state = [turn, found.editions, found.content, datetime.now(UTC).date()]
    return found, hashlib.sha256(orjson.dumps(state, option=orjson.OPT_SORT_KEYS)).hexdigest()[:32]


def _digest(secret: str) -> bytes:
    return hashlib.sha256(secret.encode()).digest()
