"""Trials: what comes out is expected, what differs is told in words, and coverage knows which rules were tried."""

import datetime
import json
import random

import pytest
from conftest import EXAMPLES

from codexa.core.definition.trials import Expected, Trial
from codexa.core.form.form import read_form
from codexa.core.program.accept import Accepted, accept
from codexa.core.program.broken_trials import changes_behind
from codexa.core.program.charts import bars_of, looked_at
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.kept import entered_again
from codexa.core.program.proof import proof
from codexa.core.program.public import form_state
from codexa.core.program.samples import sample_answers
from codexa.core.program.trials import holding, outcome_of, run_trials, state_on
from codexa.core.program.untried import answers_for_untried
from core.forms import block, figure, options, program_of, state_of
from core.formulas import CONTEXT

DAY = datetime.date(2026, 11, 23)


def trial(answers, expected=None, **more):
    given = {"id": "t1", "name": "Try", "day": DAY.isoformat(), "answers": answers, **more}
    return given if expected is None else given | {"expected": expected}


BLOCKS = (
    block("number", "people", required="TRUE"),
    block("short_text", "school", shown="people > 12", required="TRUE"),
    block("calculated", "price", formula="people * 4", format="money"),
)
END = {"id": "end", "name": "Large", "when": "people > 50", "title": "Large"}


def program_with(*trials, blocks=BLOCKS, **settings):
    return program_of(*blocks, confirmations=[END], trials=list(trials), **settings)


def differences(program):
    (result,) = run_trials(program).results
    assert result.passed is not bool(result.differences)
    return [(each.name, each.expected, each.came) for each in result.differences]


def test_what_came_out_once_is_what_a_trial_expects():
    answers = {"people": "20", "school": "Harbour School"}
    outcome = outcome_of(state_on(program_with(), answers, {}, DAY))
    assert outcome == Expected(
        shown=("school",),
        hidden=(),
        figures={"price": "€80.00"},
        wrong=(),
        path=("p1",),
        confirmation="",
        follow_ups={},
    )
    assert differences(program_with(trial(answers, outcome.model_dump(mode="json")))) == []


@pytest.mark.parametrize(
    ("expected", "told"),
    [
        ({"hidden": ["school"]}, ("1.2 School", "hidden", "shown")),
        ({"shown": ["gone"]}, ("something that was deleted", "shown", "deleted")),
        ({"figures": {"price": "€79.00"}}, ("1.3 Price", "€79.00", "€80.00")),
        ({"figures": {"gone": "1"}}, ("something that was deleted", "1", "deleted")),
        ({"wrong": []}, ("1.2 School", "no error", "Please answer this.")),
        ({"wrong": ["people", "school"]}, ("1.1 People", "an error", "none")),
        ({"path": ["p1", "p2"]}, ("the path", "1 → a deleted page", "1")),
        ({"confirmation": "end"}, ("the confirmation", "C.1 Large", "the form's usual words")),
        ({"confirmation": "gone"}, ("the confirmation", "one that is deleted", "the form's usual words")),
    ],
)
def test_a_difference_says_what_was_expected_and_what_came(expected, told):
    assert differences(program_with(trial({"people": "20"}, expected))) == [told]


class TestExactNumbers:
    """A figure that people read rounded is compared to the last digit, unless its author wants it as it is read."""

    BEFORE = (block("number", "people"), block("calculated", "each", formula="people / 8", decimals=1))
    AFTER = (block("number", "people"), block("calculated", "each", formula="people / 8 + 0.01", decimals=1))

    def kept(self, **changes):
        expected = outcome_of(state_on(program_with(blocks=self.BEFORE), {"people": "10"}, {}, DAY))
        assert (expected.figures, expected.exact) == ({"each": "1.3"}, {"each": "1.25"})
        return trial({"people": "10"}, expected.model_dump(mode="json") | changes)

    def test_what_differs_in_no_digit_that_is_read_is_told_exactly(self):
        told = [("1.2 Each", "exactly 1.25", "exactly 1.26")]
        assert differences(program_with(self.kept(), blocks=self.AFTER)) == told
        assert differences(program_with(self.kept(exact={}), blocks=self.AFTER)) == []

    def test_money_is_read_exactly_and_a_number_that_became_a_text_is_told(self):
        state = state_on(program_with(), {"people": "20", "school": "Harbour School"}, {}, DAY)
        assert outcome_of(state).exact == {}
        text = (self.BEFORE[0], block("calculated", "each", formula='"1.3"', format="text"))
        assert differences(program_with(self.kept(), blocks=text)) == [("1.2 Each", "exactly 1.25", "no number")]


