"""Everything about a person: what the team's forms have of an e-mail address, to be given out, and forgotten."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, Literal
from uuid import UUID

from codexa.core.program.follow_ups.email_findings import is_address
from codexa.core.responses.folding import folded
from codexa.services.audit import keep
from codexa.services.editions import Editions
from codexa.services.errors import AddressRefusedError, BehindError, TooManyError
from codexa.services.response_set import documents, in_bulk
from codexa.services.response_set.asking import STAGES
from codexa.services.response_set.opening import open_set
from codexa.store import about_person as store
from codexa.store import forms, ledger_queries, responses
from codexa.store.about_person import NamedRecord
from codexa.store.database import Connect
from codexa.store.ledger_queries import Chosen, Term
from codexa.store.responses import ResponseRow
from codexa.store.sessions import SignedIn

# What is still filled in, held, or waits for money can't be anonymised or removed.
_STAYING = frozenset({"kept", "waiting"})
_MOST = 1_000  # responses of one address in one form; more are no person's


@dataclass(frozen=True, kw_only=True, slots=True)
class FoundIn:
    """The responses of one form that name an address, by number: in answers, by a link, or as who paid."""

    form: UUID
    name: str
    numbers: list[int]


@dataclass(frozen=True, kw_only=True, slots=True)
class RecordsIn:
    """The records of one table that name an address, or did, by number; removed ones too."""

    table: UUID
    name: str
    numbers: list[int]


@dataclass(frozen=True, kw_only=True, slots=True)
class Everything:
    """Where the team's forms and tables name an address."""

    found: list[FoundIn]
    records: list[RecordsIn]


@dataclass(frozen=True, kw_only=True, slots=True)
class Forgotten:
    """How many responses are being anonymised or removed, how many can't be yet, and how many records are gone."""

    responses: int
    staying: int
    records: int


def find(connect: Connect, editions: Editions, *, who: SignedIn, email: str) -> Everything:
    """Return where the team's forms and tables name an address.

    Raises AddressRefusedError, BehindError, TooManyError.
    """
    address = _address(email)
    found = [each for each, _ in _found(connect, editions, who, address)]
    return Everything(found=found, records=_by_table(_records(connect, who, address)))


def export(connect: Connect, editions: Editions, *, who: SignedIn, email: str) -> dict[str, Any]:
    """Return all of it as one document, for the person. Raises as `find` does."""
    address = _address(email)
    keep(connect, who, "person's data taken")
    return {
        "email": address,
        "of": who.team_name,
        "on": datetime.now(UTC).date().isoformat(),
        "forms": [
            {
                "form": found.name,
                "responses": [
                    documents.document(editions, found.form, row) | {"link": row.told.get("link", {})} for row in rows
                ],
            }
            for found, rows in _found(connect, editions, who, address)
        ],
        "tables": [
            {"table": each.table_name, "number": each.number, "record": _by_key(each)}
            for each in _records(connect, who, address)
        ],
    }


def forget(
    connect: Connect, editions: Editions, *, who: SignedIn, email: str, does: Literal["anonymise", "remove"]
) -> Forgotten:
    """Have all that names an address anonymised or removed, and say how many responses that are.

    Addresses of links and of mails that were sent beside responses are forgotten at once, and records for good, which
    are about whom they name. Raises as `find` does.
    """
    address = _address(email)
    every = list(_found(connect, editions, who, address))
    found, records = [each for each, _ in every], _by_table(_records(connect, who, address))
    staying = sum(row.stage in _STAYING for _, rows in every for row in rows)
    for each in found:
        in_bulk.ask_for(connect, editions, who=who, form=each.form, chosen=each.numbers, does=does, value="")
    with connect() as connection:
        store.forget_beside(connection, team=who.team_id, email=address)
        for in_table in records:
            store.forget_records(connection, team=who.team_id, table=in_table.table, numbers=in_table.numbers)
    forgotten = Forgotten(
        responses=sum(len(each.numbers) for each in found) - staying,
        staying=staying,
        records=sum(len(each.numbers) for each in records),
    )
    keep(connect, who, "person forgotten", count=forgotten.responses, records=forgotten.records)
    return forgotten


def _records(connect: Connect, who: SignedIn, address: str) -> list[NamedRecord]:
    with connect() as connection:
        found = store.records_by_address(connection, team=who.team_id, email=address, most=_MOST + 1)
    if len(found) > _MOST:
        raise TooManyError("More than a thousand records of the team's tables name this address. Search for it there.")
    return [each for each in found if _names(each.kept, address) or _names(each.before, address)]


def _by_table(records: list[NamedRecord]) -> list[RecordsIn]:
    tables: dict[UUID, RecordsIn] = {}
    for each in records:
        known = tables.setdefault(each.table_id, RecordsIn(table=each.table_id, name=each.table_name, numbers=[]))
        known.numbers.append(each.number)
    return list(tables.values())


def _by_key(record: NamedRecord) -> dict[str, Any]:
    keys = {each["id"]: each["key"] for each in record.definition["columns"]}
    return {keys[column]: value for column, value in record.kept.items() if column in keys}


def _address(email: str) -> str:
    address = email.strip().lower()
    if not is_address(address):
        raise AddressRefusedError(f"“{email[:80]}” is no e-mail address. Type one such as name@example.org.")
    return address


def _found(
    connect: Connect, editions: Editions, who: SignedIn, address: str
) -> Iterator[tuple[FoundIn, list[ResponseRow]]]:
    with connect() as connection:
        every = forms.list_for_programs(connection, team=who.team_id, form=None)
    for form in every:
        if form.edition is None:
            continue
        rows = _rows(connect, editions, who, form.id, address)
        if rows:
            yield FoundIn(form=form.id, name=form.name, numbers=sorted(rows)), [rows[each] for each in sorted(rows)]


def _rows(connect: Connect, editions: Editions, who: SignedIn, form: UUID, address: str) -> dict[int, ResponseRow]:
    opened = open_set(connect, editions, who=who, form=form)
    if opened.behind:
        raise BehindError("Some responses are still being read in, and could name this person. Try again in a minute.")
    chosen = Chosen(stages=STAGES, practice=None, terms=(Term(text=folded(address), whole=False),))
    with connect() as connection:
        numbers = ledger_queries.numbers(connection, opened.ledger, chosen, most=_MOST + 1)
        by_answers = responses.by_numbers(connection, form=form, numbers=numbers)
        others = store.by_payer_or_link(connection, form=form, email=address)
        by_others = responses.by_numbers(connection, form=form, numbers=others)
    if len(numbers) + len(others) > _MOST:
        raise TooManyError("More than a thousand responses of one form name this address. Filter them there.")
    named = {number: row for number, row in by_answers.items() if _names(row.answers, address)}
    return named | by_others


def _names(value: Any, address: str) -> bool:
    """Whether an address stands in answers as a word of its own: that of another, which ends alike, is not meant."""
    match value:
        case str():
            return (
                address in value.lower().replace(",", " ").replace(";", " ").replace("<", " ").replace(">", " ").split()
            )
        case dict():
            return any(_names(each, address) for each in value.values())
        case list():
            return any(_names(each, address) for each in value)
        case _:
            return False
