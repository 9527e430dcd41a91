"""What is said in a conversation, as an answer."""

import pytest
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.form.form import read_form
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import FieldError, evaluate
from codexa.core.program.public import form_state
from codexa.core.program.spoken import spoken_answer
from core.formulas import CONTEXT


def options(*labels):
    return [{"id": f"o{at}", "code": f"c{at}", "label": label} for at, label in enumerate(labels)]


BLOCKS = [
    {"id": "site", "type": "single_choice", "options": options("Summit Dome", "Harbour Deck", "Harbour Tower")},
    {"id": "other", "type": "dropdown", "options": options("By coach", "On foot"), "other": True},
    {"id": "sky", "type": "several_choices", "options": options("Moon", "Planets", "Stars, faint ones")},
    {"id": "again", "type": "yes_no", "yes": "Ja", "no": "Nein"},
    {"id": "count", "type": "number"},
    {"id": "day", "type": "date"},
]
FORM = {
    "name": "Said",
    "locale": "de",
    "presentation": "chat",
    "pages": [
        {"id": "p", "title": "", "blocks": [{"key": each["id"], "label": each["id"], **each} for each in BLOCKS]}
    ],
}
PROGRAM = compile_form(read_form(FORM))


@pytest.mark.parametrize(
    ("block", "words", "answer"),
    [
        ("site", "summit dome", "o0"),
        ("site", "  Summit  Dome. ", "o0"),
        ("site", "c1", "o1"),
        ("site", "harbour d", "o1"),
        ("site", "sum", "o0"),
        ("site", "harbour", "not_an_option"),
        ("site", "...", "not_an_option"),
        ("other", "on foot", "o1"),
        ("other", "by boat", {"other": "by boat"}),
        ("sky", "moon, planets", ["o0", "o1"]),
        ("sky", "Stars, faint ones", ["o2"]),
        ("sky", "moon; the sun", "not_an_option"),
        ("again", "ja!", True),
        ("again", "n", False),
        ("again", "vielleicht", "not_yes_or_no"),
        ("count", "1.234", "1.234"),
    ],
)
def test_words_mean_what_people_mean_by_them(block, words, answer):
    found = spoken_answer(PROGRAM, block, words)
    assert (found.code if isinstance(found, FieldError) else found) == answer


@given(words=some.text(min_size=1, max_size=40), block=some.sampled_from([each["id"] for each in BLOCKS]))
def test_whatever_is_said_is_an_answer_or_told_to_be_none(words, block):
    found = spoken_answer(PROGRAM, block, words)
    if isinstance(found, FieldError):
        assert found.message
        return
    # What is taken for a choice is one that the form takes.
    facts = form_state(evaluate(PROGRAM, {block: found}, CONTEXT))["blocks"][block]
    assert block in ("count", "day") or "error" not in facts


def test_numbers_and_days_are_read_as_people_of_the_form_write_them_and_told_as_it_goes_on():
    given_answers = {"count": "1.234", "day": "24.12.2026", "site": "o1"}
    state = form_state(evaluate(PROGRAM, given_answers, CONTEXT))
    said = {each["page"]: each["answers"][0]["text"] for each in state["said"]}
    assert said == {"site": "Harbour Deck", "count": "1.234", "day": "24. Dezember 2026"}
    assert state["path"] == [each["id"] for each in BLOCKS]
