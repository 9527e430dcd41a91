"""Conditions as rows: every condition has some, and rows are a formula again that says the same."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from codexa.core.errors import DefinitionError
from codexa.core.formula import tree
from codexa.core.formula.compile import compile_formula
from codexa.core.formula.parse import parse
from codexa.core.formula.rows import ConditionRow, ConditionRows, rows_of, text_of
from codexa.core.formula.values import ErrorValue
from core.formulas import Names, run

CASES = [
    ("adults > 12", "adults more 12"),
    ("12 < adults", "adults more 12"),
    ("adults >= 2 + children", "adults at_least 2 + children"),
    ('arrival = "coach"', 'arrival is "coach"'),
    ('arrival <> ""', 'arrival is_not ""'),
    ("AND(adults >= 1, adults <= 5)", "adults from_to 1|5"),
    ("AND(day >= DATE(2026, 4, 1), day <= TODAY())", "day from_to DATE(2026, 4, 1)|TODAY()"),
    ("ISBLANK(mail)", "mail blank "),
    ("NOT(ISBLANK(mail))", "mail filled "),
    ('HAS(extras, "towel")', 'extras has "towel"'),
    ('NOT(HAS(extras, "towel"))', 'extras has_not "towel"'),
    ('MENTIONS(text, "great", "superb")', 'text mentions "great"|"superb"'),
    ('NOT(MENTIONS(text, "bad"))', 'text mentions_not "bad"'),
    ("power", "power yes "),
    ("NOT(power)", "power not_yes "),
    ("LEN(name) > 3", " formula LEN(name) > 3"),
    ("NOT(AND(a, b))", " formula NOT(AND(a, b))"),
    ("lines.amount > 3", "lines.amount more 3"),
    ('ISNUMBER(SEARCH("fog", note))', 'note contains "fog"'),
    ('NOT(ISNUMBER(SEARCH("fog", note)))', 'note contains_not "fog"'),
    ('LEFT(zip, LEN("80")) = "80"', 'zip begins "80"'),
    ('LEFT(zip, LEN("80")) = "81"', ' formula LEFT(zip, LEN("80")) = "81"'),
    ('RIGHT(mail, LEN(".org")) = ".org"', 'mail ends ".org"'),
    ('OR(site = "dome", site = "deck")', 'site one_of "dome"|"deck"'),
    ("WORDS(note) >= 20", "note words 20"),
    ("INT(adults) = adults", "adults whole "),
    ("agreed = FALSE", "agreed no "),
    ("day < TODAY()", "day past "),
    ("AND(day >= TODAY(), day <= TODAY() + 14)", "day next_days 14"),
    ('INGROUP("keepers")', 'visitor in_group "keepers"'),
    ('NOT(INGROUP("keepers"))', 'visitor not_in_group "keepers"'),
    ("NOT(ISBLANK(visitor.email))", "visitor.email filled "),
    ("AND(day >= TODAY() - 7, day <= TODAY())", "day last_days 7"),
]


def told(row):
    return f"{row.name} {row.operator} {'|'.join(row.operands)}"


@pytest.mark.parametrize(("formula", "expected"), CASES)
def test_a_condition_is_one_row(formula, expected):
    rows = rows_of(formula)
    assert [told(row) for row in rows.rows] == [expected]


def test_all_and_any_are_rows_within_rows():
    rows = rows_of('OR(adults > 12, AND(power, NOT(ISBLANK(mail)), arrival = "bus"))')
    assert (rows.join, told(rows.rows[0])) == ("any", "adults more 12")
    inner = rows.rows[1]
    assert (inner.join, [told(row) for row in inner.rows]) == (
        "all",
        ["power yes ", "mail filled ", 'arrival is "bus"'],
    )


def test_what_can_not_be_read_has_no_rows_and_nothing_has_none():
    assert rows_of("adults >") is None
    assert rows_of("  ") == ConditionRows()
    assert text_of(ConditionRows()) == ""


NAMES = st.sampled_from(["adults", "arrival", "lines.amount", "power"])
OPERANDS = st.sampled_from(["12", '"coach"', "TODAY() + 7", "children", '"a ""b"""', "(a > 2)", "-3%"])
COMPARED = st.sampled_from(["=", "<>", ">", ">=", "<", "<="])
SIMPLE = st.one_of(
    st.builds("{} {} {}".format, NAMES, COMPARED, OPERANDS),
    st.builds("{} {} {}".format, OPERANDS.filter(lambda text: "a > 2" not in text), COMPARED, NAMES),
    st.builds("ISBLANK({})".format, NAMES),
    st.builds("NOT(ISBLANK({}))".format, NAMES),
    st.builds('HAS({}, "x")'.format, NAMES),
    st.builds("INGROUP({})".format, OPERANDS),
    st.builds("AND({0} >= {1}, {0} <= {2})".format, NAMES, OPERANDS, OPERANDS),
    st.builds("LEN({}) * 2 > {}".format, NAMES, OPERANDS),
    NAMES,
    st.builds("NOT({})".format, NAMES),
)
CONDITIONS = st.recursive(
    SIMPLE,
    lambda inner: st.builds(
        lambda join, parts: f"{join}({', '.join(parts)})",
        st.sampled_from(["AND", "OR"]),
        st.lists(inner, min_size=2, max_size=3),
    ),
    max_leaves=8,
)


