"""A stranger's definition and a stranger's answers are bounded work, and say in words where they are too much."""

import json
import time
from decimal import Decimal
from pathlib import Path

import pytest
from conftest import visit_document
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.errors import AnswerError, DefinitionError
from codexa.core.fields.text_value import composed
from codexa.core.form.form import FORMAT, read_form
from codexa.core.form.outline_text import read_outline
from codexa.core.form.upgrades import read_imported, read_stored, upgraded
from codexa.core.formula import convert, emit
from codexa.core.formula.columns import Column
from codexa.core.formula.functions.conditional_sums import _fitting
from codexa.core.formula.metering import MOST_STEPS
from codexa.core.formula.values import Choice, Failed
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.proof import proof
from core.formulas import CONTEXT

DOCUMENTS = sorted((Path(__file__).parent.parent / "cases" / "documents").glob("*.json"))


def with_price(formula):
    document = visit_document()
    document["pages"][0]["blocks"][4]["formula"] = formula
    return document


def nested(depth):
    block = {"id": "b", "type": "short_text", "key": "b", "label": "B"}
    for level in range(depth):
        block = {"id": f"g{level}", "type": "group", "key": f"g{level}", "label": "", "blocks": [block]}
    return {"name": "Deep", "pages": [{"id": "p", "blocks": [block]}]}


def optioned(count):
    options = [{"id": f"o{at}", "code": f"c{at}", "label": f"{at}"} for at in range(count)]
    block = {"id": "b", "type": "dropdown", "key": "b", "label": "B", "options": options}
    return {"name": "Long", "pages": [{"id": "p", "blocks": [block]}]}


class TestDefinitions:
    @pytest.mark.parametrize("number", ["1E+3000000", "1E-40", "1e21", "NaN", "Infinity", "0." + "1" * 40])
    @pytest.mark.parametrize("setting", ["minimum", "maximum", "step"])
    def test_a_number_that_could_grow_beyond_bounds_is_refused(self, number, setting):
        document = visit_document()
        document["pages"][0]["blocks"][1][setting] = number
        with pytest.raises(DefinitionError, match=setting):
            read_form(document)

    @pytest.mark.parametrize(
        ("document", "words"),
        [(nested(40), "10 deep"), (optioned(5_001), "5000"), (with_price("1+" * 3_999 + "1"), "")],
    )
    def test_what_is_too_deep_or_too_many_is_refused_or_a_finding(self, document, words):
        try:
            assert {each.code for each in proof(compile_form(read_form(document)))} >= {"unreadable"}
        except DefinitionError as error:
            assert words in str(error)

    def test_all_formulas_together_are_bounded(self):
        document = visit_document()
        document["figures"] = [
            {"kind": "formula", "id": f"g{at}", "key": f"g{at}", "formula": "people + " * 800 + "1"} for at in range(60)
        ]
        with pytest.raises(DefinitionError, match="at most 400000 characters"):
            read_form(document)

    @pytest.mark.parametrize("line", [" " * 100_000 + "..", "a" + " " * 1_900 + "..1", "=" * 1_900, "x: " + "a=" * 900])
    def test_a_pasted_line_costs_no_more_than_its_length(self, line):
        began = time.perf_counter()
        read_outline("\n".join([line] * 20), lambda: "id")
        assert time.perf_counter() - began < 2


DEEP = {
    "switch in its own subject": ("SWITCH(" * 30 + "people" + ", 1, 2, 3)" * 30, "€3.00"),
    "many cases": (f"SWITCH(people, {', '.join(f'{at}, {at}' for at in range(700))})", "€3.00"),
    "many conditions": (f"IFS({', '.join(['people > 9, 1'] * 400)}, TRUE, 7)", "€7.00"),
    "many values": (f"SUM({', '.join(['people'] * 990)})", "€2,970.00"),
    "many ifs": ("IF(people > 1, " * 60 + "1" + ", 2)" * 60, "€1.00"),
    "many errors": ("IFERROR(" * 80 + "people" + ", 1)" * 80, "€3.00"),
}


