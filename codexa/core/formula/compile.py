"""From a formula's text to a function that computes it, and from a failure to its place."""

import datetime
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from functools import cached_property
from typing import Any

from codexa.core.errors import FormulaSyntaxError, Span
from codexa.core.formula import tree
from codexa.core.formula.check import FormulaFinding, Severity, Typed, check
from codexa.core.formula.emit import Emitter, TooComplexError, source_of
from codexa.core.formula.failing import failed
from codexa.core.formula.functions import FUNCTIONS
from codexa.core.formula.functions.function import Role
from codexa.core.formula.locating import located_error
from codexa.core.formula.parse import parse
from codexa.core.formula.scope import Reference, Scope
from codexa.core.formula.types import ANY, Kind, Type
from codexa.core.formula.values import Choice, Choices, ChosenRecord, ChosenRecords, ErrorCode, ErrorValue, Failed

Computation = Callable[..., Any]


@dataclass(frozen=True, kw_only=True)
class Compiled:
    """A formula ready to run.

    `run(values, context, row, option)` returns the value or a `Failed`, and never raises; `source` is the Python
    written for it; `reads` is what its names stand for.
    """

    text: str
    role: Role
    typed: Typed | None
    type: Type
    reads: tuple[Reference, ...]
    findings: tuple[FormulaFinding, ...]

    @cached_property
    def run(self) -> Computation:
        """The function, compiled when it is first needed: a form's formulas run together in one of its own."""
        if self.typed is None:
            failed = Failed(unreadable_error(self))
            return lambda *_ignored: failed
        try:
            return _function(self)
        except NOT_COMPILED:
            too_complex = Failed(unreadable_error(too_complex_to_run(self)))
            return lambda *_ignored: too_complex

    @property
    def source(self) -> str:
        """The Python written for the formula, for inspection."""
        return "" if self.typed is None else source_of(self.typed, self.role, Emitter({}))


# What Python raises of code that is too long or nested too deep for it, and what we raise before that.
NOT_COMPILED = (SyntaxError, RecursionError, MemoryError, ValueError, TooComplexError)


def _function(compiled: Compiled) -> Computation:
    assert compiled.typed is not None
    environment: dict[str, Any] = {}
    source = source_of(compiled.typed, compiled.role, Emitter(environment))
    environment["failed"] = failed
    exec(compile(source, "<formula>", "exec"), environment)  # noqa: S102 - every name in it is our own (see emit)
    function: Computation = environment["formula"]
    return function


def can_run(compiled: Compiled) -> bool:
    """Say whether Python takes the code that is written for the formula; one that can't be read counts as such."""
    if compiled.typed is None:
        return True
    try:
        _function(compiled)
    except NOT_COMPILED:
        return False
    return True


def too_complex_to_run(compiled: Compiled) -> Compiled:
    """Return a formula that can't run as what it is: a finding, and an error value."""
    message = "This formula is too long, or nested too deep, to be worked out. Split it into several figures."
    span = Span(start=0, end=len(compiled.text))
    finding = FormulaFinding(severity=Severity.ERROR, code="too_complex", message=message, span=span)
    return replace(compiled, typed=None, type=ANY, reads=(), findings=(finding, *compiled.findings))


def unreadable_error(compiled: Compiled) -> ErrorValue:
    """Return the error value of a formula that can't be read."""
    finding = compiled.findings[0]
    return ErrorValue(code=ErrorCode.VALUE, message=finding.message, span=finding.span)


def compile_formula(text: str, scope: Scope, role: Role = Role.VALUE) -> Compiled:
    """Compile a formula; what is wrong with it is in `findings`, and running it then gives the error value."""
    try:
        parsed = parse(text)
    except FormulaSyntaxError as error:
        return _unreadable(text, error, role)
    return compile_tree(parsed, scope, role, text)


def compile_tree(parsed: tree.Tree, scope: Scope, role: Role = Role.VALUE, text: str = "") -> Compiled:
    """Compile a tree; see `compile_formula`."""
    typed, findings = check(parsed, scope, FUNCTIONS)
    reads = tuple(dict.fromkeys(part.reference for part in typed.walk() if part.reference))
    return Compiled(text=text, role=role, typed=typed, type=typed.type, reads=reads, findings=findings)


def _unreadable(text: str, error: FormulaSyntaxError, role: Role) -> Compiled:
    finding = FormulaFinding(severity=Severity.ERROR, code="unreadable", message=error.message, span=error.span)
    return Compiled(text=text, role=role, typed=None, type=ANY, reads=(), findings=(finding,))


def locate(compiled: Compiled, values: Sequence[Any], context: Any, row: Sequence[Any] = ()) -> ErrorValue | None:
    """Run a formula and return its error with the place where it arose, or None where there is no error."""
    if compiled.typed is not None:
        try:
            return located_error(compiled.typed, compiled.role, (values, context, row))
        except NOT_COMPILED:
            pass  # that it is too complex is the error
    result = compiled.run(values, context, row)
    return result.error if isinstance(result, Failed) else None


def plain_type(value: Any) -> Type:
    """Return the type of a value that stands alone (the command line's names, an example's result)."""
    if isinstance(value, list):
        kinds = {plain_type(item).kind for item in value if item is not None}
        return Type(kind=kinds.pop() if len(kinds) == 1 else Kind.ANY, is_list=True)
    kind = _PLAIN_KINDS.get(type(value), Kind.ANY)
    return Type(kind=kind, may_be_blank=value is None)


_PLAIN_KINDS: dict[type, Kind] = {
    Decimal: Kind.NUMBER,
    str: Kind.TEXT,
    bool: Kind.YES_NO,
    type(None): Kind.BLANK,
    datetime.date: Kind.DATE,
    datetime.time: Kind.TIME,
    datetime.datetime: Kind.DATE_TIME,
    Choice: Kind.CHOICE,
    Choices: Kind.CHOICES,
    ChosenRecord: Kind.RECORD,
    ChosenRecords: Kind.RECORDS,
}
