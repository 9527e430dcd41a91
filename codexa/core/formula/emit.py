"""From a typed tree to Python source, specialised on what is known of each part.

Bare operators stand where both sides are known numbers, constants are hoisted, and a visitor's answers are fetched
once with blank as 0. Where a kind is known only at run time, the same formula calls `convert` instead.
Names in the source come from this module's own tables, never from what a person typed.
"""

import datetime
from collections.abc import Callable, Sequence
from decimal import Decimal
from functools import cache
from typing import Any

from codexa.core.formula import convert, tree
from codexa.core.formula.check import Typed
from codexa.core.formula.constants import folded_number
from codexa.core.formula.exponents import SMALL_POWER, power
from codexa.core.formula.failing import sound, tried
from codexa.core.formula.functions.function import LISTS, Function, Role
from codexa.core.formula.metering import counted, folded, metered
from codexa.core.formula.scope import Home, Reference
from codexa.core.formula.types import MOMENTS, NUMBERS, WORDS, YES_NO, Kind, Type
from codexa.core.formula.values import HUNDREDTH, ONE, ZERO, ErrorCode, compared, difference, fail, total

_CONVERSIONS: dict[Role, Callable[[Any], Any]] = {
    Role.NUMBER: convert.number,
    Role.TEXT: convert.text,
    Role.CONDITION: convert.condition,
    Role.DATE: convert.date,
}
_DEEP = 24  # levels of a formula
MAX_CODE = 400_000  # characters; what a formula of the greatest length writes out is well below


class TooComplexError(Exception):
    """A formula writes out more code than may be."""


