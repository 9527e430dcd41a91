"""Records in forms: lists that hang on each other, found by typing, kept again; filtered on the bench by keyboard."""

import re

import pytest
from playwright.sync_api import expect

from browser.conftest import area, expect_usable, saved

LOAN = "/f/alderlight/instrument-loan"


def choose(page, label, words):
    page.get_by_label(label, exact=True).select_option(label=words)


@pytest.mark.parametrize("width", [320, 1280])
def test_lists_hang_on_each_other_and_say_what_is_missing(page, servers, width):
    page.set_viewport_size({"width": width, "height": 800})
    page.goto(servers.web + LOAN)
    page.get_by_label("E-mail").fill("liv.aasen@example.org")
    page.get_by_label("Password").fill("alderlight")
    page.keyboard.press("Enter")
    expect(page.get_by_text("First answer: Where you fetch it, Kind")).to_be_visible()
    page.get_by_role("radio", name="Harbour Deck").focus()
    page.keyboard.press("Space")
    choose(page, "Kind *", "Binoculars")
    choose(page, "Instrument *", "Harbour glass 15x70, €6.00 a day")
    expect(page.get_by_text("Aperture 70 mm.")).to_be_visible()
    choose(page, "Piece *", "Harbour glass 15x70 no. 3")
    expect_usable(page)
    # Choosing the same again clears nothing; another parent drops what no longer fits, and says so.
    choose(page, "Kind *", "Binoculars")
    expect(page.get_by_label("Piece *", exact=True)).to_have_value(re.compile(r"\d+"))
    choose(page, "Kind *", "Mount")
    expect(page.get_by_text("no longer offered").first).to_be_visible()
    page.get_by_role("button", name="Next").press("Enter")
    expect(page.get_by_role("heading", name="What you borrow")).to_be_visible()


def test_thousands_are_found_by_typing_and_several_are_chosen(page, servers):
    page.goto(f"{servers.web}/f/alderlight/seats-at-talks")
    box = page.get_by_role("combobox", name="What you would like to look at afterwards")
    for words, found in (("ac 290", "AC 290"), ("ac 2911", "AC 2911")):
        box.fill(words)
        page.get_by_role("option", name=re.compile(rf"^{found},")).wait_for()
        box.press("Enter")
    expect(page.get_by_role("button", name=re.compile("^Remove AC"))).to_have_count(2)
    page.get_by_role("button", name=re.compile("^Remove AC 290,")).press("Enter")
    expect(page.get_by_role("button", name=re.compile("^Remove AC"))).to_have_count(1)
    box.fill("no such object")
    expect(page.get_by_text("Nothing fits.")).to_be_visible()
    expect_usable(page)


def test_a_talk_that_is_proposed_is_offered_by_another_form(page, servers):
    page.goto(f"{servers.web}/f/alderlight/talks-proposed")
    title = f"Rain on Titan {page.evaluate('Date.now()')}"
    page.get_by_label("Title *", exact=True).fill(title)
    page.get_by_label("Speaker *", exact=True).fill("Wren Okafor")
    page.get_by_label("Day *", exact=True).fill("6/1/2031")
    choose(page, "Site *", "Harbour Deck")
    page.get_by_role("button", name="Send").press("Enter")
    expect(page.get_by_role("heading", name="Thank you")).to_be_visible()
    seats = page.get_by_role("radio", name=re.compile(title))
    for _ in range(40):
        page.goto(f"{servers.web}/f/alderlight/seats-at-talks")
        page.get_by_role("radio").first.wait_for()
        if seats.count():
            break
        page.wait_for_timeout(500)
    seats.check()
    expect(page.get_by_text("At the Harbour Deck, At the end of the long pier.")).to_be_visible()


def add(page, kind, label):
    page.get_by_role("button", name="Add a block").press("Enter")
    page.get_by_role("combobox", name="Find a kind of block").fill(kind)
    page.keyboard.press("Enter")
    field = page.get_by_role("textbox", name="Label", exact=True)
    expect(field).to_be_focused()
    field.fill(label)


