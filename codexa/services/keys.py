"""Keys of the API: made once and shown once, known by a digest, ended for ever."""

import hashlib
import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from uuid import UUID

from codexa.services.audit import note
from codexa.services.errors import KeyRefusedError, NotAllowedError, NotFoundError
from codexa.store import keys
from codexa.store.database import Connect
from codexa.store.keys import KeyRow
from codexa.store.sessions import SignedIn

_BEGINS = "codexa_"  # so that whoever finds one somewhere knows what it is
_BYTES = 32


class KeyRight(StrEnum):
    """What a key may do."""

    READ_FORMS = "read forms"
    READ_RESPONSES = "read responses"
    SUBMIT = "submit"


@dataclass(frozen=True, kw_only=True, slots=True)
class KeyHolder:
    """Whoever sent a key that opens something: for a team, or one form of it."""

    team_id: UUID
    form_id: UUID | None
    rights: frozenset[str]


def make(
    connect: Connect, *, who: SignedIn, name: str, rights: Sequence[KeyRight], form: UUID | None
) -> tuple[UUID, str]:
    """Make a key and return its id and itself, which nobody can be shown again. Raises NotFoundError."""
    token = _BEGINS + secrets.token_urlsafe(_BYTES)
    with connect() as connection:
        made = keys.insert_key(
            connection,
            team=who.team_id,
            form=form,
            person=who.person_id,
            name=name,
            digest=_digest(token),
            rights=sorted(set(rights)),
        )
        if made is not None:
            note(connection, who, "key made", name=name)
    if made is None:
        raise NotFoundError
    return made, token


def list_keys(connect: Connect, *, who: SignedIn) -> list[KeyRow]:
    """Return the keys of a team, newest first."""
    with connect() as connection:
        return keys.list_keys(connection, team=who.team_id)


def end(connect: Connect, *, who: SignedIn, key: UUID) -> None:
    """End a key for ever. Raises NotFoundError."""
    with connect() as connection:
        name = next((each.name for each in keys.list_keys(connection, team=who.team_id) if each.id == key), "")
        if not keys.end_key(connection, team=who.team_id, key=key):
            raise NotFoundError
        note(connection, who, "key ended", name=name)


def holder(connect: Connect, *, token: str, right: KeyRight, form: UUID | None = None) -> KeyHolder:
    """Return who sent a key, if it has a right, for a form where one is asked for.

    Raises KeyRefusedError where it opens nothing, NotAllowedError, NotFoundError where it is another form's.
    """
    with connect() as connection:
        found = keys.find_key(connection, digest=_digest(token)) if token else None
        if found is not None and found.stale:
            keys.use_key(connection, key=found.id)
    if found is None:
        raise KeyRefusedError
    if right not in found.rights:
        raise NotAllowedError(f"This key may not {right}. Make one that may, in the team's keys.")
    if found.form_id is not None and form is not None and form != found.form_id:
        raise NotFoundError("There is no such form for this key.")
    return KeyHolder(team_id=found.team_id, form_id=found.form_id, rights=frozenset(found.rights))


def _digest(token: str) -> bytes:
    return hashlib.sha256(token.encode()).digest()
