"""Pasted text: what each line makes, and what is said of what was not understood."""

import json
from itertools import count
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from codexa.core.definition.keys import KEY, RESERVED_KEYS, code_from, key_from
from codexa.core.form.form import read_form
from codexa.core.form.outline_text import read_outline

KEY_CASES = json.loads((Path(__file__).parents[1] / "cases" / "keys.json").read_text(encoding="utf-8"))


def outlined(text):
    numbers = count()
    return read_outline(text, lambda: f"i{next(numbers)}")


def only_block(text):
    return outlined(text).pages[0]["blocks"][0]


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("Group size* number 1..60", {"type": "number", "label": "Group size", "required": "TRUE", "minimum": "1", "maximum": "60", "key": "group_size"}),  # noqa: E501
        ("Your name", {"type": "name", "label": "Your name"}),
        ("Favourite star", {"type": "short_text", "label": "Favourite star"}),
        ("Arrival* time", {"type": "time", "label": "Arrival"}),
        ("Arrival time", {"type": "time", "label": "Arrival time"}),
        ("Name*", {"type": "name", "required": "TRUE"}),
        ("E-mail*", {"type": "email", "label": "E-mail"}),
        ("Preferred date (date)", {"type": "date", "label": "Preferred date"}),
        ("- Deposit money ..50,5", {"type": "money", "label": "Deposit", "maximum": "50.5"}),
        ("3. Anything else?", {"type": "long_text", "label": "Anything else?"}),
        ("Motto short text 3..40", {"type": "short_text", "min_length": 3, "max_length": 40}),
        ("How many nights", {"type": "number", "label": "How many nights"}),
        ("Darkness slider 1..9", {"type": "slider", "least": "1", "most": "9"}),
        ("Photo", {"type": "short_text", "label": "Photo"}),
        ("Age* whole number 1..90", {"type": "number", "label": "Age", "required": "TRUE", "maximum": "90"}),
        ("Seats integer", {"type": "number", "label": "Seats"}),
        ("May we call you?* yes/no", {"type": "yes_no", "label": "May we call you?", "required": "TRUE"}),
        ("Is it dark? yes or no", {"type": "yes_no", "label": "Is it dark?"}),
        ("E-mail* email", {"type": "email", "label": "E-mail", "required": "TRUE"}),
        ("heading: What to bring", {"type": "heading", "text": "What to bring"}),
        ("text: Warm shoes & a hat", {"type": "text", "text": "<p>Warm shoes &amp; a hat</p>"}),
        ("Star chart €14,90", {"type": "product", "label": "Star chart", "price": "14.90"}),
        ("Star chart* product = 14.90", {"type": "product", "label": "Star chart", "price": "14.90"}),
        ("Star chart* €9.50", {"type": "product", "label": "Star chart", "price": "9.50", "required": "TRUE"}),
        ("Posters number 0..5 (€4)", {"type": "number", "label": "Posters", "price": "4", "maximum": "5"}),
        ("Red lamp product 1..5", {"type": "product", "least": 1, "most": 5}),
        ("Blankets quantity ..9", {"type": "quantity", "most": 9}),
        ("Picture of the hall photo", {"type": "file_upload", "label": "Picture of the hall"}),
    ],
)  # fmt: skip
def test_a_line_makes_a_field(line, expected):
    made = only_block(line)
    assert {name: made.get(name) for name in expected} == expected
    assert [each.problem for each in outlined(line).lines] == [""]


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("Way: On foot, By bus = 2; By car = -1,5", "single_choice"),
        ("Way\n  On foot\n  By bus = 2\n  By car = -1,5", "single_choice"),
        ("Way several choices: On foot | By bus = 2 | By car = -1,5", "several_choices"),
        ("Way dropdown\n\t- On foot\n\t- By bus = 2\n\t- By car = -1,5", "dropdown"),
    ],
)
def test_options_stand_after_a_colon_or_set_in_below(text, kind):
    made = only_block(text)
    assert made["type"] == kind
    read = [(option["label"], option["code"], option["counts_as"]) for option in made["options"]]
    assert read == [("On foot", "on_foot", "0"), ("By bus", "by_bus", "2"), ("By car", "by_car", "-1.5")]


