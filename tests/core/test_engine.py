"""What the engine decides: rules at every place, rows, defaults, options, pages, figures, texts."""

import json
import random
from decimal import Decimal

import pytest
from conftest import EXAMPLES
from hypothesis import given, settings
from hypothesis import strategies as st

from codexa.core.context import Context
from codexa.core.form.form import FORM, read_form
from codexa.core.formula.values import Failed
from codexa.core.program.accept import Accepted, Refused, accept, numbered
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.explain import explain_all
from codexa.core.program.figures import shares
from codexa.core.program.public import confirmation_face, form_face, form_state
from codexa.core.program.samples import sample_answers
from core.forms import block, facts_of, figure, options, program_of, state_of, value_of
from core.formulas import CONTEXT


def row(kind, row_id, **values):
    return {"kind": kind, "id": row_id, "values": values}


REDIRECT = "https://www.example.org/?a={two}"
REPEAT = block(
    "repeat",
    "lines",
    max_rows=4,
    kinds=[
        {
            "id": "kone",
            "key": "single",
            "label": "Single",
            "blocks": [
                block("number", "amount", minimum="0"),
                block("short_text", "why", shown="amount > limit", required="TRUE"),
                block("calculated", "part", formula="amount / SUM(lines.amount)", decimals=2),
            ],
        },
        {
            "id": "ktwo",
            "key": "pair",
            "label": "Pair",
            "max_rows": 1,
            "shown": "pairs",
            "blocks": [
                {**block("number", "amount"), "id": "amount2"},
                {**block("number", "second"), "id": "second2"},
            ],
            "checks": [{"formula": "second > amount", "message": "More than {amount}, please."}],
        },
    ],
)
ROWS = program_of(
    block("number", "limit"),
    block("yes_no", "pairs"),
    REPEAT,
    block("calculated", "total", formula="SUM(lines.amount)"),
    block("calculated", "singles", formula="SUM(lines.single.amount)"),
    block("calculated", "count", formula='ROWCOUNT(lines) * 10 + ROWCOUNT(lines, "pair")'),
)
MIXED = [row("kone", "a", amount="4"), row("ktwo", "b", amount2="6", second2="7"), row("kone", "c", amount="12")]


class TestRows:
    def test_columns_are_of_all_kinds_or_of_one_in_the_visitors_order(self):
        blocks = facts_of(ROWS, {"pairs": True, "lines": MIXED}).blocks
        assert [blocks[each].value for each in ("total", "singles", "count")] == ["22", "16", "31"]

    def test_a_rule_sees_its_own_row_first(self):
        rows = facts_of(ROWS, {"limit": "10", "lines": MIXED}).blocks["lines"].rows
        assert not rows["a"].blocks["why"].shown
        assert rows["c"].blocks["why"].shown
        assert rows["c"].blocks["why"].required
        assert rows["c"].blocks["part"].value == "0.75"

    def test_rows_of_a_kind_that_is_not_shown_count_for_nothing_and_are_not_kept(self):
        answers = {"lines": MIXED, "limit": "99"}
        assert facts_of(ROWS, answers).blocks["total"].value == "16"
        accepted = accept(ROWS, answers, CONTEXT)
        assert [each["id"] for each in accepted.answers["lines"]] == ["a", "c"]

    def test_a_row_is_checked_as_a_whole_with_its_own_values_in_the_message(self):
        answers = {"pairs": True, "lines": [row("ktwo", "b", amount2="8", second2="7")]}
        assert state_of(ROWS, answers).errors()["lines/b"].message == "More than 8, please."

    def test_a_response_keeps_the_visitors_order_and_nothing_else(self):
        accepted = accept(ROWS, {"pairs": True, "lines": MIXED}, CONTEXT)
        assert accepted.answers["lines"] == MIXED
        assert set(accepted.computed["lines"]) == {"a", "c"}

    @pytest.mark.parametrize(
        ("rows", "code"),
        [
            ("text", "not_rows"),
            ([1], "same_row_twice"),
            ([row("knone", "a")], "unknown_row"),
            ([row("kone", "a b")], "unknown_row"),
            ([row("kone", "a", price="1")], "unknown_field"),
            ([row("kone", "a"), row("kone", "a")], "same_row_twice"),
            ([row("kone", str(at)) for at in range(501)], "limits"),
            ([row("kone", str(at)) for at in range(5)], "limits"),
            ([row("ktwo", "a", second2="1"), row("ktwo", "b", second2="1")], "limits"),
            ([{**row("kone", "a"), "price": 1}], "not_rows"),
        ],
    )
    def test_what_are_no_such_rows_is_refused_in_words(self, rows, code):
        error = state_of(ROWS, {"pairs": True, "lines": rows}).errors()["lines"]
        assert error.code == code
        assert error.message.endswith(".")

    def test_a_required_kind_wants_a_row(self):
        kind = {"id": "k", "key": "k", "label": "Night", "required": "TRUE", "blocks": [block("number", "n")]}
        errors = state_of(program_of(block("repeat", "r", kinds=[kind]))).errors()
        assert errors["r"].message == 'Add at least 1 row "Night".'


