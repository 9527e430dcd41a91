"""Facts about values: is it blank, is it a number, is it an error."""

from __future__ import annotations

from collections.abc import Callable
from decimal import Decimal
from typing import TYPE_CHECKING, Any

from codexa.core.formula.functions.function import Example, Function, Parameter, Role
from codexa.core.formula.types import YES_NO
from codexa.core.formula.values import Failed

if TYPE_CHECKING:
    from codexa.core.formula.check import Typed
    from codexa.core.formula.emit import Emitter

_VALUE = Parameter("value", Role.VALUE)


def _emit_is_blank(emitter: Emitter, call: Typed, role: Role) -> str:
    return emitter.convert(f"({emitter.emit(call.parts[0], Role.VALUE)} is None)", YES_NO, role)


def _emit_is_error(emitter: Emitter, call: Typed, role: Role) -> str:
    code = f"{emitter.helper(_is_error)}(lambda: {emitter.emit(call.parts[0], Role.VALUE)})"
    return emitter.convert(code, YES_NO, role)


def _is_error(tried: Callable[[], Any]) -> bool:
    try:
        return isinstance(tried(), Failed)
    except Exception:  # whatever a formula can meet is an error value to its author
        return True


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
        emit=_emit_is_error,
    ),
)
