"""Formulas from the command line: one JSON object a line in and out."""

import json
import subprocess
import sys

import pytest
from conftest import EXAMPLES

from codexa.core.formula.__main__ import results


def result(formula, **names):
    return next(results([json.dumps({"formula": formula, "names": names})]))


@pytest.mark.parametrize(
    ("formula", "names", "expected"),
    [
        ("SUM(lines.amount) * 2", {"lines.amount": [1, 2.5, None]}, {"value": "7", "type": "number"}),
        ("a + b", {"a": 0.1, "b": "0.2"}, {"value": "0.3", "type": "number"}),
        ("day + 1", {"day": "2026-02-28"}, {"value": "2026-03-01", "type": "date"}),
        ("day & 1", {"day": {"text": "2026-02-28"}}, {"value": "2026-02-281", "type": "text"}),
        ("n", {"n": None}, {"value": None, "type": "blank"}),
        ("AND(yes, n > 1)", {"yes": True, "n": 2}, {"value": True, "type": "yes/no"}),
        ("lines", {"lines": [1, 2]}, {"value": ["1", "2"], "type": "list of number"}),
        ('COUNTIF(lines, ">=2")', {"lines": [1, 2, 3]}, {"value": "2", "type": "number"}),
        (
            'SUMIFS(cost, kind, "dome", cost, "<9")',
            {"cost": [1, 8, 9], "kind": ["dome", "deck", "DOME"]},
            {"value": "1", "type": "number"},
        ),
        ("INDEX(lines, MATCH(7, lines, 0))", {"lines": [5, 7]}, {"value": "7", "type": "number"}),
        (
            "NETWORKDAYS(DATE(2026,12,21), DATE(2026,12,31), free)",
            {"free": ["2026-12-25"]},
            {"value": "8", "type": "number"},
        ),
    ],
)
def test_values(formula, names, expected):
    assert result(formula, **names) == expected


@pytest.mark.parametrize(
    ("formula", "names", "error", "span"),
    [
        ("1 + 1 / n", {"n": 0}, "#DIV/0!", [4, 9]),
        ('n + "x"', {"n": 1}, "#VALUE!", [4, 7]),
        ("adlts", {}, "#NAME?", [0, 5]),
        ("FOO(1)", {}, "#NAME?", [0, 6]),
        ("LN(0 - n)", {"n": 1}, "#NUM!", [0, 9]),
        ("MATCH(9, lines, 0)", {"lines": [1]}, "#N/A", [0, 18]),
        ("INDEX(lines, 9)", {"lines": [1]}, "#REF!", [0, 15]),
        ("(1", {}, "#VALUE!", [1, 2]),
        ("10 ^ 9999", {}, "#NUM!", [0, 9]),
        ("REPT(t, 1000000)", {"t": "ab"}, "#VALUE!", [0, 16]),
    ],
)
def test_errors_have_the_standards_names_and_their_place(formula, names, error, span):
    found = result(formula, **names)
    assert (found["error"], found["span"]) == (error, span)
    assert found["message"].endswith(".")


@pytest.mark.parametrize(
    "line", ["x", "[]", "{}", '{"formula": "1", "names": {"a": {"b": 1}}}', '{"formula": "1", "names": {"a": NaN}}']
)
def test_a_line_that_can_not_be_read_is_answered_too(line):
    assert next(results([line]))["error"] == "#VALUE!"


def test_the_command_answers_line_by_line():
    lines = '{"formula": "1/3*3 = 1"}\n\n{"formula": "-2^2"}\n'
    command = [sys.executable, "-m", "codexa.core.formula"]
    done = subprocess.run(command, input=lines, cwd=EXAMPLES.parent, capture_output=True, text=True, check=True)
    assert [json.loads(line)["value"] for line in done.stdout.splitlines()] == [True, "4"]
