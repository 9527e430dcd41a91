"""The form's document: what is refused and how, what renaming and comparing do."""

import copy

import pytest
from conftest import visit_document
from jsonschema import Draft202012Validator

from codexa.core.errors import DefinitionError
from codexa.core.form.comparing import count_changes, describe_changes
from codexa.core.form.form import read_form
from codexa.core.form.renaming import rename_key
from codexa.web.openapi import form_schema


def changed(change):
    document = copy.deepcopy(visit_document())
    change(document, document["pages"][0]["blocks"])
    return document


@pytest.mark.parametrize(
    ("change", "path", "words"),
    [
        (lambda form, _: form.update(colour="red"), "colour", "unknown"),
        (lambda _, blocks: blocks[1].update(minimun="1"), "pages.0.blocks.1.number.minimun", "unknown"),
        (lambda _, blocks: blocks[1].update(key="2nd"), "pages.0.blocks.1.number.key", "small letters"),
        (lambda _, blocks: blocks[1].update(key="visitor"), "pages.0.blocks.1.number.key", "meaning of its own"),
        (lambda _, blocks: blocks[1].update(minimum="many"), "pages.0.blocks.1.number.minimum", "decimal"),
        (lambda _, blocks: blocks[1].update(type="wish"), "pages.0.blocks.1", "wish"),
        (lambda _, blocks: blocks[1].update(id="show"), "the document", "used twice"),
        (lambda form, _: form.update(currency="XXY"), "currency", "ISO 4217"),
        (lambda form, _: form.update(time_zone="Mars/Olympus"), "time_zone", "time zone"),
        (lambda form, _: form.update(name="  "), "name", "pattern"),
    ],
)
def test_a_wrong_document_is_refused_with_its_place(change, path, words):
    with pytest.raises(DefinitionError) as refused:
        read_form(changed(change))
    assert [problem.path for problem in refused.value.problems] == [path]
    assert words in refused.value.problems[0].message


def test_every_problem_is_told_not_just_the_first():
    with pytest.raises(DefinitionError) as refused:
        read_form({"name": "", "pages": [{"id": "P!"}], "extra": 1})
    assert len(refused.value.problems) == 3


@pytest.mark.parametrize(
    "document", [None, [], "form", {"pages": 7}, {"name": "x", "pages": [{"id": "p", "blocks": [None]}]}]
)
def test_what_is_no_form_at_all_is_refused(document):
    with pytest.raises(DefinitionError):
        read_form(document)


def test_a_document_survives_being_read_and_written_and_fits_its_published_schema():
    form = read_form(visit_document())
    document = form.model_dump(mode="json")
    assert read_form(document) == form
    Draft202012Validator(form_schema()).validate(document)


def test_renaming_a_key_rewrites_the_formulas_that_use_it_and_nothing_else():
    document = changed(lambda _, blocks: blocks[4].update(formula='PEOPLE * 2 & "people" + ( people+show )'))
    renamed = rename_key(read_form(document), "people", "guests")
    blocks = {block.id: block for block in renamed.blocks()}
    assert blocks["people"].key == "guests"
    assert blocks["school"].shown == "guests > 12"
    assert blocks["price"].formula == 'guests * 2 & "people" + ( guests+show )'


def test_renaming_leaves_what_can_not_be_read_and_refuses_a_taken_key():
    form = read_form(changed(lambda _, blocks: blocks[4].update(formula="people * (")))
    assert (
        next(block for block in rename_key(form, "people", "guests").blocks() if block.id == "price").formula
        == "people * ("
    )
    with pytest.raises(DefinitionError):
        rename_key(form, "people", "show")


INNER = {"id": "inner", "type": "short_text", "key": "inner", "label": "Inner"}
GROUP = {"id": "group", "type": "group", "key": "group", "blocks": []}


def test_a_change_inside_a_group_counts_once():
    before = changed(lambda _, blocks: blocks.append({**GROUP, "blocks": [INNER]}))
    after = changed(lambda _, blocks: blocks.append({**GROUP, "blocks": [{**INNER, "label": "Else"}]}))
    assert count_changes(read_form(before), read_form(after)) == 1


