"""The worksheet: a table is made and typed into by keyboard; what is pasted, refused, removed and undone is seen."""

import base64
import re

import pytest
from playwright.sync_api import expect

from browser.conftest import axe_findings, expect_usable

LINES = "Nova\tHarbour Deck\t20.5\nLyra\tMoon\t9\n"


@pytest.fixture
def places(desk):
    desk.get_by_role("link", name="Tables").press("Enter")
    expect(desk.get_by_role("heading", name="Tables")).to_be_visible()
    return desk


def cell(page, row, column):
    return page.get_by_role("grid").locator(f"[aria-rowindex='{row + 1}'] [aria-colindex='{column + 1}']")


def add_column(page, label, holds, lines=""):
    page.get_by_role("button", name="Add a column").press("Enter")
    pane = page.get_by_role("complementary")
    pane.get_by_label("Label").fill(label)
    pane.get_by_role("combobox", name="What it holds").press("Enter")
    page.get_by_role("option", name=holds, exact=True).press("Enter")
    if lines:
        pane.get_by_label("Options").fill(lines)
    pane.get_by_role("button", name="Add the column").press("Enter")
    expect(page.get_by_role("columnheader", name=label)).to_be_visible()


def test_a_table_is_made_and_typed_into_by_keyboard(places):
    page = places
    name = f"Lenses {page.evaluate('Date.now()')}"
    page.get_by_label("Name of a new table").fill(name)
    page.keyboard.press("Enter")
    grid = page.get_by_role("grid", name=f"Records of {name}")
    expect(grid).to_be_visible()
    add_column(page, "Site", "Choice", "Harbour Deck\nSummit Dome")
    add_column(page, "Width", "Number")
    pane = page.get_by_role("complementary")
    pane.get_by_label("Decimals").fill("1")
    pane.get_by_role("button", name="Keep the column so").press("Enter")
    # A block of a spreadsheet, of which one line does not fit.
    grid.focus()
    grid.evaluate(
        """(grid, text) => {
            const clipboardData = new DataTransfer();
            clipboardData.setData("text/plain", text);
            grid.dispatchEvent(new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true }));
        }""",
        LINES,
    )
    expect(cell(page, 1, 3)).to_have_text("20.5")
    expect(cell(page, 1, 2)).to_have_text("Harbour Deck")
    alert = page.get_by_role("alert").filter(has_text="1 pasted line not kept")
    expect(alert).to_contain_text("Lyra, Moon, 9: Site: Choose one of the options.")
    alert.get_by_role("button", name="Close").press("Enter")
    # The next record by hand: each cell is kept as it is left.
    grid.focus()
    for key in ("Control+End", "Home"):
        page.keyboard.press(key)
    # Two records one after the other, faster than the server answers.
    for typed in ("Vega", "Altair"):
        page.keyboard.type(typed)
        page.keyboard.press("Enter")
    expect(cell(page, 3, 1)).to_have_text("Altair")
    expect(cell(page, 2, 1)).to_have_text("Vega")
    for key in ("Control+Home", "ArrowDown", "ArrowRight", "Enter"):
        page.keyboard.press(key)
    page.get_by_role("combobox", name="Site").select_option("Summit Dome")
    page.keyboard.press("Tab")
    expect(cell(page, 2, 2)).to_have_text("Summit Dome")
    page.keyboard.type("-x")
    page.keyboard.press("Enter")
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("status").filter(has_text="Not kept: ")).to_be_visible()
    expect(cell(page, 2, 3)).to_have_attribute("aria-invalid", "true")
    page.keyboard.type("7")
    page.keyboard.press("Enter")
    expect(cell(page, 2, 3)).to_have_text("7")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Delete")
    expect(cell(page, 2, 3)).to_have_text("")
    page.keyboard.press("Control+z")
    expect(cell(page, 2, 3)).to_have_text("7")
    # What is typed stays in its cell where another is clicked.
    cell(page, 2, 3).dblclick()
    page.get_by_role("textbox", name="Width").fill("8")
    cell(page, 1, 1).click()
    expect(cell(page, 2, 3)).to_have_text("8")
    expect(cell(page, 1, 1)).to_have_text("Nova")
    cell(page, 2, 1).click()
    page.get_by_role("button", name="Record beside").press("Enter")
    expect(page.get_by_role("complementary", name="Record")).to_contain_text(re.compile("What happened.*Made"))
    expect_usable(page)
    page.get_by_role("button", name="Remove the record").press("Enter")
    expect(page.get_by_text("2 records", exact=True)).to_be_visible()
    page.get_by_role("button", name="Bring back").press("Enter")
    expect(page.get_by_text("3 records", exact=True)).to_be_visible()


