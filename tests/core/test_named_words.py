"""Texts in formulas that name an option, a band, a row kind or a profile: known for wrong, and renamed with it."""

import pytest

from codexa.core.errors import DefinitionError
from codexa.core.form.form import read_form
from codexa.core.program.compiling import compile_form
from codexa.core.program.proof import proof
from codexa.core.program.renaming_words import renamed


def number(key, **more):
    return {"id": key, "type": "number", "key": key, "label": key.title(), **more}


def options(*codes):
    return [{"id": f"o{code}", "code": code, "label": code.title()} for code in codes]


EXTRAS, SITES = options("tea", "hat"), options("dome", "deck")


def form(when=""):
    """A form whose last field is shown by a condition."""
    blocks = [
        {"id": "show", "type": "single_choice", "key": "show", "label": "Show", "options": options("deep", "near")},
        {"id": "extras", "type": "several_choices", "key": "extras", "label": "Extras", "options": EXTRAS},
        {"id": "free", "type": "dropdown", "key": "free", "label": "Free", "options": options("a"), "other": True},
        {"id": "lines", "type": "repeat", "key": "lines", "label": "Lines", "kinds": [
            {"id": "pair", "key": "pair", "label": "Pair", "blocks": [
                {"id": "site", "type": "dropdown", "key": "site", "label": "Site", "options": SITES}]},
            {"id": "single", "key": "single", "label": "Single", "blocks": [number("size")]}]},
        number("people", shown=when),
    ]  # fmt: skip
    bands = [{"start": None, "value": "1", "label": "low"}, {"start": "5", "value": "2", "label": "high"}]
    figures = [
        {"kind": "bands", "id": "level", "key": "level", "formula": "LEN(show)", "bands": bands},
        {"kind": "profile", "id": "bird", "key": "bird",
         "profiles": [{"code": "owl", "label": "Owl"}, {"code": "robin", "label": "Robin"}],
         "questions": [{"field": "show", "points": {"deep": {"owl": "2"}}}]},
        {"kind": "score", "id": "quiz", "key": "quiz",
         "questions": [{"field": "show", "points": {"deep": "2"}, "right": ["deep"]}]},
    ]  # fmt: skip
    return read_form({"name": "Words", "title": "Words", "pages": [{"id": "p", "blocks": blocks}], "figures": figures})


def wrong(when):
    return [
        (each.severity.value, when[each.span.start : each.span.end], each.message)
        for each in proof(compile_form(form(when)))
        if each.code == "no_such_word"
    ]


@pytest.mark.parametrize(
    ("when", "word", "message"),
    [
        ('show = "dep"', '"dep"', 'There is no option with the code "dep". Did you mean "deep"?'),
        ('"moon" <> show', '"moon"', 'There is no option with the code "moon". There is "deep", "near".'),
        ('HAS(extras, "towel")', '"towel"', 'There is no option with the code "towel". There is "tea", "hat".'),
        ('show.label = "Deeep"', '"Deeep"', 'There is no option that reads "Deeep". Did you mean "Deep"?'),
        ('SWITCH(show, "deep", 1, "nar", 2, 3) > 1', '"nar"', 'There is no option with the code "nar". Did you mean "near"?'),  # noqa: E501
        ('ROWCOUNT(lines, "pairs") > 0', '"pairs"', 'There is no row kind with the key "pairs". Did you mean "pair"?'),
        ('COUNTIF(lines.site, "dom") > 0', '"dom"', 'There is no option with the code "dom". Did you mean "dome"?'),
        ('level.label = "hihg"', '"hihg"', 'There is no band of the name "hihg". Did you mean "high"?'),
        ('bird = "owls"', '"owls"', 'There is no profile with the code "owls". Did you mean "owl"?'),
        ('bird.label = "Rob"', '"Rob"', 'There is no profile of the name "Rob". Did you mean "Robin"?'),
    ],
)  # fmt: skip
def test_a_text_that_names_nothing_is_an_error_at_its_place(when, word, message):
    assert wrong(when) == [("error", word, message)]


@pytest.mark.parametrize(
    "when",
    ['show = "DEEP"', 'show = ""', 'extras = "tea, hat"', 'free = "other"', 'free.label = "Anything"',
     'COUNTIF(lines.site, "d*") > 0', "show = bird.label", 'MATCH("deck", lines.site, 0) > 0', 'LEFT(show, 2) = "de"'],
)  # fmt: skip
def test_what_can_be_meant_is_no_error(when):
    assert wrong(when) == []