class TestFormulas:
    @pytest.mark.parametrize(("formula", "price"), DEEP.values(), ids=DEEP)
    def test_however_deep_or_long_they_are_their_code_grows_only_with_them(self, formula, price):
        program = compile_form(read_form(with_price(formula)))
        state = evaluate(program, {"people": "3"}, CONTEXT)
        assert state.presented(program.places["price"]) == price
        assert len(program.source) < 20 * len(formula) + 5_000

    def test_one_nested_ninety_deep_works(self):
        program = compile_form(read_form(with_price("MAX(1, INDEX(" * 45 + "people" + ", 1))" * 45)))
        assert evaluate(program, {"people": "3"}, CONTEXT).presented(program.places["price"]) == "€3.00"

    def test_one_that_python_does_not_take_is_a_finding_of_that_formula_and_spares_the_others(self, monkeypatch):
        monkeypatch.setattr(emit, "MAX_CODE", 500)
        document = with_price("people + " * 90 + "1")
        document["figures"] = [{"kind": "formula", "id": "g", "key": "twice", "formula": "people * 2"}]
        program = compile_form(read_form(document))
        (finding,) = [each for each in proof(program) if each.code == "too_complex"]
        assert (finding.block, finding.setting) == ("price", "formula")
        state = evaluate(program, {"people": "3"}, CONTEXT)
        assert state.presented(program.places["price"]) == "–"
        assert state.at(program.figures["g"].value) == 6


def with_rows(formula, most=500, fields=1):
    inside = [{"id": f"v{at}", "type": "number", "key": f"v{at}", "label": "V"} for at in range(fields)]
    inside.append({"id": "out", "type": "calculated", "key": "out", "label": "Out", "formula": formula})
    kind = {"id": "k", "key": "k", "label": "Row", "blocks": inside}
    rows = {"id": "rows", "type": "repeat", "key": "rows", "label": "Rows", "kinds": [kind], "max_rows": most}
    total = {"id": "total", "type": "calculated", "key": "total", "label": "Total", "formula": "SUM(rows.out)"}
    return compile_form(read_form({"name": "Rows", "pages": [{"id": "p", "blocks": [rows, total]}]}))


def rows(count):
    return {"rows": [{"kind": "k", "id": f"r{at}", "values": {"v0": str(at % 10)}} for at in range(count)]}


class TestRows:
    def test_more_than_a_repeat_takes_are_refused_before_any_is_looked_at(self):
        program = with_rows("v0 * 2", most=3)
        state = evaluate(program, rows(4), CONTEXT)
        assert state.error(program.places["rows"]).message == "Keep at most 3 rows; remove 1."
        assert not state.rows(program.places["rows"])

    @pytest.mark.parametrize(
        "formula", ["COUNTIF(rows.v0, v0)", "SUMIF(rows.v0, v0, rows.v0) / 2", "MATCH(v0, rows.v0, 0)"]
    )
    def test_what_looks_for_equal_items_in_every_row_stays_quick_and_right(self, formula):
        program = with_rows(formula)
        state = evaluate(program, rows(500), CONTEXT)
        assert not isinstance(state.value(program.places["total"]), Failed)

    def test_what_takes_too_long_ends_in_an_error_value_and_the_proof_says_so_before(self):
        program = with_rows('COUNTIF(rows.v0, ">" & v0) + ' * 40 + "0")
        began = time.perf_counter()
        state = evaluate(program, rows(500), CONTEXT)
        assert time.perf_counter() - began < 3
        assert "more steps than a form may take" in state.value(program.places["total"]).error.message
        assert "costly_rows" in {each.code for each in proof(program)}
        # What comes next begins anew.
        assert evaluate(program, rows(3), CONTEXT).presented(program.places["total"]) == "120"

    def test_too_many_answers_in_rows_are_an_error_before_publishing(self):
        (finding,) = [each for each in proof(with_rows("1", fields=40)) if each.code == "too_many_cells"]
        assert "20,500 answers" in finding.message
        assert MOST_STEPS > 0