def pick(page, box, words):
    box.press("Enter")
    page.get_by_role("option", name=words).press("Enter")


def test_a_specialist_offers_records_filters_them_and_keeps_responses(desk):
    page = desk
    page.get_by_role("button", name="New form").press("Enter")
    page.get_by_role("menuitem", name="Blank form").press("Enter")
    page.get_by_role("button", name="Add a block").wait_for()
    inspector = page.get_by_role("complementary", name="Inspector")
    for label, table in (("Site", "Sites"), ("Instrument", "Instruments")):
        add(page, "Record of a table", label)
        inspector.get_by_role("tab", name="Answers").press("Enter")
        pick(page, inspector.get_by_role("combobox", name="Of the table"), re.compile(f"^{table},"))
        expect(inspector.get_by_role("combobox", name="Of the table")).to_contain_text(table)
    # What waits for an answer of the form says what stands there instead, in the form's own words.
    expect(page.locator("select").first).to_contain_text("Choose …")
    inspector.get_by_role("button", name=re.compile("^Offers records of which")).press("Enter")
    note = page.get_by_role("group", name="offered when: formula")
    column = note.get_by_role("combobox", name="Field or figure")
    column.fill("Site")
    page.get_by_role("option", name=re.compile("Site")).first.wait_for()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    value = note.get_by_role("combobox", name="Value", exact=True)
    value.fill("1.1")
    # What is typed counts as a text where nothing of the form is meant.
    page.get_by_role("option", name=re.compile("^1.1 Site")).wait_for()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    note.get_by_role("button", name="Done").press("Enter")
    rule = page.get_by_role("button", name=re.compile("offers records of which Site is 1.1 Site"))
    expect(rule.first).to_be_visible()
    saved(page)
    expect_usable(page)
    area(page, "Follow-ups")
    page.get_by_role("button", name="Add a follow-up").press("Enter")
    page.get_by_role("menuitem", name=re.compile("^Record")).press("Enter")
    page.get_by_text("It keeps nothing yet.").wait_for()
    pick(page, page.get_by_role("combobox", name="Kept in the table"), "a new table of this form’s fields")
    records = page.get_by_role("group", name="Records 1")
    expect(records.get_by_role("combobox", name="Instrument")).to_have_value("1.2 Instrument")
    expect(page.get_by_text("This would be done: a record in")).to_be_visible()
    expect_usable(page)


def test_a_record_that_others_name_is_offered_no_more(desk):
    page = desk
    page.get_by_role("link", name="Tables").press("Enter")
    page.get_by_role("link", name="Kinds of instrument").press("Enter")
    grid = page.get_by_role("grid")
    expect(grid.get_by_role("gridcell", name="Camera", exact=True)).to_be_visible()
    grid.get_by_role("gridcell", name="Camera", exact=True).click()
    page.get_by_role("button", name="Remove the record").press("Enter")
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("records of Instruments (Kind)")
    expect_usable(page)
    dialog.get_by_role("button", name="Offer them no more").press("Enter")
    expect(dialog).not_to_be_visible()
    page.get_by_role("button", name="Record beside").press("Enter")
    offered = page.get_by_role("switch", name="Offered to be chosen")
    expect(offered).not_to_be_checked()
    offered.press("Space")
    expect(offered).to_be_checked()


def test_a_form_is_made_of_a_table(desk):
    page = desk
    page.get_by_role("link", name="Tables").press("Enter")
    page.get_by_role("link", name="Talks", exact=True).press("Enter")
    page.get_by_role("button", name="More …").press("Enter")
    page.get_by_role("button", name="Make a form that fills it").press("Enter")
    expect(page.get_by_text("What it is about").first).to_be_visible()
    expect(page.get_by_text("no errors")).to_be_visible()
