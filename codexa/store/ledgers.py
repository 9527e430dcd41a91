"""Ledgers: a form's responses once more, typed, in a table of their own, so that any number is filtered fast.

A ledger is made from the responses and can be made anew at any time. Its table is `ledgers.f_<form>`, with the texts to
search in `ledgers.w_<form>` beside it: whoever counts does not read them.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any
from uuid import UUID

import orjson
from psycopg import sql
from psycopg.types.json import Jsonb

from codexa.core.responses.holds import Holds
from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries
from codexa.store.responses import ResponseRow

_QUERIES = queries("ledgers")
# A column of text compares by its signs, so that an index finds what begins with something.
_TEXT = 'text COLLATE "C"'
TYPES: Mapping[Holds, str] = MappingProxyType(
    {
        Holds.TEXT: _TEXT,
        Holds.NUMBER: "numeric",
        Holds.YES_NO: "boolean",
        Holds.DATE: "date",
        Holds.TIME: "time",
        Holds.MOMENT: "timestamp",
        Holds.CHOICE: _TEXT,
        Holds.CHOICES: "text[]",
        Holds.FILES: "integer",
        Holds.GRID: "jsonb",
        Holds.ROWS: "jsonb",
    }
)
JSON = frozenset({Holds.GRID, Holds.ROWS})


@dataclass(frozen=True, slots=True)
class Facet:
    """Something that every response has beside its answers: where the table has it, and its type."""

    place: str
    type: str

    @property
    def nullable(self) -> bool:
        """Whether it can be blank."""
        return "NULL" not in self.type and "KEY" not in self.type


TAGS = "response.tags"
# By column id, in the order of the table. No block has a full stop in its id.
FACETS: Mapping[str, Facet] = MappingProxyType(
    {
        "response.number": Facet("number", "integer PRIMARY KEY"),
        "response.edition": Facet("edition", "integer NOT NULL"),
        "response.received": Facet("received_at", "timestamptz NOT NULL"),
        "response.stage": Facet("stage", f"{_TEXT} NOT NULL"),
        "response.payment": Facet("payment", _TEXT),
        "response.decision": Facet("decision", _TEXT),
        "response.booking": Facet("booking", _TEXT),
        "response.at_part": Facet("at_part", _TEXT),
        "response.status": Facet("status", _TEXT),
        "response.practice": Facet("practice", "boolean NOT NULL"),
        "response.held": Facet("held", "boolean NOT NULL"),
        "response.way": Facet("way", _TEXT),
        "response.page": Facet("page", _TEXT),
        "response.link": Facet("link", _TEXT),
        "response.sealed_link": Facet("sealed_link", _TEXT),
        TAGS: Facet("tags", "text[]"),
        "response.person": Facet("person", _TEXT),
        "response.language": Facet("language", _TEXT),
    }
)
# A table may have 1,600 columns.
MOST_COLUMNS = 1_500
# Texts of more signs could be more words than one index entry holds.
WORDS_INDEXED = 100_000
# Of a long text an index holds so much.
INDEXED = 100

_CREATE = "CREATE TABLE IF NOT EXISTS {table} ({facets})"
_CREATE_NEWEST = "CREATE INDEX IF NOT EXISTS {index} ON {table} (received_at, number)"
_CREATE_WORDS = """CREATE TABLE IF NOT EXISTS {words} (number integer PRIMARY KEY, words text NOT NULL,
    searched tsvector NOT NULL GENERATED ALWAYS AS (to_tsvector('simple', left(words, {most}))) STORED)"""
_ADD_COLUMN = "ALTER TABLE {table} ADD COLUMN IF NOT EXISTS {place} {type}"
_DROP = "DROP TABLE IF EXISTS {table}, {words}"
_DELETE = "DELETE FROM {table} WHERE number = ANY(%s)"
_COPY = "COPY {table} ({columns}) FROM STDIN"


@dataclass(frozen=True, kw_only=True, slots=True)
class Ledger:
    """A ledger: what its columns hold, by id, in the order of the table; and the last number that is in it."""

    form: UUID
    columns: dict[str, Holds]
    upto: int
    wanted: tuple[str, ...]

    @property
    def table(self) -> sql.Identifier:
        """The table of the responses."""
        return sql.Identifier("ledgers", f"f_{self.form.hex}")

    @property
    def words(self) -> sql.Identifier:
        """The table of the texts to search in."""
        return sql.Identifier("ledgers", f"w_{self.form.hex}")

    def place_name(self, column: str) -> str:
        """Return what the table calls a column."""
        return FACETS[column].place if column in FACETS else f"c{list(self.columns).index(column)}"

    def place(self, column: str) -> sql.Identifier:
        """Return where the table has a column."""
        return sql.Identifier(self.place_name(column))

    def index(self, name: str) -> str:
        """Return what an index is called; it lies beside its table."""
        return f"i_{self.form.hex}_{name}"


@dataclass(kw_only=True, slots=True)
class Source(ResponseRow):
    """A response as a ledger takes it up, with how it came; `batch` is that of its sealed link."""

    held: bool
    came: dict[str, Any]
    sealed_link: int | None
    batch: int | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Entry:
    """A response as a row of a ledger: facets by their place, values by column id, and its words."""

    facets: Mapping[str, Any]
    values: Mapping[str, Any]
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Changed:
    """Responses that changed, as they are now, those that are still there. `due` is what to settle once they are in."""

    due: list[int]
    sources: list[Source]


def find_ledger(connection: Connection, *, form: UUID) -> Ledger | None:
    """Return a form's ledger, or None where it has none yet."""
    row = one(connection, _QUERIES["find_ledger"], form=form)
    if row is None:
        return None
    columns = {column: Holds(holds) for column, holds in row["columns"]}
    return Ledger(form=form, columns=columns, upto=row["upto"], wanted=tuple(row["wanted"]))