class TestGroupsAndConditions:
    def test_a_groups_conditions_hold_for_all_in_it(self):
        inner = [block("short_text", "a"), block("group", "deep", blocks=[block("short_text", "b", default='"x"')])]
        settings = {"shown": "n > 1", "required": "n > 2", "locked": "n > 3"}
        program = program_of(block("number", "n"), block("group", "g", blocks=inner, **settings))
        states = [facts_of(program, {"n": str(n)}).blocks["b"] for n in (1, 2, 3, 4)]
        assert [each.shown for each in states] == [False, True, True, True]
        assert [each.required for each in states] == [False, False, True, True]
        assert [each.locked for each in states] == [False, False, False, True]

    def test_checks_stand_at_fields_groups_and_the_form(self):
        program = program_of(
            block("number", "a", checks=[{"formula": "a <> 13", "message": "Not {a}."}]),
            block("group", "g", blocks=[block("number", "b")], checks=[{"formula": "a + b < 20", "message": "Less."}]),
            checks=[{"formula": "a > b", "message": "More a than b."}],
        )
        assert {k: e.message for k, e in state_of(program, {"a": "13", "b": "13"}).errors().items()} == {
            "a": "Not 13.",
            "g": "Less.",
            FORM: "More a than b.",
        }
        assert "a" not in state_of(program, {}).errors()

    def test_a_block_named_form_is_not_the_form(self):
        program = program_of(
            block("short_text", "form", required="TRUE"), checks=[{"formula": "FALSE", "message": "No."}]
        )
        assert list(state_of(program).errors()) == ["form", FORM]

    def test_a_moving_limit_is_a_formula(self):
        program = program_of(
            block("date", "start", earliest="TODAY()"), block("date", "until", earliest="start + 1", latest="1 / 0")
        )
        answers = {"start": "2026-11-22", "until": "2026-11-22"}
        errors = state_of(program, answers).errors()
        assert errors["start"].message == "Enter November 23, 2026 or later."
        assert errors["until"].message == "Enter November 23, 2026 or later."

    def test_a_hidden_answer_is_kept_only_where_the_field_says_so(self):
        fields = [block("short_text", key, shown="show") for key in ("gone", "kept")]
        program = program_of(block("yes_no", "show"), fields[0], {**fields[1], "keep_when_hidden": True})
        accepted = accept(program, {"show": False, "gone": "x", "kept": "y"}, CONTEXT)
        assert accepted.answers == {"show": False, "kept": "y"}


class TestDefaults:
    PROGRAM = program_of(
        block("number", "n"),
        block("number", "twice", default="n * 2"),
        block("single_choice", "site", options=options("dome", "deck"), default='"deck"'),
        block("short_text", "code", default='link.code & ""', locked="TRUE"),
        block("date", "day", default="TODAY() + 7", shown="n > 5"),
    )

    def test_is_worked_out_while_nothing_was_answered_and_never_again(self):
        first = facts_of(self.PROGRAM, {"n": "3"}).blocks
        assert (first["twice"].fill, first["site"].fill, first["day"].fill) == ("6", "odeck", None)
        later = facts_of(self.PROGRAM, {"n": "9", "twice": "6", "site": None}).blocks
        assert (later["twice"].fill, later["site"].fill, later["day"].fill) == (None, None, "2026-11-30")
        assert accept(self.PROGRAM, {"n": "9", "twice": None}, CONTEXT).answers.get("twice") is None

    def test_a_locked_field_is_its_default_whatever_is_sent(self):
        context = Context(now=CONTEXT.now, link={"code": "AL-7"})
        accepted = accept(self.PROGRAM, {"code": "stolen"}, context)
        assert accepted.answers["code"] == "AL-7"


