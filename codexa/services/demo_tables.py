"""The demo's tables: what can be lent, where it stands, and a catalogue of objects to look at."""

import datetime
import io
import json
from collections.abc import Iterator, Mapping, Sequence
from pathlib import Path
from random import Random
from typing import Any
from uuid import UUID

from codexa.core.form.known_tables import KnownTable
from codexa.core.tables.table import known_table
from codexa.services.demo_pictures import night
from codexa.services.spreadsheets import read_table
from codexa.services.tables import content, tables
from codexa.services.tables.files import Arriving, Cell, add
from codexa.services.tables.records import Typed, change
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn

_OBJECTS = 3_000
_AT_ONCE = 1_000
# Columns of pictures, by table.
_PICTURED = {"talks": "c7", "sightings": "c9"}
_NIGHT, _WAITING = "Night of", 2  # sightings that nobody has let go yet
_KINDS = {"galaxy": 30, "open cluster": 18, "globular cluster": 8, "nebula": 14, "double star": 22, "variable star": 8}
_FIELDS = ("the Ferry", "the Lantern", "the Heron", "the Millwheel", "the Fox", "the Net", "the Bell", "the Harrow")
_SEEN_WITH = ("naked eye", "binoculars", "small telescope", "40 cm reflector")


def make_tables(connect: Connect, who: SignedIn, *, examples: Path, files: Path | None = None) -> dict[str, KnownTable]:
    """Make the tables of the examples, and the catalogue; return what forms know of each, by its name in examples.

    With a folder of `files` some records have pictures.
    """
    made: dict[str, KnownTable] = {}
    for name in _TABLES:
        path = examples / "tables" / f"{name}.json"
        definition = with_tables(json.loads(path.read_text(encoding="utf-8")), made)
        rows = _ROWS[name]() if name in _ROWS else _lines(path.with_suffix(".csv"))
        rows = _since_today(rows) if name == "sightings" else rows
        by_label = {each["label"]: each["id"] for each in definition["columns"]}
        cells = [{by_label[label]: text for label, text in row.items() if label in by_label} for row in rows]
        made[name] = _make(connect, who, definition, cells)
        if files is not None and name in _PICTURED:
            _add_pictures(connect, who, files, UUID(made[name].id), column=_PICTURED[name], count=len(rows))
        if name == "sightings":
            _publish(connect, who, UUID(made[name].id), count=len(rows) - _WAITING)
        if name == "instruments":
            made["pieces"] = _make_pieces(connect, who, examples, made, rows)
    return made


def with_tables(document: Any, made: Mapping[str, KnownTable]) -> Any:
    """Return a definition of the examples with the ids of tables in the place of their names there."""
    if isinstance(document, list):
        return [with_tables(each, made) for each in document]
    if not isinstance(document, dict):
        return document
    found = {name: with_tables(each, made) for name, each in document.items()}
    if "tables" in found:
        found["tables"] = [made[each["id"]].model_dump(mode="json") for each in found["tables"]]
    if isinstance(found.get("table"), str):
        found["table"] = made[found["table"]].id
    return found


def _lines(path: Path) -> list[dict[str, str]]:
    return [dict(line.cells) for line in read_table(path.read_bytes()).lines]


def _since_today(sightings: Sequence[Mapping[str, str]]) -> list[dict[str, str]]:
    """Return sightings with the day of each in the place of how many days ago it was."""
    today = datetime.datetime.now(datetime.UTC).date()
    return [{**each, _NIGHT: (today + datetime.timedelta(days=int(each[_NIGHT]))).isoformat()} for each in sightings]


def _add_pictures(connect: Connect, who: SignedIn, folder: Path, table: UUID, *, column: str, count: int) -> None:
    """Give two of three records a picture."""
    for number in range(1, count + 1):
        if number % 3:
            picture = io.BytesIO(night(f"{column} {number}"))
            file = Arriving(name=f"night {number}.png", length=None, content=picture, free=0)
            add(connect, folder, Cell(who=who, table=table, number=number, column=column), file)


