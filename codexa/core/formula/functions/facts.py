"""Facts about values: is it blank, is it a number, is it an error."""

from collections.abc import Callable
from decimal import Decimal
from typing import Any

from codexa.core.formula.functions.function import Argument, CodeWriter, Example, Function, Parameter, Role
from codexa.core.formula.types import BLANK, YES_NO
from codexa.core.formula.values import ErrorCode, Failed, FormulaFailure, fail

_VALUE = Parameter("value", Role.VALUE)


def _emit_is_blank(emitter: CodeWriter, call: Argument, role: Role) -> str:
    return emitter.convert(f"({emitter.emit(call.parts[0], Role.VALUE)} is None)", YES_NO, role)


def _error_of(tried: Callable[[], Any]) -> ErrorCode | None:
    try:
        value = tried()
    except FormulaFailure as failure:
        return failure.error.code
    except Exception:  # an arithmetic error; its code is never #N/A, which is all that is asked
        return ErrorCode.VALUE
    return value.error.code if isinstance(value, Failed) else None


def _is_error(tried: Callable[[], Any]) -> bool:
    return _error_of(tried) is not None


def _is_other_error(tried: Callable[[], Any]) -> bool:
    return _error_of(tried) not in (None, ErrorCode.NOT_AVAILABLE)


def _is_not_available(tried: Callable[[], Any]) -> bool:
    return _error_of(tried) is ErrorCode.NOT_AVAILABLE


def _emit_tried(test: Callable[[Callable[[], Any]], bool]) -> Callable[[CodeWriter, Argument, Role], str]:
    def emit(emitter: CodeWriter, call: Argument, role: Role) -> str:
        code = f"{emitter.helper(test)}(lambda: {emitter.emit(call.parts[0], Role.VALUE)})"
        return emitter.convert(code, YES_NO, role)

    return emit


def _not_available() -> Any:
    return fail(ErrorCode.NOT_AVAILABLE, "There is no such value.")


FUNCTIONS = (
    Function(
        name="ISBLANK",
        parameters=(_VALUE,),
        result=YES_NO,
        purpose="Whether nothing was entered.",
        examples=(Example('ISBLANK("a")', "FALSE"),),
        emit=_emit_is_blank,
    ),
    Function(
        name="ISNUMBER",
        parameters=(_VALUE,),
        result=YES_NO,
        purpose="Whether the value is a number.",
        examples=(Example("ISNUMBER(1.5)", "TRUE"), Example('ISNUMBER("1.5")', "FALSE")),
        call=lambda value: isinstance(value, Decimal),
    ),
    Function(
        name="ISTEXT",
        parameters=(_VALUE,),
        result=YES_NO,
        purpose="Whether the value is text.",
        examples=(Example('ISTEXT("a")', "TRUE"),),
        call=lambda value: isinstance(value, str),
    ),
    Function(
        name="ISERROR",
        parameters=(_VALUE,),
        result=YES_NO,
        purpose="Whether the value is an error.",
        examples=(Example("ISERROR(1/0)", "TRUE"),),
        emit=_emit_tried(_is_error),
    ),
    Function(
        name="ISERR",
        parameters=(_VALUE,),
        result=YES_NO,
        purpose="Whether the value is an error other than #N/A.",
        examples=(Example("ISERR(1/0)", "TRUE"), Example("ISERR(NA())", "FALSE")),
        emit=_emit_tried(_is_other_error),
    ),
    Function(
        name="ISNA",
        parameters=(_VALUE,),
        result=YES_NO,
        purpose="Whether the value was looked for and not found (#N/A).",
        examples=(Example("ISNA(NA())", "TRUE"), Example("ISNA(1/0)", "FALSE")),
        emit=_emit_tried(_is_not_available),
    ),
    Function(
        name="ISLOGICAL",
        parameters=(_VALUE,),
        result=YES_NO,
        purpose="Whether the value is yes or no.",
        examples=(Example("ISLOGICAL(TRUE)", "TRUE"), Example("ISLOGICAL(1)", "FALSE")),
        call=lambda value: isinstance(value, bool),
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
