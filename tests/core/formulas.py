"""Running a single formula in tests."""

import datetime
from decimal import Decimal

from codexa.core.context import Context
from codexa.core.formula.compile import compile_formula, locate, plain_type
from codexa.core.formula.scope import Reference
from codexa.core.formula.types import ANY, Kind, Type
from codexa.core.formula.values import Choice, Failed, use_exact_arithmetic

CONTEXT = Context(now=datetime.datetime(2026, 11, 23, 10, 30, tzinfo=datetime.UTC))


class Names:
    """A scope of names and values; with `typed` false nothing is known of their types before the formula runs.

    `types` are those of figures, which may have failed.
    """

    def __init__(self, values, *, typed=True, types=None):
        self.values = list(values.values())
        self._slots = {(name,): slot for slot, name in enumerate(values)}
        self._typed = typed
        self._types = types or {}

    def find(self, parts):
        if parts not in self._slots:
            return None
        value = self.values[self._slots[parts]]
        kind = self._types.get(parts[0]) or type_of(value)
        if not self._typed and not kind.is_list:
            kind = ANY
        can_fail = not self._typed or parts[0] in self._types
        return Reference(slot=self._slots[parts], type=kind, can_fail=can_fail)

    def nearest(self, parts):
        return None


def type_of(value):
    if isinstance(value, Choice):
        return Type(kind=Kind.CHOICE, may_be_blank=True)
    if isinstance(value, datetime.date):
        return Type(kind=Kind.DATE, may_be_blank=True)
    plain = plain_type(value)
    return Type(kind=plain.kind, is_list=plain.is_list, may_be_blank=True)


def read(value):
    """Return the value of a case's JSON: a number or its text, "YYYY-MM-DD" a date, {"text": …} text, a list."""
    if isinstance(value, list):
        return [read(item) for item in value]
    if isinstance(value, dict):
        return value["text"]
    if isinstance(value, bool) or value is None:
        return value
    if isinstance(value, str) and len(value) == 10 and value[4] == "-":
        return datetime.date.fromisoformat(value)
    return Decimal(str(value))


def run(formula, names=None, *, typed=True):
    """Return the value of a formula, or its located ErrorValue."""
    use_exact_arithmetic()
    scope = Names(names or {}, typed=typed)
    compiled = compile_formula(formula, scope)
    result = compiled.run(scope.values, CONTEXT)
    return locate(compiled, scope.values, CONTEXT) if isinstance(result, Failed) else result
