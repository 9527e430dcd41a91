"""Logic: only the branch that is taken is computed, and AND and OR stop at the argument that decides."""

from collections.abc import Callable
from decimal import Decimal
from typing import Any

from codexa.core.formula import convert, tree
from codexa.core.formula.failing import sound
from codexa.core.formula.functions.function import Argument, CodeWriter, Example, Function, Parameter, Role
from codexa.core.formula.metering import folded, spend
from codexa.core.formula.types import WORDS, YES_NO, Type, common
from codexa.core.formula.values import ErrorCode, Failed, fail, whole

_CONDITION = Parameter("condition", Role.CONDITION)
_CONDITIONS = (
    Parameter("conditions", Role.CONDITIONS),
    Parameter("further", Role.CONDITIONS, optional=True, repeated=True),
)
_OF_LISTS = "Of a list, a blank counts as no, and where there are no rows AND is TRUE and OR FALSE."


def _emit_if(emitter: CodeWriter, call: Argument, role: Role) -> str:
    condition, yes, *no = call.parts
    otherwise = emitter.emit(no[0], role) if no else emitter.constant_in(False, role)
    return f"({emitter.emit(yes, role)} if {emitter.emit(condition, Role.CONDITION)} else {otherwise})"


def _if_type(types: list[Type]) -> Type:
    return common(types[1:] if len(types) > 2 else [*types[1:], YES_NO])


def _emit_ifs(emitter: CodeWriter, call: Argument, role: Role) -> str:
    pairs = list(zip(call.parts[::2], call.parts[1::2], strict=False))
    if len(pairs) > _LONG_CHAIN:
        return f"{emitter.helper(_first_that_holds)}({_branches(emitter, pairs, (Role.CONDITION, role))})"
    # One chain without parentheses in one another, which Python reads only so deep.
    cases = [
        f"{emitter.emit(value, role)} if {emitter.emit(condition, Role.CONDITION)} else " for condition, value in pairs
    ]
    return f"({''.join(cases)}{emitter.helper(_no_condition_holds)}())"


_LONG_CHAIN = 60  # cases; each makes Python go one level deeper when it reads the chain


def _branches(emitter: CodeWriter, pairs: list[tuple[Argument, Argument]], roles: tuple[Role, Role]) -> str:
    """Write pairs of parts as a flat tuple of functions, each worked out only when it is asked for."""
    first, second = roles
    both = (f"lambda: {emitter.emit(one, first)}, lambda: {emitter.emit(other, second)}, " for one, other in pairs)
    return f"({''.join(both)})"


def _first_that_holds(branches: tuple[Callable[[], Any], ...]) -> Any:
    for condition, value in zip(branches[::2], branches[1::2], strict=True):
        if condition():
            return value()
    return _no_condition_holds()


def _first_that_equals(subject: Any, branches: tuple[Callable[[], Any], ...], otherwise: Callable[[], Any]) -> Any:
    for case, value in zip(branches[::2], branches[1::2], strict=True):
        if convert.equal(subject, case()):
            return value()
    return otherwise()


def _no_condition_holds() -> Any:
    return fail(ErrorCode.NOT_AVAILABLE, "None of the conditions holds; end with TRUE and a value for all the rest.")


def _emit_switch(emitter: CodeWriter, call: Argument, role: Role) -> str:
    subject, *cases = call.parts
    otherwise = emitter.emit(cases.pop(), role) if len(cases) % 2 else None
    pairs = list(zip(cases[::2], cases[1::2], strict=True))
    if len(pairs) > _LONG_CHAIN:
        last = emitter.helper(_no_case_fits) if otherwise is None else f"lambda: {otherwise}"
        branches = _branches(emitter, pairs, (Role.VALUE, role))
        return f"{emitter.helper(_first_that_equals)}({emitter.emit(subject, Role.VALUE)}, {branches}, {last})"
    name, words = emitter.variable(), _are_words(subject, [case for case, _ in pairs])
    # The first case works the subject out, once; the others look at what it was.
    looked_at = emitter.emit(subject, Role.TEXT if words else Role.VALUE)
    looked_at = f"({name} := {emitter.helper(folded)}({looked_at}))" if words else f"({name} := {looked_at})"
    code = []
    for case, value in pairs:
        if words and isinstance(case.node, tree.Text):
            fits = f"{looked_at} == {emitter.constant(case.node.value.casefold())}"
        else:
            fits = f"{emitter.helper(convert.equal)}({looked_at}, {emitter.emit(case, Role.VALUE)})"
        code.append(f"{emitter.emit(value, role)} if {fits} else ")
        looked_at = name
    return f"({''.join(code)}{otherwise or f'{emitter.helper(_no_case_fits)}()'})"


