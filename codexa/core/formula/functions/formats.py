"""TEXT: a value written by a format, in the form's language."""

import datetime
from collections.abc import Callable, Iterable
from decimal import Decimal
from typing import Any

from codexa.core.errors import Span
from codexa.core.formula import convert, tree
from codexa.core.formula.functions.date_formats import moment_in_format, read_date_format
from codexa.core.formula.functions.format_pieces import FormatError
from codexa.core.formula.functions.function import Argument, Function, Parameter, Remark, Role, function
from codexa.core.formula.functions.number_formats import number_in_format, read_number_format
from codexa.core.formula.types import COUNTED, MOMENTS, TEXT, Kind
from codexa.core.formula.values import ErrorCode, fail

_MOST = 60  # characters of a format


def written(context: Any, value: Any, code: str) -> str:
    """Return a number, date or time as text by a format; text stays as it is, blank is ""."""
    if len(code) > _MOST:
        fail(ErrorCode.VALUE, f"A format has at most {_MOST} characters.")
    try:
        if value.__class__ is Decimal:
            return number_in_format(value, code, context.locale)
        if isinstance(value, bool) or value is None or isinstance(value, str):
            return convert.text(value)
        if isinstance(value, datetime.date | datetime.time):
            return moment_in_format(value, code, context.locale)
        return number_in_format(convert.number(value), code, context.locale)
    except FormatError as error:
        place = f" from place {error.place + 1} on" if error.place else ""
        return fail(ErrorCode.VALUE, f'The format "{code}" can\'t be used{place}: {error.message}')


def _wrong_format(call: Argument) -> Iterable[Remark]:
    value, code = call.parts
    if not isinstance(code.node, tree.Text):
        return
    readings = _readings(value.type.kind)
    wrong = [error for read in readings if (error := _error(read, code.node.value)) is not None]
    if wrong and len(wrong) == len(readings):
        error, text = wrong[0], code.node.value
        # In the formula the text begins after its quotation mark, and each mark inside is written twice.
        at = min(code.node.span.start + 1 + error.place + text[: error.place].count('"'), code.node.span.end - 1)
        yield Remark(Span(start=at, end=max(at, code.node.span.end - 1)), error.message)


def _readings(kind: Kind) -> tuple[Callable[[str], object], ...]:
    if kind in MOMENTS:
        return (read_date_format,)
    if kind is Kind.ANY:
        return (read_number_format, read_date_format)
    return (read_number_format,) if kind in COUNTED - {Kind.YES_NO, Kind.CHOICE} else ()


def _error(read: Callable[[str], object], code: str) -> FormatError | None:
    try:
        read(code)
    except FormatError as error:
        return error
    return None


FUNCTIONS: tuple[Function, ...] = (
    function(
        "TEXT",
        (Parameter("value", Role.VALUE), Parameter("format", Role.TEXT)),
        TEXT,
        'The value written by a format: "0.00", "#,##0", "0%", "0.00E+00", "0.00;(0.00);""none""", "d mmmm yyyy", '
        '"hh:mm".',
        written,
        ('TEXT(1234.5, "#,##0.00")', "1,234.50"),
        ('TEXT(5, """VR-2026-""00000")', "VR-2026-00005"),
        ('TEXT(DATE(2026, 3, 5), "d mmmm yyyy")', "5 March 2026"),
        ('TEXT(25%, "0%")', "25%"),
        needs_context=True,
        look=_wrong_format,
        differs="A choice, text and yes or no stay as they are. Colours, conditions in brackets, fractions, widths and "
        "hours above 24 are errors at their place.",
    ),
)
