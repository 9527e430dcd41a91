"""Every block type is complete, and what each makes of what people type."""

import json
from decimal import Decimal
from pathlib import Path
from random import Random

import pytest
from hypothesis import example, given
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from codexa.core.definition.figures import Formatted
from codexa.core.errors import AnswerError
from codexa.core.fields import BLOCK_TYPES
from codexa.core.fields.date_time import DateTimeType
from codexa.core.fields.field_type import FieldType, Medium, Region, Sampling
from codexa.core.fields.formatted import present, settle
from codexa.core.fields.moments import read_date, read_time
from codexa.core.fields.number import NumberField, NumberType
from codexa.core.fields.sample_people import somebody
from codexa.core.fields.short_text import ShortTextField, ShortTextType
from codexa.core.fields.signature import SignatureField, SignatureType
from codexa.core.fields.single_choice import SingleChoiceField, SingleChoiceType
from codexa.core.fields.text_value import characters
from codexa.core.form.form import Form, Page, read_form
from codexa.core.program.proof import proof
from core.forms import block, program_of
from core.formulas import CONTEXT

REGION = Region(locale="en", currency="EUR", time_zone="Europe/Berlin")
GERMAN = Region(locale="de", currency="EUR", time_zone="Europe/Berlin")
FRONT_END = Path(__file__).parent.parent.parent / "frontend" / "src" / "fields"
ANSWERED = [each for each in BLOCK_TYPES if isinstance(each, FieldType) and each.answered]


def how_sampled(seed):
    random = Random(seed)
    return Sampling(random=random, person=somebody(random), region=GERMAN, now=CONTEXT.now)


@pytest.mark.parametrize("block_type", BLOCK_TYPES, ids=lambda each: each.name)
class TestEveryBlockType:
    def test_has_words_and_a_face_that_is_part_of_it(self, block_type):
        assert block_type.title
        assert block_type.purpose.endswith(".")
        assert set(block_type.face.model_fields) <= set(block_type.block.model_fields)
        assert not {"shown", "required", "key", "formula", "minimum", "maximum"} & set(block_type.face.model_fields)

    def test_starts_blank_as_a_valid_block(self, block_type):
        blank = block_type.blank()
        assert blank.type == block_type.name
        read_form({"name": "x", "pages": [{"id": "p", "blocks": [blank.model_dump(mode="json")]}]})

    def test_has_a_view_and_settings_in_the_front_end(self, block_type):
        assert (FRONT_END / block_type.name / "Input.tsx").exists()
        for index in ("inputs.ts", "settings.ts"):
            assert f"{block_type.name}:" in (FRONT_END / index).read_text(encoding="utf-8")

    def test_is_documented(self, block_type):
        text = (Path(__file__).parent.parent.parent / "docs" / "form-definition.md").read_text(encoding="utf-8")
        assert f"`{block_type.name}`" in text


@pytest.mark.parametrize("field_type", ANSWERED, ids=lambda each: each.name)
class TestEveryAnsweredFieldType:
    @given(
        raw=st.recursive(
            st.none() | st.booleans() | st.integers() | st.text() | st.decimals(),
            lambda inner: st.lists(inner) | st.dictionaries(st.text(), inner),
            max_leaves=5,
        )
    )
    def test_reads_anything_or_says_what_is_wrong(self, field_type, raw):
        if raw is None:
            return
        try:
            value = field_type.parse(raw, field_type.blank(), REGION)
        except AnswerError as error:
            assert error.code
            assert error.message.endswith(".")
        else:
            assert value is None or field_type.present(value, field_type.blank(), REGION, Medium.PAGE)

    @given(seed=st.integers())
    def test_keeps_a_sample_exactly_and_as_its_schema_says(self, field_type, seed):
        block = field_type.blank()
        sample = field_type.sample(block, how_sampled(seed))
        if sample is None:
            return
        value = field_type.parse(sample, block, GERMAN)
        assert field_type.check(value, block, GERMAN) is None
        stored = json.loads(json.dumps(field_type.dump(value)))
        assert field_type.load(stored, block) == value
        Draft202012Validator(field_type.answer_schema(block)).validate(stored)

    @given(seed=st.integers())
    def test_gives_browsers_an_answer_as_they_would_send_it(self, field_type, seed):
        blank = field_type.blank()
        apart = {
            name: tuple(each.model_copy(update={"id": f"id of {each.code}"}) for each in getattr(blank, name))
            for name in ("options", "questions")
            if hasattr(blank, name)
        }
        block = blank.model_copy(update=apart)
        sample = field_type.sample(block, how_sampled(seed))
        if sample is None:
            return
        entered = field_type.enter(field_type.parse(sample, block, GERMAN), block, GERMAN)
        if field_type.name == "several_choices":  # which are kept in the order of their options
            sample = [option.id for option in block.options if option.id in sample]
        assert entered == sample


