"""Feedback in a quiz, charts, answers that follow their default, and whether a block is shown."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from codexa.core.form.paragraphs import ChartLook
from codexa.core.program.accept import accept
from codexa.core.program.charts import bars_of
from codexa.core.program.explain import explain
from codexa.core.program.public import confirmation_face, form_face, form_state
from core.forms import block, facts_of, figure, options, program_of, state_of, value_of
from core.formulas import CONTEXT

QUESTIONS = [
    {
        "field": "pole",
        "points": {"polaris": "2", "deneb": "0.5"},
        "when_right": "Polaris it is.",
        "says": [{"code": "deneb", "text": "Deneb is far; {moons} moons are not."}],
    },
    {"field": "moons", "right": ["4"]},
    {"field": "planets", "right": ["venus", "saturn"], "worth": "3"},
    {"field": "clear", "right": ["TRUE"], "when_wrong": "It was."},
]
BLOCKS = [
    block("single_choice", "pole", required="TRUE", options=options("polaris", "vega", "deneb")),
    block("number", "moons", minimum="0"),
    block("several_choices", "planets", options=options("venus", "saturn", "neptune")),
    block("yes_no", "clear"),
]
ALL = ["pole", "moons", "planets", "clear"]
GIVEN = {"pole": "odeneb", "moons": "4", "planets": ["ovenus"], "clear": False}


def quiz(**feedback):
    return program_of(
        *BLOCKS,
        figures=[figure("score", "score", shown_to_visitors=True, questions=QUESTIONS)],
        feedback={"when": "page", **feedback},
    )


def told(program, answers, checked=ALL):
    blocks = form_state(state_of(program, answers), None, checked)["blocks"]
    return {block_id: facts["feedback"] for block_id, facts in blocks.items() if "feedback" in facts}


class TestFeedback:
    def test_says_what_an_answer_was_in_own_words_else_the_usual_ones(self):
        said = told(quiz(), GIVEN)
        assert said["pole"] == {
            "outcome": "partly",
            "words": "That is partly right.",
            "notes": ["Deneb is far; 4 moons are not."],
            "right": "Right: Polaris",
        }
        assert (said["moons"]["outcome"], said["moons"]["right"]) == ("right", "")
        assert said["planets"]["right"] == "Right: Venus, Saturn"
        assert (said["clear"]["words"], said["clear"]["right"]) == ("It was.", "Right: Yes")
        assert told(quiz(), GIVEN | {"pole": "opolaris"})["pole"]["words"] == "Polaris it is."

    def test_tells_the_right_answer_only_where_the_form_does(self):
        assert {each["right"] for each in told(quiz(shows_right=False), GIVEN).values()} == {""}

    @pytest.mark.parametrize(
        ("feedback", "answers", "checked", "expected"),
        [
            ({}, GIVEN, [], []),
            ({}, GIVEN, ["pole", "nothing", "moons"], ["pole", "moons"]),
            ({"when": "never"}, GIVEN, ALL, []),
            # A page that can't be left yet tells nothing of itself.
            ({}, GIVEN | {"pole": None}, ALL, []),
            ({}, GIVEN | {"moons": "-1"}, ALL, []),
            ({"when": "at_once"}, GIVEN | {"pole": None, "moons": "-1"}, ALL, ["planets", "clear"]),
        ],
    )
    def test_is_told_once_it_is_due_and_never_before(self, feedback, answers, checked, expected):
        assert sorted(told(quiz(**feedback), answers, checked)) == sorted(expected)

    @given(st.dictionaries(st.sampled_from(ALL), st.sampled_from(["opolaris", "ovega", "4", "7", True, None])))
    def test_nothing_that_is_sent_before_names_a_right_answer(self, answers):
        program = quiz()
        sent = f"{form_face(program)} {form_state(state_of(program, answers))}"
        assert not any(words in sent for words in ("Polaris it is", "Right:", "It was.", "points", "worth", "partly"))

    def test_keeps_the_answer_as_it_is_unless_it_may_be_given_again(self):
        held = form_state(state_of(quiz(), GIVEN), None, ALL)["blocks"]["pole"]
        open_again = form_state(state_of(quiz(again=True), GIVEN), None, ALL)["blocks"]["pole"]
        assert (held.get("locked"), open_again.get("locked")) == (True, None)

    def test_the_score_says_why_with_the_points_of_each_answer(self):
        sentence = explain(quiz(), GIVEN, CONTEXT, "score").sentence
        assert "Deneb gives 0.5 of 2" in sentence
        assert "Venus gives 0 of 3" in sentence


class TestCharts:
    PROFILE = figure(
        "animal",
        "profile",
        shown_to_visitors=True,
        decimals=1,
        profiles=[{"code": code, "label": code.title()} for code in ("owl", "fox", "moth")],
        questions=[{"field": "pole", "points": {"polaris": {"fox": "2", "moth": "1"}}}],
    )

    def bars(self, **look):
        chart = {"id": "k", "title": "Done", "paragraphs": [{"chart": "ganimal", "chart_look": look}]}
        program = program_of(*BLOCKS, figures=[self.PROFILE], confirmations=[chart])
        face = confirmation_face(state_of(program, {"pole": "opolaris"}))
        return [(bar.label, bar.text) for bar in face.paragraphs[0].bars]

    def test_show_percent_of_all_the_largest_first(self):
        assert self.bars() == [("Fox", "66.7 %"), ("Moth", "33.3 %"), ("Owl", "0 %")]

    def test_show_what_their_look_says(self):
        assert self.bars(first=1, decimals=0) == [("Fox", "67 %")]
        assert self.bars(says="points", order="given") == [("Owl", "0"), ("Fox", "2"), ("Moth", "1")]

    def test_of_a_score_show_points_or_percent(self):
        bars = [
            bars_of(state_of(quiz(), GIVEN), "gscore", look)[0] for look in (ChartLook(), ChartLook(says="percent"))
        ]
        assert [bar.text for bar in bars] == ["1.5 / 7", "21 %"]
        assert bars[0].share == bars[1].share == 0.2143


class TestFollowingDefaults:
    PROGRAM = program_of(
        block("number", "adults"),
        block("number", "badges", default="adults * 2", default_follows=True, locked="adults > 10"),
        block("number", "once", default="adults * 2"),
    )

    def badges(self, **answers):
        facts = facts_of(self.PROGRAM, answers).blocks["badges"]
        return value_of(self.PROGRAM, "badges", answers), facts.fill, facts.follows

    def test_is_worked_out_again_until_it_is_answered(self):
        assert self.badges(adults="3") == (6, "6", True)
        assert self.badges(adults="4") == (8, "8", True)
        assert self.badges(adults="4", badges="5") == (5, None, False)
        assert self.badges(adults="4", badges=None) == (None, None, False)

    def test_holds_while_it_is_locked_whatever_was_answered(self):
        assert self.badges(adults="11", badges="5") == (22, "22", True)
        kept = accept(self.PROGRAM, {"adults": "11", "badges": "5", "once": "1"}, CONTEXT)
        assert kept.answers["badges"] == "22"

    def test_a_plain_default_is_told_without_following(self):
        once = facts_of(self.PROGRAM, {"adults": "3"}).blocks["once"]
        assert (once.fill, once.follows) == ("6", False)


class TestShownInFormulas:
    def test_a_group_says_whether_it_is_shown_with_all_around_it(self):
        program = program_of(
            block("number", "adults"),
            block("group", "coach", shown="adults > 5", blocks=[block("short_text", "plate", shown="adults < 50")]),
            block("calculated", "told", formula='IF(AND(coach.shown, plate.shown), "both", "")', format="text"),
        )
        assert [value_of(program, "told", {"adults": each}) for each in ("2", "20", "60")] == [None, "both", None]
        reasons = explain(program, {"adults": "60"}, CONTEXT, "told").because
        assert "plate is hidden" in reasons[-1].sentence.casefold()

    def test_a_block_in_a_row_is_that_row_s(self):
        kind = {
            "id": "k",
            "key": "line",
            "label": "Line",
            "blocks": [
                block("number", "count"),
                block("text", "hint", text="<p>Many</p>", shown="count > 3"),
                block("calculated", "many", formula="IF(hint.shown, 1, 0)"),
            ],
        }
        program = program_of(
            block("repeat", "lines", kinds=[kind]), figures=[figure("many", "formula", formula="SUM(lines.many)")]
        )
        rows = [{"kind": "k", "id": f"r{n}", "values": {"count": str(n)}} for n in (2, 5, 9)]
        assert value_of(program, "many", {"lines": rows}) == 2

    def test_what_is_shown_by_itself_is_a_circle(self):
        program = program_of(block("number", "adults", shown="NOT(adults.shown)"))
        assert program.circles


class TestComputedValues:
    def test_decimals_kept_are_those_that_every_reader_sees(self):
        third = figure("third", "formula", formula="adults / 3", kept_decimals=2, decimals=1)
        program = program_of(
            block("number", "adults"), block("calculated", "thrice", formula="third * 3"), figures=[third]
        )
        assert value_of(program, "thrice", {"adults": "1"}) == value_of(program, "third", {"adults": "1"}) * 3
        assert str(value_of(program, "third", {"adults": "2"})) == "0.67"

    def test_a_calculated_field_hides_itself_while_it_is_blank(self):
        program = program_of(
            block("number", "adults"),
            block("calculated", "note", formula='IF(adults > 5, "Many", "")', format="text", hidden_when_blank=True),
        )
        assert [facts_of(program, {"adults": each}).blocks["note"].shown for each in ("2", "9")] == [False, True]
