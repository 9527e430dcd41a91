"""Answers as programs and tables give them, by key: as visitors would have entered them."""

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Any

from codexa.core.errors import UNREADABLE
from codexa.core.program.evaluate import FieldError
from codexa.core.program.places import Place, RepeatPlace
from codexa.core.program.program import Program

_MOST_ROWS = 1_000


@dataclass(frozen=True, kw_only=True, slots=True)
class Entered:
    """Raw answers by block id, and what could not be read, by the path of its keys ("guests.0.age")."""

    answers: dict[str, Any]
    wrong: dict[str, FieldError]


def entered_by_key(program: Program, given: Mapping[str, Any]) -> Entered:
    """Return answers that are given by key as a visitor would have entered them.

    Texts are as links have them (numbers with a point, dates as in ISO 8601, options by code or label), all else as
    responses are told to programs. A repeat is a list of rows, each with its `kind` and its fields by key.
    """
    reading = _Reading(program)
    known = {
        getattr(place.block, "key", ""): place
        for place in program.top_places
        if isinstance(place, RepeatPlace) or place.answered
    }
    answers: dict[str, Any] = {}
    for key, value in given.items():
        place = known.get(key)
        if place is None:
            reading.refuse(key, "unknown_field", "This form asks for nothing of that key.")
        elif isinstance(place, RepeatPlace):
            answers[place.block.id] = reading.rows(place, value, key)
        else:
            reading.enter(place, value, key, answers)
    return Entered(answers=answers, wrong=reading.wrong)


def path_of(program: Program, address: str) -> str:
    """Return where something stands that the core calls by ids ("REPEAT/ROW/BLOCK"), as the path of its keys."""
    parts = address.split("/")
    names = [getattr(program.places[part].block, "key", part) if part in program.places else part for part in parts]
    # Rows were named r0, r1 … as they came.
    return ".".join(name[1:] if at == 1 and name[1:].isdigit() else name for at, name in enumerate(names))


class _Reading:
    """Reads values one after the other, and notes what can't be read."""

    def __init__(self, program: Program) -> None:
        self._program = program
        self.wrong: dict[str, FieldError] = {}

    def refuse(self, path: str, code: str, message: str) -> None:
        self.wrong[path[:200]] = FieldError(code=code, message=message)

    def enter(self, place: Place, value: Any, path: str, into: dict[str, Any]) -> None:
        try:
            into[place.block.id] = self._raw(place, value)
        except UNREADABLE:
            self.refuse(path, "not_readable", "This is not what the field keeps. See the form's schema.")

    def _raw(self, place: Place, value: Any) -> Any:
        kind, block = place.field_type, place.block
        assert kind is not None
        if value is None:
            return None
        if isinstance(value, str):
            return kind.from_link(value, block, self._program.region)
        if isinstance(value, int | Decimal) and not isinstance(value, bool):
            return kind.from_link(format(value, "f"), block, self._program.region)
        return kind.enter(kind.load(value, block), block, self._program.region)

    def rows(self, place: RepeatPlace, value: Any, key: str) -> list[dict[str, Any]]:
        if not isinstance(value, list) or len(value) > _MOST_ROWS or not all(isinstance(each, dict) for each in value):
            self.refuse(key, "not_rows", "Give a list of rows, each with its kind and its fields by key.")
            return []
        return [self._row(place, each, f"{key}.{at}", at) for at, each in enumerate(value)]

    def _row(self, place: RepeatPlace, given: Mapping[str, Any], path: str, at: int) -> dict[str, Any]:
        only = place.kinds[0].kind.key if len(place.kinds) == 1 else None
        kind = place.kind_named(given.get("kind", only))
        if kind is None:
            self.refuse(f"{path}.kind", "unknown_row", "The form has no such kind of row.")
            return {"kind": "", "id": f"r{at}", "values": {}}
        known = {getattr(each.block, "key", ""): each for each in kind.places if each.answered}
        values: dict[str, Any] = {}
        for key, value in given.items():
            inner = known.get(key)
            if inner is not None:
                self.enter(inner, value, f"{path}.{key}", values)
            elif key != "kind":
                self.refuse(f"{path}.{key}", "unknown_field", "Such a row has nothing of that key.")
        return {"kind": kind.kind.id, "id": f"r{at}", "values": values}
