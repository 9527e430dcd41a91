"""One question at a time: the same blocks in the same order, the same response; what belongs together stays so."""

from random import Random

from hypothesis import given
from hypothesis import strategies as some

from codexa.core.form.form import read_form
from codexa.core.program.accept import Refused, accept
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.public import form_face, form_state
from codexa.core.program.samples import sample_answers
from core.any_form import forms
from core.formulas import CONTEXT


def shown_as(form, presentation):
    return compile_form(form.model_copy(update={"presentation": presentation}))


def came_of(result):
    return result if isinstance(result, Refused) else (result.answers, result.computed, result.path)


@given(form=forms().map(read_form), seed=some.integers(0, 1000))
def test_nothing_is_lost_or_asked_twice_and_the_same_response_comes_of_it(form, seed):
    paged, single = shown_as(form, "paged"), shown_as(form, "single")
    answers = sample_answers(paged, Random(seed), CONTEXT)
    pages, steps = form_face(paged).pages, form_face(single).pages
    asked = [block.id for page in pages for block in page.blocks]
    assert [block.id for step in steps for block in step.blocks if not block.id.startswith("lookover")] == asked
    assert len({step.id for step in steps}) == len(steps)
    assert came_of(accept(paged, answers, CONTEXT)) == came_of(accept(single, answers, CONTEXT))
    # A step that is gone through has something to see, and every question that is seen has its step.
    state = form_state(evaluate(single, answers, CONTEXT))
    seen = {block for block, facts in state["blocks"].items() if facts["shown"]}
    on_the_way = {block.id for step in steps if step.id in state["path"] for block in step.blocks if block.id in seen}
    there = {page.id for page in pages if page.id in form_state(evaluate(paged, answers, CONTEXT))["path"]}
    due = {block.id for page in pages if page.id in there for block in page.blocks if block.id in seen}
    assert on_the_way - {step.id for step in steps if step.id.startswith("lookover")} == due
    for step in steps:
        if step.id in state["path"]:
            assert any(block.id in seen for block in step.blocks)


def block(name, kind="short_text", **more):
    return {"id": name, "type": kind, "key": name, "text" if kind == "heading" else "label": name, **more}


def test_what_leads_to_a_question_and_what_follows_from_it_stand_with_it():
    group = block("g", "group", blocks=[block("one"), block("two")])
    pages = [
        {
            "id": "p1",
            "title": "First",
            "address": "first",
            "next_label": "To the second",
            "blocks": [
                block("h", "heading"),
                block("a"),
                block("sum", "calculated", formula="LEN(a)"),
                block("b"),
                group,
                block("end", "heading"),
            ],
        },
        {"id": "p2", "title": "Second", "blocks": [block("c")]},
    ]
    form = read_form({"name": "Steps", "presentation": "single", "pages": pages})
    face = form_face(compile_form(form))
    assert [[each.id for each in step.blocks] for step in face.pages] == [
        ["h", "a", "sum"],
        ["b"],
        ["g"],
        ["end"],
        ["c"],
        ["lookover0"],
    ]
    assert [step.id for step in face.pages] == ["a", "b", "g", "end", "c", "lookover0"]
    assert [step.title for step in face.pages] == ["First"] * 4 + ["Second", ""]
    assert [step.next_label for step in face.pages[:4]] == ["", "", "", "To the second"]
    assert [step.address for step in face.pages[:2]] == ["first", ""]


def test_what_was_answered_is_looked_over_with_a_way_back_to_each_and_can_be_left_out():
    pages = [{"id": "p", "title": "Page", "blocks": [block("a"), block("b", shown='a = "x"'), block("c")]}]
    form = read_form({"name": "Steps", "presentation": "single", "pages": pages})
    program = compile_form(form)
    state = form_state(evaluate(program, {"a": "one", "c": "two"}, CONTEXT))
    assert state["path"] == ["a", "c", "lookover0"]
    told = [
        (each["page"], each["title"], each["answers"][0]["text"]) for each in state["blocks"]["lookover0"]["answers"]
    ]
    assert told == [("a", "Page", "one"), ("c", "", "two")]
    # Whatever is typed may be told there: the browser asks after each of them, and hears of it again.
    assert {"a", "c"} <= set(form_face(program).asks)
    assert "lookover0" in form_state(evaluate(program, {"c": "x"}, CONTEXT), only=program.affected(["c"]))["blocks"]
    without = compile_form(form.model_copy(update={"look_over": False}))
    assert form_face(without).pages[-1].id == "c"