@pytest.mark.parametrize(
    ("change", "count"),
    [
        (lambda form, blocks: None, 0),
        (lambda form, blocks: blocks[0].update(label="What"), 1),
        (lambda form, blocks: blocks.pop(), 1),
        (lambda form, blocks: blocks.reverse(), 1),
        (lambda form, blocks: form.update(title="Else", currency="CHF"), 2),
        (lambda form, blocks: form["pages"].append({"id": "p2", "title": "More"}), 1),
        (lambda form, blocks: form["pages"][0].update(address="visit"), 1),
        (lambda form, blocks: blocks.append({**GROUP, "blocks": [INNER]}), 2),
    ],
)
def test_changes_are_counted_as_people_count_them(change, count):
    assert count_changes(read_form(visit_document()), read_form(changed(change))) == count


class TestChangesInWords:
    BASE = {
        "name": "Visit",
        "pages": [
            {"id": "p1", "title": "One", "blocks": [
                {"id": "a", "type": "number", "key": "a", "label": "Adults"},
                {"id": "g", "type": "group", "key": "g", "label": "Group", "blocks": [
                    {"id": "b", "type": "single_choice", "key": "b", "label": "Way", "options": [
                        {"id": "o1", "code": "bus", "label": "Bus"}]}]}]},
            {"id": "p2", "title": "Two"},
        ],
        "figures": [{"id": "f1", "key": "total", "name": "Total", "kind": "formula", "formula": "a * 2"}],
    }  # fmt: skip

    def told(self, change):
        after = copy.deepcopy(self.BASE)
        change(after, after["pages"][0]["blocks"])
        return [(each.name, each.words) for each in describe_changes(read_form(self.BASE), read_form(after))]

    @pytest.mark.parametrize(
        ("change", "expected"),
        [
            (lambda _form, _blocks: None, []),
            (lambda form, _: form.update(title="Hello"), [("the form", "title was blank, is Hello")]),
            (lambda form, _: form.update(brand={"accent": "#000000"}), [("the form", "brand, accent was #2B3A8C, is #000000")]),  # noqa: E501
            (lambda _, blocks: blocks[0].update(label="Grown-ups"), [("1.1 Grown-ups", "label was Adults, is Grown-ups")]),  # noqa: E501
            (lambda _, blocks: blocks[0].update(shown="b > 1"), [("1.1 Adults", "shown was blank, is b > 1")]),
            (lambda _, blocks: blocks[1]["blocks"][0]["options"].append({"id": "o2", "code": "car", "label": "Car"}), [("1.2.1 Way", "option added: Car")]),  # noqa: E501
            (lambda _, blocks: blocks[1]["blocks"][0]["options"].clear(), [("1.2.1 Way", "option removed: Bus")]),
            (lambda _, blocks: blocks.pop(0), [("1.1 Adults", "block removed")]),
            (lambda _, blocks: blocks.append({"id": "n", "type": "number", "key": "n", "label": "New"}), [("1.3 New", "block added")]),  # noqa: E501
            (lambda _, blocks: blocks.reverse(), [("the form", "a new order")]),
            (lambda form, blocks: form["pages"][1].update(blocks=[blocks.pop(0)]), [("2.1 Adults", "moved from 1 One")]),  # noqa: E501
            (lambda form, _: form["figures"][0].update(formula="a * 3"), [("Total", "formula was a * 2, is a * 3")]),
            (lambda form, _: form.update(confirmations=[{"id": "c1", "name": "All"}]), [("All", "confirmation added")]),
        ],
    )  # fmt: skip
    def test_each_is_named_and_told(self, change, expected):
        assert self.told(change) == expected

    def test_trials_are_told_and_not_counted_as_changes_for_visitors(self):
        after = self.BASE | {"trials": [{"id": "t1", "name": "Try", "day": "2026-11-23"}]}
        before, now = read_form(self.BASE), read_form(after)
        assert count_changes(before, now) == 0
        assert [each.words for each in describe_changes(before, now)] == ["trial added"]
