"""From a tree to a typed tree: what each part is, what each name stands for, and what can't be right."""

import difflib
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from enum import StrEnum

from codexa.core.errors import Span
from codexa.core.formula import tree
from codexa.core.formula.constants import folded_number
from codexa.core.formula.functions.function import LISTS, Function, Role
from codexa.core.formula.scope import Reference, Scope
from codexa.core.formula.types import (
    ANY,
    BLANK,
    COUNTED,
    DATES,
    MOMENTS,
    NUMBER,
    NUMBERS,
    RECORDS,
    TEXT,
    WORDS,
    YES_NO,
    Digits,
    Kind,
    Type,
)
from codexa.core.formula.values import ARITHMETIC, ONE

_USUAL_SIZE = 20  # places from the point
_DAYS = Type(kind=Kind.NUMBER, digits=Digits(whole=7, decimals=0))  # between the years 1 and 9999


class Severity(StrEnum):
    """How bad a finding is."""

    ERROR = "error"  # stops publishing
    DOUBT = "doubt"  # shown; may be meant


@dataclass(frozen=True, kw_only=True, slots=True)
class FormulaFinding:
    """Something wrong or doubtful in a formula, with its place in the text."""

    severity: Severity
    code: str
    message: str
    span: Span


@dataclass(frozen=True, kw_only=True, slots=True)
class Typed:
    """A node of the typed tree."""

    node: tree.Tree
    type: Type
    parts: tuple["Typed", ...] = ()
    reference: Reference | None = None
    function: Function | None = None

    def walk(self) -> Iterator["Typed"]:
        """Yield the node and all below it, outermost first."""
        yield self
        for part in self.parts:
            yield from part.walk()


def check(node: tree.Tree, scope: Scope, functions: Mapping[str, Function]) -> tuple[Typed, tuple[FormulaFinding, ...]]:
    """Return the typed tree and everything that is wrong with it, with these functions; never raises."""
    checker = _Checker(scope, functions)
    typed = checker.check(node)
    return typed, tuple(checker.findings)


