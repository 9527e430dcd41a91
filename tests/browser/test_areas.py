"""Every area of the workbench: usable by all, and doing its part of the job."""

import json
import re

import pytest
from conftest import EXAMPLES
from playwright.sync_api import expect

from browser.conftest import area, expect_usable, import_form, saved, sign_in
from browser.making import press_publish

QUOTE = json.loads((EXAMPLES / "travelling_dome_quote.json").read_text(encoding="utf-8")) | {"trials": []}


def open_quote(page, name):
    import_form(page, QUOTE | {"name": name})
    expect(page.get_by_role("button", name="1.1 Who invites us?, Single choice")).to_be_visible()


def test_axe_finds_nothing_in_any_area(desk):
    page = desk
    open_quote(page, "Areas")
    outline = page.get_by_role("navigation", name="Outline")
    for part in ("1 Where and when", "C.2 All others", "2.3 What else shall we bring?"):
        outline.get_by_role("button", name=part).last.click()
        expect_usable(page)
    page.get_by_role("tab", name="Answers").click()
    expect_usable(page)
    outline.get_by_role("button", name="2.1 How many shows?").click(modifiers=["Control"])
    expect(page.get_by_role("heading", name="2 selected")).to_be_visible()
    expect_usable(page)
    for keys, name in (("Control+k", "Command list"), ("?", "Keyboard")):
        page.keyboard.press(keys)
        expect(page.get_by_role("dialog", name=name)).to_be_visible()
        page.wait_for_timeout(300)
        expect_usable(page)
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)
    area(page, "Rules")
    expect(page.get_by_role("button", name=re.compile("^1.2 Name of the school shown when"))).to_be_visible()
    page.wait_for_timeout(500)
    expect_usable(page)
    area(page, "Figures")
    for figure in ("Points", "Price of the evening"):
        page.get_by_role("button", name=figure, exact=True).click()
        expect(page.get_by_role("textbox", name="Name", exact=True)).to_have_value(figure)
        page.wait_for_timeout(300)
        expect_usable(page)
    area(page, "Brand")
    for tab in ("Colours and type", "Layout", "Shapes and pictures", "Words", "Saved brands"):
        page.get_by_role("tab", name=tab).click()
        expect_usable(page)
    area(page, "Trials")
    page.get_by_role("button", name="Add with sample answers").click()
    expect(page.get_by_text("The only trial passes")).to_be_visible()
    expect_usable(page)
    page.get_by_role("link", name=re.compile("^Saved")).click()
    expect(page.get_by_role("heading", name="History")).to_be_visible()
    expect_usable(page)


@pytest.mark.parametrize("way", ["template", "outline"])
def test_axe_finds_nothing_where_forms_begin(desk, servers, way):
    desk.goto(f"{servers.web}/start/{way}")
    expect(desk.get_by_role("heading", level=1)).to_be_visible()
    desk.wait_for_timeout(300)
    expect_usable(desk)


def test_a_pasted_outline_makes_a_form_and_says_what_it_did_not_understand(desk, servers):
    page = desk
    page.get_by_role("button", name="New form", exact=True).click()
    page.get_by_role("menuitem", name="From pasted text").click()
    page.get_by_role("textbox", name="Name of the form").fill("Star walk")
    page.get_by_role("textbox", name="Outline of the form").fill(
        "# The walk\nGroup size* number 1..60\nWay*: On foot, By bus = 2\nPhoto file upload: a, b"
    )
    made = page.get_by_role("region", name="What it will make")
    expect(made.get_by_text("number, must be answered, from 1 to 60")).to_be_visible()
    expect(made.get_by_text("File or photo takes no options; they were left out.")).to_be_visible()
    expect(made.get_by_role("status")).to_have_text("4 lines understood, 1 line not in full")
    page.get_by_role("button", name="Make the form").click()
    expect(page.get_by_role("button", name="1.2 Way, Single choice")).to_be_visible()


