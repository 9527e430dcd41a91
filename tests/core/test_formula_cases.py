"""Formulas and what they give, as data; each with types known and unknown before it runs."""

import json
from pathlib import Path

import pytest

from codexa.core.formula import convert
from codexa.core.formula.functions import FAMILIES, FUNCTIONS
from codexa.core.formula.values import ErrorValue
from core.formulas import read, run

CASES = json.loads((Path(__file__).parent.parent / "cases" / "formulas.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("typed", [True, False], ids=["types known", "types unknown"])
@pytest.mark.parametrize("case", CASES, ids=[case["about"] for case in CASES])
def test_case(case, typed):
    result = run(case["formula"], {name: read(value) for name, value in case.get("names", {}).items()}, typed=typed)
    if "error" in case:
        assert isinstance(result, ErrorValue)
        assert result.code == case["error"]
        assert result.message.endswith(".")
        if "span" in case:
            assert [result.span.start, result.span.end] == case["span"]
    else:
        expected = read(case["value"])
        assert type(result) is type(expected)
        assert result == expected


@pytest.mark.parametrize("function", FUNCTIONS.values(), ids=FUNCTIONS)
def test_function_is_documented_by_examples_that_hold(function):
    assert function.purpose.endswith(".")
    assert function.examples
    for example in function.examples:
        result = run(example.formula)
        text = str(result.code) if isinstance(result, ErrorValue) else convert.text(result)
        assert text == example.result, example.formula


def test_every_function_belongs_to_one_family():
    names = [function.name for family in FAMILIES.values() for function in family]
    assert len(names) == len(set(names))


@pytest.mark.parametrize("function", FUNCTIONS.values(), ids=FUNCTIONS)
def test_function_survives_any_arguments(function):
    strange = ["", '"x"', "1/0", "TRUE", "-1", "1e300", "DATE(2026,1,31)", "list", "blank"]
    names = {"list": [read(1), None, "x"], "blank": None}
    for count in range(4):
        for first in strange:
            run(f"{function.name}({', '.join([first, *strange[:count]])})", names)
