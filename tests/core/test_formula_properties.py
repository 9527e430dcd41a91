"""What must hold of every formula, whatever a person types."""

from decimal import Decimal

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from codexa.core.errors import FormulaSyntaxError
from codexa.core.formula import tree
from codexa.core.formula.compile import compile_formula
from codexa.core.formula.functions import FUNCTIONS
from codexa.core.formula.parse import MAX_DEPTH, MAX_LENGTH, parse
from codexa.core.formula.unparse import unparse
from codexa.core.formula.values import ErrorValue, Failed, use_exact_arithmetic
from core.formulas import CONTEXT, Names, run

NAMES = ["adults", "children", "lines.amount", "größe"]
numbers = st.decimals(min_value=0, max_value=10**12, allow_nan=False, allow_infinity=False, places=3)
leaves = st.one_of(
    numbers.map(lambda value: tree.Number(value=value)),
    st.text(max_size=8).map(lambda value: tree.Text(value=value)),
    st.booleans().map(lambda value: tree.Boolean(value=value)),
    st.sampled_from(NAMES).map(lambda name: tree.Name(text=name)),
)
BINARY = ["+", "-", "*", "/", "^", "&", "=", "<>", "<", "<=", ">", ">="]


def branches(inner):
    return st.one_of(
        st.builds(lambda sign, operand: tree.Unary(operator=sign, operand=operand), st.sampled_from("+-"), inner),
        st.builds(lambda operand: tree.Percent(operand=operand), inner),
        st.builds(
            lambda operator, left, right: tree.Binary(operator=operator, left=left, right=right),
            st.sampled_from(BINARY),
            inner,
            inner,
        ),
        st.builds(
            lambda function, arguments: tree.Call(function=function, arguments=tuple(arguments)),
            st.sampled_from(sorted(FUNCTIONS)),
            st.lists(inner, min_size=2, max_size=3),
        ),
    )


trees = st.recursive(leaves, branches, max_leaves=12)


@given(trees)
def test_a_tree_written_out_parses_to_itself(node):
    assert parse(unparse(node)) == node


@given(trees, st.one_of(st.none(), numbers), st.one_of(st.none(), numbers))
@settings(max_examples=300)
def test_code_for_known_types_agrees_with_code_for_unknown_ones(node, adults, children):
    names = {"adults": adults, "children": children}
    known, unknown = (run(unparse(node), names, typed=typed) for typed in (True, False))
    if isinstance(known, ErrorValue) or isinstance(unknown, ErrorValue):
        assert isinstance(known, ErrorValue)
        assert isinstance(unknown, ErrorValue)
    else:
        assert type(known) is type(unknown)
        assert known == unknown


@given(trees, numbers)
def test_the_same_input_gives_the_same_value(node, adults):
    use_exact_arithmetic()
    scope = Names({"adults": adults})
    compiled = compile_formula(unparse(node), scope)
    first, second = (compiled.run(scope.values, CONTEXT) for _ in range(2))
    assert isinstance(first, Failed) == isinstance(second, Failed)
    if not isinstance(first, Failed):
        assert first == second


@given(st.text(max_size=60))
@settings(max_examples=500)
def test_nothing_that_a_person_types_raises_anything_else(text):
    try:
        parse(text)
    except FormulaSyntaxError as error:
        assert error.message
        assert 0 <= error.span.start <= error.span.end <= len(text)
    run(text)


@given(
    st.lists(
        st.sampled_from(['"', "(", ")", "IF", "adults", "1", ",", "-", "&", "%", "^", " ", "=", "SUM("]), max_size=14
    )
)
def test_nor_do_pieces_of_formulas(pieces):
    run("".join(pieces), {"adults": Decimal(3)})


@pytest.mark.parametrize(
    "text",
    [
        "(" * 100 + "1" + ")" * 100,
        "-" * 500 + "1",
        "+".join(["1"] * 3000),
        "IF(TRUE," * 200 + "1" + ",2)" * 200,
        "x" * (MAX_LENGTH + 1),
        '"' + "x" * (MAX_LENGTH + 1) + '"',
        "1" * 500 + "^" + "9" * 500,
        "9^9^9^9^9",
        "1e5999^2",
        "&".join(["adults"] * 90),
    ],
    ids=["brackets", "signs", "terms", "calls", "too long", "long text", "digits", "powers", "overflow", "joins"],
)
def test_a_hostile_formula_ends_quickly_with_a_value_or_an_error(text):
    run(text, {"adults": "x" * 5_000})


def test_nesting_below_the_limit_computes():
    deep = "IF(TRUE, " * (MAX_DEPTH - 2) + "7" + ", 0)" * (MAX_DEPTH - 2)
    assert run(deep) == Decimal(7)


def test_what_is_written_out_holds_no_name_that_a_person_typed():
    scope = Names({"adults": Decimal(1)})
    source = compile_formula('adults + LEN("__import__")', scope).source
    assert "adults" not in source
    assert "__import__" not in source


@given(
    st.sampled_from(sorted(FUNCTIONS)),
    st.lists(st.tuples(st.integers(0, 40), st.sampled_from([3, 7, 9])), min_size=1, max_size=4),
)
@settings(max_examples=600)
def test_a_third_three_times_is_one_to_every_function(name, numbers):
    plain = run(f"{name}({', '.join(str(number) for number, _ in numbers)})")
    divided = run(f"{name}({', '.join(f'{number}/{divisor}*{divisor}' for number, divisor in numbers)})")
    assert type(plain) is type(divided)
    if isinstance(plain, ErrorValue):
        assert plain.code == divided.code
    elif isinstance(plain, Decimal):
        assert abs(plain - divided) <= max(abs(plain), 1) * Decimal("1E-27")
    else:
        assert plain == divided


@given(st.integers(-(10**34), 10**34), st.integers(-(10**34), 10**34).filter(bool))
def test_what_a_division_of_whole_numbers_leaves_over_is_exact(number, divisor):
    assert run("MOD(adults, children)", {"adults": Decimal(number), "children": Decimal(divisor)}) == number % divisor


@given(st.integers(-999, 999), st.integers(1, 999))
def test_whole_times_a_part_leave_nothing_over(times, parts):
    assert run(f"MOD({times}, 1/{parts})") == 0


quotients = st.builds("({} / {} * {})".format, st.integers(-999, 999), st.integers(1, 99), st.integers(1, 99))


@given(quotients, quotients)
def test_a_difference_is_nothing_where_the_numbers_are_equal_and_nowhere_else(left, right):
    assert run(f"({left} - {right} = 0) = ({left} = {right})") is True


@given(numbers.filter(bool), st.integers(2, 9))
def test_all_parts_taken_away_leave_nothing(whole, count):
    parts = [f"adults / {count}"] * count
    names = {"adults": whole}
    assert run(" - ".join(["adults", *parts]), names) == 0
    assert run(f"SUM(adults, {', '.join(f'-{part}' for part in parts)})", names) == 0