class TestOptions:
    PROGRAM = program_of(
        block("dropdown", "site", options=options("dome", "deck")),
        block(
            "dropdown",
            "scope",
            offered="option.belongs_to = site",
            options=options(
                "big",
                "small",
                "tiny",
                big={"belongs_to": "dome"},
                small={"belongs_to": "dome"},
                tiny={"belongs_to": "deck"},
            ),
        ),
        block(
            "several_choices",
            "extras",
            options=options("a", "b", b={"shown": 'site = "deck"'}, a={"locked": 'scope = "big"'}),
        ),
    )

    def test_offers_what_its_filter_lets_through(self):
        assert facts_of(self.PROGRAM, {"site": "odome"}).blocks["scope"].options == ["obig", "osmall"]
        assert facts_of(self.PROGRAM, {}).blocks["scope"].options == []

    def test_a_choice_that_is_no_longer_offered_is_dropped_and_said(self):
        answers = {"site": "odeck", "scope": "obig", "extras": ["oa", "ob"]}
        blocks = facts_of(self.PROGRAM, answers).blocks
        assert blocks["scope"].dropped
        assert not blocks["extras"].dropped
        assert "scope" not in accept(self.PROGRAM, answers, CONTEXT).answers
        assert (
            accept(self.PROGRAM, {**answers, "site": "odome"}, CONTEXT).errors["extras"].message.startswith("A can't")
        )

    def test_other_words_are_kept_as_written(self):
        program = program_of(
            block("single_choice", "how", other=True, options=options("foot")),
            block("calculated", "is_other", format="text", formula='IF(how = "other", how.label, "")'),
        )
        accepted = accept(program, {"how": {"other": "By kite"}}, CONTEXT)
        assert (accepted.answers["how"], accepted.computed["isother"]) == ({"other": "By kite"}, "By kite")


def page(page_id, *blocks, **settings):
    return {"id": page_id, "title": page_id, "blocks": list(blocks), **settings}


class TestPages:
    PROGRAM = program_of(
        pages=[
            page("p1", block("number", "n"), next=[{"when": "n > 90", "to": ""}, {"when": "n > 50", "to": "p3"}]),
            page("p2", block("short_text", "two", required="TRUE")),
            page("p3", block("short_text", "three"), shown="n <> 60"),
            page("p4", block("short_text", "four")),
        ],
        confirmations=[
            {"id": "c1", "when": "n > 90", "title": "Early end at {n}"},
            {
                "id": "c2",
                "title": "The rest",
                "paragraphs": [{"text": "<p>{two}</p>", "shown": "n < 3"}],
                "redirect": REDIRECT,
            },
        ],
    )

    @pytest.mark.parametrize(
        ("n", "path"),
        [("1", "p1 p2 p3 p4"), ("51", "p1 p3 p4"), ("60", "p1 p4"), ("91", "p1"), (None, "p1 p2 p3 p4")],
    )
    def test_the_first_rule_that_holds_leads_on(self, n, path):
        assert " ".join(facts_of(self.PROGRAM, {"n": n}).path) == path

    def test_what_is_on_a_page_off_the_path_is_neither_wanted_nor_kept(self):
        accepted = accept(self.PROGRAM, {"n": "51", "two": "left over"}, CONTEXT)
        assert isinstance(accepted, Accepted)
        assert accepted.answers == {"n": "51"}
        assert accepted.path == ("p1", "p3", "p4")

    def test_the_confirmation_is_the_first_that_holds_with_its_paragraphs(self):
        early = accept(self.PROGRAM, {"n": "91"}, CONTEXT)
        assert (early.confirmation, confirmation_face(early.state).title) == ("c1", "Early end at 91")
        rest = accept(self.PROGRAM, {"n": "2", "two": "<b>x</b>"}, CONTEXT)
        assert [each.html for each in confirmation_face(rest.state).paragraphs] == ["<p>&lt;b&gt;x&lt;/b&gt;</p>"]
        assert confirmation_face(rest.state).redirect == "https://www.example.org/?a=%3Cb%3Ex%3C%2Fb%3E"

    def test_a_rule_that_leads_back_is_passed_over(self):
        pages = [page("p1", block("number", "n")), page("p2", next=[{"when": "n > 1", "to": "p1"}])]
        assert facts_of(program_of(pages=pages), {"n": "2"}).path == ["p1", "p2"]


