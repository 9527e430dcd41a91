"""Tables: what a column can be, and what typed cells come to; what is read can be typed again."""

import datetime
from dataclasses import replace
from decimal import Decimal
from random import Random
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.context import Context
from codexa.core.definition.parts import Field
from codexa.core.errors import DefinitionError
from codexa.core.fields.field_type import Medium
from codexa.core.form.form import read_form
from codexa.core.formula.check import Severity
from codexa.core.program.accept import Accepted, accept
from codexa.core.program.compiling import compile_form
from codexa.core.program.follow_ups import due as due_of
from codexa.core.program.proof import proof
from codexa.core.program.samples import sample_answers
from codexa.core.tables.alone import Wanted, settled
from codexa.core.tables.between import form_of_table, table_of_form
from codexa.core.tables.guessing import Writing, as_typed, guess, writing_of
from codexa.core.tables.records import Record, record_as_kept, record_of, record_of_answers, texts_of, typed_texts_of
from codexa.core.tables.table import known_table, table_of
from core.any_form import forms
from core.records import INSTRUMENTS, tables

COLUMNS = [
    {"id": "c1", "type": "short_text", "key": "name", "label": "Name", "required": "TRUE"},
    {"id": "c2", "type": "number", "key": "aperture", "label": "Aperture", "decimals": 2, "minimum": "0"},
    {
        "id": "c3",
        "type": "dropdown",
        "key": "site",
        "label": "Site",
        "options": [
            {"id": "o1", "code": "deck", "label": "Harbour Deck"},
            {"id": "o2", "code": "dome", "label": "Summit Dome"},
        ],
    },
    {"id": "c4", "type": "date", "key": "bought", "label": "Bought"},
    {"id": "c5", "type": "yes_no", "key": "lent", "label": "Lent"},
    {"id": "c6", "type": "calculated", "key": "double", "label": "Double", "formula": "aperture * 2"},
    {"id": "c7", "type": "money", "key": "charge", "label": "Charge"},
]
CONTEXT = Context(now=datetime.datetime(2026, 11, 29, tzinfo=ZoneInfo("Europe/Berlin")), locale="en")


def telescopes(locale="en", **settings):
    return table_of({"name": "Telescopes", "locale": locale, "columns": COLUMNS, "once": ["c1"], **settings})


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"columns": [{"id": "h", "type": "heading", "key": "h", "text": "No"}]}, "columns.0.type"),
        ({"columns": [*COLUMNS, {**COLUMNS[0], "id": "c9"}]}, "columns"),
        ({"columns": [{**COLUMNS[5], "formula": "nothing + 1"}]}, "columns.0.formula"),
        ({"columns": [{**COLUMNS[0], "shown": "TRUE"}]}, "columns.0.shown"),
        ({"columns": COLUMNS, "once": ["zz"]}, "once.0"),
        ({"columns": COLUMNS, "named_by": "zz"}, "named_by"),
        ({"columns": COLUMNS, "colour": "red"}, "colour"),
        ({"columns": COLUMNS, "currency": "NON"}, "currency"),
    ],
)
def test_what_is_no_table_is_told_at_its_place(change, path):
    with pytest.raises(DefinitionError) as refused:
        table_of({"name": "Wrong", **change})
    assert any(each.path.startswith(path) and each.message for each in refused.value.problems), refused.value.problems


def test_cells_are_read_as_people_write_them_in_the_language_of_the_table():
    table = telescopes("de")
    cells = {"c1": " Große  Nova ", "c2": "1.234,5", "c3": "harbour deck", "c4": "3.12.2025", "c5": "yes", "c7": "9,50"}
    record = record_of(table, cells, CONTEXT)
    assert record.values == {
        "c1": "Große  Nova",
        "c2": "1234.5",
        "c3": "deck",
        "c4": "2025-12-03",
        "c5": True,
        "c7": "9.5",
        "c6": "2469",
    }
    assert (record.once, record.name) == ({"c1": "grosse nova"}, "Große  Nova")
    assert all(word in record.words for word in ("grosse nova", "harbour deck", "1.234,5"))
    wrong = record_of(table, {"c1": "", "c2": "-1", "c3": "Moon"}, CONTEXT)
    assert {each.column for each in wrong} == {"c1", "c2", "c3"}
    assert record_of(table, {"zz": "1"}, CONTEXT)[0].column == ""