def test_three_thousand_records_are_scrolled_searched_and_sorted(places):
    page = places
    page.get_by_role("link", name="Catalogue of objects").press("Enter")
    expect(page.get_by_text("3,000 records")).to_be_visible()
    grid = page.get_by_role("grid")
    grid.focus()
    page.keyboard.press("Control+End")
    expect(cell(page, 3_000, 1)).to_have_text("AC 3000")
    assert grid.get_by_role("row").count() < 60
    page.get_by_label("Search all text").fill("globular heron")
    expect(page.get_by_text("3,000 records")).not_to_be_visible()
    expect(cell(page, 1, 2)).to_have_text("globular cluster")
    head = page.get_by_role("columnheader", name=re.compile("Magnitude"))
    for order in ("ascending", "descending"):
        head.get_by_role("button", name="Sort by Magnitude").click()
        expect(head).to_have_attribute("aria-sort", order)
    page.wait_for_load_state("networkidle")
    for row in range(1, 6):  # the network may be idle before what it brought is drawn
        expect(cell(page, row, 4)).to_have_text(re.compile(r"\d"))
    brightest = [float(cell(page, row, 4).inner_text()) for row in range(1, 6)]
    assert brightest == sorted(brightest, reverse=True)
    # A filter stands in the address: whoever is sent it sees the same.
    page.get_by_role("button", name="+ where").press("Enter")
    page.get_by_role("combobox", name="Find a field").fill("magni")
    page.keyboard.press("Enter")
    dialog = page.get_by_role("dialog", name="Condition")
    dialog.get_by_role("combobox", name="Comparison").press("Enter")
    page.get_by_role("option", name="is at most").press("Enter")
    dialog.get_by_label("Value").fill("nothing")
    dialog.get_by_label("Value").press("Enter")
    chip = page.get_by_role("search").get_by_role("button", name="Magnitude is at most")
    expect(chip).to_have_attribute("title", re.compile("is no number"))
    chip.press("Enter")
    dialog.get_by_label("Value").fill("9")
    dialog.get_by_label("Value").press("Enter")
    expect(cell(page, 1, 4)).to_have_text(re.compile(r"^[2-9](\.\d)?$"))
    found = page.get_by_text(re.compile(r"^\d+ records found$")).inner_text()
    page.reload()
    expect(page.get_by_text(found, exact=True)).to_be_visible()
    expect_usable(page)


def test_a_file_becomes_a_table(places):
    page = places
    content = "Title;Place;Seats\n" + "\n".join(
        f"Talk {at};{'Deck' if at % 2 else 'Dome'};{at * 10}" for at in range(8)
    )
    page.get_by_label("File to make a table of").set_input_files(
        files=[{"name": "Evening talks.csv", "mimeType": "text/csv", "buffer": content.encode()}]
    )
    expect(page.get_by_role("heading", name="Evening talks")).to_be_visible()
    expect(page.get_by_text("8 records", exact=True)).to_be_visible(timeout=20_000)
    expect(cell(page, 8, 2)).to_have_text("Deck")
    page.get_by_role("button", name="More …").press("Enter")
    page.get_by_role("button", name="Bring in records from a file").press("Enter")
    page.get_by_label("File of records").set_input_files(
        files=[{"name": "more.csv", "mimeType": "text/csv", "buffer": b"Title;Place;Speaker\nMoon night;Tower;Ana\n"}]
    )
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_text("line 2: Place")).to_be_visible()
    expect_usable(page)
    dialog.get_by_role("combobox", name="Place").press("Enter")
    page.get_by_role("option", name="Left out").press("Enter")
    expect(dialog.get_by_text("line 2: Place")).not_to_be_visible()
    dialog.get_by_role("button", name="Bring in the lines that fit").press("Enter")
    expect(dialog.get_by_text("1 record brought in.")).to_be_visible(timeout=20_000)
    dialog.get_by_role("button", name="Close").press("Enter")
    expect(page.get_by_role("columnheader", name="Speaker")).to_be_visible()
    expect(page.get_by_text("9 records", exact=True)).to_be_visible()


PICTURE = base64.b64decode(
    "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg=="
)