class TestFigures:
    CHOICE = block("single_choice", "c", options=options("a", "b", "z"))
    SEVERAL = block("several_choices", "s", maximum=2, options=options("x", "y", "w"))

    @pytest.mark.parametrize(
        ("n", "value", "label"),
        [("-1", "1", "few"), ("4.99", "1", "few"), ("5", "2.5", "some"), ("19.99", "2.5", "some"), ("20", "4", "many")],
    )
    def test_bands_include_their_lower_bound(self, n, value, label):
        bands = [{"value": "1", "label": "few"}, {"start": "20", "value": "4", "label": "many"}]
        bands.append({"start": "5", "value": "2.5", "label": "some"})
        program = program_of(block("number", "n", decimals=2), figures=[figure("b", "bands", formula="n", bands=bands)])
        assert (value_of(program, "b", {"n": n}), value_of(program, "b.label", {"n": n})) == (Decimal(value), label)

    def test_a_calculated_number_that_gives_empty_text_stays_blank(self):
        field = block("calculated", "sum", formula='IF(n > 3, n * 2, "")', format="number")
        program = program_of(block("number", "n"), field, figures=[figure("f", "formula", formula='IF(n > 3, n, "")')])
        for typed, wanted in (("2", (None, None)), ("5", (10, 5))):
            assert (value_of(program, "sum", {"n": typed}), value_of(program, "f", {"n": typed})) == wanted

    def test_outside_all_bands_it_is_blank(self):
        bands = [{"start": "5", "value": "1"}]
        program = program_of(block("number", "n"), figures=[figure("b", "bands", formula="n", bands=bands, end="9")])
        assert [value_of(program, "b", {"n": n}) for n in ("4", "5", "9", None)] == [None, Decimal(1), None, None]

    # Up to 20 km the way is free, from there on a formula of its own tells the price.
    WAY = figure(
        "way",
        "bands",
        formula="km",
        format="money",
        bands=[
            {"value": 0, "label": "near"},
            {"start": "20", "value": "12 + (km - 20) * rate", "label": "around"},
            {"start": "100", "value": "1 / (km - 100)", "label": "far"},
        ],
    )

    @pytest.mark.parametrize(
        ("km", "value", "label"),
        [("19", "0.00", "near"), ("20", "12.00", "around"), ("50.5", "37.93", "around"), ("101", "1.00", "far")],
    )
    def test_a_band_may_be_worth_a_formula(self, km, value, label):
        rate = figure("rate", "formula", formula="0.85")
        program = program_of(block("number", "km", decimals=1), figures=[self.WAY, rate])
        found = [value_of(program, name, {"km": km}) for name in ("way", "way.label")]
        assert [str(found[0]), found[1]] == [value, label]

    def test_what_fails_in_one_band_spares_the_others(self):
        program = program_of(block("number", "km"), figures=[self.WAY, figure("rate", "formula", formula="1 / 0")])
        assert value_of(program, "way", {"km": "3"}) == 0
        for km in ("30", "100"):
            state = state_of(program, {"km": km})
            failed = state.values[program.layout.spots.values["gway"].slot]
            assert (failed.error.code, failed.error.message) == ("#DIV/0!", "This divides by zero.")

    def test_bands_and_what_their_values_read_may_stand_in_any_order_but_not_in_a_circle(self):
        circle = program_of(block("number", "km"), figures=[self.WAY, figure("rate", "formula", formula="way / 2")])
        assert [set(each) for each in circle.circles] == [{"gway", "grate"}]

    def test_a_score_adds_points_and_knows_the_greatest(self):
        questions = [
            {"field": "c", "points": {"a": "1.5", "b": "0.5"}},
            {"field": "s", "points": {"x": "1", "y": "1", "w": "2"}},
            {"field": "n", "right": ["4"], "worth": "3"},
        ]
        program = program_of(
            self.CHOICE, self.SEVERAL, block("number", "n"), figures=[figure("q", "score", questions=questions)]
        )
        answers = {"c": "ob", "s": ["ox", "ow"], "n": "4"}
        names = ("q", "q.greatest", "q.right", "q.answered", "q.share")
        values = [value_of(program, name, answers) for name in names]
        assert values[:4] == [Decimal("6.5"), Decimal("7.5"), Decimal(2), Decimal(3)]
        assert value_of(program, "q", {}) == 0

    def test_the_first_profile_in_the_authors_order_wins_a_tie(self):
        profiles = [{"code": code, "label": code.upper()} for code in ("owl", "fox")]
        questions = [{"field": "c", "points": {"a": {"owl": "1", "fox": "1"}, "b": {"fox": "2"}}}]

        def winner(tie, answer):
            made = figure("w", "profile", profiles=profiles, questions=questions, tie=tie)
            return value_of(program_of(self.CHOICE, figures=[made]), "w", {"c": answer})

        assert [winner(tie, "oa") for tie in ("first", "last", "none")] == ["owl", "fox", None]
        assert winner("first", "ob") == "fox"
        assert winner("first", "oz") is None

    @given(st.lists(st.decimals(min_value=0, max_value=1000, places=1), min_size=1, max_size=6))
    def test_shares_sum_to_exactly_a_hundred(self, numbers):
        points = {str(at): number for at, number in enumerate(numbers)}
        for step in (Decimal(1), Decimal("0.1")):
            assert sum(shares(points, step).values()) == (100 if sum(numbers) else 0)

    def test_a_counter_passes_over_what_fails(self):
        counts = [{"when": "n > 1"}, {"when": "1 / n > 0", "by": "2.5"}, {"when": "n = 7", "by": "-1"}]
        program = program_of(block("number", "n"), figures=[figure("k", "counter", start="10", counts=counts)])
        assert [value_of(program, "k", {"n": n}) for n in (None, "0", "7")] == [10, 10, Decimal("12.5")]

    def test_money_is_rounded_where_it_is_worked_out_and_errors_travel(self):
        figures = [
            figure("third", "formula", formula="10 / n", format="money"),
            figure("sum", "formula", formula="third * 3"),
        ]
        program = program_of(block("number", "n"), figures=figures)
        assert value_of(program, "sum", {"n": "3"}) == Decimal("9.99")
        assert isinstance(value_of(program, "sum", {}), Failed)
        assert "gsum" not in accept(program, {}, CONTEXT).computed


