"""Tables of the team's data, and their records: values by column id, as the core dumps them."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg import sql
from psycopg.types.json import Jsonb

from codexa.core.look_ups import BETWEEN_KEYS
from codexa.core.responses.folding import folded
from codexa.core.responses.holds import Holds
from codexa.store.database import Connection, exactly_one, like_literal, many, one
from codexa.store.ledgers import TYPES
from codexa.store.queries import queries
from codexa.store.record_filters import RecordTest, tests_in_sql

_QUERIES = queries("tables")
_PAGE = """SELECT number, kept, name, words, revision, offered, published_at FROM record WHERE {where}
    ORDER BY {order} LIMIT {most} OFFSET {first}"""
_NEXT = """SELECT number, kept, name, words, revision, offered FROM record WHERE {where} AND number > %s
    ORDER BY number LIMIT {most}"""
_COUNT = "SELECT count(*) AS count FROM record WHERE {where}"
_THERE = "table_id = %s AND removed_at IS NULL"


@dataclass(frozen=True, kw_only=True, slots=True)
class RecordFilter:
    """Tests of which all must hold, or one of them, and words that all must be found."""

    tests: Sequence[RecordTest]
    all_of: bool
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class TableRow:
    """A table as it is kept: its definition as JSON, and which revision that is.

    From the roles `seen_by` and `changed_by` on it is seen and changed, and by people of these groups besides.
    """

    id: UUID
    name: str
    definition: dict[str, Any]
    revision: int
    seen_by: str = "reviewer"
    changed_by: str = "editor"
    seen_groups: Sequence[str] = ()
    changed_groups: Sequence[str] = ()


@dataclass(frozen=True, kw_only=True, slots=True)
class ListedTable:
    """A table on the desk: how many columns and records it has."""

    id: UUID
    name: str
    columns: int
    records: int
    changed_at: datetime
    seen_by: str
    seen_groups: Sequence[str]
    changed_groups: Sequence[str]


@dataclass(frozen=True, kw_only=True, slots=True)
class RecordRow:
    """A record as it is kept; `words` is what it is found by, and `keys` what its values are compared by.

    `names` are the records that it names: by which column, of which table, which number. Keys and names are written,
    and not read again.
    """

    number: int
    kept: dict[str, Any]
    name: str
    words: str
    revision: int
    offered: bool = True
    published_at: datetime | None = None
    keys: Sequence[str] = ()
    names: Sequence[tuple[str, UUID, int]] = ()


@dataclass(frozen=True, kw_only=True, slots=True)
class Change:
    """What was done to a record, by whom; `before` are the values that it had."""

    kind: str
    before: dict[str, Any] | None
    at: datetime
    person: str | None


def insert_table(connection: Connection, *, team: UUID, name: str, definition: Mapping[str, Any]) -> UUID:
    """Make a table, and return its id."""
    row = exactly_one(connection, _QUERIES["insert_table"], team=team, name=name, definition=Jsonb(dict(definition)))
    made: UUID = row["id"]
    return made


def list_tables(connection: Connection, *, team: UUID) -> list[ListedTable]:
    """Return the team's tables, by name."""
    return [ListedTable(**row) for row in many(connection, _QUERIES["list_tables"], team=team)]


def find_table(connection: Connection, *, team: UUID, table: UUID) -> TableRow | None:
    """Return a table of the team."""
    row = one(connection, _QUERIES["find_table"], team=team, table=table)
    return TableRow(**row) if row else None


def find_tables(connection: Connection, *, team: UUID, tables: Sequence[UUID]) -> list[TableRow]:
    """Return those of these tables that are the team's."""
    return [TableRow(**row) for row in many(connection, _QUERIES["find_tables"], team=team, tables=list(tables))]


@dataclass(frozen=True, kw_only=True, slots=True)
class Rights:
    """Who sees a table and who changes it: from a role on, and people of some groups besides, by code."""

    seen_by: str
    changed_by: str
    seen_groups: Sequence[str] = ()
    changed_groups: Sequence[str] = ()


def set_rights(connection: Connection, rights: Rights, *, team: UUID, table: UUID) -> bool:
    """Say who sees and changes a table; False where the team has none such."""
    groups = {"seen_groups": list(rights.seen_groups), "changed_groups": list(rights.changed_groups)}
    known = {"team": team, "table": table, "seen_by": rights.seen_by, "changed_by": rights.changed_by}
    return one(connection, _QUERIES["set_rights"], **known, **groups) is not None


def any_table(connection: Connection, *, table: UUID) -> TableRow | None:
    """Return a table, whosever it is."""
    row = one(connection, _QUERIES["any_table"], table=table)
    return TableRow(**row) if row else None


