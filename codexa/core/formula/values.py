"""What formulas compute with: decimals, texts, dates, choices, blanks and error values."""

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Context, Decimal, DivisionByZero, InvalidOperation, Overflow, setcontext
from enum import StrEnum
from typing import Any, NoReturn, Self

from codexa.core.errors import Span

# IEEE 754 decimal128 holds 34 digits; half-up is how invoices are rounded.
ARITHMETIC = Context(
    prec=34, rounding=ROUND_HALF_UP, Emax=6144, Emin=-6143, traps=[DivisionByZero, InvalidOperation, Overflow]
)
# Wide enough for all digits of any number here.
WIDE = Context(prec=13_000, rounding=ROUND_HALF_UP, Emax=20_000, Emin=-20_000)
# 1/3*3 must equal 1: what 34 digits leave over is rounded away before anything is compared.
_COMPARED_DIGITS = 28
_COMPARED = Context(
    prec=_COMPARED_DIGITS, rounding=ROUND_HALF_UP, Emax=6144, Emin=-6143, traps=[InvalidOperation, Overflow]
)
compared = _COMPARED.plus

ZERO = Decimal(0)
ONE = Decimal(1)
HUNDREDTH = Decimal("0.01")


def difference(left: Decimal, right: Decimal) -> Decimal:
    """Subtract; two numbers that are equal when compared leave nothing over: 1/3*3 - 1 is 0, as 1/3*3 = 1 is TRUE."""
    return settled(left - right, left, right)


def total(left: Decimal, right: Decimal) -> Decimal:
    """Add; a number and its opposite leave nothing over either."""
    return settled(left + right, left, -right)


def settled(result: Decimal, left: Decimal, right: Decimal) -> Decimal:
    """Return the difference of two numbers: 0 where they are equal when compared."""
    # Equal in 28 digits, they differ by no more than one in the last of these.
    if result and result.adjusted() <= left.adjusted() - _COMPARED_DIGITS + 1 and compared(left) == compared(right):
        return ZERO
    return result


def whole(number: Decimal) -> int:
    """Return a number as a count or a place is understood: without its fraction, and 1/3*3 is 1."""
    return int(compared(number))


def seen(number: Decimal, decimals: int) -> Decimal:
    """Return a number as it is written with so many decimals, half up whoever asks; 0 has no minus ("-0.00")."""
    try:
        rounded = number.quantize(Decimal((0, (1,), -decimals)), context=ARITHMETIC)
    except InvalidOperation:
        return number  # it has so many digits before the point that none after it would be exact
    return rounded or abs(rounded)


def use_exact_arithmetic() -> None:
    """Make this thread compute with 34 digits, half-up; called once before formulas run."""
    setcontext(ARITHMETIC)


class ErrorCode(StrEnum):
    """The standard's names of error values (OpenFormula 1.3, part 4, 5.12)."""

    DIVISION = "#DIV/0!"  # divided by zero
    VALUE = "#VALUE!"  # not the kind of value that is wanted
    NAME = "#NAME?"  # no such name or function
    NUMBER = "#NUM!"  # no such number, or too large to hold
    NOT_AVAILABLE = "#N/A"  # looked for and not found
    REFERENCE = "#REF!"  # the thing referred to is gone


@dataclass(frozen=True, kw_only=True, slots=True)
class ErrorValue:
    """A formula's result when there is none: the standard's code, the cause in words, and where it arose if asked."""

    code: ErrorCode
    message: str
    span: Span | None = None


class FormulaFailure(Exception):  # noqa: N818 - it carries an ErrorValue, which is the error
    """Carries an error value up to the formula's edge; never leaves the core."""

    def __init__(self, error: ErrorValue) -> None:
        super().__init__(error.message)
        self.error = error


def fail(code: ErrorCode, message: str) -> NoReturn:
    """Stop the formula with an error value."""
    raise FormulaFailure(ErrorValue(code=code, message=message))


class Failed:
    """Stands in a slot for a fact that failed: whatever a formula does with it fails for the same cause.

    So the code written out for a formula needs no test before each use, and a branch not taken costs nothing.
    """

    __slots__ = ("error",)

    def __init__(self, error: ErrorValue) -> None:
        self.error = error

    def spread(self, *_ignored: object) -> NoReturn:
        """Fail for the same cause."""
        raise FormulaFailure(self.error)

    def __getattr__(self, name: str) -> NoReturn:
        raise FormulaFailure(self.error)

    __bool__ = __eq__ = __ne__ = __lt__ = __le__ = __gt__ = __ge__ = __hash__ = spread
    __add__ = __radd__ = __sub__ = __rsub__ = __mul__ = __rmul__ = __truediv__ = __rtruediv__ = spread
    __pow__ = __rpow__ = __neg__ = __pos__ = __iter__ = __len__ = __contains__ = __getitem__ = spread


class Choice(str):
    """The chosen option: as text its code, in arithmetic the number that it counts as."""

    __slots__ = ("counts", "label")
    counts: Decimal
    label: str

    def __new__(cls, code: str, *, counts: Decimal = ZERO, label: str = "") -> Self:
        """Make the choice of the option with that code."""
        choice = super().__new__(cls, code)
        choice.counts = counts
        choice.label = label or code
        return choice


class Choices(tuple[Choice, ...]):  # noqa: SLOT001 - a grid's answers carry their questions
    """The chosen options in the order in which they are offered; in arithmetic their numbers add up."""

    @property
    def counts(self) -> Decimal:
        """The sum of what the options count as."""
        return sum((choice.counts for choice in self), ZERO)


class ChosenRecord(str):
    """A record of a table that was chosen: as text what is shown of it.

    `values` are what is known of it as its table keeps it, by column id; a record that it names in turn is
    {"record", "shown", "values"}.
    """

    __slots__ = ("number", "values")
    number: int
    values: Mapping[str, Any]

    def __new__(cls, shown: str, *, number: int, values: Mapping[str, Any]) -> Self:
        """Make the value of the record with that number in its table."""
        record = super().__new__(cls, shown or str(number))
        record.number, record.values = number, values
        return record


class ChosenRecords(tuple[ChosenRecord, ...]):
    """The records of a table that were chosen, in the visitor's order."""

    __slots__ = ()


class Composite(str):
    """A value of several parts (a name, an address): as text the whole, each part by name."""

    __slots__ = ("parts",)
    parts: Mapping[str, str]

    def __new__(cls, text: str, parts: Mapping[str, str]) -> Self:
        """Make the value that reads as `text`."""
        value = super().__new__(cls, text)
        value.parts = parts
        return value


class GridAnswers(Choices):
    """The choices of a grid of questions, by the code of the question; in arithmetic their numbers add up."""

    by_question: Mapping[str, Choice]

    @classmethod
    def of(cls, by_question: Mapping[str, Choice]) -> "GridAnswers":
        """Make the value of these answers, in the order of the questions."""
        answers = cls(by_question.values())
        answers.by_question = by_question
        return answers


@dataclass(frozen=True, kw_only=True, slots=True)
class UploadedFile:
    """A file that a visitor sent: its id, name as sent, size in bytes, and media type as found inside it."""

    id: str
    name: str
    size: int
    media_type: str


class Files(tuple[UploadedFile, ...]):
    """The files of one answer, in the visitor's order."""

    __slots__ = ()
