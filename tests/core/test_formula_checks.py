"""What the type check says of formulas before they run."""

import datetime
from decimal import Decimal

import pytest

from codexa.core.formula.compile import compile_formula
from codexa.core.formula.values import Choice
from core.formulas import Names

SCOPE = Names(
    {
        "adults": Decimal(2),
        "name": "Mira",
        "day": datetime.date(2026, 11, 3),
        "agreed": True,
        "show": Choice("deep", counts=Decimal(6)),
        "amounts": [Decimal(1)],
    }
)


def findings(formula):
    return [
        (each.severity, each.code, formula[each.span.start : each.span.end])
        for each in compile_formula(formula, SCOPE).findings
    ]


@pytest.mark.parametrize(
    ("formula", "expected"),
    [
        ("adult * 2", ("error", "unknown_name", "adult")),
        ("SUMM(1)", ("error", "unknown_function", "SUMM(1)")),
        ("ROUND(1, 2, 3)", ("error", "wrong_arguments", "ROUND(1, 2, 3)")),
        ("name + 1", ("doubt", "text_as_number", "name")),
        ('1 * "two"', ("error", "text_as_number", '"two"')),
        ("day = agreed", ("error", "wrong_comparison", "day = agreed")),
        ("name > 3", ("error", "wrong_comparison", "name > 3")),
        ("day + day", ("error", "wrong_type", "day + day")),
        ("3 - day", ("error", "wrong_type", "3 - day")),
        ("-day", ("error", "wrong_type", "day")),
        ("YEAR(adults)", ("error", "wrong_type", "adults")),
        ("amounts * 2", ("error", "list_not_wanted", "amounts")),
        ("ABS(amounts)", ("error", "list_not_wanted", "amounts")),
        ("1 +", ("error", "unreadable", "+")),
    ],
)
def test_finds(formula, expected):
    assert findings(formula) == [expected]


@pytest.mark.parametrize(
    "formula",
    [
        'show = "deep"',
        "show > 3",
        "show * adults",
        'name = ""',
        'day <> ""',
        "IF(agreed, adults, 0)",
        "day + adults",
        "SUM(amounts)",
    ],
)
def test_finds_nothing_in(formula):
    assert findings(formula) == []


def test_numbers_that_fit_are_compared_with_bare_operators():
    assert "adults" not in compile_formula("adults > 3", SCOPE).source
    assert compile_formula("1 + 2 > 3", SCOPE).source.count("(") < 6