@given(CONDITIONS)
def test_rows_and_formula_say_the_same(formula):
    again = parse(text_of(rows_of(formula)))
    assert mirrored(again) == mirrored(parse(formula))


def mirrored(node):
    """The tree with the name of each comparison on its left: 3 < adults is adults > 3."""
    match node:
        case tree.Binary(operator=sign, left=left, right=right) if sign in _MIRRORED and not isinstance(
            left, tree.Name
        ):
            if isinstance(right, tree.Name):
                return tree.Binary(operator=_MIRRORED[sign], left=right, right=left)
        case tree.Call(function=function, arguments=arguments):
            return tree.Call(function=function, arguments=tuple(map(mirrored, arguments)))
    return node


_MIRRORED = {"=": "=", "<>": "<>", ">": "<", ">=": "<=", "<": ">", "<=": ">="}


def row(name, operator, *operands):
    return ConditionRow(name=name, operator=operator, operands=operands)


@pytest.mark.parametrize(
    ("lacking", "formula"),
    [
        (row("", "is", "3"), "MISSING() = 3"),
        (row("adults", "is"), "adults = MISSING()"),
        (row("adults", "from_to", "1", " "), "AND(adults >= 1, adults <= MISSING())"),
        (row("note", "mentions", '"fog"', ""), 'MENTIONS(note, "fog", MISSING())'),
        (row("visitor", "in_group"), "INGROUP(MISSING())"),
        (row("adults", "more", "12 +"), 'adults > MISSING("12 +")'),
    ],
)
def test_a_row_that_lacks_something_stays_and_holds_its_rule_back(lacking, formula):
    assert text_of(ConditionRows(rows=(lacking,))) == formula
    filled = tuple(lacking.operands) or ("",)
    assert rows_of(formula).rows == (lacking.model_copy(update={"operands": tuple(map(str.strip, filled))}),)
    assert isinstance(run(formula, {"adults": Decimal(3), "note": "fog"}), ErrorValue)
    assert [each.code for each in compile_formula(formula, Names({"adults": Decimal(3), "note": "x"})).findings] == [
        "wrong_argument"
    ]


def test_a_row_that_says_nothing_is_left_out_of_the_formula():
    complete = row("adults", "more", "12")
    assert text_of(ConditionRows(rows=(row("", "is"), complete, row("", "formula", "")))) == "adults > 12"
    assert text_of(ConditionRows(join="any", rows=(complete, ConditionRows(rows=(complete, complete))))) == (
        "OR(adults > 12, AND(adults > 12, adults > 12))"
    )


def test_rows_nested_too_deep_are_refused_with_their_place():
    rows = ConditionRows(rows=(row("adults", "more", "12"),))
    for _ in range(22):
        rows = ConditionRows(rows=(rows,))
    with pytest.raises(DefinitionError) as refused:
        text_of(rows)
    assert refused.value.problems[0].path.startswith("rows.0.rows.0")
