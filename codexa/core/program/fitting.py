"""Which records a filter lets through: what it asks of the table, and what only the formula itself can say.

A filter is a formula over `record.column` and whatever else the form knows. What compares a column with something that
does not hang on the record becomes a condition that a database finds records by; the rest is worked out one by one.
"""

import datetime
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Any

from codexa.core.formula import tree
from codexa.core.formula.check import Typed
from codexa.core.formula.functions.function import Role
from codexa.core.formula.scope import Home
from codexa.core.formula.types import NUMBERS, RECORDS, WORDS, Kind
from codexa.core.formula.values import Choices, ChosenRecord, ChosenRecords, compared
from codexa.core.look_ups import (
    ALL_RECORDS,
    NO_RECORDS,
    Condition,
    Every,
    Is,
    IsBetween,
    IsBlank,
    IsNumber,
    Not,
    Some,
    Tested,
    keys_of,
)
from codexa.core.program.facts import Formula
from codexa.core.program.record_parts import RecordPart

Values = Sequence[Any]
Builder = Callable[[Values], Condition]
_MIRRORED = {"=": "=", "<>": "<>", "<": ">", "<=": ">=", ">": "<", ">=": "<="}
# Which kinds a column is compared with as its values are kept.
_ALIKE = (WORDS, NUMBERS, frozenset({Kind.YES_NO}), frozenset({Kind.DATE}), frozenset({Kind.TIME}))
_ORDERED = (NUMBERS, frozenset({Kind.DATE}))


class OperandFailed:
    """Stands for a part of a filter that could not be worked out."""


OPERAND_FAILED = OperandFailed()


@dataclass(frozen=True, kw_only=True, slots=True)
class Operand:
    """A part of a filter that does not hang on the record, and how it is seen where it stands."""

    typed: Typed
    role: Role

    def is_as_expected(self, value: Any) -> bool:
        """Whether it came to a value of the kind that was foreseen: blank + 30 days is no day."""
        if value is OPERAND_FAILED:
            return False
        expected = _CLASSES.get(self.typed.type.kind) if self.role is Role.VALUE else bool
        return value is None or (expected is not None and isinstance(value, expected) and not _is_moment(value))


_CLASSES: dict[Kind, type] = {
    Kind.TEXT: str,
    Kind.CHOICE: str,
    Kind.CHOICES: Choices,
    Kind.NUMBER: Decimal,
    Kind.MONEY: Decimal,
    Kind.YES_NO: bool,
    Kind.DATE: datetime.date,
    Kind.TIME: datetime.time,
    Kind.RECORD: ChosenRecord,
    Kind.RECORDS: ChosenRecords,
}


def _is_moment(value: Any) -> bool:
    return isinstance(value, datetime.datetime)


