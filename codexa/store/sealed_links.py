"""Links with values that are signed: the keys of a form, what was made together, and each link."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("sealed_links")


@dataclass(frozen=True, kw_only=True, slots=True)
class NewLink:
    """A link to be kept: its mark, the key that signs it, what it gives by name, until when, how often, to whom."""

    mark: str
    key: int
    given: dict[str, str]
    until: datetime | None
    uses: int | None
    email: str


@dataclass(frozen=True, kw_only=True, slots=True)
class SealedLink:
    """What is sealed of a link, with the encrypted `secret` of its key."""

    id: int
    mark: str
    given: dict[str, str]
    until: datetime | None
    uses: int | None
    secret: bytes


@dataclass(frozen=True, kw_only=True, slots=True)
class LinkRow(SealedLink):
    """A link as visitors come by it, with the batch that it was made with, and how often it was `used`."""

    batch: int
    ended: bool
    used: int


@dataclass(frozen=True, kw_only=True, slots=True)
class BatchRow:
    """Links that were made together: how many, how many responses, and how many went by mail."""

    id: int
    name: str
    made_at: datetime
    made_by: str | None
    links: int
    responses: int
    addressed: int
    mailed: int
    failed: int


@dataclass(frozen=True, kw_only=True, slots=True)
class ListedLink(SealedLink):
    """A link in the team's list; `mail` is "", waiting, sent or failed."""

    ended: bool
    email: str
    responses: int
    mail: str
    mail_result: str
    mailed_at: datetime | None


@dataclass(frozen=True, kw_only=True, slots=True)
class WaitingMail(SealedLink):
    """A link that is to be sent by mail, with where its form is."""

    form_id: UUID
    email: str
    slug: str
    team_slug: str
    team_name: str


def lock_keys(connection: Connection, *, team: UUID, form: UUID) -> bool:
    """Let nobody else make keys for a form until the transaction ends; False where the team has no such form."""
    return one(connection, _QUERIES["lock_keys"], team=team, form=form) is not None


def newest_key(connection: Connection, *, form: UUID) -> int | None:
    """Return the number of the key that signs new links."""
    row = one(connection, _QUERIES["newest_key"], form=form)
    return int(row["number"]) if row else None


def insert_key(connection: Connection, *, form: UUID, secret: bytes) -> int:
    """Keep a new key, encrypted, and return its number."""
    return int(exactly_one(connection, _QUERIES["insert_key"], form=form, secret=secret)["number"])


def end_keys(connection: Connection, *, form: UUID, keep: int) -> None:
    """End all keys of a form but one: what they signed does not open any more."""
    connection.execute(_QUERIES["end_keys"], {"form": form, "keep": keep})


def insert_batch(connection: Connection, *, form: UUID, name: str, person: UUID, links: Iterable[NewLink]) -> int:
    """Keep links that were made together and return what they are known by."""
    batch = int(exactly_one(connection, _QUERIES["insert_batch"], form=form, name=name, person=person)["id"])
    with connection.cursor() as cursor, cursor.copy(_QUERIES["copy_links"]) as copy:
        for each in links:
            given = Jsonb(each.given)
            copy.write_row((batch, form, each.mark, each.key, given, each.until, each.uses, each.email))
    return batch


def find_link(connection: Connection, *, form: UUID, mark: str) -> LinkRow | None:
    """Return a link by its mark."""
    row = one(connection, _QUERIES["find_link"], form=form, mark=mark)
    return LinkRow(**row) if row else None


def list_batches(connection: Connection, *, team: UUID, form: UUID) -> list[BatchRow]:
    """Return what was made together, newest first."""
    return [BatchRow(**row) for row in many(connection, _QUERIES["list_batches"], team=team, form=form)]


def list_links(
    connection: Connection, *, team: UUID, form: UUID, batch: int, after: int, limit: int
) -> list[ListedLink]:
    """Return links of a batch, those after one of them by id."""
    values = {"team": team, "form": form, "batch": batch, "after": after, "limit": limit}
    return [ListedLink(**row) for row in many(connection, _QUERIES["list_links"], **values)]


def end_link(connection: Connection, *, team: UUID, form: UUID, link: int) -> bool:
    """End one link; False where there is none that holds."""
    return one(connection, _QUERIES["end_link"], team=team, form=form, link=link) is not None


def to_mail(connection: Connection, *, team: UUID, form: UUID, batch: int) -> int:
    """Note which links of a batch are to be sent by mail and were not yet, and return how many."""
    return len(many(connection, _QUERIES["to_mail"], team=team, form=form, batch=batch))


def waiting_mails(connection: Connection, *, batch: int, limit: int) -> list[WaitingMail]:
    """Return links of a batch that are to be sent by mail yet."""
    return [WaitingMail(**row) for row in many(connection, _QUERIES["waiting_mails"], batch=batch, limit=limit)]


def set_mail(connection: Connection, *, link: int, state: str, result: str) -> None:
    """Note what became of a link's mail."""
    connection.execute(_QUERIES["set_mail"], {"link": link, "state": state, "result": result})
