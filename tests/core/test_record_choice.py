"""Records of tables: which are offered and taken, what formulas know of them, and what is kept."""

from dataclasses import replace
from decimal import Decimal
from random import Random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as some

from codexa.core.form.form import read_form
from codexa.core.formula.values import ChosenRecord
from codexa.core.look_ups import MOST_LISTED
from codexa.core.program.accept import Accepted, Refused, accept
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.kept import state_of_kept
from codexa.core.program.proof import proof
from codexa.core.program.public import form_state
from codexa.core.program.record_offers import found_by_words
from codexa.core.program.samples import sample_answers
from codexa.core.program.templates import DASH
from core.forms import block, program_of
from core.formulas import CONTEXT
from core.records import INSTRUMENTS, SITES, MemoryTable, MemoryTables, tables

KNOWN = [SITES.known, INSTRUMENTS.known]


def choice(key, table="instruments", **more):
    return block("record_choice", key, table=table, **more)


def with_tables(program, answers, there=None):
    return evaluate(program, answers, replace(CONTEXT, tables=there or tables()))


LOAN = program_of(
    choice("site", "sites"),
    choice("kind", "sites", shown="FALSE"),
    choice("instrument", fitting="record.site = site.name", shown_as="{name}, {charge}", required="TRUE"),
    block(
        "number", "weeks", maximum="52", checks=[{"formula": "weeks * 10 < instrument.aperture", "message": "Fewer"}]
    ),
    block("calculated", "fee", formula="instrument.charge * weeks", format="money"),
    block("money", "deposit", default="instrument.charge * 2", default_follows=True),
    block("text", "told", text="<p>{instrument.name} costs {instrument.charge}</p>"),
    tables=KNOWN,
)


def listed(state, block_id, row=()):
    return [each.shown for each in state.at(state.program.places[block_id].found, row).records]


def value(state, block_id):
    return state.value(state.program.places[block_id])


class TestDependentLists:
    def test_a_list_hangs_on_what_was_answered(self):
        state = with_tables(LOAN, {"site": "1"})
        assert listed(state, "instrument") == ["Juniper, €12.00", "Moss, €6.00", "Plover, €18.00"]
        assert listed(with_tables(LOAN, {"site": "2"}), "instrument") == ["Linnet, €4.50"]

    def test_a_changed_parent_drops_what_no_longer_fits_and_says_so(self):
        kept = with_tables(LOAN, {"site": "1", "instrument": "1"})
        assert value(kept, "instrument").number == 1
        assert not kept.dropped
        moved = with_tables(LOAN, {"site": "2", "instrument": "1"})
        assert value(moved, "instrument") is None
        assert moved.dropped == {"instrument"}
        facts = form_state(moved)["blocks"]["instrument"]
        assert facts["dropped"] is True
        assert facts["error"]["code"] == "dropped"

    def test_an_empty_list_says_what_to_answer_first_or_that_nothing_fits(self):
        facts = form_state(with_tables(LOAN, {}))["blocks"]["instrument"]
        assert facts["records"] == {"listed": [], "chosen": [], "none": "First answer: Site"}
        facts = form_state(with_tables(LOAN, {"site": "3"}))["blocks"]["instrument"]
        assert facts["records"]["none"] == "Nothing fits."

    def test_a_hidden_choice_asks_nothing(self):
        there = tables()
        with_tables(LOAN, {"site": "1", "kind": "1"}, there)
        assert [each.table for each in there.asked] == ["sites", "instruments"]

    def test_one_evaluation_asks_once_for_each_choice(self):
        there = tables()
        with_tables(LOAN, {"site": "1", "instrument": "1", "weeks": "3"}, there)
        assert len(there.asked) == 2


