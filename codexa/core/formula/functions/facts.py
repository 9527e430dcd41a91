"""Facts about values: is it blank, is it a number, is it an error. A value that failed is none of the others."""

from collections.abc import Callable
from decimal import Decimal
from typing import Any

from codexa.core.formula.functions.function import Argument, CodeWriter, Example, Function, Parameter, Role, function
from codexa.core.formula.types import BLANK, YES_NO
from codexa.core.formula.values import ErrorCode, Failed, fail

_VALUE = (Parameter("value", Role.VALUE),)


def _fact(name: str, holds: Callable[[Any], bool], purpose: str, *examples: tuple[str, str]) -> Function:
    return function(name, _VALUE, YES_NO, purpose, holds, *examples, sees_failures=True)


def _is_error(value: Any) -> bool:
    return value.__class__ is Failed


def _is_not_available(value: Any) -> bool:
    return value.__class__ is Failed and value.error.code is ErrorCode.NOT_AVAILABLE


def _is_other_error(value: Any) -> bool:
    return value.__class__ is Failed and value.error.code is not ErrorCode.NOT_AVAILABLE


def _not_available() -> Any:
    return fail(ErrorCode.NOT_AVAILABLE, "There is no such value.")


def _emit_is_blank(emitter: CodeWriter, call: Argument, role: Role) -> str:
    return emitter.convert(f"({emitter.or_failed(call.parts[0])} is None)", YES_NO, role)


FUNCTIONS = (
    Function(
        name="ISBLANK",
        parameters=_VALUE,
        result=YES_NO,
        purpose="Whether nothing was entered.",
        examples=(Example('ISBLANK("a")', "FALSE"),),
        emit=_emit_is_blank,
        sees_failures=True,
    ),
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
    function("NA", (), BLANK, "The error #N/A: there is no such value.", _not_available, ("NA()", "#N/A")),
)