def _are_words(subject: Argument, cases: list[Argument]) -> bool:
    return subject.type.kind in WORDS and all(isinstance(case.node, tree.Text) for case in cases)


def _no_case_fits() -> Any:
    return fail(ErrorCode.NOT_AVAILABLE, "None of the cases fits; add a last argument for all the rest.")


def _switch_type(types: list[Type]) -> Type:
    values = types[2::2] + (types[-1:] if len(types) % 2 == 0 else [])
    return common(values)


def _emit_all(emitter: CodeWriter, call: Argument, role: Role) -> str:
    return _joined_conditions(emitter, call, role, " and ", all_hold)


def _emit_any(emitter: CodeWriter, call: Argument, role: Role) -> str:
    return _joined_conditions(emitter, call, role, " or ", any_holds)


def _joined_conditions(
    emitter: CodeWriter, call: Argument, role: Role, joint: str, over_list: Callable[[list[Any]], bool]
) -> str:
    conditions = joint.join(
        f"{emitter.helper(over_list)}({emitter.emit(part, Role.VALUE)})"
        if part.type.is_list
        else emitter.emit(part, Role.CONDITION)
        for part in call.parts
    )
    return emitter.convert(f"({conditions})", YES_NO, role)


def all_hold(values: list[Any]) -> bool:
    """Say whether all items of a list hold; a blank does not, and of no items all do."""
    spend(len(values) >> 2)
    return all(map(convert.condition, values))


def any_holds(values: list[Any]) -> bool:
    """Say whether an item of a list holds."""
    spend(len(values) >> 2)
    return any(map(convert.condition, values))


def _emit_not(emitter: CodeWriter, call: Argument, role: Role) -> str:
    return emitter.convert(f"(not {emitter.emit(call.parts[0], Role.CONDITION)})", YES_NO, role)


def _exactly_odd(conditions: list[Any]) -> bool:
    return sum(map(convert.condition, conditions)) % 2 == 1


def _emit_if_error(emitter: CodeWriter, call: Argument, role: Role) -> str:
    # What becomes of the value stands outside: a text that is no number fails there, as a figure of its own would.
    value, instead = call.parts
    name = emitter.variable()
    failed = f"({name} := {emitter.or_failed(value)}).__class__ is {emitter.helper(Failed)}"
    return emitter.convert(f"({emitter.emit(instead, Role.VALUE)} if {failed} else {name})", call.type, role)


def _emit_if_not_available(emitter: CodeWriter, call: Argument, role: Role) -> str:
    value, instead = call.parts
    otherwise = f"lambda: {emitter.emit(instead, Role.VALUE)}"
    code = f"{emitter.helper(_unless_not_available)}({emitter.or_failed(value)}, {otherwise})"
    return emitter.convert(code, call.type, role)


def _unless_not_available(value: Any, instead: Callable[[], Any]) -> Any:
    if value.__class__ is Failed and value.error.code is ErrorCode.NOT_AVAILABLE:
        return instead()
    return sound(value)


def _emit_choose(emitter: CodeWriter, call: Argument, role: Role) -> str:
    index, *values = call.parts
    number = emitter.emit(index, Role.NUMBER)
    if len(values) > _LONG_CHAIN:
        branches = ", ".join(f"lambda: {emitter.emit(value, role)}" for value in values)
        return f"{emitter.helper(_chosen)}({number}, ({branches},))"
    name = emitter.variable()
    looked_at = f"({name} := {emitter.helper(whole)}({number}))"
    code = []
    for place, value in enumerate(values, 1):
        code.append(f"{emitter.emit(value, role)} if {looked_at} == {place} else ")
        looked_at = name
    return f"({''.join(code)}{emitter.helper(_none_to_choose)}({len(values)}))"


def _chosen(index: Decimal, branches: tuple[Callable[[], Any], ...]) -> Any:
    place = whole(index)
    return branches[place - 1]() if 1 <= place <= len(branches) else _none_to_choose(len(branches))