class TestLookedUp:
    def test_columns_are_names_in_formulas_texts_defaults_and_checks(self):
        state = with_tables(LOAN, {"site": "1", "instrument": "1", "weeks": "3"})
        assert value(state, "fee") == Decimal(36)
        assert value(state, "deposit") == Decimal(24)
        assert form_state(state)["blocks"]["told"]["texts"]["text"] == "<p>Juniper costs €12.00</p>"
        assert "weeks" not in state.errors()
        assert with_tables(LOAN, {"site": "1", "instrument": "1", "weeks": "25"}).errors()["weeks"].message == "Fewer"

    def test_a_default_follows_the_record_until_it_is_changed(self):
        typed = with_tables(LOAN, {"site": "1", "instrument": "3", "deposit": "5"})
        assert value(typed, "deposit") == Decimal(5)
        assert value(with_tables(LOAN, {"site": "1", "instrument": "3"}), "deposit") == Decimal(12)

    def test_rows_have_records_of_their_own_and_columns_are_lists(self):
        program = program_of(
            block("repeat", "lines", kinds=[{
                "id": "k", "key": "line", "label": "Line",
                "blocks": [choice("thing"), block("calculated", "each", formula="thing.charge * 2")],
            }]),
            block("calculated", "total", formula="SUM(lines.thing.charge)"),
            tables=KNOWN,
        )  # fmt: skip
        rows = [{"kind": "k", "id": f"r{at}", "values": {"thing": str(at)}} for at in (1, 2)]
        state = with_tables(program, {"lines": rows})
        assert value(state, "total") == Decimal("16.50")
        each = program.places["each"]
        assert [state.value(each, row) for row in state.rows(program.repeats["lines"])] == [Decimal(24), Decimal(9)]

    def test_several_records_are_lists_too(self):
        program = program_of(
            choice("things", several=True, maximum=2),
            block("calculated", "total", formula="SUM(things.charge) + things.count"),
            choice("one", fitting="HAS(things, record)"),
            tables=KNOWN,
        )
        state = with_tables(program, {"things": ["1", "4"]})
        assert value(state, "total") == Decimal(32)
        assert listed(state, "one") == ["Juniper", "Plover"]
        assert with_tables(program, {"things": ["1", "2", "3"]}).errors()["things"].message == "Choose at most 2."

    def test_a_column_that_the_record_has_nothing_in_is_blank(self):
        state = with_tables(LOAN, {"site": "1", "instrument": "4", "weeks": "3"})
        assert state.errors()["weeks"].message == "Fewer"  # nothing is less than blank
        assert DASH not in str(form_state(state))


class TestTaking:
    def test_what_is_kept_tells_all_that_the_form_knew(self):
        there = tables()
        taken = accept(LOAN, {"site": "1", "instrument": "1", "weeks": "3"}, replace(CONTEXT, tables=there))
        assert isinstance(taken, Accepted)
        kept = taken.answers["instrument"]
        assert kept == {
            "record": 1, "shown": "Juniper, €12.00", "values": {"name": "Juniper", "aperture": "250", "charge": "12.00"}
        }  # fmt: skip
        there.asked.clear()
        again = state_of_kept(LOAN, taken.answers, replace(CONTEXT, tables=there))
        assert value(again, "fee") == Decimal(36)
        assert not there.asked

    @pytest.mark.parametrize("sent", ["2", "99", "Linnet", "0", 7])
    def test_a_record_that_does_not_fit_is_refused(self, sent):
        refused = accept(LOAN, {"site": "1", "instrument": sent, "weeks": "1"}, replace(CONTEXT, tables=tables()))
        assert isinstance(refused, Refused)
        assert refused.errors["instrument"].code == "dropped"

    @pytest.mark.parametrize("sent", [{"record": 1}, ["1"], True, "x" * 400, "\x00", 1.5])
    def test_what_is_no_record_is_refused(self, sent):
        refused = accept(LOAN, {"site": "1", "instrument": sent}, replace(CONTEXT, tables=tables()))
        assert refused.errors["instrument"].code == "not_records"

    def test_a_name_stands_for_its_record(self):
        assert value(with_tables(LOAN, {"site": "1", "instrument": " juniper "}), "instrument").number == 1

    def test_samples_choose_what_fits(self):
        context = replace(CONTEXT, tables=tables())
        found = [sample_answers(LOAN, Random(seed), context) for seed in range(20)]
        chosen = [each for each in found if "instrument" in each]
        assert chosen
        assert not any(evaluate(LOAN, each, context).dropped for each in chosen)


class TestSearching:
    PROGRAM = program_of(
        choice("site", "sites"),
        choice("thing", look="search", fitting="record.site = site.name"),
        tables=KNOWN,
    )

    def test_words_are_looked_for_in_what_is_shown(self):
        state = with_tables(self.PROGRAM, {"site": "1"})
        assert [each["label"] for each in found_by_words(state, "thing", "o")["listed"]] == ["Moss", "Plover"]
        # What its other columns hold is nothing that visitors may find out.
        assert found_by_words(state, "thing", "reflector") == {"listed": [], "none": "Nothing fits."}
        assert found_by_words(with_tables(self.PROGRAM, {}), "thing", "")["none"] == "First answer: Site"

    def test_nothing_is_listed_unasked(self):
        there = tables()
        with_tables(self.PROGRAM, {"site": "1"}, there)
        assert [each.first for each in there.asked] == [MOST_LISTED, 0]