def test_a_rule_is_made_in_rows_and_read_as_a_formula(desk):
    page = desk
    open_quote(page, "Rows")
    page.get_by_role("button", name="2.2 How many people in all?, Number").click()
    page.get_by_role("button", name="always shown; add a rule").click()
    name = page.get_by_role("combobox", name="Field or figure")
    expect(name).to_be_focused()
    name.fill("how many shows")
    page.get_by_role("option", name="2.1 How many shows?").click()
    page.get_by_role("combobox", name="What is said of it").click()
    page.get_by_role("option", name="is at least").click()
    page.get_by_role("textbox", name="Value").fill("2")
    page.get_by_role("button", name="+ row", exact=True).click()
    page.get_by_role("combobox", name="Field or figure").nth(1).fill("who")
    page.get_by_role("option", name="1.1 Who invites us?").click()
    page.get_by_role("combobox", name="Value").click()
    page.get_by_role("option", name="A company").click()
    page.get_by_role("combobox", name="How many of the rows").click()
    page.get_by_role("option", name="any of these holds").click()
    page.get_by_role("button", name="as formula").click()
    expect(page.get_by_role("textbox", name="Formula: shown when")).to_have_text('OR(shows >= 2, host = "firm")')
    page.get_by_role("button", name="Done").click()
    note = "shown when 2.1 How many shows? is at least 2, or 1.1 Who invites us? is A company"
    expect(page.get_by_role("button", name=note)).to_be_visible()
    area(page, "Rules")
    expect(page.get_by_role("button", name=f"2.2 How many people in all? {note}")).to_be_visible()
    on_map = page.get_by_role("region", name="Map")
    box = on_map.get_by_role("button", name="2.2 How many people in all?")
    expect(box).to_be_visible()
    box.press("Enter")
    on_map.get_by_role("button", name="Go to 2.2 How many people in all?").press("Enter")
    expect(page.get_by_role("textbox", name="Label", exact=True)).to_have_value("How many people in all?")
    page.get_by_role("region", name="Sheet and margin").get_by_role("button", name="Go to Points").first.click()
    expect(page.get_by_role("textbox", name="Name", exact=True)).to_have_value("Points")


def test_a_key_is_renamed_though_its_figure_is_left_before_the_core_answers(desk):
    page = desk
    open_quote(page, "Renamed late")
    area(page, "Figures")
    page.get_by_role("button", name="Points", exact=True).click()
    held = []
    page.route("**/draft/rename", lambda route: route.continue_() if held else held.append(route))
    page.get_by_role("textbox", name="Key", exact=True).fill("score_of_the_evening")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Add a figure").click()
    page.get_by_role("menuitem", name="Counter").click()
    expect(page.get_by_role("textbox", name="Name", exact=True)).to_be_focused()
    held[0].continue_()
    worksheet = page.get_by_role("region", name="Worksheet")
    expect(worksheet.get_by_role("button", name="New counter")).to_be_visible()
    expect(worksheet.get_by_text("score_of_the_evening").first).to_be_visible()
    saved(page)


def test_several_blocks_are_required_grouped_and_pasted_into_another_form(desk):
    page = desk
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    open_quote(page, "Several")
    outline = page.get_by_role("navigation", name="Outline")
    outline.get_by_role("button", name="2.1 How many shows?").click()
    outline.get_by_role("button", name="2.3 What else shall we bring?").click(modifiers=["Shift"])
    expect(page.get_by_text("2 of 3 fields must be answered.")).to_be_visible()
    page.get_by_role("button", name="Set all required").click()
    expect(page.get_by_text("3 of 3 fields must be answered.")).to_be_visible()
    page.keyboard.press("Control+g")
    expect(outline.get_by_role("button", name="2.1.3 What else shall we bring?")).to_be_visible()
    outline.get_by_role("button", name="2.1 Group", exact=True).click()
    page.keyboard.press("Control+c")
    page.keyboard.press("Control+z")
    expect(outline.get_by_role("button", name="2.3 What else shall we bring?")).to_be_visible()
    saved(page)
    page.get_by_role("link", name="Codexa: to the desk").click()
    page.get_by_role("button", name="New form", exact=True).click()
    page.get_by_role("menuitem", name="Blank form").click()
    expect(page.get_by_role("textbox", name="Title for visitors")).to_be_visible()
    expect(page.get_by_role("menu")).to_have_count(0)
    page.keyboard.press("Control+v")
    expect(page.get_by_role("button", name="1.1.3 What else shall we bring?, Several choices")).to_be_visible()


