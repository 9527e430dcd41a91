"""How a form looks and what it says by itself: contrast, messages, and the templates to begin from."""

import pytest

from codexa.core.definition.brand import Brand
from codexa.core.definition.palette import contrasts
from codexa.core.definition.wording import MESSAGES
from codexa.core.errors import DefinitionError
from codexa.core.form.form import read_form
from codexa.core.formula.check import Severity
from codexa.core.program.accept import Accepted, accept
from codexa.core.program.compiling import compile_form
from codexa.core.program.proof import proof
from codexa.services.previewing import sample
from codexa.services.templates import templates
from core.forms import block, program_of, state_of
from core.formulas import CONTEXT


@pytest.mark.parametrize(
    ("look", "settings"),
    [
        ({}, []),
        ({"accent": "#FFE08A"}, []),  # links are drawn darker, and what stands on it is ink
        ({"ink": "#AAAAAA"}, ["brand.ink"]),
        ({"banner": "#808080", "ink": "#5A5A5A"}, []),
        ({"paper": "#767676", "ink": "#000000", "accent": "#000000"}, ["brand.ink", "brand.paper"]),
    ],
)
def test_the_proof_doubts_what_can_not_be_read(look, settings):
    program = program_of(block("number", "n"), brand=look)
    assert [each.setting for each in proof(program) if each.code == "low_contrast"] == settings


def test_contrasts_are_measured_as_the_standard_says():
    told = {words: ratio for _, words, ratio in contrasts(Brand(accent="#000000"))}
    assert told["Text on the accent colour"] == pytest.approx(21)


class TestMessages:
    def test_an_authors_words_replace_the_usual_ones_for_errors_too(self):
        program = program_of(block("number", "n"), wording={"messages": {"not_a_number": "Figures only, please."}})
        assert [each.message for each in state_of(program, {"n": "many"}).errors().values()] == [
            "Figures only, please."
        ]

    def test_a_value_that_means_nothing_is_an_error_of_that_message_and_stops_nothing_else(self):
        program = program_of(block("number", "n"), wording={"messages": {"add": "Add {thing}", "done": "Ready"}})
        (wrong,) = [each for each in proof(program) if each.setting == "wording.messages.add"]
        assert "{thing} means nothing" in wrong.message
        assert "{label}" in wrong.message

    @pytest.mark.parametrize(
        ("messages", "words"),
        [
            ({"hello": "Hi"}, 'no message "hello"'),
            ({"done": ""}, "at least"),
        ],
    )
    def test_what_means_nothing_is_refused(self, messages, words):
        with pytest.raises(DefinitionError) as refused:
            read_form({"name": "x", "wording": {"messages": messages}})
        assert words in refused.value.problems[0].message

    def test_have_names_of_their_own_and_say_where_they_are_met(self):
        assert len({message.name for message in MESSAGES}) == len(MESSAGES)
        assert all(message.when and message.group for message in MESSAGES)


@pytest.mark.parametrize("template", templates(), ids=lambda template: template.name)
class TestTemplates:
    def test_have_no_errors_and_no_doubts(self, template):
        findings = proof(compile_form(template.form))
        assert [each.message for each in findings if each.severity in (Severity.ERROR, Severity.DOUBT)] == []

    def test_can_be_filled_in_and_handed_in(self, template):
        program = compile_form(template.form)
        # No sample fits a pattern; where there is one, it is answered by hand.
        known = {"membernumber": "AL-0042"} if "membernumber" in program.places else {}
        results = (accept(program, sample(program, seed) | known, CONTEXT) for seed in range(40))
        assert any(isinstance(result, Accepted) for result in results)


def test_there_are_enough_templates_and_each_says_what_it_is_for():
    assert len(templates()) >= 8
    assert all(template.purpose.endswith(".") and template.shows for template in templates())