def _publish(connect: Connect, who: SignedIn, table: UUID, *, count: int) -> None:
    """Let anybody read the first of a table's records."""
    content.publish(connect, who=who, table=table, numbers=range(1, count + 1), published=True)


def _make_pieces(
    connect: Connect,
    who: SignedIn,
    examples: Path,
    made: Mapping[str, KnownTable],
    instruments: Sequence[Mapping[str, str]],
) -> KnownTable:
    """Make a piece for each that there is of what is lent; the second of each is away now and then."""
    definition = with_tables(json.loads((examples / "tables" / "pieces.json").read_text(encoding="utf-8")), made)
    rows = [
        {"c1": f"{each['Instrument']} no. {number}", "c2": each["Instrument"], "c3": _state(number, len(each["Site"]))}
        for each in instruments
        if each["May be lent"] == "Yes"
        for number in range(1, int(each["Pieces"]) + 1)
    ]
    return _make(connect, who, definition, rows)


def _state(number: int, chance: int) -> str:
    return "Lent" if number == 2 else "In repair" if (number + chance) % 7 == 0 else "On the shelf"


# Those of pieces are made with the instruments.
_TABLES = ("sites", "kinds", "instruments", "loans", "talks", "catalogue", "sightings")


def _talks() -> list[dict[str, str]]:
    """Return talks of the weeks to come."""
    today = datetime.datetime.now(datetime.UTC).date()
    return [
        {
            "Title": title,
            "Speaker": speaker,
            "Day": (today + datetime.timedelta(days=days)).isoformat(),
            "Site": site,
            "Seats": str(seats),
            "What it is about": about,
        }
        for title, speaker, days, site, seats, about in _TALKS
    ]


_TALKS = (
    ("The quiet Sun", "M. Adeyemi", -12, "Summit Dome", 60, "Why it has had so few spots."),
    ("Glass and patience", "T. Lindqvist", 9, "Harbour Deck", 24, "How a mirror is ground by hand."),
    ("Späte Sterne", "M. Adeyemi", 16, "Summit Dome", 60, "In German: stars at the end of their lives."),
    ("How far is far?", "R. Castellan", 23, "Travelling Dome", 35, "From the Moon to the galaxies in seven steps."),
    ("A year of comets", "I. Sauer", 37, "Harbour Deck", 24, "What came, what went, and what is to come."),
)


def _make(
    connect: Connect, who: SignedIn, definition: Mapping[str, Any], rows: Sequence[Mapping[str, str]]
) -> KnownTable:
    table = tables.create(connect, who=who, definition=definition)
    for start in range(0, len(rows), _AT_ONCE):
        changes = [Typed(number=None, revision=None, cells=row) for row in rows[start : start + _AT_ONCE]]
        wrong = change(connect, who=who, table=table, changes=changes).wrong
        if wrong:
            raise ValueError(f"{definition['name']}: {wrong[0].column}: {wrong[0].message}")
    return known_table(table.hex, tables.show(connect, who=who, table=table).table)


def _objects() -> list[dict[str, str]]:
    """Return made-up objects of the sky, the same each time."""
    return list(_made_up(Random("catalogue")))  # noqa: S311 - no secret hangs on it


def _made_up(chance: Random) -> Iterator[dict[str, str]]:
    for number in range(1, _OBJECTS + 1):
        magnitude = round(min(15.5, chance.triangular(2.0, 15.5, 11.5)), 1)
        with_ = 0 if magnitude < 4.5 else 1 if magnitude < 8 else 2 if magnitude < 12 else 3
        yield {
            "Object": f"AC {number}",
            "Kind": chance.choices(list(_KINDS), list(_KINDS.values()))[0],
            "Field of the sky": chance.choice(_FIELDS),
            "Magnitude": f"{magnitude}",
            "Seen with": _SEEN_WITH[with_],
            "Best month": str(chance.randint(1, 12)),
        }


_ROWS = {"talks": _talks, "catalogue": _objects}
