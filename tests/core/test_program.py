"""What a form computes: facts in dependency order, acceptance, the public face."""

import copy
import json
import random
import subprocess
import sys
from dataclasses import replace
from decimal import Decimal
from pathlib import Path

import pytest
from conftest import EXAMPLES, visit_document
from hypothesis import given
from hypothesis import strategies as st

from codexa.core.form.form import read_form
from codexa.core.program.accept import Accepted, Refused, accept, kept_of
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.faces import FormState
from codexa.core.program.kept import state_of_kept
from codexa.core.program.notes import links, notes
from codexa.core.program.proof import proof
from codexa.core.program.public import form_face, form_state
from codexa.core.program.samples import sample_answers
from core.forms import block, facts_of, program_of
from core.formulas import CONTEXT
from core.records import example_tables

PROGRAM = compile_form(read_form(visit_document()))


def program_with(change):
    document = copy.deepcopy(visit_document())
    change(document["pages"][0]["blocks"])
    return compile_form(read_form(document))


def facts(answers, program=PROGRAM):
    return FormState.model_validate(form_state(evaluate(program, answers, CONTEXT))).blocks


class TestEvaluate:
    def test_a_condition_shows_and_hides(self):
        assert not facts({})["school"].shown
        assert not facts({"people": "12"})["school"].shown
        assert facts({"people": "13"})["school"].shown

    def test_a_hidden_answer_is_blank_to_formulas_and_comes_back(self):
        program = program_with(lambda blocks: blocks[4].update(format="text", formula='"at " & school'))
        answers = {"people": "13", "school": "Harbour School"}
        assert facts(answers, program)["price"].value == "at Harbour School"
        assert facts({**answers, "people": "3"}, program)["price"].value == "at "
        assert facts(answers, program)["price"].value == "at Harbour School"

    def test_money_is_exact_and_rounded_to_the_minor_unit_where_it_is_worked_out(self):
        assert facts({"show": "o1", "people": "3"})["price"].value == "€13.50"
        third = program_with(lambda blocks: blocks[4].update(formula="10 / 3"))
        state = evaluate(third, {}, CONTEXT)
        assert state.value(third.places["price"]) == Decimal("3.33")

    def test_a_failed_formula_shows_visitors_a_dash(self):
        program = program_with(lambda blocks: blocks[4].update(formula="100 / (people - 3)"))
        assert facts({"people": "3"}, program)["price"].value == "–"
        assert facts({"people": "4"}, program)["price"].value == "€100.00"

    def test_an_error_in_a_condition_counts_as_no(self):
        program = program_with(lambda blocks: blocks[2].update(shown="1 / people > 0"))
        assert not facts({"people": "0"}, program)["school"].shown

    @pytest.mark.parametrize(
        ("answers", "code"),
        [({}, "required"), ({"people": "x"}, "not_a_number"), ({"people": "0"}, "limits"), ({"people": "12"}, None)],
    )
    def test_errors_are_of_shown_fields_only(self, answers, code):
        state = facts(answers)
        assert (state["people"].error and state["people"].error.code) == code
        assert state["school"].error is None

    @given(st.randoms())
    def test_definition_order_does_not_matter(self, order):
        document = visit_document()
        order.shuffle(document["pages"][0]["blocks"])
        shuffled = compile_form(read_form(document))
        answers = {"show": "o2", "people": "20", "school": "Harbour School", "mail": "no"}
        assert facts(answers, shuffled) == facts(answers)

    @given(
        st.dictionaries(
            st.sampled_from(["show", "people", "school", "mail", "price", "zz"]),
            st.text() | st.integers() | st.none() | st.lists(st.text()),
        )
    )
    def test_no_answers_make_it_raise(self, answers):
        facts(answers)
        accept(PROGRAM, answers, CONTEXT)


