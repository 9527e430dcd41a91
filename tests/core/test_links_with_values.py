"""What a link brings: values of every type, whoever may change them, and nothing that could bend them."""

import pytest
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.fields import BLOCK_TYPES
from codexa.core.form.form import read_form
from codexa.core.program.accept import Accepted, Refused, accept
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.explain import explain_all
from codexa.core.program.link_values import link_problems, value_problem
from codexa.core.program.proof import proof
from codexa.core.program.public import form_state
from codexa.services.context import context_of

OPTIONS = [
    {"id": "a", "code": "first", "label": "First stars"},
    {"id": "b", "code": "deep", "label": "Deep sky, all night"},
]


def form_with(block, **link):
    known = {"label": "It", **block, "id": "it", "key": "it"}
    second = {"id": "other", "type": "short_text", "key": "other", "label": "Other", "default": 'it & "!"'}
    links = [{"field": "it", "name": "it", **link}]
    pages = [{"id": "p", "blocks": [known, second]}]
    return compile_form(read_form({"name": "Linked", "locale": "de", "links": links, "pages": pages}))


def brought(program, text, answers=None):
    return evaluate(program, answers or {}, context_of(program.form, {"it": text}))


def fact(program, text, answers=None):
    return form_state(brought(program, text, answers))["blocks"]["it"]


@pytest.mark.parametrize(
    ("block", "text", "kept"),
    [
        ({"type": "short_text"}, "0007", "0007"),
        ({"type": "short_text"}, "Glass & patience + 50 % #7 äöü", "Glass & patience + 50 % #7 äöü"),
        ({"type": "number", "decimals": 2}, "1234.5", "1234.5"),
        ({"type": "money"}, "12.30", "12.3"),
        ({"type": "date"}, "2026-05-31", "2026-05-31"),
        ({"type": "yes_no"}, "yes", True),
        ({"type": "single_choice", "options": OPTIONS}, "deep", "deep"),
        ({"type": "single_choice", "options": OPTIONS}, "first  STARS", "first"),
        ({"type": "several_choices", "options": OPTIONS}, "first, deep", ["first", "deep"]),
        ({"type": "several_choices", "options": OPTIONS}, "Deep sky, all night", ["deep"]),
        ({"type": "rating"}, "4", "4"),
        ({"type": "email"}, "a+b@example.org", "a+b@example.org"),
        ({"type": "name", "parts": "one"}, "M. Adeyemi", {"full": "M. Adeyemi"}),
    ],
)
def test_a_value_of_each_type_comes_as_links_write_it_whatever_the_forms_language(block, text, kept):
    program = form_with(block)
    accepted = accept(program, {}, context_of(program.form, {"it": text}))
    assert isinstance(accepted, Accepted), accepted.errors
    assert str(accepted.answers["it"]) == str(kept)


def test_what_is_open_is_the_visitors_own_once_it_was_changed():
    program = form_with({"type": "short_text"})
    assert fact(program, "from the link") == {"shown": True, "fill": "from the link"}
    assert brought(program, "from the link", {"it": "mine"}).value(program.places["it"]) == "mine"
    assert brought(program, "from the link", {"it": None}).value(program.places["it"]) is None


@pytest.mark.parametrize("visitor", ["locked", "hidden"])
@given(
    text=some.text(some.characters(codec="utf-8", exclude_categories=["C"]), min_size=1, max_size=60),
    bent=some.text(max_size=9),
)
def test_nothing_that_a_browser_sends_bends_what_it_can_not_change(visitor, text, bent):
    program = form_with({"type": "short_text"}, visitor=visitor)
    if value_problem(program, "it", text) is not None or not text.strip():
        return
    context = context_of(program.form, {"it": text})
    straight, pushed = (accept(program, answers, context).answers for answers in ({}, {"it": bent, "other": ""}))
    assert straight["it"] == pushed["it"] == " ".join(straight["it"].split("\n"))
    state = form_state(brought(program, text, {"it": bent}))["blocks"]
    assert state["it"] == ({"shown": False} if visitor == "hidden" else state["it"])
    assert visitor == "hidden" or state["it"]["locked"]


def test_what_is_hidden_is_worked_with_and_never_told_to_a_browser():
    program = form_with({"type": "short_text"}, visitor="hidden")
    state = brought(program, "secret")
    assert state.value(program.places["other"]) == "secret!"
    assert "it" not in {block for block, facts in form_state(state)["blocks"].items() if facts["shown"]}


def test_a_field_without_a_value_in_the_link_is_as_the_author_made_it():
    program = form_with({"type": "short_text", "required": "TRUE"}, visitor="locked")
    assert form_state(evaluate(program, {}, context_of(program.form)))["blocks"]["it"].get("locked") is None
    assert isinstance(accept(program, {}, context_of(program.form)), Refused)


@pytest.mark.parametrize(
    ("block", "text"),
    [
        ({"type": "number", "maximum": "20"}, "21"),
        ({"type": "number"}, "12.5"),
        ({"type": "date"}, "31.5."),
        ({"type": "single_choice", "options": OPTIONS}, "moon"),
        ({"type": "email"}, "nobody"),
        ({"type": "short_text", "max_length": 3}, "four"),
    ],
)
def test_a_value_that_breaks_a_limit_is_told_and_never_dropped(block, text):
    held = form_with(block, visitor="locked")
    assert [each.held for each in link_problems(brought(held, text))] == [True]
    opened = form_with(block)
    assert [each.held for each in link_problems(brought(opened, text))] == [False]
    assert fact(opened, text)["error"]["message"] == link_problems(brought(opened, text))[0].error.message
    assert value_problem(opened, "it", text)


@pytest.mark.parametrize("each", BLOCK_TYPES, ids=lambda each: each.name)
def test_no_type_of_field_fails_on_whatever_a_link_has(each):
    if not getattr(each, "answered", False):
        return
    blank = each.blank().model_dump(mode="json")
    program = form_with(blank | {"type": each.name})
    for text in ("", "x", "1", "{}", "[]", "a" * 2_000, "\u202e", "2026-13-45", "true,first"):
        assert brought(program, text).errors() is not None
    assert ("no_link_field" in {finding.code for finding in proof(program)}) == (not each.linkable)


def test_why_says_that_it_came_with_the_link():
    program = form_with({"type": "short_text"}, visitor="locked")
    first = explain_all(brought(program, "x"), "it")[0]
    assert first.sentence == "1.1 It came with the link as it; visitors can't change it."


def test_the_proof_doubts_what_anybody_can_bend_and_refuses_what_means_nothing():
    def codes(*links, **more):
        blocks = [{"id": each, "key": each, "type": "short_text", "label": each} for each in ("a1", "b1")]
        document = {"name": "L", "title": "L", "pages": [{"id": "p", "blocks": blocks}], "links": links, **more}
        return {each.code for each in proof(compile_form(read_form(document)))}

    assert "bendable_link" in codes({"field": "a1", "name": "a", "visitor": "locked"})
    assert "bendable_link" not in codes({"field": "a1", "name": "a", "visitor": "locked", "sealed": True})
    assert "double_link" in codes({"field": "a1", "name": "a"}, {"field": "b1", "name": "a"})
    assert "no_link_field" in codes({"field": "gone", "name": "a"})
    assert "nothing_sealed" in codes({"field": "a1", "name": "a"}, sealed_only=True)
