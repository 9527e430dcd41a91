"""From a formula's text to a function that computes it, and from a failure to its place."""

import datetime
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal, DivisionByZero, DivisionUndefined, InvalidOperation, Overflow
from typing import Any

from codexa.core.errors import FormulaSyntaxError, Span
from codexa.core.formula import tree
from codexa.core.formula.check import FormulaFinding, Severity, Typed, check
from codexa.core.formula.emit import Emitter
from codexa.core.formula.functions.function import Role
from codexa.core.formula.parse import parse
from codexa.core.formula.scope import Scope
from codexa.core.formula.types import ANY, Kind, Type
from codexa.core.formula.values import Choice, Choices, ErrorCode, ErrorValue, Failed, FormulaFailure

Computation = Callable[[Sequence[Any], Any], Any]


@dataclass(frozen=True, kw_only=True, slots=True)
class Compiled:
    """A formula ready to run.

    `run(values, context)` returns the value or a `Failed`, and never raises; `source` is the Python written for it;
    `reads` are the slots that it reads, `names` the names.
    """

    text: str
    typed: Typed | None
    type: Type
    run: Computation
    source: str
    reads: tuple[int, ...]
    findings: tuple[FormulaFinding, ...]


def compile_formula(text: str, scope: Scope, role: Role = Role.VALUE) -> Compiled:
    """Compile a formula; what is wrong with it is in `findings`, and running it then gives the error value."""
    try:
        parsed = parse(text)
    except FormulaSyntaxError as error:
        return _unreadable(text, error)
    return compile_tree(parsed, scope, role, text)


def compile_tree(parsed: tree.Tree, scope: Scope, role: Role = Role.VALUE, text: str = "") -> Compiled:
    """Compile a tree; see `compile_formula`."""
    typed, findings = check(parsed, scope)
    reads = tuple(sorted({part.reference.slot for part in typed.walk() if part.reference}))
    source, environment = _source(typed, role)
    return Compiled(
        text=text,
        typed=typed,
        type=typed.type,
        run=_guarded(_function(source, environment), reads),
        source=source,
        reads=reads,
        findings=findings,
    )


def _source(typed: Typed, role: Role) -> tuple[str, dict[str, Any]]:
    emitter = Emitter()
    result = emitter.emit(typed, role)
    fetched = "".join(f"    {name} = {code}\n" for name, code in sorted(emitter.fetched.items()))
    return f"def formula(v, c):\n{fetched}    return {result}\n", emitter.environment


def _function(source: str, environment: dict[str, Any]) -> Computation:
    exec(compile(source, "<formula>", "exec"), environment)  # noqa: S102 - every name in it is our own (see emit)
    function: Computation = environment["formula"]
    return function


def _guarded(function: Computation, reads: tuple[int, ...]) -> Computation:
    def run(values: Sequence[Any], context: Any) -> Any:
        try:
            return function(values, context)
        except Exception as error:  # nothing a form can hold may raise to a visitor
            return _failed(error, reads, values)

    return run


def _failed(error: Exception, reads: tuple[int, ...], values: Sequence[Any]) -> Failed:
    if isinstance(error, FormulaFailure):
        return Failed(error.error)
    if isinstance(error, TypeError):
        # A function written in C does not know what to do with a failed fact; the fact's own cause is what counts.
        for slot in reads:
            if isinstance(values[slot], Failed):
                failed: Failed = values[slot]
                return failed
    return Failed(_arithmetic_error(error))


def _arithmetic_error(error: Exception) -> ErrorValue:
    signals = error.args[0] if isinstance(error, InvalidOperation) and error.args else ()
    undefined = isinstance(signals, list) and DivisionUndefined in signals
    if isinstance(error, DivisionByZero) or undefined:
        return ErrorValue(code=ErrorCode.DIVISION, message="This divides by zero.")
    if isinstance(error, Overflow):
        return ErrorValue(code=ErrorCode.NUMBER, message="The number is too large to hold.")
    if isinstance(error, InvalidOperation):
        return ErrorValue(code=ErrorCode.NUMBER, message="There is no such number.")
    return ErrorValue(code=ErrorCode.VALUE, message="These values can't be computed with.")


def _unreadable(text: str, error: FormulaSyntaxError) -> Compiled:
    failed = Failed(ErrorValue(code=ErrorCode.VALUE, message=error.message, span=error.span))
    finding = FormulaFinding(severity=Severity.ERROR, code="unreadable", message=error.message, span=error.span)
    return Compiled(
        text=text,
        typed=None,
        type=ANY,
        run=lambda _values, _context: failed,
        source="",
        reads=(),
        findings=(finding,),
    )


def locate(compiled: Compiled, scope: Scope, values: Sequence[Any], context: Any) -> ErrorValue | None:
    """Run a formula and return its error with the place where it arose, or None where there is no error.

    Each part is run on its own by the same compiler, so that the quick code need not carry positions.
    """
    result = compiled.run(values, context)
    if not isinstance(result, Failed):
        return None
    if compiled.typed is None or result.error.span is not None:
        return result.error
    node = compiled.typed.node
    while (inner := _failing_part(node, result.error, scope, values, context)) is not None:
        node = inner
    return replace(result.error, span=Span(start=node.span.start, end=node.span.end))


def _failing_part(
    node: tree.Tree, error: ErrorValue, scope: Scope, values: Sequence[Any], context: Any
) -> tree.Tree | None:
    for child in tree.children(node):
        result = compile_tree(child, scope).run(values, context)
        if isinstance(result, Failed) and (result.error.code, result.error.message) == (error.code, error.message):
            return child
    return None


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
}