class TestAccept:
    def test_keeps_values_and_computes_again_whatever_was_sent(self):
        answers = {"show": "o2", "people": "20", "school": " Harbour School ", "price": "0.01"}
        accepted = accept(PROGRAM, answers, CONTEXT)
        assert accepted.answers == {"show": "deep", "people": "20", "school": "Harbour School"}
        assert accepted.computed == {"price": "120"}
        assert (accepted.path, accepted.confirmation) == (("p1",), None)

    def test_does_not_keep_what_was_not_shown(self):
        accepted = accept(PROGRAM, {"people": "2", "school": "Left over"}, CONTEXT)
        assert "school" not in accepted.answers

    def test_says_everything_that_is_wrong(self):
        refused = accept(PROGRAM, {"people": "99", "school": "", "mail": "mira@"}, CONTEXT)
        assert isinstance(refused, Refused)
        assert {field: error.code for field, error in refused.errors.items()} == {
            "people": "limits",
            "school": "required",
            "mail": "not_an_email",
        }

    def test_names_fields_that_do_not_exist(self):
        assert accept(PROGRAM, {"people": "2", "admin": True}, CONTEXT) == Refused(errors={}, unknown=("admin",))

    @pytest.mark.parametrize("example", sorted(EXAMPLES.glob("*.json")), ids=lambda path: path.stem)
    def test_takes_the_samples_of_every_example(self, example):
        program = compile_form(read_form(json.loads(example.read_text(encoding="utf-8"))))
        assert [each for each in proof(program) if each.code != "practice"] == []
        context = replace(CONTEXT, tables=example_tables())
        for seed in range(30):
            answers = sample_answers(program, random.Random(seed), context)
            accepted = accept(program, answers, context)
            assert isinstance(accepted, Accepted)
            again = state_of_kept(program, accepted.answers, replace(CONTEXT, number=None))
            assert kept_of(again) == accepted.answers


class TestProof:
    @pytest.mark.parametrize(
        ("change", "expected"),
        [
            (lambda blocks: blocks[2].update(shown="peple > 3"), ("error", "unknown_name", "school", "shown")),
            (lambda blocks: blocks[2].update(shown="people >"), ("error", "unreadable", "school", "shown")),
            (lambda blocks: blocks[4].update(formula=""), ("error", "formula_wrong", "price", "formula")),
            (lambda blocks: blocks[4].update(formula="mail * 2"), ("doubt", "text_as_number", "price", "formula")),
            (lambda blocks: blocks[0].update(options=[]), ("error", "options_wrong", "show", "options")),
            (lambda blocks: blocks[1].update(minimum="61"), ("error", "minimum_wrong", "people", "minimum")),
            (lambda blocks: blocks[3].update(label=" "), ("error", "no_label", "mail", "label")),
            (lambda blocks: blocks[3].update(key="school"), ("error", "double_key", "mail", "key")),
            (lambda blocks: blocks.pop(1), ("error", "unknown_name", "school", "shown")),
        ],
    )
    def test_finds(self, change, expected):
        finding = proof(program_with(change))[0]
        assert (finding.severity, finding.code, finding.block, finding.setting) == expected
        assert finding.message.endswith((".", "?"))
        assert finding.remedy.endswith(".")

    def test_names_the_blocks_of_a_circle_and_computes_the_rest(self):
        def change(blocks):
            blocks[0]["shown"] = 'school = "x"'
            blocks[2]["shown"] = 'show = "deep"'

        program = program_with(change)
        circle = [finding for finding in proof(program) if finding.code == "circle"]
        assert len(circle) == 1
        assert "1.1 Show" in circle[0].message
        assert "1.3 School" in circle[0].message
        state = facts({"people": "5", "show": "o2"}, program)
        assert not state["show"].shown
        assert state["people"].shown

    def test_a_field_shown_by_its_own_answer_is_a_circle(self):
        findings = proof(program_with(lambda blocks: blocks[1].update(shown="people > 1")))
        assert [finding.message for finding in findings] == ["1.2 People depends on itself."]

    def test_a_required_rule_may_read_its_own_field(self):
        assert proof(program_with(lambda blocks: blocks[1].update(required="NOT(people = 3)"))) == ()


