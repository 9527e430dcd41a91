"""Published records: what the team lets go, and what anybody reads."""

import hashlib
from collections.abc import Sequence
from dataclasses import dataclass
from uuid import UUID

from codexa.core.tables.publication import Publication, PublishedRecord
from codexa.core.tables.publishing import published_record
from codexa.core.tables.table import Table
from codexa.services.errors import NotFoundError
from codexa.services.tables.tables import opened, show
from codexa.store import content
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn

AT_ONCE = 50  # records of one page


@dataclass(frozen=True, kw_only=True, slots=True)
class Content:
    """Published records from a place on, newest first; whether there are more; `state` tells whether any changed."""

    table: Table
    publication: Publication
    records: list[PublishedRecord]
    first: int
    more: bool
    state: str


def publish(connect: Connect, *, who: SignedIn, table: UUID, numbers: Sequence[int], published: bool) -> list[int]:
    """Publish records, or take them back; return those that were not so before. Raises NotFoundError."""
    show(connect, who=who, table=table, changes=True)
    with connect() as connection:
        return content.publish(connection, table=table, numbers=numbers, published=published, person=who.person_id)


def read(connect: Connect, *, team: str, address: str, first: int) -> Content:
    """Return what a team publishes at an address. Raises NotFoundError."""
    with connect() as connection:
        row = content.find_publication(connection, team=team, address=address)
        if row is None:
            raise NotFoundError("Nothing is published at this address. Ask whoever gave it to you.")
        found = content.published_records(connection, table=row.id, first=first, most=AT_ONCE + 1)
    table = opened(row).table
    publication = table.definition.published
    assert publication is not None
    state = repr((row.id, row.revision, first, [(each.number, each.published_at, each.changed_at) for each in found]))
    return Content(
        table=table,
        publication=publication,
        records=[published_record(table, publication, each) for each in found[:AT_ONCE]],
        first=first,
        more=len(found) > AT_ONCE,
        state=hashlib.sha256(state.encode()).hexdigest()[:32],
    )
