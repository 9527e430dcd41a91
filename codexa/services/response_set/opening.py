"""A form's responses opened as a set: its ledger caught up, its columns, and how filters of it are read."""

import datetime
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.core.fields.field_type import Region
from codexa.services.editions import Editions
from codexa.services.errands.asking import ask
from codexa.services.errors import NotFoundError
from codexa.services.of_team import OfTeam
from codexa.services.response_columns import Column, Option
from codexa.services.response_set.asking import Asking, Known, facets, used
from codexa.services.response_set.filling import INDEXED_FROM, Filling
from codexa.store import editions as editions_store
from codexa.store import ledger_indexes, people, standings, views
from codexa.store.database import Connect, Connection
from codexa.store.ledger_orders import Sort
from codexa.store.ledger_queries import Chosen
from codexa.store.ledgers import Ledger

INDEX_ERRAND = "indexes of responses made"
_NOWHERE = Region(locale="en", currency="EUR", time_zone="Europe/Berlin")


@dataclass(frozen=True, kw_only=True, slots=True)
class ResponseSet:
    """A form's responses: `behind` is how many its ledger has yet to take up, `columns` are those of all editions.

    `facets` are the columns that every response has; `statuses` are as they are kept.
    """

    form: UUID
    numbers: Sequence[int]
    ledger: Ledger
    behind: int
    columns: list[Column]
    facets: list[Column]
    statuses: list[dict[str, Any]]
    region: Region
    asking: Asking


def open_set(connect: Connect, editions: Editions, *, who: OfTeam, form: UUID) -> ResponseSet:
    """Return a form's responses, with what is new taken up where that is little. Raises NotFoundError."""
    with connect() as connection:
        numbers = editions_store.numbers_of_form(connection, team=who.team_id, form=form)
        statuses = views.statuses(connection, team=who.team_id, form=form)
        if numbers is None or statuses is None:
            raise NotFoundError
        known = Known(
            statuses=[Option(code=each["code"], label=each["label"]) for each in statuses],
            tags=[Option(code=tag, label=tag) for tag in views.known_tags(connection, form=form)],
            people=[
                Option(code=str(each.id), label=each.name) for each in people.list_people(connection, team=who.team_id)
            ],
            parts=_parts(connection, form),
            links=[Option(code=str(batch), label=name) for batch, name in views.known_links(connection, form=form)],
        )
    filling = Filling(connect, editions, form=form, numbers=numbers)
    ledger, behind = filling.catch_up()
    region, own = _region(editions, form, numbers), facets(known)
    # A table has no room for more than so many; what is not in it can't be asked for.
    columns = [each for each in filling.columns.all if each.id in ledger.columns]
    return ResponseSet(
        form=form,
        numbers=numbers,
        ledger=ledger,
        behind=behind,
        columns=columns,
        facets=own,
        statuses=statuses,
        region=region,
        asking=Asking([*own, *columns], region, datetime.datetime.now(datetime.UTC)),
    )


def _parts(connection: Connection, form: UUID) -> list[Option]:
    """Return with whom responses of a form may stand: those with whom any does."""
    names = standings.names(connection, form=form)
    return [Option(code=standings.NOBODY, label="nobody"), *(Option(code=name, label=name) for name in names)]


def _region(editions: Editions, form: UUID, numbers: Sequence[int]) -> Region:
    """Return where the form is at home, as its latest edition says that can be read."""
    for number in sorted(numbers, reverse=True):
        region = editions.region(form, number)
        if region is not None:
            return region
    return _NOWHERE


def want_indexes(connect: Connect, opened: ResponseSet, chosen: Chosen, sorts: Sequence[Sort]) -> None:
    """Have an index made of what a large set is filtered or sorted by, once."""
    names = [name for name in used(chosen, sorts) if name not in opened.ledger.wanted]
    if opened.ledger.upto < INDEXED_FROM or not names:
        return
    with connect() as connection:
        if ledger_indexes.want_index(connection, opened.ledger, names):
            ask(connection, INDEX_ERRAND, {"form": str(opened.form)})
