"""What the proof says of lists of which the first counts, of dead ends, of bands that are never reached, of links."""

import pytest

from codexa.core.program.bounds import range_of
from codexa.core.program.notes import links
from codexa.core.program.proof import proof
from core.forms import block, figure, options, program_of, value_of

SITE = block("single_choice", "site", options=options("dome", "deck"))
PEOPLE = block("number", "people", minimum="1", maximum="60", required="TRUE")
NAME = block("short_text", "name")


def found(program, *codes):
    return [(each.code, each.block, each.setting) for each in proof(program) if each.code in codes]


def confirmed(*whens):
    confirmations = [{"id": f"c{at}", "title": "Thank you", "when": when} for at, when in enumerate(whens)]
    return program_of(SITE, block("yes_no", "member"), NAME, confirmations=confirmations)


@pytest.mark.parametrize(
    ("whens", "expected"),
    [
        (["", 'site = "dome"'], [("never_follows", "c1", "when")]),
        (['site = "dome"', 'site = "dome"', ""], [("never_follows", "c1", "when")]),
        (['site = "dome"', 'site <> "dome"', ""], [("never_follows", "c2", "when")]),
        (['site = "dome"', 'site = "deck"'], [("no_confirmation", "c1", "when")]),
        (["member", "NOT(member)"], []),
        (['AND(member, site = "dome")', "member", ""], []),
        (["LEN(name) > 3", "LEN(name) > 2"], []),
    ],
)
def test_confirmations_that_never_follow_and_answers_for_which_none_does(whens, expected):
    assert found(confirmed(*whens), "never_follows", "no_confirmation") == expected


def test_answers_for_which_no_confirmation_follows_are_told():
    (finding,) = [each for each in proof(confirmed('site = "dome"')) if each.code == "no_confirmation"]
    assert finding.message == "No confirmation follows for some answers, such as 1.1 Site: blank."


def test_a_rule_for_the_next_page_that_is_never_taken():
    rules = [{"when": "people >= 1", "to": "p3"}, {"when": "people > 30", "to": ""}]
    pages = [
        {"id": "p1", "title": "One", "blocks": [PEOPLE], "next": rules},
        {"id": "p2", "title": "Two", "blocks": [NAME]},
        {"id": "p3", "title": "Three", "blocks": [block("short_text", "town")]},
    ]
    assert found(program_of(pages=pages), "never_follows") == [("never_follows", "p1", "next.1.when")]
    pages[0]["next"] = [rules[1], {"when": "people > 12", "to": "p3"}]
    assert found(program_of(pages=pages), "never_follows") == []


@pytest.mark.parametrize(
    ("settings", "is_found"),
    [
        ({"required": "TRUE", "locked": 'site = "dome"'}, True),
        ({"required": 'site = "dome"', "locked": 'site = "dome"'}, True),
        ({"required": 'site = "deck"', "locked": 'site = "dome"'}, False),
        ({"required": "TRUE", "locked": 'site = "dome"', "default": '"Vega"'}, False),
        ({"locked": 'site = "dome"'}, False),
        ({"required": "TRUE", "locked": "LEN(site) > 3"}, False),
    ],
)
def test_a_field_that_nobody_can_fill_in_for_some_answers(settings, is_found):
    program = program_of(SITE, block("short_text", "star", **settings))
    assert bool(found(program, "dead_end")) is is_found


@pytest.mark.parametrize(
    ("formula", "least", "greatest"),
    [
        ("people", 1, 60),
        ("many * 2 - 3", -3, 17),
        ("MAX(people - 5, 0)", 0, 55),
        ("people / 4", None, None),
        ("SUM(people, many)", 1, 70),
        ("IF(people > 3, 10, people)", 1, 60),
        ("LEN(name)", 0, None),
        ("-people", -60, -1),
        ("people * 50%", None, None),
        ("stars", 0, 5),
        ("extras + site", 0, 9),
        ("twice + 1", 3, 121),
        ("TODAY() - TODAY()", None, None),
        ("name & people", None, None),
    ],
)  # fmt: skip
def test_between_which_numbers_a_figure_lies(formula, least, greatest):
    program = program_of(
        PEOPLE, NAME, block("number", "many", minimum="2", maximum="10"), block("rating", "stars"),
        block("several_choices", "extras", options=options(("a", 2), ("b", 3))),
        block("single_choice", "site", options=options(("dome", 4), ("deck", 1))),
        figures=[figure("twice", "formula", formula="people * 2"), figure("it", "formula", formula=formula)],
    )  # fmt: skip
    got = range_of(program, program.formula("git", "formula"))
    if formula in ("people / 4", "people * 50%"):
        assert (got.least, got.greatest) in ((0, None), (got.least, got.greatest))
        assert got.least >= 0
    else:
        assert (got.least, got.greatest) == (least, greatest)