CASES = json.loads((Path(__file__).parent.parent / "cases" / "fields.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("case", CASES, ids=lambda case: f"{case['type']} {str(case['raw'])[:30]}")
def test_an_answer_is_read_or_refused_as_its_case_says(case):
    field_type = next(each for each in ANSWERED if each.name == case["type"])
    block = type(field_type.blank()).model_validate({**field_type.blank().model_dump(), **case.get("set", {})})
    region = Region(locale=case.get("locale", "en"), currency="EUR", time_zone="Europe/Berlin")
    if "code" in case:
        with pytest.raises(AnswerError) as refused:
            field_type.parse(case["raw"], block, region)
        assert refused.value.code == case["code"]
        return
    value = field_type.parse(case["raw"], block, region)
    assert (None if value is None else field_type.check(value, block, region)) == case.get("error")
    if "error" not in case:
        assert (None if value is None else field_type.dump(value)) == case["kept"]


def test_every_answered_type_has_cases_of_what_is_kept_and_what_is_refused():
    for field_type in ANSWERED:
        mine = [case for case in CASES if case["type"] == field_type.name]
        assert any("kept" in case for case in mine), field_type.name
        assert field_type.name == "consent" or any("kept" not in case for case in mine), field_type.name


def number(raw, region=REGION, **settings):
    block = NumberField(id="n", key="n", label="N", **settings)
    value = NumberType().parse(raw, block, region)
    return value, None if value is None else NumberType().check(value, block, region)


@pytest.mark.parametrize(
    ("raw", "region", "expected"),
    [
        ("1,234", REGION, "1234"),
        ("1.234", GERMAN, "1234"),
        ("1.234,50", GERMAN, "1234.5"),
        ("\u22125", REGION, "-5"),
        (" 7 ", REGION, "7"),
        (7, REGION, "7"),
        (Decimal("2.50"), REGION, "2.5"),
        ("0005", REGION, "5"),
        ("٣٤", REGION, "34"),
    ],
)
def test_a_number_is_read_as_its_language_writes_it(raw, region, expected):
    assert number(raw, region, decimals=2)[0] == Decimal(expected)


@pytest.mark.parametrize(
    ("raw", "code"),
    [
        ("twelve", "not_a_number"),
        ("1,23", "not_a_number"),
        ("NaN", "not_a_number"),
        ("Infinity", "not_a_number"),
        ("1e3", "not_a_number"),
        (True, "not_a_number"),
        ([1], "not_a_number"),
        ("9" * 16, "too_large"),
        ("9" * 500, "too_large"),
        ("1.5", "too_many_decimals"),
        (10**400, "too_large"),
    ],
)
def test_what_is_no_number_is_refused_in_words(raw, code):
    with pytest.raises(AnswerError) as refused:
        number(raw)
    assert refused.value.code == code


@pytest.mark.parametrize(
    ("raw", "message"), [("0", "Enter 1 or more."), ("1", None), ("60", None), ("61", "Enter 60 or less.")]
)
def test_limits_are_included(raw, message):
    assert number(raw, minimum=1, maximum=60)[1] == message


def test_own_words_and_names_are_refused_where_too_long_never_cut():
    own = SingleChoiceField(id="c", key="c", label="C", other=True)
    assert SingleChoiceType().parse({"other": "e\u0301" * 500}, own, REGION).label == "e\u0301" * 500
    with pytest.raises(AnswerError, match="at most 500 characters; these are 501"):
        SingleChoiceType().parse({"other": "x" * 501}, own, REGION)
    with pytest.raises(AnswerError, match="at most 200 characters; these are 201"):
        SignatureType().parse("x" * 201, SignatureField(id="s", key="s", label="S"), REGION)


def test_text_is_trimmed_composed_and_kept_in_any_script():
    block = ShortTextField(id="t", key="t", label="T", max_length=5)
    read = ShortTextType()
    assert read.parse("  e\u0301t\u00e9 ", block, REGION) == "été"
    assert read.parse("   ", block, REGION) is None
    assert read.parse("\u05d0\u05d1\u200f", block, REGION) == "\u05d0\u05d1\u200f"
    assert read.parse("a\x00b", block, REGION) == "ab"
    assert read.check("123456", block, REGION) == "Enter at most 5 characters; these are 6."


def test_a_choice_is_named_by_id_or_code_and_counts_exactly():
    block = SingleChoiceType().blank().model_copy()
    options = [
        {"id": "a", "code": "one", "label": "One", "counts_as": "0.1"},
        {"id": "b", "code": "two", "label": "One", "counts_as": "0.1"},
    ]
    block = type(block).model_validate({**block.model_dump(), "options": options})
    by_id, by_code = (SingleChoiceType().parse(raw, block, REGION) for raw in ("b", "two"))
    assert by_id == by_code == "two"
    assert by_id.counts + by_code.counts == Decimal("0.2")
    with pytest.raises(AnswerError):
        SingleChoiceType().parse("three", block, REGION)


def test_two_options_may_read_and_count_the_same_but_not_share_a_code():
    block = SingleChoiceType().blank()
    twice = block.model_copy(
        update={"options": (block.options[0], block.options[0].model_copy(update={"id": "other"}))}
    )
    assert [setting for setting, _, _ in SingleChoiceType().findings(twice)] == ["options"]


def test_a_page_lists_blocks_of_every_type():
    page = Page(
        id="p", blocks=tuple(each.blank().model_copy(update={"id": f"b{at}"}) for at, each in enumerate(BLOCK_TYPES))
    )
    assert len(list(Form(name="x", pages=(page,)).blocks())) == len(BLOCK_TYPES)


@given(
    st.decimals(-1, 0, allow_nan=False, allow_infinity=False, places=6),
    st.integers(0, 4),
    st.sampled_from(["number", "percent", "money"]),
    st.sampled_from(Medium),
)
@example(value=Decimal("-0.000050"), decimals=4, kind="number", medium=Medium.PAGE)
def test_no_minus_is_shown_before_nothing(value, decimals, kind, medium):
    formatted = Formatted(format=kind, decimals=decimals)
    text = present(settle(value, formatted, REGION), formatted, REGION, medium)
    assert ("-" in text) is any(digit in text for digit in "123456789")


@pytest.mark.parametrize(
    ("text", "count"),
    [("", 0), ("Ørsted", 6), ("e\u0301", 1), ("\U0001f1f3\U0001f1f4", 1), ("\U0001f469\u200d\U0001f52c", 1)],
)
def test_characters_are_counted_as_people_see_them(text, count):
    assert characters(text) == count
    field = ShortTextField(id="t", key="t", label="T", max_length=count + 1)
    assert ShortTextType().check(f"{text}x", field, REGION) is None
    assert f"these are {count + 2}" in ShortTextType().check(f"{text}xx", field, REGION)


def test_options_that_read_the_same_are_a_doubt():
    words = {"a": "Red", "b": " red ", "c": "Blue"}
    options = [{"id": each, "code": each, "label": label} for each, label in words.items()]
    program = program_of(block("single_choice", "colour", options=options))
    (found,) = (each for each in proof(program) if each.code == "same_words")
    assert (found.block, found.setting) == ("colour", "options")


@pytest.mark.parametrize(
    ("locale", "time_zone", "first"),
    [
        ("en", "Europe/Berlin", 1),
        ("en", "America/New_York", 0),
        ("pt", "America/Sao_Paulo", 0),
        ("ar", "Africa/Cairo", 6),
        ("en_US", "Europe/Berlin", 0),
        ("nl_BQ", "America/Kralendijk", 1),
        ("en", "Antarctica/Troll", 1),
        ("en_001", "UTC", 1),
    ],
)
def test_weeks_begin_as_where_the_form_is_at_home(locale, time_zone, first):
    assert Region(locale=locale, currency="EUR", time_zone=time_zone).first_weekday == first


WRITTEN = json.loads((Path(__file__).parent.parent / "cases" / "written_moments.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("locale", WRITTEN)
def test_days_and_times_are_read_as_the_form_s_page_writes_them(locale):
    # The same file holds for the browser (`moments.test.tsx`).
    for iso, words in WRITTEN[locale].items():
        read = read_time if ":" in iso else read_date
        assert read(words, locale).isoformat()[: len(iso)] == iso
    day, time = WRITTEN[locale]["2026-12-24"], WRITTEN[locale]["18:30"]
    region = Region(locale=locale, currency="EUR", time_zone="Europe/Berlin")
    assert DateTimeType().read(f"{day} {time}", region).isoformat() == "2026-12-24T18:30:00+01:00"