class Emitter:
    """Writes one formula's code and collects what the code needs: fetched answers, constants, functions."""

    def __init__(self, environment: dict[str, Any]) -> None:
        self.environment = environment
        self.fetched: dict[str, str] = {}
        self._names: dict[object, str] = {}
        self._inner: list[str] = []
        self._depth = 0
        self._variables = 0

    def formula(self, typed: Typed, role: Role) -> tuple[list[str], str]:
        """Return the lines that come before (answers fetched, deep parts), and the expression that computes it."""
        self.fetched = {}
        self._inner, self._depth = [], 0
        result = self.emit(typed, role)
        if len(result) + sum(map(len, self._inner)) > MAX_CODE:
            raise TooComplexError
        return [*(f"{name} = {code}" for name, code in sorted(self.fetched.items())), *self._inner], result

    def variable(self) -> str:
        """Return the name of a variable that nothing else has."""
        self._variables += 1
        return f"w{self._variables}"

    def helper(self, function: object) -> str:
        """Return the name under which the code may use this function or table."""
        return self._bind(function, "f")

    def constant(self, value: object) -> str:
        """Return the name of a constant worked out once."""
        return self._bind((type(value), str(value)), "k", value)

    def _bind(self, key: object, letter: str, value: object = None) -> str:
        if key not in self._names:
            name = f"{letter}{len(self._names)}"
            self._names[key] = name
            self.environment[name] = key if value is None else value
        return self._names[key]

    def constant_in(self, value: bool, role: Role) -> str:
        """Return yes or no as the place sees it."""
        if role is Role.NUMBER:
            return self.constant(ONE if value else ZERO)
        return self.convert(repr(value), YES_NO, role) if role is not Role.TEXT else repr(str(value).upper())

    def emit(self, part: Typed, role: Role) -> str:
        """Write one part as the place sees it; the code is safe to stand beside any operator."""
        self._depth += 1
        code = self._emitted(part, role)
        self._depth -= 1
        if not self._depth or self._depth % _DEEP:
            return code
        # Python reads parentheses only so deep in one another; what is deeper gets a function of its own.
        name = self.variable()
        self._inner.append(f"def {name}(): return {code}")
        return f"{name}()"

    def _emitted(self, part: Typed, role: Role) -> str:
        if part.type.is_list and role not in (Role.VALUE, *LISTS):
            return self._failing(ErrorCode.VALUE, f"A single value is wanted here, and this is a {part.type.name}.")
        folded = folded_number(part.node)
        if folded is not None:
            return self._literal(tree.Number(value=folded), role)
        match part.node:
            case tree.Number() | tree.Text() | tree.Boolean() | tree.Missing():
                return self._literal(part.node, role)
            case tree.Name():
                return self._name(part, role)
            case tree.Unary():
                operand = self.emit(part.parts[0], Role.NUMBER)
                return self.convert(f"(-{operand})" if part.node.operator == "-" else operand, part.type, role)
            case tree.Percent():
                code = f"({self.emit(part.parts[0], Role.NUMBER)} * {self.constant(HUNDREDTH)})"
                return self.convert(code, part.type, role)
            case tree.Binary():
                return self.convert(self._binary(part.node.operator, part), part.type, role)
        return self._call(part, role)

    def _failing(self, code: ErrorCode, message: str) -> str:
        return f"{self.helper(fail)}({self.constant(code)}, {message!a})"

    def _literal(self, node: tree.Number | tree.Text | tree.Boolean | tree.Missing, role: Role) -> str:
        value: Any = None if isinstance(node, tree.Missing) else node.value
        if role in _CONVERSIONS:
            try:
                value = _CONVERSIONS[role](value)
            except Exception:  # the conversion fails again, with its cause, when the formula runs
                return f"{self.helper(_CONVERSIONS[role])}({self._written(value)})"
        return self._written(value)

    def _written(self, value: Any) -> str:
        return repr(value) if value is None or isinstance(value, bool) else self.constant(value)

    def or_failed(self, part: Typed) -> str:
        """Write one part as a value that a failure stands in, for a function that sees failures."""
        if isinstance(part.node, tree.Name) and part.reference is not None and part.reference.facet is None:
            return self._fetched("r", part.reference, "{}")
        if isinstance(part.node, tree.Number | tree.Text | tree.Boolean | tree.Missing):
            return self.emit(part, Role.VALUE)
        return f"{self.helper(tried)}(lambda: {self.emit(part, Role.VALUE)})"

    def _name(self, part: Typed, role: Role) -> str:
        reference = part.reference
        if reference is None:
            assert isinstance(part.node, tree.Name)
            return self._failing(ErrorCode.NAME, f"There is no field or figure named {part.node.text}.")
        if role is Role.NUMBER and part.type.kind in NUMBERS:
            return self._fetched("n", reference, "({} or " + self.constant(ZERO) + ")")
        raw = self._fetched("r", reference, "{}")
        if reference.can_fail:
            raw = f"{self.helper(sound)}({raw})"
        if role is Role.DATE and part.type.kind is Kind.DATE:
            # Of a name it is known for sure; a blank date and some days are a number.
            return f"({raw} or {self.helper(convert.date)}(None))" if part.type.may_be_blank else raw
        return self.convert(raw, part.type, role)

    def _fetched(self, letter: str, reference: Reference, pattern: str) -> str:
        place = self._place(reference)
        if reference.can_fail or reference.facet:
            return pattern.format(place)
        name = f"{letter}{reference.home}{reference.slot}_"
        self.fetched[name] = pattern.format(place)
        return name

    def _place(self, reference: Reference) -> str:
        if reference.home is Home.CONTEXT:
            assert reference.facet is not None
            return f"{self.helper(reference.facet)}(c)"
        place = f"{reference.home}[{reference.slot}]"
        if reference.facet is None:
            return place
        take = listed if reference.type.is_list else taken
        return f"{self.helper(take)}({self.helper(reference.facet)}, {place})"

    def convert(self, code: str, kind: Type, role: Role) -> str:
        """Write the conversion of a value of that type to a role; nothing where there is nothing to do."""
        if role not in _CONVERSIONS:
            return code
        quick = self._quick_conversion(code, kind, role)
        return quick if quick is not None else f"{self.helper(_CONVERSIONS[role])}({code})"

    def _quick_conversion(self, code: str, kind: Type, role: Role) -> str | None:
        match role, kind.kind:
            case Role.NUMBER, Kind.NUMBER | Kind.MONEY:
                return f"({code} or {self.constant(ZERO)})" if kind.may_be_blank else code
            case Role.NUMBER, Kind.YES_NO:
                return f"({self.constant(ONE)} if {code} else {self.constant(ZERO)})"
            case Role.TEXT, Kind.TEXT | Kind.CHOICE:
                return f'({code} or "")' if kind.may_be_blank else code
            case Role.CONDITION, Kind.YES_NO:
                return f"({code} or False)" if kind.may_be_blank else code
            case Role.CONDITION, Kind.NUMBER | Kind.MONEY if not kind.may_be_blank:
                return f"({code} != 0)"
        return None

    def _binary(self, operator: str, part: Typed) -> str:
        left, right = part.parts
        if left.type.is_list or right.type.is_list:
            kind = left.type if left.type.is_list else right.type
            return self._failing(ErrorCode.VALUE, f"A single value is wanted here, and this is a {kind.name}.")
        match operator:
            case "&":
                pieces = ", ".join(self.emit(piece, Role.TEXT) for piece in _joined(part))
                return f"{self.helper(convert.joined)}(({pieces}))"
            case "+" | "-" if part.type.kind not in NUMBERS or not _numbers_only(left, right):
                return self._moved(operator, left, right)
            case "^" if not _is_small_whole(right):
                return f"{self.helper(power)}({self.emit(left, Role.NUMBER)}, {self.emit(right, Role.NUMBER)})"
            case "+" | "-" if not _is_exact(part):
                function = total if operator == "+" else difference
                return f"{self.helper(function)}({self.emit(left, Role.NUMBER)}, {self.emit(right, Role.NUMBER)})"
            case "+" | "-" | "*" | "/" | "^":
                python = "**" if operator == "^" else operator
                return f"({self.emit(left, Role.NUMBER)} {python} {self.emit(right, Role.NUMBER)})"
            case "=":
                return self._equal(left, right)
            case "<>":
                return f"(not {self._equal(left, right)})"
        return self._ordered(operator, left, right)

    def _moved(self, operator: str, left: Typed, right: Typed) -> str:
        """Write a sum or difference in which a date or time may stand."""
        kinds = {left.type.kind, right.type.kind}
        if operator == "-" and kinds == {Kind.DATE} and _are_names(left, right):
            return self._days_between(left, right)
        if operator == "-" and kinds <= MOMENTS:
            return f"{self.helper(convert.apart)}({self.emit(left, Role.VALUE)}, {self.emit(right, Role.VALUE)})"
        function = convert.add if operator == "+" else convert.subtract
        return f"{self.helper(function)}({self._summand(left)}, {self._summand(right)})"

    def _summand(self, part: Typed) -> str:
        # What is no number fails here, before the other side is looked at.
        if part.type.kind in MOMENTS:
            return self.emit(part, Role.VALUE)
        if part.type.kind is Kind.ANY:
            return f"{self.helper(_measure)}({self.emit(part, Role.VALUE)})"
        return self.emit(part, Role.NUMBER)

    def _days_between(self, left: Typed, right: Typed) -> str:
        one, other = self.emit(left, Role.VALUE), self.emit(right, Role.VALUE)
        quick = f"{self.helper(Decimal)}(({one} - {other}).days)"
        slow = f"{self.helper(convert.apart)}({one}, {other})"
        return f"({quick} if {one} is not None and {other} is not None else {slow})"

    def _equal(self, left: Typed, right: Typed) -> str:
        kinds = {left.type.kind, right.type.kind}
        if kinds <= NUMBERS and not (left.type.may_be_blank and right.type.may_be_blank):
            if _is_exact(left) and _is_exact(right):
                return f"({self.emit(left, Role.VALUE)} == {self.emit(right, Role.VALUE)})"
            if not (left.type.may_be_blank or right.type.may_be_blank):
                return f"({self._rounded(left)} == {self._rounded(right)})"
        if kinds <= WORDS:
            return f"({self._folded(left)} == {self._folded(right)})"
        return f"{self.helper(convert.equal)}({self.emit(left, Role.VALUE)}, {self.emit(right, Role.VALUE)})"

    def _folded(self, part: Typed) -> str:
        if isinstance(part.node, tree.Text):
            return self.constant(part.node.value.casefold())
        return f"{self.helper(folded)}({self.emit(part, Role.TEXT)})"

    def _rounded(self, part: Typed) -> str:
        code = self.emit(part, Role.NUMBER)
        return code if _is_exact(part) else f"{self.helper(compared)}({code})"

    def _ordered(self, operator: str, left: Typed, right: Typed) -> str:
        quick = self._quickly_ordered(operator, left, right)
        if quick is not None:
            return quick
        one, other = self.emit(left, Role.VALUE), self.emit(right, Role.VALUE)
        return f"{self.helper(convert.ORDERS[operator])}({one}, {other})"

    def _quickly_ordered(self, operator: str, left: Typed, right: Typed) -> str | None:
        kinds = {left.type.kind, right.type.kind}
        if not (kinds <= NUMBERS or (kinds == {Kind.DATE} and _are_dates(left, right))):
            return None
        blank = [part for part in (left, right) if part.type.may_be_blank]
        if any(kinds <= NUMBERS and not _is_exact(part) for part in blank):
            return None
        sides = [
            self.emit(part, Role.VALUE) if part in blank or kinds == {Kind.DATE} else self._rounded(part)
            for part in (left, right)
        ]
        if not blank or all(map(_cannot_fail, (left, right))):
            tests = [f"{self.emit(part, Role.VALUE)} is not None and " for part in blank]
            return f"({''.join(tests)}{sides[0]} {operator} {sides[1]})"
        # Both sides are worked out, as a side that fails does so beside a blank too.
        names = [self.variable() for _ in sides]
        known = " & ".join(f"(({name} := {side}) is not None)" for name, side in zip(names, sides, strict=True))
        return f"({known} and {names[0]} {operator} {names[1]})"

    def flat_list(self, parts: Sequence[Typed], role: Role) -> str:
        """Write values and lists as one list; single ones as the role sees them, but a blank stays blank."""
        if len(parts) == 1 and parts[0].type.is_list:
            return f"{self.helper(counted)}({self.emit(parts[0], Role.VALUE)})"
        items = [
            f"*{self.helper(counted)}({self.emit(part, Role.VALUE)})" if part.type.is_list else self._item(part, role)
            for part in parts
        ]
        return f"[{', '.join(items)}]"

    def _item(self, part: Typed, role: Role) -> str:
        kind = part.type.kind
        if role is Role.MEASURES and kind in _PERHAPS_MOMENTS:
            value = self.emit(part, Role.VALUE)
            return f"{self.helper(_measure_or_blank)}({value})" if kind is Kind.ANY else value
        if role in (Role.NUMBERS, Role.MEASURES):
            if not part.type.may_be_blank:
                return self.emit(part, Role.NUMBER)
            if kind not in NUMBERS:
                return f"{self.helper(_number_or_blank)}({self.emit(part, Role.VALUE)})"
        if role is Role.CONDITIONS:
            return self.emit(part, Role.CONDITION)
        return self.or_failed(part) if role is Role.OR_FAILED else self.emit(part, Role.VALUE)

    def _call(self, part: Typed, role: Role) -> str:
        function = part.function
        if function is None:
            assert isinstance(part.node, tree.Call)
            return self._failing(ErrorCode.NAME, f"There is no function {part.node.function} for these arguments.")
        if function.emit is not None:
            return function.emit(self, part, role)
        assert function.call is not None
        arguments = ["c"] if function.needs_context else []
        for index, parameter in enumerate(function.parameters):
            given = part.parts[index:] if parameter.repeated else part.parts[index : index + 1]
            following = index + 1 < len(function.parameters) and function.parameters[index + 1].repeated
            if parameter.role is Role.LIST:
                arguments.extend(self.flat_list([argument], Role.VALUES) for argument in given)
            elif parameter.role in LISTS:
                if not parameter.repeated:  # the repeated one that follows belongs to the same list
                    rest = part.parts[index:] if following else given
                    arguments.append(self.flat_list(rest, Role.OR_FAILED if function.sees_failures else parameter.role))
            elif function.sees_failures:
                arguments.extend(map(self.or_failed, given))
            else:
                arguments.extend(self.emit(argument, parameter.role) for argument in given)
        call = metered_call(function) if function.is_metered else function.call
        return self.convert(f"{self.helper(call)}({', '.join(arguments)})", part.type, role)


