"""Replay tells what a draft would make of responses; and a visitor who comes back, what is new."""

import copy
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.form.form import read_form
from codexa.core.program.accept import Accepted, accept
from codexa.core.program.compiling import compile_form
from codexa.core.program.news import visitor_news
from codexa.core.program.program import Program
from codexa.core.program.replay import Replaying, replay
from codexa.core.program.samples import sample_answers
from codexa.services.context import context_of
from codexa.services.replaying import _changed
from core.any_form import forms

DOME = {
    "name": "Dome",
    "currency": "EUR",
    "pages": [
        {
            "id": "p1",
            "title": "You",
            "blocks": [
                {"id": "n", "type": "number", "key": "n", "label": "Guests", "maximum": "60"},
                {"id": "who", "type": "short_text", "key": "who", "label": "Who"},
                {
                    "id": "chart",
                    "type": "product",
                    "key": "chart",
                    "label": "Star chart",
                    "price": "14.90",
                    "quantity": "here",
                },
                {"id": "sum", "type": "order_summary", "key": "sum"},
            ],
        },
        {"id": "p2", "title": "More", "shown": "n > 12", "blocks": []},
    ],
    "figures": [{"kind": "formula", "id": "f1", "key": "price", "name": "Price", "formula": "n * 2"}],
    "confirmations": [
        {"id": "c1", "name": "Many", "when": "n > 12", "title": "Many"},
        {"id": "c2", "name": "Few", "when": "", "title": "Few"},
    ],
}


def changed(change):
    document = copy.deepcopy(DOME)
    change(document)
    return document


def put(*path, to):
    def change(document):
        for step in path[:-1]:
            document = document[step]
        document[path[-1]] = to

    return change


def differences(after, answers):
    own, draft = (compile_form(read_form(each)) for each in (DOME, after))
    context = context_of(own.form)
    accepted = accept(own, answers, context)
    assert isinstance(accepted, Accepted), accepted
    how = Replaying(program=draft, changed=_changed(own.form, draft.form))
    return replay(how, own, answers=accepted.answers, told=context.as_json(), number=7)


MANY = "Many was changed"
BLOCKS = ("pages", 0, "blocks")


@pytest.mark.parametrize(
    ("change", "kinds", "told"),
    [
        (put(*BLOCKS, 0, "maximum", to="10"), ["refused"], ("1.1 Guests", "accepted", "1.1 Guests was changed")),
        (put("figures", 0, "formula", to="n * 3"), ["figure"], ("Price", "40", "Price was changed")),
        (put(*BLOCKS, 2, "price", to="16"), ["total"], ("the order", "€14.90", "1.3 Star chart was changed")),
        (put("pages", 1, "shown", to="n > 50"), ["path"], ("the way", "1 You → 2 More", "2 More was changed")),
        (
            put("confirmations", 0, "when", to="n > 50"),
            ["confirmation"],
            ("the confirmation", "Many", MANY),
        ),
        (lambda document: document["pages"][0]["blocks"].pop(1), ["lost"], ("1.2 Who", "Mira", "")),
    ],
)
def test_each_way_of_coming_out_otherwise_is_told_with_its_reason(change, kinds, told):
    found = differences(changed(change), {"n": "20", "who": "Mira", "chart": "1"})
    assert [each.kind for each in found] == kinds
    assert (found[0].name, found[0].before, found[0].why) == told


def test_what_hangs_on_a_change_names_it_as_the_reason():
    def longer(document):
        document["pages"][0]["blocks"].append(
            {"id": "rest", "type": "calculated", "key": "rest", "label": "Rest", "formula": "price + 1"}
        )

    own = changed(longer)
    draft = copy.deepcopy(own)
    draft["figures"][0]["formula"] = "n * 3"
    old, new = (compile_form(read_form(each)) for each in (own, draft))
    context = context_of(old.form)
    kept = accept(old, {"n": "2"}, context).answers
    how = Replaying(program=new, changed=_changed(old.form, new.form))
    found = {each.name: each.why for each in replay(how, old, answers=kept, told=context.as_json(), number=1)}
    assert found == {"Price": "Price was changed", "1.5 Rest": "Price was changed"}


@given(form=forms().map(read_form), seed=some.integers(0, 10**6))
def test_a_form_makes_of_its_own_responses_what_it_made(form, seed):
    program: Program = compile_form(form)
    context = context_of(form)
    accepted = accept(program, sample_answers(program, Random(seed), context), context)
    if isinstance(accepted, Accepted):
        how = Replaying(program=program, changed={})
        assert replay(how, program, answers=accepted.answers, told=context.as_json(), number=1) == []


def test_who_comes_back_is_told_of_a_price_first():
    def edit(document):
        blocks = document["pages"][0]["blocks"]
        blocks[2]["price"] = "16"
        del blocks[1]
        blocks.insert(0, {"id": "new", "type": "date", "key": "day", "label": "Day"})

    old, new = (compile_form(read_form(each)) for each in (DOME, changed(edit)))
    assert visitor_news(old, new) == ["Star chart: now €16.00, before €14.90.", "New: Day", "Not asked any more: Who"]
    assert visitor_news(old, old) == []