class TestMargin:
    def test_notes_read_as_sentences_with_blocks_by_id(self):
        written = {
            block: ["".join(f"<{w.block}>" if w.block else w.text for w in note.words) for note in found]
            for block, found in notes(PROGRAM).items()
        }
        assert written == {
            "show": ["counts as 4.5 · 6"],
            "people": ["must be answered", "must be from 1 to 60"],
            "school": ["shown when <people> is more than 12", "must be answered"],
            "mail": ["must be an e-mail address"],
            "price": ["= show * people"],
        }

    @pytest.mark.parametrize(
        ("condition", "sentence"),
        [
            ('show = "deep"', "<show> is Deep sky"),
            ('"deep" <> show', "<show> is not Deep sky"),
            ("12 < people", "<people> is more than 12"),
            ("people + 3 >= -5", "<people> + 3 is at least -5"),
            ('AND(people > 3, show = "stars")', "<people> is more than 3 and <show> is First stars"),
            ("OR(people > 3, ISBLANK(mail))", "<people> is more than 3, or <mail> is blank"),
            ("NOT(ISBLANK(mail))", "<mail> is filled in"),
            ('mail = ""', "<mail> is blank"),
            ('NOT(INGROUP("keepers"))', "who is signed in is not in the group keepers"),
            ("NOT(ISBLANK(visitor.first))", "the first name of who is signed in is filled in"),
            ("MOD(people, 2) = 1", "MOD(people, 2) = 1"),
        ],
    )
    def test_simple_conditions_are_put_into_words(self, condition, sentence):
        program = program_with(lambda blocks: blocks[2].update(shown=condition))
        words = notes(program)["school"][0].words[1:]
        assert "".join(f"<{each.block}>" if each.block else each.text for each in words) == sentence

    def test_links_go_both_ways(self):
        assert links(PROGRAM)["price"].reads == ("show", "people")
        assert links(PROGRAM)["people"].read_by == ("school", "price")


class TestPublicFace:
    PRIVATE = (
        "4.5",
        "counts",
        '"stars"',
        '"deep"',
        "formula",
        "people >",
        "minimum",
        "60",
        "Visit (team)",
        '"key"',
        "TRUE",
    )

    def test_holds_nothing_private(self):
        document = visit_document() | {"name": "Visit (team)"}
        program = compile_form(read_form(document))
        page = form_face(program).model_dump_json() + json.dumps(form_state(evaluate(program, {}, CONTEXT)))
        assert [each for each in self.PRIVATE if each in page] == []

    def test_asks_only_for_fields_that_matter(self):
        assert form_face(PROGRAM).asks == ("show", "people", "mail")

    def test_tells_nothing_of_a_hidden_block(self):
        program = program_with(lambda blocks: blocks[4].update(shown="people > 1"))
        state = form_state(evaluate(program, {"show": "o1", "people": "1"}, CONTEXT))
        assert state["blocks"]["price"] == {"shown": False}


class TestAllAnswers:
    SMALL = program_of(
        pages=[
            {
                "id": "p1",
                "title": "Visit of {people}",
                "blocks": [
                    block("number", "people"),
                    block("short_text", "school", shown="people > 12"),
                    block("short_text", "no_label", label=""),
                ],
            },
            {"id": "p2", "title": "Look over", "blocks": [block("all_answers", "all")]},
        ]
    )

    def told(self, answers):
        return [
            (page.title, [(a.label, a.text) for a in page.answers])
            for page in facts_of(self.SMALL, answers).blocks["all"].answers
        ]

    def test_tell_what_is_shown_and_not_blank_by_pages_and_no_key(self):
        assert self.told({}) == []
        assert self.told({"people": "3", "school": "Eagle Rock"}) == [("Visit of 3", [("People", "3")])]
        assert self.told({"people": "1300", "school": "Eagle Rock", "nolabel": "x"}) == [
            ("Visit of 1,300", [("People", "1,300"), ("School", "Eagle Rock"), ("", "x")])
        ]

    def test_are_told_anew_after_any_answer(self):
        assert set(form_face(self.SMALL).asks) >= {"people", "school", "nolabel"}
        assert "all" in facts_of(self.SMALL, {"school": "x"}, self.SMALL.affected(["school"])).blocks


def test_the_core_loads_neither_web_nor_database():
    code = "import sys, codexa.core.__main__; sys.exit(any(m in sys.modules for m in ('flask', 'psycopg')))"
    assert subprocess.run([sys.executable, "-c", code], cwd=EXAMPLES.parent, check=False).returncode == 0


@pytest.mark.parametrize(
    ("command", "code", "words"),
    [("proof", 0, "[]"), ("evaluate", 0, '"value": "€0.00"'), ("accept", 1, '"required"')],
)
def test_the_command_line_says_what_the_core_says(command, code, words):
    form = str(EXAMPLES / "plan_a_visit.json")
    done = subprocess.run(
        [sys.executable, "-m", "codexa.core", command, form],
        cwd=EXAMPLES.parent,
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == code
    assert words in done.stdout


def test_the_command_line_refuses_in_a_sentence(tmp_path):
    broken = tmp_path / "form.json"
    broken.write_text('{"name": "x", "extra": 1}')
    done = subprocess.run(
        [sys.executable, "-m", "codexa.core", "proof", str(broken)],
        cwd=Path(EXAMPLES).parent,
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 1
    assert done.stderr.startswith("extra: this key is unknown")