@pytest.mark.parametrize(
    ("formula", "start", "is_found"), [("people", "1", False), ("people", "2", True), ("MAX(1, many)", "1", False)]
)
def test_bands_that_begin_where_their_figure_does_have_no_gap(formula, start, is_found):
    bands = figure("level", "bands", formula=formula, bands=[{"start": start, "value": "1"}])
    assert bool(found(program_of(PEOPLE, block("number", "many"), figures=[bands]), "bands_gap")) is is_found


@pytest.mark.parametrize(
    ("confirmation", "code"),
    [
        ({"redirect": "https://{name}/thanks"}, "open_redirect"),
        ({"redirect": "https://example.org/{name}"}, None),
        ({}, "no_words"),
        ({"title": "Thank you"}, None),
        ({"paragraphs": [{"text": "<p>See you</p>"}]}, None),
    ],
)
def test_confirmations_that_lead_anywhere_or_say_nothing(confirmation, code):
    program = program_of(NAME, confirmations=[{"id": "c", **confirmation}])
    assert [each[0] for each in found(program, "open_redirect", "no_words")] == ([code] if code else [])


def test_prices_and_names_that_do_not_agree():
    way = options(("bus", 5), ("car", 5), bus={"label": "By bus (€5)"}, car={"label": "By car (€6)"})
    bands = [{"start": "0", "value": "1", "label": "low"}, {"start": "5", "value": "2"}]
    program = program_of(
        block("dropdown", "way", options=way), figures=[figure("level", "bands", formula="way", bands=bands)]
    )
    assert found(program, "two_prices", "no_name") == [
        ("two_prices", "way", "options.1.counts_as"),
        ("no_name", "glevel", "bands.1.label"),
    ]


def test_what_reads_a_field_are_pages_confirmations_texts_and_charts_too():
    pages = [
        {"id": "p1", "title": "Hello {name}", "blocks": [NAME, PEOPLE]},
        {"id": "p2", "title": "Two", "shown": "people > 3", "blocks": [block("heading", "h", text="Dear {name}")]},
    ]
    score = figure("quiz", "score", shown_to_visitors=True, questions=[{"field": "people", "right": ["3"]}])
    confirmation = {"id": "c", "title": "Bye {name}", "when": "people > 5", "paragraphs": [{"chart": "gquiz"}]}
    known = links(program_of(pages=pages, figures=[score], confirmations=[confirmation]))
    assert set(known["name"].read_by) == {"p1", "h", "c"}
    assert set(known["people"].read_by) == {"p2", "gquiz", "c"}
    assert set(known["gquiz"].read_by) == {"c"}


@pytest.mark.parametrize(
    ("field", "right", "is_found"),
    [
        (block("yes_no", "it"), "yes", True),
        (block("yes_no", "it"), "TRUE", False),
        (block("number", "it", maximum="5"), "6", True),
        (block("number", "it"), "four", True),
        (block("number", "it", maximum="5"), "4.0", False),
        (block("date", "it"), "5 March", True),
        (block("date", "it"), "2026-03-05", False),
        (NAME | {"id": "it", "key": "it"}, "Vega", False),
    ],
)
def test_a_right_answer_that_nobody_can_give(field, right, is_found):
    quiz = figure("quiz", "score", questions=[{"field": "it", "right": [right]}])
    assert bool(found(program_of(field, figures=[quiz]), "questions_wrong")) is is_found


def test_four_and_four_point_nought_are_the_same_right_answer():
    quiz = figure("quiz", "score", questions=[{"field": "it", "right": ["4.0"], "worth": "3"}])
    assert value_of(program_of(block("number", "it"), figures=[quiz]), "quiz", {"it": "4"}) == 3


@pytest.mark.parametrize(
    ("formula", "is_found"),
    [("site + 2", True), ("SUM(site, people)", True), ("site > 3", True), ("way * 2", False), ('site = "dome"', False),
     ("LEN(site) + 1", False), ('IF(site = "dome", 3, 0) + people', False)],
)  # fmt: skip
def test_options_without_numbers_in_a_calculation(formula, is_found):
    way = block("dropdown", "way", options=options(("bus", 5), ("foot", 0)))
    program = program_of(SITE, PEOPLE, way, block("calculated", "sum", formula=formula))
    assert bool(found(program, "no_numbers")) is is_found