CELLS = some.fixed_dictionaries(
    {"c1": some.text(min_size=1, max_size=30).filter(lambda text: text.strip() and text.isprintable())},
    optional={
        "c2": some.decimals(0, 10_000, places=2).map(str),
        "c3": some.sampled_from(["deck", "Summit Dome", ""]),
        "c4": some.dates(datetime.date(1900, 1, 1), datetime.date(2100, 1, 1)).map(str),
        "c5": some.sampled_from(["Yes", "no", "TRUE", ""]),
        "c7": some.integers(0, 10_000).map(str),
    },
)


@given(cells=CELLS, locale=some.sampled_from(["en", "de", "fr"]), more=some.decimals(0, 99, places=1))
def test_what_is_kept_can_be_typed_again_and_stays_when_it_is_worked_out_anew(cells, locale, more):
    table = telescopes(locale)
    if locale != "en" and "c2" in cells:
        cells = {**cells, "c2": cells["c2"].replace(".", ",")}
    record = record_of(table, cells, CONTEXT)
    assert isinstance(record, Record), record
    assert record_of(table, typed_texts_of(table, record.values), CONTEXT) == record
    assert record_of(table, {}, CONTEXT, record.values) == record
    assert record_as_kept(table, record.values, CONTEXT) == record
    changed = record_of(table, {"c2": str(more).replace(".", "." if locale == "en" else ",")}, CONTEXT, record.values)
    assert changed.values | {"c2": 0, "c6": 0} == record.values | {"c2": 0, "c6": 0}


def test_what_was_typed_stays_where_the_columns_would_not_take_it_now():
    before = record_of(telescopes(), {"c1": "Nova", "c2": "20", "c3": "deck"}, CONTEXT)
    without = [{**COLUMNS[1], "maximum": "10"}, {**COLUMNS[2], "options": COLUMNS[2]["options"][1:]}, COLUMNS[5]]
    table = telescopes(columns=without, once=[])
    record = record_as_kept(table, before.values, CONTEXT)
    # What the table has no column for any more is kept, too: the column may come back.
    assert record.values == before.values
    assert texts_of(table, record.values, Medium.PAGE) == {"c2": "20", "c3": "deck", "c6": "40"}
    assert "c2" in [each.column for each in record_of(table, {"c2": "11"}, CONTEXT, record.values)]


WANTED = some.builds(
    Wanted,
    number=some.none() | some.integers(1, 4),
    values=some.dictionaries(some.sampled_from("ab"), some.sampled_from("xyz"), max_size=2),
)


@given(wanted=some.lists(WANTED, max_size=6, unique_by=lambda each: each.number or object()), seed=some.randoms())
def test_no_two_records_come_to_have_the_same(wanted, seed):
    names = [(column, value) for column in "ab" for value in "xyz"]
    held = dict(zip(seed.sample(names, 3), (1, 2, 5), strict=True))
    refused = settled(wanted, held)
    kept = [each for at, each in enumerate(wanted) if at not in refused]
    changed = {each.number for each in kept}
    after = [name for name, number in held.items() if number not in changed]
    after += [name for each in kept for name in each.values.items()]
    assert len(after) == len(set(after))
    whole = [name for each in wanted for name in each.values.items()]
    others = [name for name, number in held.items() if number not in {each.number for each in wanted}]
    assert bool(refused) == (len(whole + others) > len(set(whole + others)))