def test_a_trial_that_breaks_tells_what_came_and_publishing_asks(desk):
    page = desk
    open_quote(page, "Broken trial")
    area(page, "Trials")
    page.get_by_role("button", name="Add with sample answers").click()
    expect(page.get_by_text("The only trial passes")).to_be_visible()
    page.get_by_role("textbox", name="Name of the trial").fill("A school in spring")
    area(page, "Figures")
    page.get_by_role("button", name="All discounts").click()
    formula = page.get_by_role("textbox", name="Formula: = is worked out by")
    formula.click()
    formula.press("ControlOrMeta+a")
    formula.press_sequentially("999999")
    expect(page.get_by_role("link", name="Trials: 1 of 1 fail")).to_be_visible()
    page.get_by_role("link", name="Trials: 1 of 1 fail").click()
    differences = page.get_by_role("table", name="Differences")
    expect(differences.get_by_role("row", name=re.compile("All discounts .* €999,999.00"))).to_be_visible()
    press_publish(page, 1)
    dialog = page.get_by_role("dialog", name="Publish with failing trials?")
    expect(dialog.get_by_text("1 of 1 trials fails: “A school in spring”.")).to_be_visible()
    dialog.get_by_role("button", name="Publish all the same").click()
    expect(page.get_by_text("Edition 1 is live.")).to_be_visible()
    page.get_by_role("button", name="Expect what came from now on").click()
    expect(page.get_by_text("The only trial passes")).to_be_visible()


def test_a_brand_is_live_on_the_sheet_shared_and_changed_in_one_place(desk, servers):
    page = desk
    open_quote(page, "Branded")
    area(page, "Brand")
    page.get_by_role("textbox", name="Ink: its text", exact=True).fill("#9AC4F8")
    expect(page.get_by_text("Ink on the paper: 1.8 to 1; 4.5 is needed")).to_be_visible()
    page.get_by_role("textbox", name="Ink: its text", exact=True).fill("#16202B")
    page.get_by_role("textbox", name="Accent: buttons, choices, links", exact=True).fill("#9AC4F8")
    expect(page.get_by_text(re.compile(r"^Links on the paper: [4-9]\.\d to 1, reads well"))).to_be_visible()
    page.get_by_role("textbox", name="Accent: buttons, choices, links", exact=True).fill("#1B4D3E")
    page.get_by_role("tab", name="Words").click()
    page.get_by_role("textbox", name="Button that sends").fill("Off it goes")
    page.get_by_role("tab", name="Saved brands").click()
    page.get_by_role("textbox", name="Save this look as").fill("Forest")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("group", name="Forest").get_by_role("button", name="Used by this form")).to_be_visible()
    area(page, "Compose")
    banner = page.locator(".cx-banner")
    expect(banner).to_have_css("background-color", "rgb(27, 77, 62)")
    saved(page)
    page.get_by_role("link", name="Codexa: to the desk").click()
    page.get_by_role("link", name="Star walk").or_(
        page.get_by_role("link", name="Plan a visit", exact=True)
    ).first.click()
    area(page, "Brand")
    page.get_by_role("tab", name="Saved brands").click()
    forest = page.get_by_role("group", name="Forest")
    expect(forest).to_contain_text("1 form")
    forest.get_by_role("button", name="Delete").click()
    expect(forest.get_by_role("alert")).to_contain_text("Forest will be gone for good")
    page.keyboard.press("Enter")
    expect(forest).to_be_hidden()


def test_history_tells_what_changed_and_brings_a_state_back(desk):
    page = desk
    open_quote(page, "Old times")
    press_publish(page, 1)
    expect(page.get_by_text("Edition 1 is live.")).to_be_visible()
    page.get_by_role("button", name="1.3 How far is it from the Summit Dome?, Number").dblclick()
    page.get_by_role("textbox", name="Label", exact=True).fill("How far away?")
    saved(page)
    page.get_by_role("link", name=re.compile("^Saved")).click()
    changes = page.get_by_role("region", name="What changed")
    words = "label was How far is it from the Summit Dome?, is How far away?"
    expect(changes.get_by_text(words)).to_be_visible()
    page.get_by_role("button", name=re.compile("· Edition 1")).click()
    page.get_by_role("button", name="Bring this back as the draft").click()
    area(page, "Compose")
    expect(page.get_by_role("button", name="1.3 How far is it from the Summit Dome?, Number")).to_be_visible()
    page.keyboard.press("Control+z")
    expect(page.get_by_role("button", name="1.3 How far away?, Number")).to_be_visible()