def found(**settings):
    program = program_of(choice("site", "sites"), choice("thing", **settings), tables=KNOWN)
    return {(each.code, each.block, each.setting): each.message for each in proof(program)}


class TestFindings:
    @pytest.mark.parametrize(
        ("settings", "code", "setting", "words"),
        [
            ({"fitting": "record.weight > 1"}, "unknown_name", "fitting", "no weight"),
            ({"fitting": "record.charge = site.name"}, "wrong_comparison", "fitting", "never hold"),
            ({"shown_as": "{nam}"}, "unknown_name", "shown_as", "{nam}"),
            ({"ordered_by": "gone"}, "no_such_column", "ordered_by", "Instruments"),
            ({"table": "elsewhere"}, "no_such_table", "table", "does not know"),
            ({"table": ""}, "setting_wrong", "table", "which table"),
            ({"fitting": "LEN(record.name) > 3"}, "tried_one_by_one", "fitting", "each record by itself"),
            ({"default": "thing + 1"}, "wrong_type", "default", "name a column"),
        ],
    )
    def test_what_does_not_go_with_the_table_is_told(self, settings, code, setting, words):
        told = {key: message for key, message in found(**settings).items() if key[1:] == ("thing", setting)}
        assert any(words in message for message in told.values()), found(**settings)
        if code != "setting_wrong":
            assert (code, "thing", setting) in told

    def test_a_filter_in_a_circle_is_told_and_computes(self):
        program = program_of(
            choice("one", fitting="record.name <> two.name"), choice("two", fitting="record.name <> one.name"),
            tables=KNOWN,
        )  # fmt: skip
        assert any(each.code == "circle" for each in proof(program))
        assert value(with_tables(program, {"one": "1", "two": "2"}), "one") is None


class TestRecordsThatNameOthers:
    PEOPLE = MemoryTable(
        "people",
        {"name": "People", "columns": [{"type": "short_text", "id": "name", "key": "name", "label": "Name"}]},
        ({"name": "Wren Okafor"},),
    )

    def test_a_record_of_a_record_is_named_with_dots(self):
        column = {"type": "record_choice", "id": "keeper", "key": "keeper", "label": "Keeper", "table": "people"}
        known = {**SITES.known, "columns": [*SITES.known["columns"], column]}
        keeper = {"record": 1, "shown": "Wren", "values": {"name": "Wren Okafor"}}
        there = MemoryTables({"sites": SiteWithKeeper("sites", SITES.definition, ({"name": "Hut", "keeper": keeper},))})
        program = program_of(
            choice("site", "sites"), block("calculated", "who", formula="site.keeper.name", format="text"),
            tables=[known, self.PEOPLE.known],
        )  # fmt: skip
        assert value(with_tables(program, {"site": "1"}, there), "who") == "Wren Okafor"
        assert there.asked[0].paths == {(("keeper", "people"),)}


class SiteWithKeeper(MemoryTable):
    def loaded(self, record):
        return {}


# Filters: what is asked of a table comes to what the formula itself says of each record.

OPERANDS = {
    "text": ('"Hill Dome"', '""', "words", 'words & ""', 'IF(number > 3, "hill dome", words)'),
    "choice": ('"reflector"', '"BINOCULARS"', "words"),
    "number": ("50", "number", "number * 10 + 50", "1 / number", "SUM(number, 249)"),
    "flag": ("TRUE", "FALSE", "flag"),
    "date": ("DATE(2019, 4, 1)", "day", "day + 30"),
}
COLUMNS = {
    "name": "text", "site": "text", "kind": "choice", "aperture": "number", "charge": "number",
    "heavy": "flag", "since": "date",
}  # fmt: skip
ORDERED = ("number", "date")


@some.composite
def filters(draw, depth=2):
    if depth and draw(some.booleans()):
        inner = [draw(filters(depth=depth - 1)) for _ in range(draw(some.integers(1, 3)))]
        join = draw(some.sampled_from(("AND", "OR", "NOT")))
        return f"NOT({inner[0]})" if join == "NOT" else f"{join}({', '.join(inner)})"
    column = draw(some.sampled_from(sorted(COLUMNS)))
    kind = COLUMNS[column]
    operand = draw(some.sampled_from(OPERANDS[kind]))
    signs = ("=", "<>", "<", "<=", ">", ">=") if kind in ORDERED else ("=", "<>")
    sign = draw(some.sampled_from(signs))
    return draw(
        some.sampled_from(
            (
                f"record.{column} {sign} {operand}",
                f"{operand} {sign} record.{column}",
                f"ISBLANK(record.{column})",
                "record.heavy",
                "HAS(extras, record.kind)",
                "LEN(record.name) > number",
                "number > 2",
                "record = other",
                "record <> other",
            )
        )
    )