def source_of(typed: Typed, role: Role, emitter: Emitter) -> str:
    """Return the Python of a formula by itself: a function of the values, the surroundings, the row and the option."""
    before, result = emitter.formula(typed, role)
    lines = "".join(f"        {line}\n" for line in [*before, f"return {result}"])
    # Nothing that a form can hold may raise to a visitor.
    caught = "    except Exception as e:\n        return failed(e)\n"
    return f"def formula(v, c, r=(), o=()):\n    try:\n{lines}{caught}"


@cache
def metered_call(function: Function) -> Callable[..., Any]:
    """Return a function's call, its cost counted; the same each time, so that the code has one name for it."""
    assert function.call is not None
    return metered(function.call, function.steps, function.characters)


def _is_small_whole(part: Typed) -> bool:
    exponent = folded_number(part.node)
    return exponent is not None and 0 <= exponent <= SMALL_POWER and exponent == exponent.to_integral_value()


def _joined(part: Typed) -> list[Typed]:
    """Return the pieces of a chain of &, in order."""
    if isinstance(part.node, tree.Binary) and part.node.operator == "&":
        left, right = part.parts
        return [*_joined(left), *_joined(right)]
    return [part]


def _are_names(*parts: Typed) -> bool:
    plain = all(isinstance(part.node, tree.Name) and part.reference and not part.reference.facet for part in parts)
    return plain and not any(part.type.is_list for part in parts)


