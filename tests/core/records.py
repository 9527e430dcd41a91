"""Tables in memory, for tests: they say what is meant, and a database must come to the same."""

import json
from dataclasses import dataclass, field
from decimal import Decimal
from functools import cached_property
from pathlib import Path

from codexa.core.fields import field_type_of
from codexa.core.formula.values import ChosenRecord
from codexa.core.look_ups import Every, Found, Is, IsBetween, IsBlank, IsNumber, KeptRecord, Not, Some, Tested, keys_of
from codexa.core.responses.folding import folded
from codexa.core.tables.table import known_table, table_of


@dataclass(frozen=True)
class MemoryTable:
    """A table with its records: values by column id, as the core dumps them; the first is number 1."""

    id: str
    definition: dict
    rows: tuple[dict, ...]

    @cached_property
    def table(self):
        return table_of(self.definition)

    @cached_property
    def known(self):
        return known_table(self.id, self.table).model_dump(mode="json")

    @cached_property
    def records(self):
        named = self.table.named_by
        return [
            KeptRecord(number=number, name=str(row.get(named, "")), values=row)
            for number, row in enumerate(self.rows, 1)
        ]

    def loaded(self, record):
        columns = self.table.columns
        return {each: field_type_of(columns[each]).load(value, columns[each]) for each, value in record.values.items()}


@dataclass
class MemoryTables:
    """Answers look-ups, and remembers what was asked."""

    tables: dict[str, MemoryTable]
    asked: list = field(default_factory=list)

    def look_up(self, asked):
        self.asked.append(asked)
        table = self.tables.get(asked.table)
        if table is None:
            return Found(chosen=(None,) * len(asked.chosen))
        fitting = [each for each in table.records if fits(asked.condition, each, table.loaded(each))]
        words = folded(asked.words).split()
        listed = sorted(fitting, key=lambda each: (each.name.casefold(), each.number))
        listed = [
            each for each in listed if all(word in folded(" ".join(map(str, each.values.values()))) for word in words)
        ]
        return Found(
            listed=tuple(listed[: asked.first]),
            more=len(listed) > asked.first,
            chosen=tuple(next((each for each in fitting if _is_meant(each, one)), None) for one in asked.chosen),
        )


def fits(condition, record, values):
    """Say whether a condition holds of a record with these values by column id."""
    match condition:
        case Every(conditions):
            return all(fits(each, record, values) for each in conditions)
        case Some(conditions):
            return any(fits(each, record, values) for each in conditions)
        case Not(inner):
            return not fits(inner, record, values)
        case Is(column, keys):
            return not set(keys).isdisjoint(keys_of(values.get(column)))
        case IsBlank(column):
            return values.get(column) is None
        case IsNumber(numbers):
            return record.number in numbers
        case Tested(test):
            return test(ChosenRecord(record.name, number=record.number, values=record.values))
        case IsBetween(column, least, most, open_):
            value = values.get(column)
            if value is None:
                return False
            value = value if isinstance(value, Decimal) else value.isoformat()
            bounds = [each for each in (least, most) if each is not None]
            inside = (least is None or value >= least) and (most is None or value <= most)
            return inside and not (open_ and value in bounds)
    raise AssertionError(condition)


def _is_meant(record, chosen):
    return record.number == chosen if isinstance(chosen, int) else folded(record.name) == folded(chosen)


SITES = MemoryTable(
    "sites",
    {"name": "Sites", "columns": [{"type": "short_text", "id": "name", "key": "name", "label": "Name"}]},
    ({"name": "Hill Dome"}, {"name": "Harbour Deck"}, {"name": "Marsh Hut"}),
)
INSTRUMENTS = MemoryTable(
    "instruments",
    {
        "name": "Instruments",
        "columns": [
            {"type": "short_text", "id": "name", "key": "name", "label": "Name"},
            {"type": "short_text", "id": "site", "key": "site", "label": "Site"},
            {
                "type": "dropdown", "id": "kind", "key": "kind", "label": "Kind",
                "options": [
                    {"id": "o1", "code": "reflector", "label": "Reflector"},
                    {"id": "o2", "code": "binoculars", "label": "Binoculars"},
                ],
            },
            {"type": "number", "id": "aperture", "key": "aperture", "label": "Aperture"},
            {"type": "money", "id": "charge", "key": "charge", "label": "Charge"},
            {"type": "yes_no", "id": "heavy", "key": "heavy", "label": "Heavy"},
            {"type": "date", "id": "since", "key": "since", "label": "Since"},
        ],
    },
    (
        {"name": "Juniper", "site": "Hill Dome", "kind": "reflector", "aperture": "250", "charge": "12.00",
         "heavy": True, "since": "2019-04-01"},
        {"name": "Linnet", "site": "Harbour Deck", "kind": "binoculars", "aperture": "50", "charge": "4.50",
         "heavy": False, "since": "2022-09-12"},
        {"name": "Moss", "site": "hill dome", "kind": "binoculars", "aperture": "70", "charge": "6.00"},
        {"name": "Plover", "site": "Hill Dome", "kind": "reflector", "charge": "18.00", "heavy": True},
    ),
)  # fmt: skip


def tables():
    return MemoryTables({each.id: each for each in (SITES, INSTRUMENTS)})


EXAMPLES = Path(__file__).parent.parent.parent / "examples" / "tables"
_SITE = {"record": 1, "shown": "Harbour Deck", "values": {"c1": "Harbour Deck", "c4": "Along the pier"}}
_KIND = {"record": 1, "shown": "Binoculars", "values": {}}
_GLASS = {"record": 1, "shown": "Harbour glass", "values": {}}
_EXAMPLE_ROWS = {
    "sites": ({"c1": "Harbour Deck", "c2": "Tomas Reyl", "c4": "Along the pier"},),
    "kinds": ({"c1": "Binoculars", "c2": "Wide fields", "c3": [_SITE]},),
    "instruments": ({"c1": "Harbour glass", "c2": _SITE, "c3": _KIND, "c4": "70", "c5": "6.00", "c7": True},),
    "pieces": tuple({"c1": f"Harbour glass no. {number}", "c2": _GLASS, "c3": "shelf"} for number in (1, 2)),
    "talks": ({"c1": "How far is far?", "c2": "R. Castellan", "c3": "2027-03-01", "c4": _SITE, "c5": "400000"},),
    "sightings": ({"c1": "A double star split", "c2": "2026-11-20"},),
    "catalogue": ({"name": "AC 29", "kind": "galaxy", "field": "the Heron"},),
}


def example_tables():
    """The tables of the examples, each with a record or two."""
    made = (
        MemoryTable(name, json.loads((EXAMPLES / f"{name}.json").read_text(encoding="utf-8")), rows)
        for name, rows in _EXAMPLE_ROWS.items()
    )
    return MemoryTables({each.id: each for each in made})
