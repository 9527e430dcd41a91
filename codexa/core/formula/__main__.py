"""Formulas from the command line, one JSON object a line in and out.

    python -m codexa.core.formula < LINES

Each line is {"formula": TEXT, "names": {NAME: VALUE}}. A number is exact, null is blank, "YYYY-MM-DD" a date, a list a
column of a repeat, {"text": …} forces text, other text is text. Out comes {"value", "type"}, or {"error", "message",
"span"}, where `span` is [start, end] in the formula's text.
"""

import datetime
import json
import sys
from collections.abc import Iterable, Iterator
from decimal import Decimal
from typing import Any

from codexa.core.context import Context
from codexa.core.formula import convert
from codexa.core.formula.compile import compile_formula, locate, plain_type
from codexa.core.formula.functions.function import Role
from codexa.core.formula.scope import Reference
from codexa.core.formula.types import Type
from codexa.core.formula.values import ErrorValue, use_exact_arithmetic


class PlainNames:
    """A scope of names that stand for given values; case does not matter."""

    def __init__(self, names: dict[str, Any]) -> None:
        self.values = list(names.values())
        self._slots = {tuple(name.lower().split(".")): slot for slot, name in enumerate(names)}

    def find(self, parts: tuple[str, ...]) -> Reference | None:
        """Return the value's place, or None."""
        slot = self._slots.get(parts)
        if slot is None:
            return None
        kind = plain_type(self.values[slot])
        return Reference(slot=slot, type=Type(kind=kind.kind, is_list=kind.is_list, may_be_blank=True), can_fail=False)

    def nearest(self, parts: tuple[str, ...]) -> str | None:
        """Suggest nothing."""
        return None


def read_value(given: Any) -> Any:
    """Return the value of a line's JSON."""
    match given:
        case list():
            return [read_value(item) for item in given]
        case {"text": str(text), **rest} if not rest:
            return text
        case bool() | None | Decimal():
            return given
        case int():
            return Decimal(given)
        case str() if len(given) == 10 and given[4:8:3] == "--":
            try:
                return datetime.date.fromisoformat(given)
            except ValueError:
                return given
        case str():
            return given
    raise ValueError(f"{str(given)[:60]} is no value; write a number, text, true, false, null, a list or a date")


def result_of(line: str, context: Context) -> dict[str, Any]:
    """Return what one line gives, as JSON; a line that can't be read gives #VALUE! with the cause."""
    try:
        asked = json.loads(line, parse_float=Decimal)
        names = {str(name): read_value(value) for name, value in asked.get("names", {}).items()}
        formula = str(asked["formula"])
    except (ValueError, KeyError, AttributeError, ArithmeticError, RecursionError) as error:
        return {"error": "#VALUE!", "message": f"This line can't be read: {error}.", "span": [0, 0]}
    return _computed(formula, PlainNames(names), context)


def _computed(formula: str, scope: PlainNames, context: Context) -> dict[str, Any]:
    use_exact_arithmetic()
    compiled = compile_formula(formula, scope, Role.VALUE)
    error = locate(compiled, scope.values, context)
    if error is not None:
        return _error(error)
    value = compiled.run(scope.values, context)
    return {"value": _written(value), "type": plain_type(value).name}


def _error(error: ErrorValue) -> dict[str, Any]:
    span = [error.span.start, error.span.end] if error.span else [0, 0]
    return {"error": str(error.code), "message": error.message, "span": span}


def _written(value: Any) -> Any:
    if isinstance(value, list):
        return [_written(item) for item in value]
    return value if value is None or isinstance(value, bool) else convert.text(value)


def results(lines: Iterable[str]) -> Iterator[dict[str, Any]]:
    """Yield the result of every line that is not blank."""
    context = Context(now=datetime.datetime.now(datetime.UTC))
    return (result_of(line, context) for line in lines if line.strip())


if __name__ == "__main__":
    for result in results(sys.stdin):
        sys.stdout.write(json.dumps(result, ensure_ascii=False) + "\n")
