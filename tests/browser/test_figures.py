"""Figures of every kind are made by the interface alone, and give what the core gives."""

import pytest
from playwright.sync_api import expect

from browser.conftest import area, import_form, saved

QUIZ = {
    "name": "Quiz",
    "title": "Quiz",
    "pages": [
        {
            "id": "p",
            "title": "Stars",
            "blocks": [
                {
                    "id": "pole",
                    "type": "single_choice",
                    "key": "pole",
                    "label": "Which star stands at the pole?",
                    "options": [
                        {"id": "o1", "code": "polaris", "label": "Polaris"},
                        {"id": "o2", "code": "vega", "label": "Vega"},
                    ],
                },
                {"id": "moons", "type": "number", "key": "moons", "label": "How many moons?"},
                {
                    "id": "seen",
                    "type": "several_choices",
                    "key": "seen",
                    "label": "What have you seen?",
                    "options": [
                        {"id": "o3", "code": "comet", "label": "A comet"},
                        {"id": "o4", "code": "aurora", "label": "An aurora"},
                    ],
                },
            ],
        }
    ],
    "trials": [
        {
            "id": "t1",
            "name": "Watcher",
            "day": "2026-06-01",
            "answers": {"pole": "o1", "moons": "4", "seen": ["o3", "o4"]},
        }
    ],
}


@pytest.fixture
def quiz(desk):
    """The worksheet of a small quiz without figures, with the answers of its trial."""
    import_form(desk, QUIZ)
    area(desk, "Figures")
    desk.get_by_role("combobox", name="Values for").click()
    desk.get_by_role("option", name="Trial “Watcher”").click()
    return desk


def add(page, kind, name):
    page.get_by_role("button", name="Add a figure").click()
    page.get_by_role("menuitem", name=kind).click()
    field = page.get_by_role("textbox", name="Name", exact=True)
    expect(field).to_be_focused()
    field.fill(name)


def add_question(page, name):
    page.get_by_role("combobox", name="Add a field that counts").click()
    page.get_by_role("option", name=name).click()


def expect_value(page, name, value):
    """Expect what a figure gives in the worksheet, in the column of the answers that are tried."""
    row = page.get_by_role("table", name="Figures").get_by_role("row").filter(has_text=name)
    expect(row.get_by_role("cell").nth(5)).to_have_text(value)


def test_a_score_counts_right_answers_and_points(quiz):
    page = quiz
    add(page, "Score", "Stars known")
    expect(page.get_by_text("No field gives points.")).to_be_visible()
    page.get_by_role("textbox", name="Decimals shown").fill("1")
    add_question(page, "1.1 Which star stands at the pole?")
    pole = page.get_by_role("group", name="1.1 Which star stands at the pole?")
    pole.get_by_role("checkbox", name="Polaris").check()
    pole.get_by_role("textbox", name="Worth").fill("2")
    add_question(page, "1.2 How many moons?")
    moons = page.get_by_role("group", name="1.2 How many moons?").get_by_role("textbox", name="Right answers")
    moons.press_sequentially("4; 4.5;")
    moons.blur()
    expect(moons).to_have_value("4; 4.5")
    add_question(page, "1.3 What have you seen?")
    seen = page.get_by_role("group", name="1.3 What have you seen?")
    seen.get_by_role("button", name="points each").click()
    seen.get_by_role("textbox", name="A comet").fill("1,5")
    seen.get_by_role("textbox", name="An aurora").fill("-0.5")
    expect_value(page, "Stars known", "4.0")
    # Points and right answers exclude each other; what is done in quick succession would be one step.
    page.wait_for_timeout(1300)
    pole.get_by_role("button", name="points each").click()
    expect_value(page, "Stars known", "2.0")
    page.keyboard.press("Control+z")
    expect_value(page, "Stars known", "4.0")
    saved(page)