def filter_answers():
    optional = {
        "words": some.sampled_from(["Hill Dome", "harbour deck", "reflector", "x"]),
        "number": some.sampled_from(["0", "3", "5", "50"]),
        "flag": some.booleans(),
        "day": some.sampled_from(["2019-04-01", "2022-08-13", "2030-01-01"]),
        "extras": some.sampled_from([["oreflector"], ["oreflector", "obinoculars"]]),
        "other": some.sampled_from(["1", "4"]),
    }
    return some.fixed_dictionaries({}, optional=optional)


def filter_form(text, known):
    """A form with something of each kind to compare with, and a choice that a filter decides."""
    extras = [{"id": f"o{code}", "code": code, "label": code} for code in ("reflector", "binoculars")]
    blocks = [
        block("short_text", "words"), block("number", "number"), block("yes_no", "flag"), block("date", "day"),
        block("several_choices", "extras", options=extras), choice("other", known["id"]),
        choice("thing", known["id"], fitting=text),
    ]  # fmt: skip
    return {"name": "Filter", "tables": [known], "pages": [{"id": "p1", "blocks": blocks}]}


@settings(deadline=None)
@given(text=filters(), answers=filter_answers())
def test_what_is_asked_of_a_table_is_what_the_formula_says(text, answers):
    program = compile_form(read_form(filter_form(text, INSTRUMENTS.known)))
    state = with_tables(program, answers)
    formula = program.formula("thing", "fitting")
    meant = [
        each.name
        for each in INSTRUMENTS.records
        if formula.compiled.run(state.values, state.context, (), (as_chosen(each),)) is True
    ]
    assert sorted(listed(state, "thing")) == sorted(meant)


def as_chosen(record):
    return ChosenRecord(record.name, number=record.number, values=record.values)


class TestCircles:
    """Filters that hang on each other, and a table that names records of its own."""

    def test_filters_in_a_circle_are_told_offer_nothing_and_stop_nobody(self):
        program = program_of(
            choice("first", fitting="record.site = second.site"),
            choice("second", fitting="record.site = first.site"),
            choice("itself", fitting="record.charge < itself.charge"),
            block("number", "count"),
            tables=KNOWN,
        )
        assert {each.block for each in proof(program) if each.code == "circle"} >= {"first", "itself"}
        state = with_tables(program, {"first": "1", "second": "2", "itself": "3", "count": "4"})
        assert [value(state, each) for each in ("first", "second", "itself")] == [None, None, None]
        assert value(state, "count") == 4
        assert form_state(state)["blocks"]["first"]["records"]["listed"] == []

    def test_a_table_that_names_its_own_records_is_followed_as_deep_as_is_written(self):
        names = {"name": "Pieces", "columns": [
            {"type": "short_text", "id": "name", "key": "name", "label": "Name"},
            {"type": "record_choice", "id": "of", "key": "of", "label": "Part of", "table": "pieces"},
        ]}  # fmt: skip
        dome = {"name": "Dome"}
        wheel = {"name": "Wheel", "of": {"record": 1, "shown": "Dome", "values": dome}}
        loop = {
            "name": "Loop",
            "of": {"record": 3, "shown": "Loop", "values": {"of": {"record": 3, "shown": "Loop", "values": {}}}},
        }
        pieces = MemoryTable("pieces", names, (dome, wheel, loop))
        program = program_of(
            choice("piece", "pieces", fitting="NOT(ISBLANK(record.of))"),
            block("calculated", "whole", formula="piece.of.name", format="text"),
            block("calculated", "deep", formula="piece.of.of.name", format="text"),
            tables=[pieces.known],
        )
        there = MemoryTables({"pieces": pieces})
        assert listed(with_tables(program, {}, there), "piece") == ["Loop", "Wheel"]
        assert value(with_tables(program, {"piece": "2"}, there), "whole") == "Dome"
        assert value(with_tables(program, {"piece": "3"}, there), "deep") in (None, "")
