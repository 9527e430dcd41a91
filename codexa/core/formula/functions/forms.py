"""What only a form has: rows of different kinds, and who fills it in."""

from decimal import Decimal
from typing import Any

from codexa.core.formula.convert import called
from codexa.core.formula.functions.function import Function, Parameter, Role, function
from codexa.core.formula.types import NUMBER, YES_NO
from codexa.core.formula.values import ErrorCode, fail


def _row_count(rows: Any, kind: str | None = None) -> Decimal:
    if not isinstance(rows, tuple | None):
        fail(ErrorCode.VALUE, f"ROWCOUNT wants a repeat, and this is {called(rows)}.")
    kinds = rows or ()
    wanted = None if kind is None else kind.casefold()
    return Decimal(sum(wanted is None or each.casefold() == wanted for each in kinds))


def _in_group(context: Any, group: str) -> bool:
    return group.casefold() in {each.casefold() for each in context.groups}


FUNCTIONS: tuple[Function, ...] = (
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