class TestTexts:
    def test_values_are_inserted_as_visitors_read_them(self):
        program = program_of(
            block("name", "who"),
            block("money", "price"),
            block("heading", "head", text="For {who.first}: {price}"),
            block("text", "body", text="<p onclick='x'>{who} {{braces}} {secret}</p><script>1</script>"),
            figures=[figure("secret", "formula", formula="42")],
        )
        blocks = facts_of(program, {"who": {"first": "<Mira>", "last": "O"}, "price": "1234.5"}).blocks
        assert blocks["head"].texts == {"text": "For <Mira>: €1,234.50"}
        assert blocks["body"].texts == {"text": "<p>&lt;Mira&gt; O {braces} </p>"}
        assert form_face(program).pages[0].blocks[2].text == ""

    def test_a_number_is_known_once_the_response_is_saved(self):
        program = program_of(
            block("calculated", "ref", format="text", formula='"VR-" & TEXT(response.number, "00000")'),
            block("short_text", "a"),
        )
        accepted = accept(program, {}, CONTEXT)
        assert accepted.computed == {}
        assert numbered(accepted, 42).computed == {"ref": "VR-00042"}


PROGRAMS = {
    path.stem: compile_form(read_form(json.loads(path.read_text(encoding="utf-8")))) for path in EXAMPLES.glob("*.json")
}


@pytest.mark.parametrize("name", sorted(PROGRAMS))
class TestEveryExample:
    @given(seed=st.integers(0, 10_000), order=st.randoms())
    @settings(max_examples=15, deadline=None)
    def test_gives_the_same_state_again_and_a_part_of_it_when_little_changed(self, name, seed, order):
        program = PROGRAMS[name]
        answers = sample_answers(program, random.Random(seed), CONTEXT)
        whole = form_state(evaluate(program, answers, CONTEXT))
        assert whole == form_state(evaluate(program, answers, CONTEXT))
        changed = order.choice([*answers])
        before = form_state(evaluate(program, {k: v for k, v in answers.items() if k != changed}, CONTEXT))
        reply = form_state(evaluate(program, answers, CONTEXT), program.affected([changed]))
        merged = {
            **before,
            **reply,
            "blocks": before["blocks"] | reply["blocks"],
            "texts": before.get("texts", {}) | reply.get("texts", {}),
        }
        assert merged["blocks"] == whole["blocks"]
        assert merged["path"] == whole["path"]
        assert merged["texts"] == whole.get("texts", {})

    def test_tells_visitors_nothing_private(self, name):
        program = PROGRAMS[name]
        form = program.form
        told = form_face(program).model_dump_json()
        for seed in range(10):
            answers = sample_answers(program, random.Random(seed), CONTEXT)
            told += json.dumps(form_state(evaluate(program, answers, CONTEXT)))
        private = {text for each in program.formulas if set(text := each.compiled.text) & set("<>=+*/(")}
        private |= {figure.name for figure in form.figures if len(figure.name) > 12}
        private |= {
            f'"{name}"'
            for name in ("counts_as", "points", "right", "formula", "earliest", "minimum", "belongs_to", "key")
        }
        assert [each for each in private if each in told] == []


