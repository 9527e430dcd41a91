"""Where a formula failed: the same code again, with a note of which part of the formula each piece of it belongs to.

So the code that runs for visitors carries no positions; a formula is written out like this only once it has failed.
"""

import re
from collections.abc import Sequence
from dataclasses import replace
from itertools import accumulate, islice
from types import TracebackType
from typing import Any

from codexa.core.errors import Span
from codexa.core.formula.check import Typed
from codexa.core.formula.emit import Emitter, source_of
from codexa.core.formula.failing import failed
from codexa.core.formula.functions.function import Role
from codexa.core.formula.values import ErrorValue, Failed

_FILE = "<located formula>"
_MARK = re.compile("\x01(\\d+)\x01|\x02")


class _MarkingEmitter(Emitter):
    """Writes the code of each part between two marks, the first with the part's number."""

    def __init__(self, environment: dict[str, Any]) -> None:
        super().__init__(environment)
        self.spans: list[Span] = []

    def emit(self, part: Typed, role: Role) -> str:
        """Write one part as the place sees it."""
        code = super().emit(part, role)
        self.spans.append(part.node.span)
        return f"\x01{len(self.spans) - 1}\x01{code}\x02"


def located_error(typed: Typed, role: Role, arguments: Sequence[Any]) -> ErrorValue | None:
    """Run a formula and return its error with the place of the innermost part that failed; None where none does."""
    environment: dict[str, Any] = {}
    emitter = _MarkingEmitter(environment)
    marked = source_of(typed, role, emitter)
    source = _MARK.sub("", marked)

    def fail(error: Exception) -> Failed:
        value = failed(error).error
        number = _part_around(marked, *_where_it_failed(error.__traceback__, source))
        return Failed(value if number is None else replace(value, span=emitter.spans[number]))

    environment["failed"] = fail
    exec(compile(source, _FILE, "exec"), environment)  # noqa: S102 - every name in it is our own (see emit)
    value = environment["formula"](*arguments)
    return value.error if isinstance(value, Failed) else None


def _where_it_failed(trace: TracebackType | None, source: str) -> tuple[int, int]:
    """Return from which to which character of the code an error came out."""
    found = (0, 0)
    while trace is not None:
        code = trace.tb_frame.f_code
        if code.co_filename == _FILE:
            positions = next(islice(code.co_positions(), trace.tb_lasti // 2, None))
            line, last, begin, end = (each or 0 for each in positions)
            lines = [0, *accumulate(len(each) for each in source.splitlines(keepends=True))]
            found = (lines[line - 1] + begin, lines[last - 1] + end)
        trace = trace.tb_next
    return found


def _part_around(marked: str, begin: int, end: int) -> int | None:
    """Return the number of the innermost part whose code holds these characters of the code without marks."""
    around: list[tuple[int, int]] = []
    marks = 0  # characters of the marks so far
    for mark in _MARK.finditer(marked):
        at = mark.start() - marks
        marks += len(mark[0])
        if not mark[1]:
            if at >= end:
                break
            around.pop()
        elif at < end:
            around.append((at, int(mark[1])))
    return next((number for start, number in reversed(around) if start <= begin), None)