class TestWhatBrokeIt:
    """Of all that changed, what leads to the difference; the rest is not told."""

    OPTIONS = options(("small", 4), ("large", 9))

    def blocks(self, price="base * people", base="size * 2", label="Notes", **option):
        return (
            block("number", "people"),
            block("single_choice", "size", options=[self.OPTIONS[0] | option, self.OPTIONS[1]]),
            block("calculated", "base", formula=base),
            block("calculated", "price", formula=price),
            block("short_text", "notes", required="people > 2") | {"label": label},
        )

    def told(self, **changed):
        expected = {"figures": {"price": "24"}}
        given = trial({"people": "3", "size": "osmall"}, expected)
        before, after = (program_with(given, blocks=each) for each in (self.blocks(), self.blocks(**changed)))
        assert run_trials(before).results[0].passed
        (result,) = run_trials(after).results
        found = changes_behind(before, after, after.form.trials[0], result)
        return [(each.name, each.words) for each in found]

    @pytest.mark.parametrize(
        ("changed", "told"),
        [
            ({"base": "size * 3"}, ("1.3 Base", "formula was size * 2, is size * 3")),
            ({"price": "people"}, ("1.4 Price", "formula was base * people, is people")),
            ({"counts_as": "5"}, ("1.2 Size", "option Small, counts as was 4, is 5")),
        ],
    )
    def test_a_formula_or_a_number_on_the_way_is_told_and_nothing_beside_it(self, changed, told):
        assert self.told(label="Wishes", **changed) == [told]

    def test_what_decides_the_confirmation_or_the_path_is_told_for_these(self):
        given = trial({"people": "20"}, {"confirmation": ""})
        before, after = program_with(given), program_with(given, blocks=(*BLOCKS[:2], BLOCKS[2] | {"label": "Sum"}))
        sooner = before.form.confirmations[0].model_copy(update={"when": "people > 5"})
        after = compile_form(after.form.model_copy(update={"confirmations": (sooner,)}))
        (result,) = run_trials(after).results
        found = changes_behind(before, after, after.form.trials[0], result)
        assert [(each.name, each.words) for each in found] == [("Large", "when was people > 50, is people > 5")]


class TestUntried:
    """Sample answers try what no trial has tried, until nothing is left that can be tried."""

    def added(self, program, seed=1):
        """Add trials with sample answers as long as they reach something; return them, and what was missed at last."""
        while (found := answers_for_untried(program, random.Random(seed), DAY)).reached:
            holds = holding(found.state)
            assert all(holds[each.owner, each.setting] is each.holds for each in found.reached)
            kept = Trial(id=f"t{len(program.form.trials)}", name="Try", day=DAY, answers=found.answers, link=found.link)
            program = compile_form(program.form.model_copy(update={"trials": (*program.form.trials, kept)}))
            assert len(program.form.trials) < 12
        return program, found.missed

    def test_every_condition_is_tried_both_ways_through_sums_rows_links_and_conditions_in_a_row(self):
        inner = [block("number", "n"), block("number", "m", shown="n > 7")]
        rows = {"id": "k", "key": "k", "label": "K", "blocks": inner}
        at_most = [{"formula": "many < 9", "message": "No"}]
        blocks = (
            *BLOCKS,
            block("single_choice", "way", options=options("bus", "train", "foot"), shown='school = "Harbour"'),
            block("short_text", "why", shown='AND(way = "train", people > 31)', required="TRUE"),
            block("number", "many", shown="price + people * 2 > 1000", checks=at_most),
            block("text", "told", text="<p>Hello</p>", shown='link.kind = "school"'),
            block("repeat", "rows", kinds=[rows]),
        )
        program, missed = self.added(program_with(blocks=blocks))
        assert missed == ()
        tried = run_trials(program).coverage
        assert [(each.owner, each.setting) for each in tried if not (each.held and each.did_not)] == []

    def test_what_can_never_hold_is_missed_and_the_answers_are_right_where_they_can_be(self):
        never = block("short_text", "never", shown="AND(people > 5, people < 4)")
        program, missed = self.added(program_with(blocks=(*BLOCKS, never)))
        assert [(each.owner, each.holds) for each in missed] == [("never", True)]
        assert [each.outcome.wrong for each in run_trials(program).results] == [()] * len(program.form.trials)

    def test_a_form_without_conditions_gets_sample_answers(self):
        found = answers_for_untried(program_of(BLOCKS[0]), random.Random(2), DAY)
        assert (found.reached, found.missed, found.answers.keys()) == ((), (), {"people"})


def test_what_is_left_out_is_not_looked_at():
    assert differences(program_with(trial({"people": "twenty"}, {}))) == []


def test_a_trial_is_run_on_its_own_day_with_its_own_link():
    blocks = (block("calculated", "told", formula='link.talk & " " & TODAY()', format="text"),)
    given = trial({}, {"figures": {"told": "moon 2024-02-29"}}, day="2024-02-29", link={"talk": "moon"})
    assert differences(program_with(given, blocks=(*blocks, *BLOCKS))) == []


