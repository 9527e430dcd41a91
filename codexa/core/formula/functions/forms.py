"""What only a form has: rows of different kinds, and who fills it in."""

from collections.abc import Iterable
from decimal import Decimal
from typing import Any

from codexa.core.formula import tree
from codexa.core.formula.convert import called
from codexa.core.formula.functions.function import Argument, Function, Parameter, Remark, Role, function
from codexa.core.formula.types import ANY, NUMBER, YES_NO
from codexa.core.formula.values import ErrorCode, fail


def _row_count(rows: Any, kind: str | None = None) -> Decimal:
    if not isinstance(rows, tuple | None):
        fail(ErrorCode.VALUE, f"ROWCOUNT wants a repeat, and this is {called(rows)}.")
    kinds = rows or ()
    wanted = None if kind is None else kind.casefold()
    return Decimal(sum(wanted is None or each.casefold() == wanted for each in kinds))


def _in_group(context: Any, group: str) -> bool:
    return group.casefold() in {each.casefold() for each in context.groups}


def _missing(written: str = "") -> Any:
    return fail(ErrorCode.VALUE, _what_is_missing(written))


def _what_is_missing(written: str) -> str:
    if not written:
        return "Something is still missing here: choose it or write it, or remove the row."
    return f'"{written[:60]}" can\'t be read: write a number, a text in quotation marks, or a formula.'


def _still_missing(call: Argument) -> Iterable[Remark]:
    given = call.parts[0].node if call.parts else None
    yield Remark(call.node.span, _what_is_missing(given.value if isinstance(given, tree.Text) else ""))


FUNCTIONS: tuple[Function, ...] = (
    function(
        "MISSING",
        (Parameter("written", Role.TEXT, optional=True),),
        ANY,
        "Stands where something is still to be written: a condition with it does not hold, and is not published.",
        _missing,
        ("MISSING()", "#VALUE!"),
        look=_still_missing,
    ),
    function(
        "ROWCOUNT",
        (Parameter("repeat", Role.ROWS), Parameter("kind", Role.TEXT, optional=True)),
        NUMBER,
        "How many rows a repeat has, or has of one kind.",
        _row_count,
        ('ROWCOUNT("dome")', "#VALUE!"),
    ),
    function(
        "INGROUP",
        (Parameter("group", Role.TEXT),),
        YES_NO,
        "Whether who is signed in belongs to that group.",
        _in_group,
        ('INGROUP("keepers")', "FALSE"),
        needs_context=True,
    ),
)