def test_a_table_gets_files_other_types_and_readers(places):
    """A column of files, a text that becomes numbers or stays, columns out of sight, and what anybody reads."""
    page = places
    name = f"Finds {page.evaluate('Date.now()')}"
    page.get_by_label("Name of a new table").fill(name)
    page.keyboard.press("Enter")
    add_column(page, "Photos", "Files")
    add_column(page, "Weight", "Text")
    grid = page.get_by_role("grid")
    grid.focus()
    page.keyboard.type("Meteorite")
    page.keyboard.press("Enter")
    expect(cell(page, 1, 1)).to_have_text("Meteorite")
    for key in ("ArrowUp", "ArrowRight", "ArrowRight"):
        page.keyboard.press(key)
    page.keyboard.type("about 30")
    page.keyboard.press("Enter")
    expect(cell(page, 1, 3)).to_have_text("about 30")
    for key in ("ArrowUp", "ArrowLeft", "Enter"):
        page.keyboard.press(key)
    beside = page.get_by_role("complementary", name="Record")
    beside.get_by_label("File for Photos").set_input_files(
        files=[{"name": "find.png", "mimeType": "image/png", "buffer": PICTURE}]
    )
    expect(cell(page, 1, 2)).to_have_text("find.png")
    expect(beside.get_by_role("link", name="find.png")).to_be_visible()
    expect_usable(page)
    # What can't be read as a number is told with its record, and stays.
    page.get_by_role("columnheader", name="Weight").get_by_role("button").first.click()
    column = page.get_by_role("complementary", name="Column")
    column.get_by_role("combobox", name="What it holds").press("Enter")
    page.get_by_role("option", name="Number", exact=True).press("Enter")
    column.get_by_role("button", name="Keep the column so").press("Enter")
    expect(column.get_by_role("alert")).to_contain_text("record 1 “about 30”")
    cell(page, 1, 3).dblclick()
    page.get_by_role("textbox", name="Weight").fill("30")
    page.keyboard.press("Enter")
    expect(cell(page, 1, 3)).to_have_text("30")
    column.get_by_role("button", name="Keep the column so").press("Enter")
    expect(column.get_by_role("heading", name="Number")).to_be_visible()
    page.get_by_role("button", name="Columns", exact=True).press("Enter")
    page.get_by_role("dialog", name="Columns that are shown").get_by_label("Photos").click()
    page.keyboard.press("Escape")
    expect(page.get_by_role("columnheader", name="Photos")).not_to_be_visible()
    page.reload()
    expect(page.get_by_role("button", name="Columns (2 of 3)")).to_be_visible()
    page.get_by_role("button", name="More …").press("Enter")
    expect(page.get_by_role("link", name="What is shown as CSV")).to_be_visible()
    page.get_by_role("button", name="Let anybody read records").press("Enter")
    pane = page.get_by_role("complementary", name="Published records")
    for label in ("Photos", "Weight"):
        pane.get_by_label(label).check()
    pane.get_by_role("button", name="Make it readable").press("Enter")
    address = pane.get_by_role("link", name="Read it as anybody does").get_attribute("href")
    cell(page, 1, 1).click()
    page.get_by_role("button", name="Publish", exact=True).press("Enter")
    expect(page.get_by_role("button", name="Take back")).to_be_visible()
    expect_usable(page)
    page.goto(address)
    expect(page.get_by_role("article")).to_contain_text("Meteorite")
    expect(page.get_by_role("img", name="find.png")).to_be_visible()
    assert axe_findings(page) == []


def test_a_list_is_changed_in_one_place_and_its_forms_follow(places):
    page = places
    page.get_by_role("link", name="Seen with").press("Enter")
    lines = page.get_by_label("Options, a line each")
    lines.fill(lines.input_value() + "\nradio dish")
    page.get_by_role("button", name="Keep the list so").press("Enter")
    expect(page.get_by_text("5 options.")).to_be_visible()
    expect(lines).to_have_value(re.compile("radio dish\tradio_dish$"))
    expect_usable(page)
    page.get_by_role("link", name="Join and share a sighting").press("Enter")
    page.get_by_role("button", name=re.compile("^1.4")).first.click()
    page.get_by_role("tab", name="Answers").click()
    expect(page.get_by_label("Label of option 5")).to_have_value("radio dish")
    expect_usable(page)


def test_an_owner_keeps_a_table_to_the_owners(places):
    page = places
    page.get_by_role("link", name="Loans").press("Enter")
    page.get_by_role("button", name="More …").press("Enter")
    rights = page.get_by_role("group", name="Who may")
    rights.get_by_role("combobox", name="Changes its records").press("Enter")
    page.get_by_role("option", name="Owners only").press("Enter")
    expect(rights.get_by_role("combobox", name="Changes its records")).to_have_text("Owners only")
    expect_usable(page)
    rights.get_by_role("combobox", name="Sees it").press("Enter")
    page.get_by_role("option", name="Editors and owners").press("Enter")
    page.reload()
    page.get_by_role("button", name="More …").press("Enter")
    expect(rights.get_by_role("combobox", name="Sees it")).to_have_text("Editors and owners")