def test_two_records_change_names_with_each_other():
    held = {("a", "x"): 1, ("a", "y"): 2}
    swap = [Wanted(number=1, values={"a": "y"}), Wanted(number=2, values={"a": "x"})]
    assert settled(swap, held) == {}
    assert settled(swap[:1], held) == {0: ("a", 2)}
    assert settled([Wanted(number=None, values={"a": "z"})] * 2, held) == {1: ("a", None)}


@pytest.mark.parametrize(
    ("cells", "type_"),
    [
        (["yes", "No", ""], "yes_no"),
        (["1", "2.50", "-3"], "number"),
        (["01234", "12345"], "short_text"),  # a postal code counts nothing
        (["2026-11-29", "2025-01-02"], "date"),
        (["29.11.2026", "3/4/26"], "date"),
        (["2026-11-29T20:15:00", "2026-11-30 09:00"], "date_time"),
        (["20:15", "09:00:00"], "time"),
        (["ana@example.org", "b@example.org"], "email"),
        (["Deck", "Dome", "Deck", "Deck", "Dome", "Deck"], "dropdown"),
        (["Deck", "Dome", "Tower"], "short_text"),
        (["a\nb"], "long_text"),
        ([], "short_text"),
    ],
)
def test_what_a_column_of_a_file_holds_is_guessed(cells, type_):
    assert guess(cells, writing_of([cells])).type == type_


def test_how_a_file_writes_is_told_by_what_leaves_no_doubt():
    assert writing_of([["1.234,50", "2"], ["11/29/2026", "01/02/2026"]]) == Writing(comma=True, days="month")
    assert writing_of([["1,234.50", "1,234"], ["01/02/2026"]]) == Writing(comma=False, days="day")


@given(
    number=some.decimals(-99_999, 99_999, places=2),
    day=some.dates(datetime.date(2000, 1, 1), datetime.date(2099, 12, 31)),
    writing=some.builds(Writing, comma=some.booleans(), days=some.sampled_from(["day", "month"])),
    locale=some.sampled_from(["en", "de"]),
)
def test_a_file_s_cells_mean_the_same_in_any_table(number, day, writing, locale):
    table = telescopes(locale, columns=[{**COLUMNS[1], "minimum": None}, COLUMNS[3]], once=[])
    written = f"{number:f}".replace(".", "," if writing.comma else ".")
    numbered = f"{day.day:02}/{day.month:02}/{day.year}" if writing.days == "day" else f"{day:%m/%d/%Y}"
    typed = {
        "c2": as_typed(table.columns["c2"], written, writing, table.form.region),
        "c4": as_typed(table.columns["c4"], numbered, writing, table.form.region),
    }
    record = record_of(table, typed, CONTEXT)
    assert (Decimal(record.values["c2"]), record.values["c4"]) == (number, day.isoformat())


@given(document=forms(), seed=some.integers(0, 9))
def test_any_form_makes_a_table_that_keeps_its_responses_and_that_a_form_can_fill(document, seed):
    form = read_form(document)
    found = table_of_form(form)
    table = table_of(found.definition)
    fields = [block for block, kind in form.blocks_and_kinds() if kind is None and isinstance(block, Field)]
    assert len(table.columns) + len(found.left_out) == len(fields) + len(list(form.repeats()))
    document = form_of_table("made", table, {INSTRUMENTS.id: known_table(INSTRUMENTS.id, INSTRUMENTS.table)})
    context = replace(CONTEXT, tables=tables())
    program = compile_form(read_form(document))
    assert [
        each.message for each in proof(program) if each.severity is Severity.ERROR and each.code != "no_fields"
    ] == []
    random = Random(seed)
    answers = sample_answers(program, random, context)
    accepted = accept(program, answers, context)
    if isinstance(accepted, Accepted):
        (due,) = due_of(accepted.state, "complete")
        record = record_of_answers(table, due.content["steps"][0]["records"][0]["cells"], context)
        assert isinstance(record, Record), record
        assert {each: record.values[each] for each in accepted.answers} == accepted.answers