def test_two_people_see_each_other_and_each_others_changes(desk, servers, browser):
    page = desk
    open_quote(page, "Together")
    other = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
    sign_in(other, servers, ("Jonas Lindqvist", "jonas@alderlight.example.org", "editor"))
    other.goto(page.url)
    expect(other.get_by_role("status").filter(has_text="is here too")).to_be_visible()
    page.get_by_role("textbox", name="Lead below the title").fill("Stars for your village")
    expect(other.get_by_role("textbox", name="Lead below the title")).to_have_value(
        "Stars for your village", timeout=15_000
    )
    expect(other.get_by_text("saved changes; you see them now")).to_be_visible()
    # Where somebody is stands in the outline; what they publish is seen at once.
    page.get_by_role("button", name="1.3 How far is it from the Summit Dome?, Number").click()
    outline = other.get_by_role("navigation", name="Outline")
    expect(outline.get_by_label("Mira Okafor is here")).to_be_visible(timeout=15_000)
    press_publish(page, 1)
    expect(other.get_by_text("edition 1 is live now")).to_be_visible(timeout=15_000)
    expect(other.get_by_role("link", name="Open the live form")).to_be_visible()
    other.get_by_role("button", name="Notices 2").press("Enter")
    expect(other.get_by_role("dialog", name="Notices")).to_contain_text("you see them now")
    other.context.close()


def test_what_could_not_be_saved_comes_back_after_a_reload(desk):
    page = desk
    open_quote(page, "Tunnel")
    saved(page)
    page.route("**/draft", lambda route: route.abort())
    page.get_by_role("textbox", name="Title for visitors").fill("Typed in a tunnel")
    expect(page.get_by_text("Not saved yet; trying again")).to_be_visible()
    page.unroute("**/draft")
    page.on("dialog", lambda dialog: dialog.accept())
    page.evaluate("document.title")
    page.context.new_page().goto(page.url)
    latest = page.context.pages[-1]
    expect(latest.get_by_role("textbox", name="Title for visitors")).to_have_value("Typed in a tunnel")


def test_the_sheet_stands_with_the_answers_of_a_trial(desk):
    page = desk
    trials = json.loads((EXAMPLES / "travelling_dome_quote.json").read_text(encoding="utf-8"))["trials"]
    import_form(page, QUOTE | {"name": "With answers", "trials": trials})
    sheet = page.get_by_role("region", name="Sheet and margin")
    school = sheet.get_by_role("button", name="1.2 Name of the school, Short text")
    expect(school).to_have_accessible_name(re.compile("hidden at first$"))
    page.get_by_role("combobox", name="Answers on the sheet").click()
    page.get_by_role("option", name="Trial “A company's festival far away”").click()
    expect(school).to_have_accessible_name(re.compile("hidden with these answers$"))
    expect(sheet.get_by_role("radio", name="A company")).to_be_checked()
    expect(sheet.get_by_text("€888.00")).to_be_visible()
    school.click()
    expect(sheet.get_by_role("button", name="now A company: does not hold")).to_be_visible()
    page.get_by_role("combobox", name="Answers on the sheet").click()
    page.get_by_role("option", name="Nothing answered").click()
    expect(school).to_have_accessible_name(re.compile("hidden at first$"))
    expect(sheet.get_by_role("radio", name="A company")).not_to_be_checked()


def test_a_label_is_typed_where_it_stands(desk):
    page = desk
    open_quote(page, "On the sheet")
    page.get_by_role("button", name="2.1 How many shows?, Slider").dblclick()
    typed = page.get_by_role("textbox", name="Label of 2.1, on the sheet")
    expect(typed).to_be_focused()
    page.keyboard.type("a shows, one after another")  # the keys of one letter are letters here
    expect(page.get_by_role("textbox", name="Label", exact=True)).to_have_value("a shows, one after another")
    page.keyboard.press("Enter")
    expect(typed).to_have_count(0)
    expect(page.get_by_role("button", name="2.1 a shows, one after another, Slider")).to_be_focused()
    page.keyboard.press("Control+z")
    expect(page.get_by_role("button", name="2.1 How many shows?, Slider")).to_be_visible()
    # What is clicked meanwhile has the focus.
    page.get_by_role("button", name="2.1 How many shows?, Slider").dblclick()
    expect(typed).to_be_focused()
    help_text = page.get_by_role("textbox", name="Help below the field")
    help_text.click()
    expect(typed).to_have_count(0)
    expect(help_text).to_be_focused()


