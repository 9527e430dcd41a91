"""Small forms with one fault each: the proof finds it, and says nothing of the same form without it."""

import json

import pytest
from conftest import EXAMPLES

from bench.faults import cases, findings_of, is_found

CASES = list(cases())


def test_there_are_enough_of_them():
    assert len(CASES) >= 60
    assert len({case.fault for case in CASES}) == len(CASES)


@pytest.mark.parametrize("case", CASES, ids=lambda case: case.fault)
def test_a_fault_is_found_and_nothing_is_said_without_it(case):
    assert findings_of(case.right) == ()
    assert is_found(case)


@pytest.mark.parametrize("file", sorted(EXAMPLES.rglob("*.json")), ids=lambda file: file.stem)
def test_nothing_is_said_of_the_forms_that_come_with_it(file):
    document = json.loads(file.read_text(encoding="utf-8"))
    if isinstance(document, dict) and "pages" in document:
        # That no money moves yet is told of every form that is to be tried first.
        assert [each for each in findings_of(document) if each.code != "practice"] == []