@pytest.mark.parametrize(
    ("option", "label", "number"),
    [
        ("By car = €5", "By car", "5"),
        ("By car = 4,50 EUR", "By car", "4.50"),
        ("By car (€5)", "By car", "5"),
        ("By car – 5 CHF", "By car", "5"),
        ("By car $12.50", "By car", "12.50"),
        ("15 to 40 km", "15 to 40 km", "0"),
        ("Room 5", "Room 5", "0"),
    ],
)
def test_an_options_price_is_its_number_where_a_currency_says_so(option, label, number):
    made = outlined(f"Way\n  On foot\n  {option}")
    read = made.pages[0]["blocks"][0]["options"][1]
    assert (read["label"], read["counts_as"]) == (label, number)


def test_a_products_options_have_prices():
    made = only_block("Mug product €9\n  Blue\n  Grey €11")
    assert [(option["label"], option["price"]) for option in made["options"]] == [("Blue", "9"), ("Grey", "11")]
    assert outlined("Mug product: Blue €9").lines[0].makes == "product, 1 options: Blue = 9"


def test_groups_rows_and_pages_with_a_rule():
    made = outlined("# You\n## Contact\nName*\nE-mail\n## Guests (rows)\nName\n# Coach if guests > 20\nPlate")
    contact, guests = made.pages[0]["blocks"]
    assert [block["label"] for block in contact["blocks"]] == ["Name", "E-mail"]
    assert [block["label"] for block in guests["kinds"][0]["blocks"]] == ["Name"]
    assert made.pages[1]["shown"] == "guests > 20"
    read_form({"name": "Pasted", "pages": made.pages})
    assert [line.makes for line in made.lines][:2] == ["a page", "a group, of what follows"]
    assert "is no condition" in outlined("# Coach if >").lines[0].problem


def test_a_heading_begins_a_page_and_keys_are_never_given_twice():
    made = outlined("# One\nTown\n# Two\nTown\nTown")
    assert [page["title"] for page in made.pages] == ["One", "Two"]
    assert [block["key"] for page in made.pages for block in page["blocks"]] == ["town", "town_2", "town_3"]
    assert [line.makes for line in made.lines] == ["a page", "short text", "a page", "short text", "short text"]


@pytest.mark.parametrize(
    ("text", "problem"),
    [
        ("Size number 9..1", "9..1 begins above its end; the limits were left out."),
        ("Photo file upload: a, b", "File or photo takes no options; they were left out."),
        ("Agreed yes or no 1..2", "Yes or no has no limits of that kind; they were left out."),
        ("*", "There is no label in this line; begin it with what you ask for."),
        ("Deposit money €50", "Money has no price; 50 was left out."),
        ("Age* hologram", "“hologram” is no kind of field that is known here; it was left out."),
        ("Size number\n  Small", "Size takes no options; write this line without the space before it."),
    ],
)
def test_what_is_not_understood_is_said(text, problem):
    assert [line.problem for line in outlined(text).lines if line.problem] == [problem]


PIECES = [
    "#",
    "*",
    ":",
    "..",
    "=",
    ",",
    "\t",
    "\n",
    " ",
    "number",
    "1",
    "60",
    "Größe",
    "yes or no",
    "dropdown",
    "é",
    "(",
    ")",
]


@given(st.lists(st.sampled_from(PIECES), max_size=30).map("".join) | st.text(max_size=80))
def test_any_text_at_all_makes_a_form(text):
    made = outlined(text)
    form = read_form({"name": "Pasted", "pages": made.pages})
    assert form.pages
    lines = [line for line in text.splitlines() if line.strip()]
    assert [line.text for line in made.lines] == [line.strip() for line in lines]
    assert all(line.makes or line.problem for line in made.lines)


@pytest.mark.parametrize("case", KEY_CASES, ids=lambda case: case["label"])
def test_keys_are_made_of_labels_as_the_workbench_makes_them(case):
    assert key_from(case["label"], case["taken"]) == case["key"]
    assert code_from(case["label"], case["taken"]) == case["code"]


@given(st.text(), st.sets(st.from_regex(r"[a-z_]{1,6}", fullmatch=True)))
def test_a_key_made_of_any_label_can_be_one_and_is_free(label, taken):
    key = key_from(label, taken)
    assert KEY.fullmatch(key)
    assert key not in taken | RESERVED_KEYS
