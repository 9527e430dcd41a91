"""The demo's tables: what can be lent, where it stands, and a catalogue of objects to look at."""

import json
from collections.abc import Iterator
from pathlib import Path
from random import Random

from codexa.services.spreadsheets import read_table
from codexa.services.tables import tables
from codexa.services.tables.records import Typed, change
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn

_OBJECTS = 3_000
_AT_ONCE = 1_000
_KINDS = {"galaxy": 30, "open cluster": 18, "globular cluster": 8, "nebula": 14, "double star": 22, "variable star": 8}
_FIELDS = ("the Ferry", "the Lantern", "the Heron", "the Millwheel", "the Fox", "the Net", "the Bell", "the Harrow")
_SEEN_WITH = ("naked eye", "binoculars", "small telescope", "40 cm reflector")


def make_tables(connect: Connect, who: SignedIn, *, examples: Path) -> None:
    """Make the tables of the examples, and the catalogue."""
    for path in sorted((examples / "tables").glob("*.json")):
        definition = json.loads(path.read_text(encoding="utf-8"))
        lines = read_table(path.with_suffix(".csv").read_bytes()).lines
        by_label = {each["label"]: each["id"] for each in definition["columns"]}
        rows = [{by_label[label]: text for label, text in line.cells.items() if label in by_label} for line in lines]
        _make(connect, who, definition, rows)
    made_up = Random("catalogue")  # noqa: S311 - no secret hangs on it
    _make(connect, who, _CATALOGUE, list(_objects(made_up)))


def _make(connect: Connect, who: SignedIn, definition: dict[str, object], rows: list[dict[str, str]]) -> None:
    table = tables.create(connect, who=who, definition=definition)
    for start in range(0, len(rows), _AT_ONCE):
        changes = [Typed(number=None, revision=None, cells=row) for row in rows[start : start + _AT_ONCE]]
        wrong = change(connect, who=who, table=table, changes=changes).wrong
        if wrong:
            raise ValueError(f"{definition['name']}: {wrong[0].column}: {wrong[0].message}")


_CATALOGUE: dict[str, object] = {
    "name": "Catalogue of objects",
    "columns": [
        {"id": "name", "type": "short_text", "key": "name", "label": "Object", "required": "TRUE"},
        {
            "id": "kind",
            "type": "dropdown",
            "key": "kind",
            "label": "Kind",
            "options": [
                {"id": f"k{at}", "code": name.replace(" ", "_"), "label": name} for at, name in enumerate(_KINDS)
            ],
        },
        {"id": "field", "type": "short_text", "key": "field", "label": "Field of the sky"},
        {"id": "magnitude", "type": "number", "key": "magnitude", "label": "Magnitude", "decimals": 1},
        {
            "id": "seen",
            "type": "dropdown",
            "key": "seen_with",
            "label": "Seen with",
            "options": [
                {"id": f"s{at}", "code": name.replace(" ", "_"), "label": name} for at, name in enumerate(_SEEN_WITH)
            ],
        },
        {"id": "month", "type": "number", "key": "best_month", "label": "Best month", "minimum": "1", "maximum": "12"},
    ],
    "once": ["name"],
}


def _objects(chance: Random) -> Iterator[dict[str, str]]:
    for number in range(1, _OBJECTS + 1):
        magnitude = round(min(15.5, chance.triangular(2.0, 15.5, 11.5)), 1)
        with_ = 0 if magnitude < 4.5 else 1 if magnitude < 8 else 2 if magnitude < 12 else 3
        yield {
            "name": f"AC {number}",
            "kind": chance.choices(list(_KINDS), list(_KINDS.values()))[0],
            "field": chance.choice(_FIELDS),
            "magnitude": f"{magnitude}",
            "seen": _SEEN_WITH[with_],
            "month": str(chance.randint(1, 12)),
        }