def taken(facet: Callable[[Any], Any], value: Any) -> Any:
    """Return a part of a value; a blank has blank parts."""
    return None if value is None else facet(value)


def listed(facet: Callable[[Any], Any], value: Any) -> Any:
    """Return a part of each of several; of a blank there is none."""
    return [] if value is None else facet(value)


def _are_dates(*parts: Typed) -> bool:
    """Whether they are dates or blank for sure: a blank date and a number of days add up to that number."""
    return not any(isinstance(each.node, tree.Binary) for part in parts for each in part.walk())


def _is_exact(part: Typed) -> bool:
    return part.type.digits is not None and part.type.digits.comparable_as_is


def _cannot_fail(part: Typed) -> bool:
    if isinstance(part.node, tree.Name):
        return part.reference is not None and not (part.reference.can_fail or part.reference.facet)
    return folded_number(part.node) is not None


_PERHAPS_MOMENTS = MOMENTS | {Kind.ANY}


def _numbers_only(left: Typed, right: Typed) -> bool:
    return not {left.type.kind, right.type.kind} & _PERHAPS_MOMENTS


def _number_or_blank(value: Any) -> Decimal | None:
    return None if value is None else convert.number(value)


def _measure(value: Any) -> Any:
    return value if isinstance(value, datetime.date | datetime.time) else convert.number(value)


def _measure_or_blank(value: Any) -> Any:
    return None if value is None else _measure(value)