def test_a_profile_is_a_grid_of_options_and_profiles(quiz):
    page = quiz
    add(page, "Profile", "Night-watcher")
    expect(page.get_by_text("There is no profile to speak for.")).to_be_visible()
    for at, name in enumerate(("Owl", "Lark"), 1):
        page.get_by_role("button", name="+ profile").click()
        page.get_by_role("textbox", name=f"Name of profile {at}").fill(name)
    add_question(page, "1.3 What have you seen?")
    page.get_by_role("textbox", name="A comet speaks for Owl").fill("1")
    page.get_by_role("textbox", name="An aurora speaks for Lark").fill("1")
    expect_value(page, "Night-watcher", "Owl")
    page.get_by_role("combobox", name="A tie is won by").click()
    page.get_by_role("option", name="the last of them here").click()
    expect_value(page, "Night-watcher", "Lark")
    # Codes follow names, so that formulas read well.
    add(page, "Formula", "Part of owls")
    formula = page.get_by_role("textbox", name="Formula: = is worked out by")
    formula.press_sequentially("night_watcher.share.owl")
    page.keyboard.press("Escape")
    expect(page.get_by_text("gives number · 50")).to_be_visible()


def test_a_counter_counts_conditions_each_with_its_step(quiz):
    page = quiz
    add(page, "Counter", "Signs")
    page.get_by_role("textbox", name="Begins at").fill("10")
    for at, (condition, by) in enumerate((("moons > 3", "2"), ('HAS(seen, "aurora")', "-0.5"), ("moons > 9", "7")), 1):
        page.get_by_role("button", name="Add a condition").click()
        counted = page.get_by_role("group", name=f"Condition {at}")
        counted.get_by_role("textbox", name="Adds").fill(by)
        as_formula = counted.get_by_role("button", name="as formula")
        editor = counted.get_by_role("textbox", name="Formula: counts when")
        expect(as_formula.or_(editor).first).to_be_visible()
        if as_formula.is_visible():
            as_formula.click()
        editor.click()
        editor.press("ControlOrMeta+a")
        editor.press_sequentially(condition)
        page.keyboard.press("Escape")
    page.get_by_role("textbox", name="Decimals shown").fill("1")
    expect_value(page, "Signs", "11.5")
    page.get_by_role("button", name="Remove condition 1").click()
    expect_value(page, "Signs", "9.5")


def test_a_band_with_a_formula_says_what_is_wrong_with_it_where_it_stands(quiz):
    page = quiz
    add(page, "Bands", "Fee")
    looks_at = page.get_by_role("textbox", name="Formula: = is worked out by")
    looks_at.press_sequentially("moons")
    page.keyboard.press("Escape")
    expect(page.get_by_text("There are no bands.")).to_be_visible()
    page.get_by_role("button", name="Add a band").click()
    page.get_by_role("button", name="Add a band").click()
    page.get_by_role("textbox", name="Band 2 begins at; empty for everything below the next").fill("3")
    value = page.get_by_role("textbox", name="Value of band 2")
    value.fill("2 + moon * 1.5")
    wrong = "There is no field or figure named moon. Did you mean moons?"
    expect(page.get_by_role("group", name="Bands").get_by_text(wrong)).to_be_visible()
    expect_value(page, "Fee", "error")
    value.fill("2 + moons * 1.5")
    expect_value(page, "Fee", "8")
    expect(page.get_by_text("Trial “Watcher”: 4 gives 8")).to_be_visible()
    page.get_by_role("button", name="Remove band 1").click()
    expect(page.get_by_text("Blank below 3.", exact=True)).to_be_visible()
    expect(page.get_by_text("There is a gap: below 3 the figure is blank.")).to_be_visible()
    value = page.get_by_role("textbox", name="Value of band 1")
    expect(value).to_have_text("2 + moons * 1.5")
    value.fill(" ")
    expect(page.get_by_role("group", name="Bands").get_by_text("Band 1 has no value.")).to_be_visible()