def set_up(connection: Connection, *, form: UUID, columns: Mapping[str, Holds]) -> Ledger:
    """Return a form's ledger with at least these columns, made where it is not there; as many as a table may have."""
    connection.execute(_QUERIES["insert_ledger"], {"form": form})
    connection.execute(_QUERIES["lock_ledger"], {"form": form})
    known = find_ledger(connection, form=form)
    assert known is not None
    missing = {column: holds for column, holds in columns.items() if column not in known.columns}
    room = max(0, MOST_COLUMNS - len(known.columns))
    ledger = Ledger(
        form=form,
        columns={**known.columns, **dict(list(missing.items())[:room])},
        upto=known.upto,
        wanted=known.wanted,
    )
    execute(connection, ledger, _CREATE, facets=_facets())
    execute(connection, ledger, _CREATE_NEWEST, index=sql.Identifier(ledger.index("newest")))
    execute(connection, ledger, _CREATE_WORDS, most=sql.Literal(WORDS_INDEXED))
    for column, holds in ledger.columns.items():
        if column not in known.columns:
            execute(connection, ledger, _ADD_COLUMN, place=ledger.place(column), type=sql.SQL(TYPES[holds]))
    listed = Jsonb([[column, holds.value] for column, holds in ledger.columns.items()])
    connection.execute(_QUERIES["set_columns"], {"form": form, "columns": listed})
    return ledger


def _facets() -> sql.Composed:
    return sql.SQL(", ").join(sql.SQL(f"{each.place} {each.type}") for each in FACETS.values())


def execute(connection: Connection, ledger: Ledger, query: str, values: Sequence[Any] = (), **names: Any) -> None:
    """Run a statement on a ledger's tables; `names` are what is put into it besides."""
    whole = sql.SQL(query).format(table=ledger.table, words=ledger.words, **names)
    connection.execute(whole, values)


def forget(connection: Connection, *, form: UUID) -> None:
    """Remove a form's ledger, to be made anew from its responses."""
    connection.execute(_QUERIES["delete_ledger"], {"form": form})
    execute(connection, Ledger(form=form, columns={}, upto=0, wanted=()), _DROP)


def behind(connection: Connection, *, form: UUID) -> int:
    """Return how many responses a form's ledger has yet to take up: new and changed ones."""
    return int(exactly_one(connection, _QUERIES["behind"], form=form)["count"])


def turn(connection: Connection, *, form: UUID) -> int:
    """Return what grows with each response that comes or changes."""
    return int(exactly_one(connection, _QUERIES["turn"], form=form)["turn"])


