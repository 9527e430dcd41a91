"""The form's document: what is refused and how, what renaming and comparing do."""

import copy

import pytest
from conftest import visit_document
from jsonschema import Draft202012Validator

from codexa.core.definition.comparing import count_changes
from codexa.core.definition.form import read_form
from codexa.core.definition.renaming import rename_key
from codexa.core.errors import DefinitionError
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


@pytest.mark.parametrize(
    ("change", "count"),
    [
        (lambda form, blocks: None, 0),
        (lambda form, blocks: blocks[0].update(label="What"), 1),
        (lambda form, blocks: blocks.pop(), 1),
        (lambda form, blocks: blocks.reverse(), 1),
        (lambda form, blocks: form.update(title="Else", currency="CHF"), 2),
        (lambda form, blocks: form["pages"].append({"id": "p2", "title": "More"}), 1),
    ],
)
def test_changes_are_counted_as_people_count_them(change, count):
    assert count_changes(read_form(visit_document()), read_form(changed(change))) == count