def test_the_order_of_a_definition_decides_nothing():
    blocks = [
        block("number", "a"),
        block("calculated", "b", formula="a * 2"),
        block("short_text", "c", shown="b > 4"),
        block("calculated", "d", format="text", formula='c & "!"'),
    ]
    expected = None
    for seed in range(8):
        random.Random(seed).shuffle(blocks)
        found = facts_of(program_of(*blocks), {"a": "3", "c": "x"}).blocks
        expected = expected or found
        assert found == expected


def test_a_circle_through_rows_and_figures_is_named_and_the_rest_computed():
    kind = {"id": "k", "key": "k", "label": "K", "blocks": [block("calculated", "x", formula="total")]}
    program = program_of(
        block("repeat", "r", kinds=[kind]),
        block("number", "n"),
        figures=[figure("total", "formula", formula="SUM(r.x)")],
    )
    assert len(program.circles) == 1
    assert {"gtotal", "x"} <= set(program.circles[0])
    assert facts_of(program, {"n": "1"}).blocks["n"].shown


LOOP = figure("loop", "formula", formula="pick + total")
CIRCLES = {
    "shown": ({"shown": "loop > 1"}, {}),
    "option shown": ({"options": options("a", "b", a={"shown": "loop > 1"})}, {}),
    "option locked": ({"options": options("a", "b", a={"locked": "pick = 1"})}, {}),
    "offered": ({"offered": "option.counts_as < loop"}, {}),
    "default": ({"default": "loop"}, {}),
    "default of a number": (block("number", "pick", default="loop"), {}),
    "page shown": ({}, {"shown": "loop > 1"}),
}


@pytest.mark.parametrize("name", sorted(CIRCLES))
def test_a_circle_anywhere_raises_to_nobody(name):
    settings_of_block, settings_of_page = CIRCLES[name]
    choice = block("single_choice", "pick", options=options(("a", 1), ("b", 2)))
    pick = settings_of_block if "type" in settings_of_block else choice | settings_of_block
    pages = [
        {"id": "p1", "blocks": [block("number", "n")], "next": [{"when": "loop > 3", "to": "p3"}]},
        {"id": "p2", "blocks": [pick, block("calculated", "total", formula="n")]} | settings_of_page,
        {"id": "p3"},
    ]
    endings = [{"id": "e1", "when": "loop > 3", "title": "Thanks"}]
    program = program_of(pages=pages, figures=[LOOP], confirmations=endings)
    for answers in ({}, {"n": "1", "pick": "oa"}, sample_answers(program, random.Random(1), CONTEXT)):
        state = evaluate(program, answers, CONTEXT)
        assert state.path()[0] == 0
        assert form_state(state)["path"][0] == "p1"
        assert confirmation_face(state).title
        accept(program, answers, CONTEXT)
        assert all(explain_all(state, part) for part in ("pick", "loop", "p1"))


def test_the_label_of_a_row_kind_follows_the_values_in_it():
    kind = {"id": "k", "key": "k", "label": "Row of {n}", "blocks": [block("short_text", "x")]}
    program = program_of(block("number", "n"), block("repeat", "r", kinds=[kind]))
    assert facts_of(program, {"n": "3"}).blocks["r"].kinds["k"].label == "Row of 3"
    assert "r" in program.affected(["n"])


def test_unknown_rows_and_fields_are_refused_and_nothing_raises():
    assert isinstance(accept(ROWS, {"amount": "1"}, CONTEXT), Refused)
    for raw in (None, [], {}, [None], [[]], [{"kind": 1, "id": 2, "values": 3}], "x" * 10_000):
        accept(ROWS, {"lines": raw}, CONTEXT)