def test_coverage_counts_trials_in_which_a_condition_held_and_did_not():
    kinds = [
        {"id": "k", "key": "k", "label": "K", "blocks": [block("number", "n"), block("number", "m", shown="n > 1")]}
    ]
    rows = block("repeat", "rows", kinds=kinds)

    def given(name, people, *numbers):
        entered = [{"kind": "k", "id": f"r{at}", "values": {"n": number}} for at, number in enumerate(numbers)]
        return trial({"people": people, "rows": entered}) | {"id": name}

    program = program_with(given("a", "20", "1", "2"), given("b", "3", "1"), given("c", "4"), blocks=(*BLOCKS, rows))
    found = {(each.owner, each.setting): (each.held, each.did_not) for each in run_trials(program).coverage}
    assert found == {("school", "shown"): (1, 2), ("m", "shown"): (1, 1), ("end", "when"): (0, 3)}


@pytest.mark.parametrize("name", ["travelling_dome_quote", "observation_log", "northern_sky_quiz"])
def test_kept_answers_entered_again_give_the_same_response(name):
    document = json.loads((EXAMPLES / f"{name}.json").read_text(encoding="utf-8"))
    program = compile_form(read_form(document))
    accepted = 0
    for seed in range(25):
        answers = sample_answers(program, random.Random(seed), CONTEXT)
        first = accept(program, answers, CONTEXT)
        if isinstance(first, Accepted):
            again = accept(program, entered_again(program, first.answers), CONTEXT)
            assert (again.answers, again.computed) == (first.answers, first.computed)
            accepted += 1
    assert accepted > 5


def test_answers_of_an_edition_that_had_other_fields_are_left_out_not_guessed():
    program = program_of(block("number", "people"), block("single_choice", "way", options=options("bus")))
    kept = {"people": {"first": "Mira"}, "way": "walk", "gone": "x"}
    assert entered_again(program, kept) == {}


class TestCharts:
    QUESTIONS = (
        block("single_choice", "one", options=options("a", "b")),
        block("single_choice", "two", options=options("a", "b")),
    )
    SCORE = figure("score", "score", shown_to_visitors=True, questions=[{"field": "one", "right": ["a"], "worth": "3"}])
    PROFILE = figure(
        "fit",
        "profile",
        shown_to_visitors=True,
        decimals=1,
        profiles=[{"code": "x", "label": "Xs"}, {"code": "y", "label": "Ys"}],
        questions=[{"field": "one", "points": {"a": {"x": "1", "y": "2"}}}],
    )

    def bars(self, figures, answers):
        program = program_of(*self.QUESTIONS, figures=figures)
        return [(bar.label, bar.text, bar.share) for bar in bars_of(state_of(program, answers), figures[0]["id"])]

    def test_a_score_is_a_bar_of_its_greatest_and_a_profile_one_for_each_share(self):
        assert self.bars([self.SCORE], {"one": "oa"}) == [("Score", "3 / 3", 1.0)]
        assert self.bars([self.PROFILE], {"one": "oa"}) == [("Ys", "66.7 %", 0.667), ("Xs", "33.3 %", 0.333)]

    def test_people_read_a_profiles_name_and_formulas_its_code(self):
        shown = block("text", "t", text="<p>{fit}</p>")
        same = block("yes_no", "same", shown='fit = "y"')
        program = program_of(*self.QUESTIONS, shown, same, figures=[self.PROFILE])
        state = state_of(program, {"one": "oa"})
        assert outcome_of(state).figures[self.PROFILE["id"]] == "Ys"
        assert form_state(state)["blocks"]["t"]["texts"]["text"] == "<p>Ys</p>"
        assert form_state(state)["blocks"]["same"]["shown"] is True

    def test_what_visitors_may_not_see_is_not_drawn(self):
        assert self.bars([self.SCORE | {"shown_to_visitors": False}], {"one": "oa"}) == []

    @pytest.mark.parametrize(("people", "numbers"), [("20", ["10"]), ("3", ["1.5"]), ("0", []), (None, [])])
    def test_bands_are_looked_at_where_their_formula_gives_a_number_even_outside_them(self, people, numbers):
        fee = figure("fee", "bands", formula="people / 2 / (people > 0)", bands=[{"start": "4", "value": "9"}])
        program = program_of(block("number", "people"), figures=[fee, figure("other", "formula", formula="people")])
        assert list(looked_at(state_of(program, {"people": people})).values()) == numbers

    @pytest.mark.parametrize(
        ("change", "code"),
        [({"shown_to_visitors": False}, "private_value"), ({"id": "other"}, "no_chart")],
    )
    def test_the_proof_finds_a_chart_that_shows_nothing(self, change, code):
        confirmation = {"id": "c", "paragraphs": [{"chart": self.SCORE["id"]}]}
        program = program_of(*self.QUESTIONS, figures=[self.SCORE | change], confirmations=[confirmation])
        assert code in [finding.code for finding in proof(program)]


def test_a_check_that_says_nothing_yet_leaves_the_others_their_messages():
    checks = [{"formula": "", "message": "First"}, {"formula": "people < 5", "message": "Second"}]
    program = program_of(block("number", "people", checks=checks))
    state = evaluate(program, {"people": "9"}, CONTEXT)
    assert [error.message for error in state.errors().values()] == ["Second"]
