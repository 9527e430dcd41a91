"""Answers that visitors go on with later, by the digest of their private link."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, exactly_one, one
from codexa.store.queries import queries

_QUERIES = queries("kept_answers")


@dataclass(frozen=True, kw_only=True, slots=True)
class KeptRow:
    """What a private link stands for; `version` grows each time that other answers are kept.

    `entered` are the answers as the visitor gave them, by block id, `standing` what else belongs to filling in.
    """

    form_id: UUID
    number: int
    edition: int
    stage: str
    entered: dict[str, Any]
    standing: dict[str, Any]
    visit: str
    version: int
    kept_at: datetime
    until: datetime
    slug: str
    team_id: UUID
    team_slug: str
    team_name: str


@dataclass(frozen=True, kw_only=True, slots=True)
class KeptVersion:
    """Answers were kept: under which version, and until when."""

    version: int
    until: datetime


def find(connection: Connection, *, digest: bytes) -> KeptRow | None:
    """Return what a private link stands for; None where there is nothing. Its time may be over."""
    row = one(connection, _QUERIES["find"], digest=digest)
    return KeptRow(**row) if row else None


def insert(
    connection: Connection,
    *,
    form: UUID,
    number: int,
    digest: bytes,
    entered: Mapping[str, Any],
    standing: Mapping[str, Any],
    visit: str,
    days: int,
) -> KeptVersion:
    """Keep the answers of a response that was just numbered, for so many days."""
    known = {"entered": Jsonb(dict(entered)), "standing": Jsonb(dict(standing)), "visit": visit, "days": days}
    return KeptVersion(**exactly_one(connection, _QUERIES["insert"], form=form, number=number, digest=digest, **known))


def replace(
    connection: Connection,
    *,
    form: UUID,
    number: int,
    edition: int,
    entered: Mapping[str, Any],
    standing: Mapping[str, Any],
    visit: str,
    days: int,
    answers: Mapping[str, Any],
    told: Mapping[str, Any],
    version: int | None,
) -> KeptVersion | None:
    """Keep other answers in the place of that `version` (None: of any); None where they were replaced meanwhile.

    `answers` are those of the response: what could be read of what was `entered`.
    """
    row = one(
        connection,
        _QUERIES["replace"],
        form=form,
        number=number,
        edition=edition,
        entered=Jsonb(dict(entered)),
        standing=Jsonb(dict(standing)),
        visit=visit,
        days=days,
        answers=Jsonb(dict(answers)),
        told=Jsonb(dict(told)),
        over=version is None,
        version=version,
    )
    return KeptVersion(**row) if row else None


def count_mail(connection: Connection, *, digest: bytes, most: int) -> bool:
    """Count a mail with a link; False where there were `most` already, or the link is over."""
    return one(connection, _QUERIES["count_mail"], digest=digest, most=most) is not None


def count_kept(connection: Connection, *, form: UUID) -> int:
    """Return how many visitors of a form may go on later."""
    return int(exactly_one(connection, _QUERIES["count_kept"], form=form)["count"])


def forget_over(connection: Connection) -> None:
    """Forget what was kept for a time that is over."""
    connection.execute(_QUERIES["forget_over"])