def lock_table(connection: Connection, *, team: UUID, table: UUID) -> TableRow | None:
    """Return a table of the team; nobody else changes it until the transaction ends."""
    row = one(connection, _QUERIES["lock_table"], team=team, table=table)
    return TableRow(**row) if row else None


def lock_table_of_form(connection: Connection, *, form: UUID, table: UUID) -> TableRow | None:
    """Return a table of the team that has a form; nobody else changes it until the transaction ends."""
    row = one(connection, _QUERIES["lock_table_of_form"], form=form, table=table)
    return TableRow(**row) if row else None


def tables_of_form(connection: Connection, *, form: UUID, tables: Sequence[UUID]) -> list[TableRow]:
    """Return those of these tables that belong to the team that has a form."""
    return [TableRow(**row) for row in many(connection, _QUERIES["tables_of_form"], form=form, tables=list(tables))]


def forms_that_know(connection: Connection, *, table: UUID) -> list[tuple[UUID, int]]:
    """Return the forms whose live edition knows a table, with the edition's number."""
    rows = many(connection, _QUERIES["forms_that_know"], table=table, known_as=table.hex)
    return [(row["id"], row["live_edition"]) for row in rows]


def forms_that_offer(connection: Connection, *, table: UUID) -> list[tuple[UUID, str]]:
    """Return the forms, by id and name, whose live edition offers a table's records to be chosen."""
    rows = many(connection, _QUERIES["forms_that_offer"], table=table, known_as=table.hex)
    return [(row["id"], row["name"]) for row in rows]


def note_drift(connection: Connection, *, form: UUID, edition: int, words: str | None) -> None:
    """Note what the live edition of a form names and no table has any more; None where all is there."""
    connection.execute(_QUERIES["note_drift"], {"form": form, "edition": edition, "words": words})


def note_origin(connection: Connection, *, table: UUID, number: int, form: UUID, response: int, kind: str) -> None:
    """Note that a response made or changed a record."""
    known = {"table": table, "number": number, "form": form, "response": response, "kind": kind}
    connection.execute(_QUERIES["note_origin"], known)


@dataclass(frozen=True, kw_only=True, slots=True)
class Origin:
    """A response that made or changed a record."""

    form_id: UUID
    form_name: str
    response_number: int
    kind: str
    at: datetime


def origins_of(connection: Connection, *, team: UUID, table: UUID, number: int) -> list[Origin]:
    """Return which responses made or changed a record, newest first."""
    rows = many(connection, _QUERIES["origins_of"], team=team, table=table, number=number)
    return [Origin(**row) for row in rows]


def set_definition(connection: Connection, *, table: UUID, name: str, definition: Mapping[str, Any]) -> int:
    """Give a table other columns, and return its new revision."""
    row = exactly_one(
        connection, _QUERIES["set_definition"], table=table, name=name, definition=Jsonb(dict(definition))
    )
    return int(row["revision"])


def delete_table(connection: Connection, *, team: UUID, table: UUID) -> bool:
    """Take a table away from the team; False where it has none such."""
    return one(connection, _QUERIES["delete_table"], team=team, table=table) is not None


def forget_deleted(connection: Connection, *, days: int) -> None:
    """Forget what was deleted or removed so many days ago."""
    connection.execute(_QUERIES["forget_deleted"], {"days": days})


def next_numbers(connection: Connection, *, table: UUID, count: int) -> range:
    """Take so many numbers for new records."""
    last = int(exactly_one(connection, _QUERIES["next_numbers"], table=table, count=count)["last_number"])
    return range(last - count + 1, last + 1)


def count_records(connection: Connection, *, table: UUID) -> int:
    """Return how many records there are."""
    return int(exactly_one(connection, _QUERIES["count_records"], table=table)["count"])


def lock_records(
    connection: Connection, *, table: UUID, numbers: Sequence[int], removed: bool = False
) -> dict[int, RecordRow]:
    """Return records that are there, or were removed, by number, kept from others until the transaction ends."""
    rows = many(connection, _QUERIES["lock_records"], table=table, numbers=list(numbers), removed=removed)
    return {row["number"]: RecordRow(**row) for row in rows}


def insert_records(
    connection: Connection, records: Sequence[RecordRow], *, table: UUID, published: bool = False
) -> None:
    """Take up records, `published` at once or not."""
    if records:
        connection.execute(_QUERIES["insert_records"], {**_bound(table, records), "published": published})
        _note_names(connection, table, {each.number: each.names for each in records})


def change_records(connection: Connection, records: Sequence[RecordRow], *, table: UUID, person: UUID | None) -> None:
    """Give records other values, and keep the former ones in their history."""
    if records:
        connection.execute(_QUERIES["note_changes"], {**_bound(table, records), "person": person})
        connection.execute(_QUERIES["change_records"], _bound(table, records))
        _forget_names(connection, table, [each.number for each in records])
        _note_names(connection, table, {each.number: each.names for each in records})