ITEMS = some.lists(
    some.none()
    | some.decimals(-3, 3, places=0)
    | some.sampled_from(["a", "A", "b", ""])
    | some.booleans()
    | some.sampled_from([Choice("a", counts=Decimal(2)), Choice("b", counts=Decimal(3))]),
    max_size=12,
)


@given(
    ITEMS,
    some.decimals(-3, 3, places=1) | some.sampled_from(["a", "B", "", None, True, Choice("b", counts=Decimal(3))]),
)
def test_a_column_finds_what_comparing_each_item_would(items, wanted):
    plain = [convert.equal(item, wanted) for item in items]
    positions = Column(items).positions(wanted)
    if positions is not None:
        assert positions == [at for at, equal in enumerate(plain) if equal]
    assert _fitting([(Column(items), wanted)], len(items)) == _fitting([(items, wanted)], len(items))


class TestTexts:
    @pytest.mark.parametrize("text", ["a" + "\u0315\u0300" * 100_000, "a" + "\u0301" * 40, "x" * 20_000])
    def test_what_would_take_long_to_compose_is_refused_by_its_length_and_marks(self, text):
        began = time.perf_counter()
        with pytest.raises(AnswerError):
            composed(text, 10_000)
        assert time.perf_counter() - began < 0.5

    def test_what_people_write_is_composed(self):
        assert composed("  Cafe\u0301 \u0e01\u0e33 ", 100) == "Café \u0e01\u0e33"


class TestOldDocuments:
    @pytest.mark.parametrize("path", DOCUMENTS, ids=lambda path: path.stem)
    def test_of_every_format_are_read_for_ever(self, path):
        document = json.loads(path.read_text(encoding="utf-8"))
        form = read_stored(document["definition"])
        state = evaluate(compile_form(form), document["answers"], CONTEXT)
        shown = {block: state.presented(state.program.places[block]) for block in document["shown"]}
        assert shown == document["shown"]
        assert read_imported(document["definition"]) == form

    def test_of_format_1_keep_their_progress_and_the_country_of_their_telephone_numbers(self):
        phone = {"type": "phone", "id": "t", "key": "t", "label": "Phone"}
        group = {"type": "group", "id": "g", "key": "g", "blocks": [phone]}
        old = {"name": "Old", "locale": "de_AT", "progress": "bar", "pages": [{"id": "p", "blocks": [group]}]}
        form = read_stored(old)
        assert form.progress == ("bar",)
        assert form.pages[0].blocks[0].blocks[0].country == "AT"
        assert read_stored({"name": "Old", "progress": "none"}).progress == ()
        for broken in ({"pages": 3}, {"pages": [3], "locale": 7}, {"progress": "round"}):
            with pytest.raises(DefinitionError):
                read_imported({"name": "Old", **broken})

    def test_stand_there_for_every_format_that_there_was(self):
        kept = {json.loads(path.read_text(encoding="utf-8"))["definition"].get("format", 1) for path in DOCUMENTS}
        assert kept == set(range(1, FORMAT + 1))

    def test_with_what_this_version_does_not_know_are_read_where_they_are_stored_and_refused_from_outside(self):
        document = visit_document() | {"colour": "red"}
        document["pages"][0]["blocks"][1]["glow"] = True
        assert read_stored(document) == read_form(visit_document())
        with pytest.raises(DefinitionError, match="glow"):
            read_imported(document)

    def test_of_a_later_version_say_so(self):
        for read in (read_stored, read_imported):
            with pytest.raises(DefinitionError, match="later version of Codexa"):
                read(visit_document() | {"format": FORMAT + 1})

    @given(some.integers(1, 4))
    def test_are_brought_up_step_by_step_and_left_as_they_were(self, begins):
        steps = {
            1: lambda d: d | {"b": d["a"]},
            2: lambda d: {k: v for k, v in d.items() if k != "a"},
            3: lambda d: d | {"c": 3},
        }
        old = {"format": begins, "a": 1, "b": 2}
        new = upgraded(old, steps)
        assert new["format"] == 4
        assert old == {"format": begins, "a": 1, "b": 2}
        assert ("a" in new, new["b"]) == (begins > 2, 1 if begins == 1 else 2)
        assert upgraded([1], steps) == [1]
