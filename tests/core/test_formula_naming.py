"""Naming a part of a formula, as a figure of its own, changes nothing: neither its value nor its error."""

import dataclasses
import datetime
import os
from decimal import Decimal

from hypothesis import given, settings
from hypothesis import strategies as st

from codexa.core.formula import tree
from codexa.core.formula.compile import compile_tree
from codexa.core.formula.functions import FUNCTIONS
from codexa.core.formula.functions.function import LISTS
from codexa.core.formula.metering import begin
from codexa.core.formula.parse import parse
from codexa.core.formula.types import NUMBER
from codexa.core.formula.values import Choice, ErrorCode, ErrorValue, Failed, use_exact_arithmetic
from core.formulas import CONTEXT, Names

EXAMPLES = int(os.environ.get("CODEXA_EXAMPLES", "600"))
BINARY = ["+", "-", "*", "/", "^", "&", "=", "<>", "<", "<=", ">", ">="]


LEAVES = ["", "dome", "5", "2026-03-05", "a*", "0.00", "d mmmm", ">2", "y"]
values = {
    "many": Decimal(7),
    "part": Decimal("2.5"),
    "nothing": None,
    "word": "Dome",
    "day": datetime.date(2026, 3, 5),
    "clock": datetime.time(19, 30),
    "show": Choice("deep", counts=Decimal(6)),
    "agreed": True,
    "amounts": [Decimal(3), None, Decimal(1)],
    "days": [datetime.date(2026, 3, 5), datetime.date(2026, 3, 1)],
    "mixed": [Decimal(1), "dome", None, True],
    "gone": Failed(ErrorValue(code=ErrorCode.NOT_AVAILABLE, message="It is gone.")),
}
lists = ["amounts", "days", "mixed"]
singles = sorted(set(values) - set(lists))
FAILING = {"gone": NUMBER}


def name(text):
    return tree.Name(text=text)


small_leaves = st.one_of(
    st.sampled_from(["0", "1", "2", "3", "-1", "0.5", "1e30"]).map(parse),
    st.sampled_from(LEAVES).map(lambda text: tree.Text(value=text)),
    st.booleans().map(lambda value: tree.Boolean(value=value)),
    st.sampled_from(singles).map(name),
)


@st.composite
def calls(draw, inner):
    """A call of any function, with as many arguments as it takes; now and then a list."""
    function = FUNCTIONS[draw(st.sampled_from(sorted(FUNCTIONS)))]
    most = function.most if function.most is not None else function.least + 3
    count = draw(st.integers(function.least, most))
    arguments = []
    for index in range(count):
        takes_list = function.parameter(index).role in LISTS
        pick = st.sampled_from(lists).map(name) if takes_list and draw(st.booleans()) else inner
        arguments.append(draw(pick))
    return tree.Call(function=function.name, arguments=tuple(arguments))


def wider(inner):
    return st.one_of(
        calls(inner),
        calls(inner),
        st.builds(
            lambda operator, left, right: tree.Binary(operator=operator, left=left, right=right),
            st.sampled_from(BINARY),
            inner,
            inner,
        ),
        st.builds(lambda operand: tree.Unary(operator="-", operand=operand), inner),
        st.builds(lambda operand: tree.Percent(operand=operand), inner),
    )


wild = st.recursive(small_leaves, wider, max_leaves=8)


def parts_of(node, path=()):
    yield path, node
    for index, child in enumerate(tree.children(node)):
        yield from parts_of(child, (*path, index))


def replaced(node, path, new):
    if not path:
        return new
    index, *rest = path
    match node:
        case tree.Call(arguments=arguments):
            changed = replaced(arguments[index], rest, new)
            return dataclasses.replace(node, arguments=(*arguments[:index], changed, *arguments[index + 1 :]))
        case tree.Binary():
            side = ("left", "right")[index]
            return dataclasses.replace(node, **{side: replaced(getattr(node, side), rest, new)})
    return dataclasses.replace(node, operand=replaced(node.operand, rest, new))


def worked_out(node, names, types, typed):
    begin()
    scope = Names(names, typed=typed, types=types)
    compiled = compile_tree(node, scope)
    return compiled.run(scope.values, CONTEXT), compiled.type


@given(wild, st.data(), st.booleans())
@settings(max_examples=EXAMPLES)
def test_naming_a_part_changes_nothing(node, data, typed):
    use_exact_arithmetic()
    before, _ = worked_out(node, values, FAILING, typed)
    parts = [(path, part) for path, part in parts_of(node) if not (isinstance(part, tree.Name) and part.text in lists)]
    path, part = data.draw(st.sampled_from(parts))
    value, kind = worked_out(part, values, FAILING, typed)
    named = replaced(node, path, name("figure"))
    after, _ = worked_out(named, {**values, "figure": value}, {**FAILING, "figure": kind}, typed)
    assert type(after) is type(before)
    if isinstance(before, Failed):
        assert (after.error.code, after.error.message) == (before.error.code, before.error.message)
    else:
        assert after == before
