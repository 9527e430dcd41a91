"""What happens when a formula fails: an error value for its author, and a report where the program is at fault."""

import logging
from collections.abc import Callable
from decimal import DivisionByZero, DivisionUndefined, InvalidOperation, Overflow
from typing import Any

from codexa.core.errors import AnswerError, where_it_failed
from codexa.core.formula.values import ErrorCode, ErrorValue, Failed, FormulaFailure

# What a formula may meet; anything else is a defect of the program.
_EXPECTED = (FormulaFailure, AnswerError, ArithmeticError)
_LOG = logging.getLogger("codexa.formula")
_DIVIDED = Failed(ErrorValue(code=ErrorCode.DIVISION, message="This divides by zero."))


def noticed(error: Exception) -> None:
    """Report an error that no formula may cause, by its kind and places: its message could quote an answer."""
    if not isinstance(error, _EXPECTED):
        _LOG.error("A formula met a defect: %s", " < ".join(where_it_failed(error)))


def failed(error: Exception) -> Failed:
    """Return what stands for a formula that stopped with that error."""
    if isinstance(error, FormulaFailure):
        return Failed(error.error)
    noticed(error)
    return Failed(_error_value(error))


def _error_value(error: Exception) -> ErrorValue:
    signals = error.args[0] if isinstance(error, InvalidOperation) and error.args else ()
    undefined = isinstance(signals, list) and DivisionUndefined in signals
    if isinstance(error, DivisionByZero) or undefined:
        return _DIVIDED.error
    if isinstance(error, Overflow):
        return ErrorValue(code=ErrorCode.NUMBER, message="The number is too large to hold.")
    if isinstance(error, ArithmeticError):
        return ErrorValue(code=ErrorCode.NUMBER, message="There is no such number.")
    if isinstance(error, AnswerError):
        return ErrorValue(code=ErrorCode.VALUE, message=error.message)
    return ErrorValue(code=ErrorCode.VALUE, message="This can't be worked out, by a mistake of ours; it was reported.")


def sound(value: Any) -> Any:
    """Return a value; a failed one fails here, before what else would be worked out."""
    if value.__class__ is Failed:
        raise FormulaFailure(value.error)
    return value


def tried(compute: Callable[[], Any]) -> Any:
    """Return what is computed, or a Failed where that fails: for a function that sees failures."""
    try:
        return compute()
    except DivisionByZero:  # what IFERROR is mostly for
        return _DIVIDED
    except Exception as error:
        return failed(error)