class _Checker:
    def __init__(self, scope: Scope, functions: Mapping[str, Function]) -> None:
        self.scope = scope
        self.functions = functions
        self.findings: list[FormulaFinding] = []

    def check(self, node: tree.Tree) -> Typed:
        match node:
            case tree.Number():
                return Typed(node=node, type=Type(kind=Kind.NUMBER, digits=Digits.of(node.value)))
            case tree.Text():
                return Typed(node=node, type=TEXT)
            case tree.Boolean():
                return Typed(node=node, type=YES_NO)
            case tree.Missing():
                return Typed(node=node, type=BLANK)
            case tree.Name():
                return self._name(node)
            case tree.Call():
                return self._call(node)
            case tree.Binary():
                parts = (self.check(node.left), self.check(node.right))
                return Typed(node=node, type=self._binary(node, *parts), parts=parts)
            case tree.Unary() | tree.Percent():
                part = self.check(node.operand)
                return Typed(node=node, type=self._arithmetic(part, node), parts=(part,))

    def _report(self, node: tree.Tree, code: str, message: str, severity: Severity = Severity.ERROR) -> None:
        self.findings.append(FormulaFinding(severity=severity, code=code, message=message, span=node.span))

    def _name(self, node: tree.Name) -> Typed:
        reference = self.scope.find(node.parts)
        if reference is None:
            near = self.scope.nearest(node.parts)
            hint = f" Did you mean {near}?" if near else ""
            message = f"There is no field or figure named {node.text}."
            if len(node.parts) > 1 and self.scope.find(node.parts[:-1]) is not None:
                # It may have had that part before it was asked in another way.
                whole, _, part = node.text.rpartition(".")
                message = f"There is {whole}, and as it is asked now it has no {part}."
            self._report(node, "unknown_name", message + hint)
            return Typed(node=node, type=ANY)
        return Typed(node=node, type=reference.type, reference=reference)

    def _call(self, node: tree.Call) -> Typed:
        parts = tuple(self.check(argument) for argument in node.arguments)
        function = self.functions.get(node.function)
        if function is None:
            near = difflib.get_close_matches(node.function, self.functions, 1)
            hint = f" Did you mean {near[0]}?" if near else ""
            self._report(node, "unknown_function", f"There is no function {node.function}.{hint}")
            return Typed(node=node, type=ANY, parts=parts)
        if not self._count_fits(node, function):
            return Typed(node=node, type=ANY, parts=parts)
        for index, part in enumerate(parts):
            self._argument(part, function, index)
        typed = Typed(node=node, type=ANY, parts=parts, function=function)
        for remark in function.look(typed) if function.look else ():
            severity = Severity.DOUBT if remark.is_doubt else Severity.ERROR
            self.findings.append(
                FormulaFinding(severity=severity, code="wrong_argument", message=remark.message, span=remark.span)
            )
        types = [part.type for part in parts]
        result = function.result if isinstance(function.result, Type) else function.result(types)
        return replace(typed, type=result)

    def _count_fits(self, node: tree.Call, function: Function) -> bool:
        given, most = len(node.arguments), function.most
        if function.least <= given and (most is None or given <= most):
            return True
        wanted = str(function.least) if most == function.least else f"{function.least} to {most or 'any number'}"
        self._report(node, "wrong_arguments", f"{function.signature} takes {wanted} arguments; here are {given}.")
        return False

    def _argument(self, part: Typed, function: Function, index: int) -> None:
        role = function.parameter(index).role
        if part.type.is_list and role not in LISTS:
            name = function.parameter(index).name
            message = f"{function.name} wants a single {name}, and this is a {part.type.name}."
            self._report(part.node, "list_not_wanted", message)
        elif role in (Role.NUMBER, Role.NUMBERS) or (role is Role.MEASURES and part.type.kind not in MOMENTS):
            self._wants_number(part)
        elif role is Role.DATE and part.type.kind in COUNTED:
            self._report(part.node, "wrong_type", f"{function.name} wants a date, and this is {part.type.name}.")
        elif role is Role.ROWS and part.type.kind not in (Kind.ROWS, Kind.ANY, Kind.BLANK):
            self._report(part.node, "wrong_type", f"{function.name} wants a repeat, and this is {part.type.name}.")

    def _wants_number(self, part: Typed) -> None:
        kind = part.type.kind
        if kind in RECORDS:
            message = f"A number is wanted here, and this is a {part.type.name}; name a column of it."
            self._report(part.node, "wrong_type", message)
        elif kind in MOMENTS:
            self._report(part.node, "wrong_type", f"A number is wanted here, and this is {part.type.name}.")
        elif kind is Kind.TEXT and not part.type.is_list:
            self._text_as_number(part)

    def _text_as_number(self, part: Typed) -> None:
        message = "This is text; only text that is a plain number can be calculated with."
        literal = isinstance(part.node, tree.Text) and not part.node.value.replace(".", "", 1).strip("+- ").isdigit()
        self._report(part.node, "text_as_number", message, Severity.ERROR if literal else Severity.DOUBT)

    def _arithmetic(self, part: Typed, node: tree.Unary | tree.Percent) -> Type:
        self._wants_scalar(part)
        self._wants_number(part)
        digits = part.type.digits
        if digits is not None and isinstance(node, tree.Percent):
            digits = Digits(whole=digits.whole, decimals=digits.decimals + 2)
        return Type(kind=part.type.kind if part.type.kind in NUMBERS else Kind.NUMBER, digits=digits)

    def _wants_scalar(self, part: Typed) -> None:
        if part.type.is_list:
            message = f"This is a {part.type.name}; take its SUM, COUNT or another single value of it."
            self._report(part.node, "list_not_wanted", message)

    def _binary(self, node: tree.Binary, left: Typed, right: Typed) -> Type:
        self._wants_scalar(left)
        self._wants_scalar(right)
        match node.operator:
            case "&":
                return TEXT
            case "+" | "-":
                return self._adding(node, left, right)
            case "*" | "/" | "^":
                self._wants_number(left)
                self._wants_number(right)
                return _multiplied(node, left.type, right.type)
        self._comparing(node, left, right)
        return YES_NO

    def _adding(self, node: tree.Binary, left: Typed, right: Typed) -> Type:
        dated = [part for part in (left, right) if part.type.kind in MOMENTS]
        if not dated:
            self._wants_number(left)
            self._wants_number(right)
            if Kind.ANY in (left.type.kind, right.type.kind):
                return ANY
            return _added(left.type, right.type)
        if len(dated) == 2:
            if node.operator == "+":
                self._report(node, "wrong_type", "Two dates can't be added; their difference is left - right.")
            return _DAYS if {left.type.kind, right.type.kind} == {Kind.DATE} else NUMBER
        other = right if dated[0] is left else left
        if other.type.kind is Kind.ANY:
            return ANY if node.operator == "-" else Type(kind=dated[0].type.kind)
        if node.operator == "-" and dated[0] is right:
            self._report(node, "wrong_type", "A date can't be taken away from a number.")
        self._wants_number(other)
        return Type(kind=dated[0].type.kind)

    def _comparing(self, node: tree.Binary, left: Typed, right: Typed) -> None:
        kinds = (left.type.kind, right.type.kind)
        if left.type.is_list or right.type.is_list:
            return
        if Kind.ANY in kinds or Kind.BLANK in kinds or kinds[1] in _comparable_with(kinds[0]):
            return
        if isinstance(left.node, tree.Text | tree.Missing) and left.node == tree.Text(value=""):
            return
        if isinstance(right.node, tree.Text) and not right.node.value:
            return
        message = f"{left.type.name.capitalize()} is compared with {right.type.name}: that can never hold."
        self._report(node, "wrong_comparison", message)