class Fitting:
    """A filter, taken apart: `operands` are to be worked out first, in their order."""

    def __init__(self, formula: Formula) -> None:
        """Take a compiled filter apart; one that can't be read lets nothing through."""
        self.formula = formula
        self.operands: list[Operand] = []
        typed = formula.compiled.typed
        self._parts = [] if typed is None else [(each, self._builder(each)) for each in _conjuncts(typed)]
        self._is_readable = typed is not None

    def columns(self) -> frozenset[str]:
        """Return the columns that have to be known of a record to try the formula."""
        reads = self.formula.compiled.reads
        return frozenset(each.facet.path[0] for each in reads if isinstance(each.facet, RecordPart) and _is_own(each))

    @property
    def tried_one_by_one(self) -> bool:
        """Whether there is something in it that has to be worked out for each record."""
        return any(builder is None for _, builder in self._parts)

    def condition(self, operands: Values, values: Values, context: Any, row: Values) -> Condition:
        """Return what is asked of the table, with what the operands came to in this state."""
        if not self._is_readable:
            return NO_RECORDS
        if not all(each.is_as_expected(value) for each, value in zip(self.operands, operands, strict=True)):
            # Whether it matters hangs on the record: AND and OR stop at what decides.
            return self._tested(self.formula.compiled.typed, values, context, row)
        found = tuple(
            self._tested(part, values, context, row) if builder is None else builder(operands)
            for part, builder in self._parts
        )
        return found[0] if len(found) == 1 else Every(found)

    def _tested(self, part: Typed | None, values: Values, context: Any, row: Values) -> Condition:
        run = replace(self.formula.compiled, typed=part, role=Role.CONDITION).run
        return Tested(lambda record: run(values, context, row, (record,)) is True)

    def _operand(self, typed: Typed, role: Role) -> Callable[[Values], Any]:
        at = len(self.operands)
        self.operands.append(Operand(typed=typed, role=role))
        return lambda values: values[at]

    def _builder(self, part: Typed) -> Builder | None:
        """Return what makes a condition of a part, given what the operands are; None where there is none such."""
        if not _of_record(part):
            take = self._operand(part, Role.CONDITION)
            return lambda values: ALL_RECORDS if take(values) is True else NO_RECORDS
        match part.node:
            case tree.Name() if part.type.kind is Kind.YES_NO:
                return _of_column(part, lambda column: Is(column, ("TRUE",)))
            case tree.Binary(operator=operator) if operator in _MIRRORED:
                return self._comparison(operator, *part.parts)
            case tree.Call(function="AND" | "OR" as function):
                return self._joined(function, part.parts)
            case tree.Call(function="NOT") if len(part.parts) == 1:
                inner = self._builder(part.parts[0])
                return None if inner is None else lambda values: Not(inner(values))
            case tree.Call(function="ISBLANK") if len(part.parts) == 1:
                return _of_column(part.parts[0], IsBlank)
            case tree.Call(function="HAS") if len(part.parts) == 2:
                return self._among(*part.parts)
        return None

    def _joined(self, function: str, parts: Sequence[Typed]) -> Builder | None:
        if any(each.type.kind is not Kind.YES_NO or each.type.is_list for each in parts):
            return None
        built = [self._builder(each) for each in parts]
        if None in built:
            return None
        known = [each for each in built if each is not None]
        join = Every if function == "AND" else _some
        return lambda values: join(tuple(each(values) for each in known))

    def _comparison(self, operator: str, left: Typed, right: Typed) -> Builder | None:
        if _of_record(right):
            left, right, operator = right, left, _MIRRORED[operator]
        if _of_record(right) or left.type.is_list or right.type.is_list:
            return None
        column, kinds = _column(left), {left.type.kind, right.type.kind}
        if operator in ("=", "<>"):
            return self._equal(operator, column, _is_itself(left), right, kinds)
        if column is None or not any(kinds <= each for each in _ORDERED):
            return None
        take = self._operand(right, Role.VALUE)
        return lambda values: _between(column, operator, take(values))

    def _equal(
        self, operator: str, column: str | None, is_itself: bool, right: Typed, kinds: set[Kind]
    ) -> Builder | None:
        records = kinds == {Kind.RECORD}
        if (column is None and not (is_itself and records)) or not (records or any(kinds <= each for each in _ALIKE)):
            return None
        take = self._operand(right, Role.VALUE)
        equal: Builder = lambda values: _has_one_of(column, take(values))  # noqa: E731 - it is turned round below
        return equal if operator == "=" else lambda values: Not(equal(values))

    def _among(self, several: Typed, one: Typed) -> Builder | None:
        """HAS: several that the form knows have a column of the record, or a column of several has what is known."""
        if not _of_record(several):
            fits = several.type.kind in RECORDS and one.type.kind is Kind.RECORD
            fits = fits or (several.type.kind is Kind.CHOICES and one.type.kind in WORDS)
            column = _column(one)
            if not fits or several.type.is_list or (column is None and not _is_itself(one)):
                return None
            take = self._operand(several, Role.VALUE)
            return lambda values: NO_RECORDS if take(values) is None else _has_one_of(column, take(values))
        column = _column(several)
        fits = several.type.kind is Kind.CHOICES and one.type.kind in WORDS
        fits = fits or (several.type.kind is Kind.RECORDS and one.type.kind is Kind.RECORD)
        if column is None or _of_record(one) or not fits:
            return None
        take = self._operand(one, Role.VALUE)
        return lambda values: NO_RECORDS if take(values) is None else Is(column, keys_of(take(values)))


def _conjuncts(typed: Typed) -> Iterator[Typed]:
    """Yield the parts that must all hold."""
    is_all = isinstance(typed.node, tree.Call) and typed.node.function == "AND"
    if is_all and all(each.type.kind is Kind.YES_NO and not each.type.is_list for each in typed.parts):
        for part in typed.parts:
            yield from _conjuncts(part)
    else:
        yield typed


def _some(conditions: tuple[Condition, ...]) -> Condition:
    """Return what fits one of some; where all ask for values of one column, that is one question."""
    values = [each for each in conditions if isinstance(each, Is)]
    if values and len(values) == len(conditions) and len({each.column for each in values}) == 1:
        return Is(values[0].column, tuple(dict.fromkeys(key for each in values for key in each.keys)))
    return Some(conditions)


def _is_own(reference: Any) -> bool:
    return bool(reference.home is Home.OPTION)


def _of_record(part: Typed) -> bool:
    return any(each.reference is not None and _is_own(each.reference) for each in part.walk())


def _column(part: Typed) -> str | None:
    """Return the column of the record that a part is, by its id."""
    facet = part.reference.facet if part.reference is not None and _is_own(part.reference) else None
    return facet.path[0] if isinstance(facet, RecordPart) and isinstance(part.node, tree.Name) else None


def _of_column(part: Typed, make: Callable[[str], Condition]) -> Builder | None:
    column = _column(part)
    return None if column is None else lambda _: make(column)


def _is_itself(part: Typed) -> bool:
    return part.reference is not None and _is_own(part.reference) and part.reference.facet is None


def _has_one_of(column: str | None, value: Any) -> Condition:
    if column is None:
        records = value if isinstance(value, ChosenRecords) else (value,)
        return IsNumber(tuple(each.number for each in records if isinstance(each, ChosenRecord)))
    if value is None or (isinstance(value, str) and not value):
        return IsBlank(column)
    return Is(column, keys_of(value))


def _between(column: str, operator: str, value: Any) -> Condition:
    if value is None:
        return NO_RECORDS  # what is blank is neither less nor more
    bound = compared(value) if isinstance(value, Decimal) else value.isoformat()
    is_open = operator in ("<", ">")
    if operator.startswith("<"):
        return IsBetween(column, most=bound, open_=is_open)
    return IsBetween(column, least=bound, open_=is_open)