def new_sources(connection: Connection, *, form: UUID, after: int, most: int) -> tuple[list[Source], int]:
    """Return the responses after a number, in order, and the last number that is looked at with them.

    Numbers are committed in their order: once one is seen, those before it are there, or gone.
    """
    last = int(exactly_one(connection, _QUERIES["last_number"], form=form)["last_number"])
    sources = [Source(**row) for row in many(connection, _QUERIES["new_sources"], form=form, after=after, most=most)]
    return sources, sources[-1].number if len(sources) == most else max(last, after)


def changed(connection: Connection, *, form: UUID, most: int) -> Changed:
    """Return the responses that changed first, as they are now."""
    due = many(connection, _QUERIES["list_due"], form=form, most=most)
    numbers = sorted({row["number"] for row in due})
    sources = [Source(**row) for row in many(connection, _QUERIES["sources"], form=form, numbers=numbers)]
    return Changed(due=[row["id"] for row in due], sources=sources)


def add_new(connection: Connection, ledger: Ledger, entries: Sequence[Entry], *, upto: int) -> bool:
    """Take up the responses after those that are in; False where somebody else did so meanwhile."""
    moved = one(connection, _QUERIES["move_on"], form=ledger.form, before=ledger.upto, upto=upto)
    if moved is None:
        return False
    _write(connection, ledger, entries)
    return True


def take_up(connection: Connection, ledger: Ledger, entries: Sequence[Entry], changes: Changed) -> None:
    """Take up changed responses anew, and settle what was due.

    What somebody else has settled meanwhile was taken up newer than here; what is newer than all that is in stays due
    until it is in.
    """
    upto = exactly_one(connection, _QUERIES["lock_ledger"], form=ledger.form)["upto"]
    settled = many(connection, _QUERIES["settle_due"], ids=changes.due, upto=upto)
    ours = {row["number"] for row in settled}
    for table in (ledger.table, ledger.words):
        connection.execute(sql.SQL(_DELETE).format(table=table), (sorted(ours),))
    _write(connection, ledger, [each for each in entries if each.facets["number"] in ours])
    connection.execute(_QUERIES["note_settled"], {"form": ledger.form, "last": max(changes.due)})


def _write(connection: Connection, ledger: Ledger, entries: Sequence[Entry]) -> None:
    names = [*(sql.Identifier(each.place) for each in FACETS.values()), *map(ledger.place, ledger.columns)]
    copy = sql.SQL(_COPY).format(table=ledger.table, columns=sql.SQL(", ").join(names))
    with connection.cursor() as cursor, cursor.copy(copy) as rows:
        for entry in entries:
            rows.write_row(list(_row(ledger, entry)))
    copy = sql.SQL(_COPY).format(table=ledger.words, columns=sql.SQL("number, words"))
    with connection.cursor() as cursor, cursor.copy(copy) as rows:
        for entry in entries:
            rows.write_row((entry.facets["number"], entry.words))


def _row(ledger: Ledger, entry: Entry) -> Iterator[Any]:
    for facet in FACETS.values():
        yield entry.facets[facet.place]
    for column, holds in ledger.columns.items():
        value = entry.values.get(column)
        yield Jsonb(value, dumps=_as_json) if holds in JSON and value is not None else value


def _as_json(value: Any) -> bytes:
    return orjson.dumps(value, default=str)  # decimals as text, as they are read again


def ask_for_filling(connection: Connection, *, form: UUID) -> bool:
    """Note that a job shall take up what a ledger is behind with; False where one was asked for of late."""
    return one(connection, _QUERIES["ask_for_filling"], form=form) is not None


def filled(connection: Connection, *, form: UUID) -> None:
    """Note that the job has ended."""
    connection.execute(_QUERIES["filled"], {"form": form})


def compared(ledger: Ledger, column: str) -> sql.Composable:
    """Return what of a column an index holds and an order goes by: of a text its beginning."""
    place = ledger.place(column)
    if ledger.columns.get(column) is Holds.TEXT:
        return sql.SQL("left({place}, {most})").format(place=place, most=sql.Literal(INDEXED))
    return place


def forget_due_of_none(connection: Connection) -> None:
    """Forget the changes of forms that have no ledger."""
    connection.execute(_QUERIES["forget_due_of_none"])


def drop_left_over(connection: Connection) -> int:
    """Drop the tables of forms that are there no more, and return how many."""
    left = many(connection, _QUERIES["left_over"])
    for row in left:
        connection.execute(sql.SQL("DROP TABLE IF EXISTS {}").format(sql.Identifier("ledgers", row["name"])))
    return len(left)