def _digits_of_reciprocal(node: tree.Tree) -> Digits | None:
    """Return the digits of 1 through a number that stands in the formula, if they end: halves do, thirds don't."""
    divisor = folded_number(node)
    if not divisor or abs(divisor.adjusted()) > _USUAL_SIZE:
        return None
    reciprocal = ARITHMETIC.divide(ONE, divisor)
    digits = Digits.of(reciprocal)
    return digits if digits.comparable_as_is and ARITHMETIC.multiply(reciprocal, divisor) == ONE else None


def _comparable_with(kind: Kind) -> frozenset[Kind]:
    if kind in NUMBERS:
        return NUMBERS | {Kind.CHOICE, Kind.CHOICES}
    if kind in (Kind.CHOICE, Kind.CHOICES):
        return NUMBERS | WORDS | {Kind.CHOICES}
    if kind in DATES:
        return DATES
    return WORDS if kind is Kind.TEXT else frozenset({kind})


def _added(left: Type, right: Type) -> Type:
    digits = None
    if left.digits and right.digits:
        digits = Digits(
            whole=max(left.digits.whole, right.digits.whole) + 1,
            decimals=max(left.digits.decimals, right.digits.decimals),
        )
    return Type(kind=Kind.MONEY if Kind.MONEY in (left.kind, right.kind) else Kind.NUMBER, digits=digits)


def _multiplied(node: tree.Binary, left: Type, right: Type) -> Type:
    operator = node.operator
    money = Kind.MONEY in (left.kind, right.kind) and operator != "^"
    if operator == "/" and right.kind is Kind.MONEY:
        money = False
    digits = None
    times = right.digits if operator == "*" else _digits_of_reciprocal(node.right) if operator == "/" else None
    if left.digits and times:
        digits = Digits(whole=left.digits.whole + times.whole, decimals=left.digits.decimals + times.decimals)
    return Type(kind=Kind.MONEY if money else Kind.NUMBER, digits=digits)