def _none_to_choose(count: int) -> Any:
    return fail(ErrorCode.VALUE, f"There are {count} values to choose from, counted from 1.")


FUNCTIONS = (
    Function(
        name="IF",
        parameters=(
            _CONDITION,
            Parameter("then", Role.VALUE),
            Parameter("otherwise", Role.VALUE, optional=True),
        ),
        result=_if_type,
        purpose="One value where the condition holds, another where it does not.",
        examples=(Example('IF(3 > 2, "more", "less")', "more"), Example("IF(FALSE, 1/0, 7)", "7")),
        emit=_emit_if,
    ),
    Function(
        name="IFS",
        parameters=(
            _CONDITION,
            Parameter("value", Role.VALUE),
            Parameter("further", Role.VALUE, optional=True, repeated=True),
        ),
        result=lambda types: common(types[1::2]),
        purpose="The value after the first condition that holds.",
        examples=(Example('IFS(FALSE, "a", TRUE, "b")', "b"),),
        emit=_emit_ifs,
    ),
    Function(
        name="SWITCH",
        parameters=(
            Parameter("subject", Role.VALUE),
            Parameter("case", Role.VALUE),
            Parameter("value", Role.VALUE),
            Parameter("further", Role.VALUE, optional=True, repeated=True),
        ),
        result=_switch_type,
        purpose="The value after the first case that equals the subject; a last single argument is for all the rest.",
        examples=(Example('SWITCH(2, 1, "one", 2, "two", "many")', "two"),),
        emit=_emit_switch,
    ),
    Function(
        name="CHOOSE",
        parameters=(
            Parameter("number", Role.NUMBER),
            Parameter("first", Role.VALUE),
            Parameter("further", Role.VALUE, optional=True, repeated=True),
        ),
        result=lambda types: common(types[1:]),
        purpose="The value with that number, counted from 1.",
        examples=(Example('CHOOSE(2, "new", "half", "full")', "half"), Example("CHOOSE(1, 5, 1/0)", "5")),
        emit=_emit_choose,
    ),
    Function(
        name="AND",
        parameters=_CONDITIONS,
        result=YES_NO,
        purpose="Whether all hold, or all items of a list; stops at the first that does not.",
        differs=_OF_LISTS,
        examples=(Example("AND(2 > 1, 3 > 2)", "TRUE"), Example("AND(FALSE, 1/0 > 2)", "FALSE")),
        emit=_emit_all,
    ),
    Function(
        name="OR",
        parameters=_CONDITIONS,
        result=YES_NO,
        purpose="Whether at least one holds, or one item of a list; stops at the first that does.",
        differs=_OF_LISTS,
        examples=(Example("OR(2 > 1, 1/0 > 2)", "TRUE"), Example("OR(FALSE, FALSE)", "FALSE")),
        emit=_emit_any,
    ),
    Function(
        name="NOT",
        parameters=(_CONDITION,),
        result=YES_NO,
        purpose="Whether the condition does not hold.",
        examples=(Example("NOT(1 > 2)", "TRUE"),),
        emit=_emit_not,
    ),
    Function(
        name="XOR",
        parameters=_CONDITIONS,
        result=YES_NO,
        purpose="Whether an odd number of the conditions hold.",
        examples=(Example("XOR(TRUE, FALSE, FALSE)", "TRUE"), Example("XOR(TRUE, TRUE)", "FALSE")),
        call=_exactly_odd,
    ),
    Function(
        name="IFERROR",
        parameters=(Parameter("value", Role.VALUE), Parameter("instead", Role.VALUE)),
        result=common,
        purpose="The value, or another where the value is an error.",
        examples=(Example("IFERROR(1/0, 0)", "0"), Example("IFERROR(6/2, 0)", "3")),
        sees_failures=True,
        emit=_emit_if_error,
    ),
    Function(
        name="IFNA",
        parameters=(Parameter("value", Role.VALUE), Parameter("instead", Role.VALUE)),
        result=common,
        purpose="The value, or another where the value was looked for and not found (#N/A).",
        examples=(Example("IFNA(NA(), 0)", "0"), Example("IFNA(4, 0)", "4")),
        sees_failures=True,
        emit=_emit_if_not_available,
    ),
)
