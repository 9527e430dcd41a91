"""The records that a response has chosen, as they were when it was taken: a later change of a table alters none."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.look_ups import NO_TABLES, Found, KeptRecord, LookUp, Tables
from codexa.core.program.places import Place, RepeatPlace
from codexa.core.program.program import Program


@dataclass(frozen=True, kw_only=True)
class KeptTables:
    """Answers of what was chosen with what was `kept` of it, by table and number; all else is asked of `others`."""

    kept: Mapping[tuple[str, int], KeptRecord]
    others: Tables = NO_TABLES

    def look_up(self, asked: LookUp) -> Found:
        """Return what is found."""
        own = [self.kept.get((asked.table, each)) if isinstance(each, int) else None for each in asked.chosen]
        found = self.others.look_up(asked)
        chosen = tuple(one or other for one, other in zip(own, found.chosen, strict=True))
        return replace(found, chosen=chosen)


def kept_tables(program: Program, kept: Mapping[str, Any], others: Tables = NO_TABLES) -> Tables:
    """Return what answers of the records in kept answers, by block id, and for the rest as `others` do."""
    found = {
        (table, stored["record"]): KeptRecord(number=stored["record"], name=stored["shown"], values=stored["values"])
        for table, stored in _records(program, kept)
        if isinstance(stored, dict) and {"record", "shown", "values"} <= stored.keys()
    }
    return KeptTables(kept=found, others=others)


def _records(program: Program, kept: Mapping[str, Any]) -> Iterator[tuple[str, Any]]:
    for place in program.top_places:
        if isinstance(place, RepeatPlace):
            inner = {each.block.id: each for kind in place.kinds for each in kind.places}
            for row in kept.get(place.block.id) or ():
                for block, stored in row["values"].items():
                    if block in inner:
                        yield from _of_block(inner[block], stored)
        else:
            yield from _of_block(place, kept.get(place.block.id))


def _of_block(place: Place, stored: Any) -> Iterator[tuple[str, Any]]:
    if isinstance(place.block, RecordChoiceField) and stored is not None:
        yield from ((place.block.table, each) for each in (stored if isinstance(stored, list) else [stored]))