def _forget_names(connection: Connection, table: UUID, numbers: Sequence[int]) -> None:
    connection.execute(_QUERIES["forget_names"], {"table": table, "numbers": list(numbers)})


def _note_names(connection: Connection, table: UUID, names: Mapping[int, Sequence[tuple[str, UUID, int]]]) -> None:
    named = [(number, *each) for number, found in names.items() for each in found]
    if named:
        numbers, columns, to_tables, to_numbers = (list(each) for each in zip(*named, strict=True))
        known = {"table": table, "numbers": numbers, "columns": columns}
        connection.execute(_QUERIES["note_names"], {**known, "to_tables": to_tables, "to_numbers": to_numbers})


@dataclass(frozen=True, kw_only=True, slots=True)
class Naming:
    """How many records of a table name a record, by which of its columns."""

    to_number: int
    table_id: UUID
    table_name: str
    column_id: str
    count: int


def who_name(connection: Connection, *, table: UUID, numbers: Sequence[int]) -> list[Naming]:
    """Return which records name one of these."""
    return [Naming(**row) for row in many(connection, _QUERIES["who_name"], table=table, numbers=list(numbers))]


def naming_records(
    connection: Connection, *, table: UUID, numbers: Sequence[int], after: tuple[UUID, int], most: int
) -> list[tuple[UUID, int]]:
    """Return the records that name one of these, some after another, as table and number."""
    known = {"table": table, "numbers": list(numbers), "after_table": after[0], "after_number": after[1], "most": most}
    return [(row["table_id"], row["number"]) for row in many(connection, _QUERIES["naming_records"], **known)]


def names_of(connection: Connection, *, table: UUID, numbers: Sequence[int]) -> dict[int, str]:
    """Return what records are called, by number."""
    return {
        row["number"]: row["name"] for row in many(connection, _QUERIES["names_of"], table=table, numbers=list(numbers))
    }


def offered_names(connection: Connection, *, table: UUID, most: int) -> list[str]:
    """Return what records that are offered are called, by number; those without a name are left out."""
    return [row["name"] for row in many(connection, _QUERIES["offered_names"], table=table, most=most)]


def set_offered(connection: Connection, *, table: UUID, numbers: Sequence[int], offered: bool) -> list[int]:
    """Have records offered to be chosen, or no more; return those that were not so before."""
    rows = many(connection, _QUERIES["set_offered"], table=table, numbers=list(numbers), offered=offered)
    return [row["number"] for row in rows]


def _bound(table: UUID, records: Sequence[RecordRow]) -> dict[str, Any]:
    return {
        "table": table,
        "numbers": [each.number for each in records],
        "kept": [Jsonb(each.kept) for each in records],
        "names": [each.name for each in records],
        "words": [each.words for each in records],
        "keys": [BETWEEN_KEYS.join(each.keys) for each in records],
    }


def who_have(connection: Connection, *, table: UUID, values: Collection[tuple[str, str]]) -> dict[tuple[str, str], int]:
    """Return which records have such values of columns in which no two may have the same."""
    if not values:
        return {}
    columns, texts = (list(each) for each in zip(*values, strict=True))
    rows = many(connection, _QUERIES["who_have"], table=table, columns=columns, values=texts)
    return {(row["column_id"], row["value"]): row["number"] for row in rows}


def free_values(connection: Connection, *, table: UUID, numbers: Sequence[int] | None = None) -> None:
    """Give back what all records had alone, or these."""
    if numbers is not None and not numbers:
        return
    connection.execute(_QUERIES["free_values"], {"table": table, "numbers": None if numbers is None else list(numbers)})


def take_many(
    connection: Connection, *, table: UUID, values: Sequence[tuple[str, str, int]]
) -> tuple[str, int, int] | None:
    """Take values that only one record may have, as (column, value, record).

    Returns None, or a column with the record that has a value already and the one that was to have it; then the
    transaction is to be given up.
    """
    if not values:
        return None
    columns, texts, numbers = (list(each) for each in zip(*values, strict=True))
    known = {"table": table, "columns": columns, "values": texts, "numbers": numbers}
    connection.execute(_QUERIES["take_many"], known)
    row = one(connection, _QUERIES["first_twice"], **known)
    return None if row is None else (row["column_id"], row["first"], row["second"])