@pytest.mark.parametrize(
    ("owner", "setting", "name", "before", "after"),
    [
        ("show", "options.0.code", "sky", 'OR(show = "Deep", show = "near")', 'OR(show = "sky", show = "near")'),
        ("extras", "options.1.code", 'h"t', 'HAS(extras,"hat")', 'HAS(extras,"h""t")'),
        ("level", "bands.1.label", "top", 'level.label="high"', 'level.label="top"'),
        ("bird", "profiles.0.label", "Eule", 'bird.label = "Owl"', 'bird.label = "Eule"'),
        ("bird", "profiles.0.code", "eule", 'bird = "owl"', 'bird = "eule"'),
        ("pair", "key", "two", 'ROWCOUNT(lines, "pair") > COUNT(lines.single.size)', 'ROWCOUNT(lines, "two") > COUNT(lines.single.size)'),  # noqa: E501
        ("show", "key", "what", 'show = "deep"', 'what = "deep"'),
    ],
)  # fmt: skip
def test_what_is_renamed_is_rewritten_wherever_it_is_named(owner, setting, name, before, after):
    changed = renamed(form(before), owner, setting, name)
    shown = next(block.shown for block in changed.blocks() if block.id == "people")
    assert shown == after
    assert [each for each in proof(compile_form(changed)) if each.code in ("no_such_word", "unknown_name")] == []


def test_points_follow_their_codes():
    bird, quiz = renamed(form(), "show", "options.0.code", "sky").figures[1:]
    assert bird.questions[0].points["sky"].keys() == {"owl"}
    assert (quiz.questions[0].points.keys(), quiz.questions[0].right) == ({"sky"}, ("sky",))
    assert renamed(form(), "bird", "profiles.0.code", "eule").figures[1].questions[0].points["deep"].keys() == {"eule"}


def test_slots_and_what_belongs_to_an_option_follow_its_code():
    fields = [
        {"id": "show", "type": "single_choice", "key": "show", "label": "Show", "options": SITES},
        {"id": "dish", "type": "dropdown", "key": "dish", "label": "Dish", "offered": "option.belongs_to = show",
         "options": [{**each, "belongs_to": each["code"].upper()} for each in options("dome", "deck")]},
        {"id": "visit", "type": "slot", "key": "visit", "label": "Visit", "by": "show",
         "series": [{"id": "s", "first": "2027-01-04", "last": "2027-01-05", "at": ["dome", "deck"]}],
         "singles": [{"starts": "2027-01-06T18:00", "at": "dome"}, {"starts": "2027-01-06T18:00", "at": "deck"}]},
    ]  # fmt: skip
    before = read_form({"name": "Nights", "title": "Nights", "pages": [{"id": "p", "blocks": fields}]})
    _, dish, visit = renamed(before, "show", "options.0.code", "top").pages[0].blocks
    assert [each.belongs_to for each in dish.options] == ["top", "DECK"]
    assert (visit.series[0].at, [each.at for each in visit.singles]) == (("top", "deck"), ["top", "deck"])


def test_trials_follow_the_codes_that_their_answers_and_expectations_name():
    rows = [{"kind": "pair", "id": "r", "values": {"site": "dome"}}]
    answers = {"show": "deep", "extras": ["tea", "hat"], "lines": rows}
    expected = {"figures": {"bird": "Owl"}}
    trial = {"id": "t", "name": "One", "day": "2026-11-27", "answers": answers, "expected": expected}
    tried = read_form(form().model_dump(mode="json") | {"trials": [trial]})
    renames = [("show", 0, "sky"), ("extras", 1, "cap"), ("site", 0, "top")]
    for owner, at, code in renames:
        tried = renamed(tried, owner, f"options.{at}.code", code)
    (after,) = renamed(tried, "bird", "profiles.0.label", "Eule").trials
    row = {"kind": "pair", "id": "r", "values": {"site": "top"}}
    assert after.answers == {"show": "sky", "extras": ["tea", "cap"], "lines": [row]}
    assert after.expected.figures == {"bird": "Eule"}


@pytest.mark.parametrize(
    ("owner", "setting"), [("nobody", "options.0.code"), ("show", "options.9.code"), ("show", "x")]
)
def test_what_is_not_there_can_not_be_renamed(owner, setting):
    with pytest.raises(DefinitionError):
        renamed(form(), owner, setting, "sky")


def test_a_code_that_can_be_none_is_refused():
    with pytest.raises(DefinitionError):
        renamed(form(), "show", "options.0.code", " ")
