"""Facts about values: is it blank, is it a number, is it an error. A value that failed is none of the others."""

from collections.abc import Callable
from decimal import Decimal
from typing import Any

from codexa.core.formula.functions.function import Example, Function, Parameter, Role
from codexa.core.formula.types import BLANK, YES_NO
from codexa.core.formula.values import ErrorCode, Failed, fail


def _fact(name: str, holds: Callable[[Any], bool], purpose: str, *examples: tuple[str, str]) -> Function:
    return Function(
        name=name,
        parameters=(Parameter("value", Role.VALUE),),
        result=YES_NO,
        purpose=purpose,
        examples=tuple(Example(*each) for each in examples),
        call=holds,
        sees_failures=True,
    )


def _is_error(value: Any) -> bool:
    return value.__class__ is Failed


def _is_not_available(value: Any) -> bool:
    return value.__class__ is Failed and value.error.code is ErrorCode.NOT_AVAILABLE


def _is_other_error(value: Any) -> bool:
    return value.__class__ is Failed and value.error.code is not ErrorCode.NOT_AVAILABLE


def _not_available() -> Any:
    return fail(ErrorCode.NOT_AVAILABLE, "There is no such value.")


FUNCTIONS = (
    _fact("ISBLANK", lambda value: value is None, "Whether nothing was entered.", ('ISBLANK("a")', "FALSE")),
    _fact(
        "ISNUMBER",
        lambda value: isinstance(value, Decimal),
        "Whether the value is a number.",
        ("ISNUMBER(1.5)", "TRUE"),
        ('ISNUMBER("1.5")', "FALSE"),
        ('ISNUMBER(SEARCH("x", "dome"))', "FALSE"),
    ),
    _fact("ISTEXT", lambda value: isinstance(value, str), "Whether the value is text.", ('ISTEXT("a")', "TRUE")),
    _fact("ISERROR", _is_error, "Whether the value is an error.", ("ISERROR(1/0)", "TRUE")),
    _fact(
        "ISERR",
        _is_other_error,
        "Whether the value is an error other than #N/A.",
        ("ISERR(1/0)", "TRUE"),
        ("ISERR(NA())", "FALSE"),
    ),
    _fact(
        "ISNA",
        _is_not_available,
        "Whether the value was looked for and not found (#N/A).",
        ("ISNA(NA())", "TRUE"),
        ("ISNA(1/0)", "FALSE"),
    ),
    _fact(
        "ISLOGICAL",
        lambda value: isinstance(value, bool),
        "Whether the value is yes or no.",
        ("ISLOGICAL(TRUE)", "TRUE"),
        ("ISLOGICAL(1)", "FALSE"),
    ),
    Function(
        name="NA",
        parameters=(),
        result=BLANK,
        purpose="The error #N/A: there is no such value.",
        examples=(Example("NA()", "#N/A"),),
        call=_not_available,
    ),
)