def put_records(connection: Connection, *, table: UUID, records: Mapping[int, Mapping[str, Any]]) -> None:
    """Give many records other values, which are no change of theirs: what is worked out, names, words."""
    known = {
        "table": table,
        "numbers": list(records),
        "kept": [Jsonb(each["kept"]) for each in records.values()],
        "names": [each["name"] for each in records.values()],
        "words": [each["words"] for each in records.values()],
        "keys": [BETWEEN_KEYS.join(each["keys"]) for each in records.values()],
    }
    if records:
        connection.execute(_QUERIES["put_records"], known)
        _forget_names(connection, table, list(records))
        _note_names(connection, table, {number: each["names"] for number, each in records.items()})


def tables_without_keys(connection: Connection) -> list[TableRow]:
    """Return the tables of which some records have no keys yet."""
    return [TableRow(**row) for row in many(connection, _QUERIES["tables_without_keys"])]


def records_without_keys(connection: Connection, *, table: UUID, most: int) -> list[RecordRow]:
    """Return some records that have no keys yet, removed ones too."""
    return [RecordRow(**row) for row in many(connection, _QUERIES["records_without_keys"], table=table, most=most)]


def remove_records(connection: Connection, *, table: UUID, numbers: Sequence[int], removed: bool, person: UUID) -> None:
    """Remove records, or bring removed ones back."""
    known = {"table": table, "numbers": list(numbers), "removed": removed, "person": person}
    connection.execute(_QUERIES["remove_records"], known)


def all_records(connection: Connection, *, table: UUID, after: int, most: int) -> list[RecordRow]:
    """Return the next records after a number."""
    rows = many(connection, _QUERIES["all_records"], table=table, after=after, most=most)
    return [RecordRow(**row) for row in rows]


def next_records(
    connection: Connection, *, table: UUID, filter_: RecordFilter, after: int, most: int
) -> list[RecordRow]:
    """Return the next records after a number that a filter chooses."""
    where, values = _where(table, filter_)
    query = sql.SQL(_NEXT).format(where=where, most=sql.Literal(most))
    rows = connection.execute(query, [*values, after], prepare=False).fetchall()
    return [RecordRow(**row) for row in rows]


def find_record(connection: Connection, *, team: UUID, table: UUID, number: int) -> tuple[RecordRow, datetime] | None:
    """Return a record and when it was made, removed or not."""
    row = one(connection, _QUERIES["find_record"], team=team, table=table, number=number)
    if row is None:
        return None
    made: datetime = row.pop("created_at")
    return RecordRow(**row), made


def list_changes(connection: Connection, *, team: UUID, table: UUID, number: int) -> list[Change]:
    """Return what happened to a record, newest first."""
    rows = many(connection, _QUERIES["list_changes"], team=team, table=table, number=number)
    return [Change(**row) for row in rows]


@dataclass(frozen=True, kw_only=True, slots=True)
class Order:
    """A column that an order goes by, and what it holds."""

    column: str
    holds: Holds
    descending: bool


def page(
    connection: Connection, *, table: UUID, filter_: RecordFilter, order: Order | None, first: int, most: int
) -> tuple[list[RecordRow], int]:
    """Return records from a place on, and how many there are in all; blanks come last."""
    where, values = _where(table, filter_)
    query = sql.SQL(_PAGE).format(where=where, order=_order(order), most=sql.Literal(most), first=sql.Literal(first))
    rows = connection.execute(query, values, prepare=False).fetchall()
    counted = connection.execute(sql.SQL(_COUNT).format(where=where), values, prepare=False).fetchone()
    assert counted is not None
    return [RecordRow(**row) for row in rows], int(counted["count"])


def _where(table: UUID, filter_: RecordFilter) -> tuple[sql.Composable, list[Any]]:
    tests, tested = tests_in_sql(filter_.tests, all_of=filter_.all_of)
    parts: list[sql.Composable] = [sql.SQL(_THERE), tests]
    values: list[Any] = [table, *tested]
    for word in folded(filter_.words).split():
        parts.append(sql.SQL("words LIKE %s"))
        values.append(f"%{like_literal(word)}%")
    return sql.SQL(" AND ").join(parts), values


def _order(order: Order | None) -> sql.Composable:
    if order is None:
        return sql.SQL("number")
    column = sql.Literal(order.column)
    kept = sql.SQL("kept ->> {}").format(column)
    # A record that it names goes by what is shown of it.
    text = sql.SQL("lower(coalesce(kept -> {0} ->> 'shown', kept ->> {0}))").format(column)
    typed = sql.SQL(f"({{}})::{TYPES[order.holds]}").format(kept) if order.holds in _TYPED else text
    return sql.SQL("{} {} NULLS LAST, number").format(typed, sql.SQL("DESC" if order.descending else "ASC"))


_TYPED = frozenset({Holds.NUMBER, Holds.YES_NO, Holds.DATE, Holds.TIME})