def test_the_sheet_stays_where_it_is_while_notes_are_opened(desk):
    page = desk
    open_quote(page, "Still")
    block = page.get_by_role("button", name="1.3 How far is it from the Summit Dome?, Number")
    page.get_by_role("button", name="1.1 Who invites us?, Single choice").click()
    before = block.bounding_box()
    notes = page.get_by_role("region", name="Sheet and margin")
    notes.get_by_role("button", name="always shown; add a rule").click()
    expect(page.get_by_role("combobox", name="Field or figure")).to_be_focused()
    assert block.bounding_box() == before
    # What the open note lies over can be neither read nor clicked; it comes back when the note is closed.
    under = notes.get_by_role("button", name=re.compile(r"^Rule\s*shown when 1.1 Who invites us\?"))
    expect(under).to_have_count(0)
    page.keyboard.press("Escape")
    page.get_by_role("button", name="2.1 How many shows?, Slider").click()
    expect(under).to_be_visible()


def test_the_map_is_walked_with_answers_and_these_are_kept_as_a_trial(desk):
    page = desk
    open_quote(page, "Walked")
    area(page, "Rules")
    on_map = page.get_by_role("region", name="Map")
    school = on_map.get_by_role("button", name=re.compile("^1.2 Name of the school"))
    expect(school).to_have_accessible_name("1.2 Name of the school")
    walk = page.get_by_role("region", name="Walk with these answers")
    walk.get_by_text("A school or nursery").click()
    expect(school).to_have_accessible_name("1.2 Name of the school , on the way")
    rules = page.get_by_role("region", name="List of rules")
    expect(rules.get_by_text("now A school or nursery: holds")).to_have_count(2)
    walk.get_by_text("A company").click()
    expect(school).to_have_accessible_name("1.2 Name of the school")
    # What is pointed at on the map is pointed at in the list.
    school.click()
    sentence = rules.get_by_role("button", name=re.compile("^1.2 Name of the school shown when"))
    expect(sentence).to_have_attribute("aria-pressed", "true")
    walk.get_by_role("button", name="Keep as trial").click()
    expect(walk.get_by_text("Kept as “Trial 1”.")).to_be_visible()
    area(page, "Trials")
    expect(page.get_by_text("The only trial passes")).to_be_visible()


def test_undo_goes_back_over_all_areas(desk):
    page = desk
    open_quote(page, "Undone")
    area(page, "Figures")
    page.get_by_role("button", name="Points", exact=True).click()
    page.get_by_role("textbox", name="Name", exact=True).fill("Stars")
    area(page, "Brand")
    page.get_by_role("tab", name="Words").click()
    page.get_by_role("textbox", name="Button that sends").fill("Off it goes")
    area(page, "Compose")
    page.get_by_role("button", name="1.4 On which day?, Date").click()
    page.keyboard.press("Delete")
    asked = page.get_by_role("dialog", name="Remove “1.4 On which day?”")
    expect(asked).to_contain_text("C.1 Festival")
    asked.get_by_role("button", name="Remove it all the same").click()
    expect(page.get_by_role("button", name="1.4 Is there a socket within 30 metres?, Yes or no")).to_be_visible()
    expect(asked).to_have_count(0)
    for _ in range(3):
        page.keyboard.press("Control+z")
    expect(page.get_by_role("button", name="1.4 On which day?, Date")).to_be_visible()
    area(page, "Figures")
    expect(page.get_by_role("button", name="Points", exact=True)).to_be_visible()
    area(page, "Brand")
    page.get_by_role("tab", name="Words").click()
    expect(page.get_by_role("textbox", name="Button that sends")).to_have_value("Ask for this evening")
    page.keyboard.press("Control+Shift+z")
    area(page, "Figures")
    expect(page.get_by_role("button", name="Stars", exact=True)).to_be_visible()


def test_keys_of_one_letter_can_be_turned_off_and_on_again(desk):
    page = desk
    open_quote(page, "Quiet keys")
    page.get_by_role("button", name="1.4 On which day?, Date").click()
    page.keyboard.press("?")
    page.get_by_role("switch", name="A, / and ? work by themselves").uncheck()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.press("a")
    page.keyboard.press("?")
    page.keyboard.press("Control+d")
    expect(page.get_by_role("button", name="1.5 On which day? (copy), Date")).to_be_visible()
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.press("Control+k")
    page.get_by_role("combobox", name="Find a block, an area or an action").fill("keyboard shortcuts")
    page.keyboard.press("Enter")
    page.get_by_role("switch", name="A, / and ? work by themselves").check()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keyboard")).to_be_visible()
