"""Working with what came back: one filtered set as table, charts and board, by keyboard, kept as a view."""

import csv
import re

import pytest
from conftest import visit_document
from playwright.sync_api import expect

from browser.conftest import Published, area, expect_usable, sign_in


@pytest.fixture
def visits(desk):
    """The responses of the demo's visits."""
    desk.get_by_role("link", name="Plan a visit", exact=True).first.click()
    area(desk, "Responses")
    expect(desk.get_by_role("grid", name="Responses").get_by_role("row").nth(25)).to_be_visible()
    return desk


def asked_for(page, field, how, value):
    """Add a condition to the filter, as somebody does by keyboard."""
    page.get_by_role("button", name=re.compile(r"^\+ ")).press("Enter")
    page.get_by_role("combobox", name="Find a field").fill(field)
    page.keyboard.press("Enter")
    page.get_by_role("combobox", name="Comparison").press("Enter")
    page.get_by_role("option", name=how).press("Enter")
    page.get_by_label("Value").fill(value)
    page.keyboard.press("Enter")


def numbers_in(page, column):
    cells = page.get_by_role("grid", name="Responses").locator(f"tbody tr[data-row] td:nth-child({column})")
    return [int(each or 0) for each in cells.all_text_contents()]


def test_a_filtered_and_sorted_table_is_kept_as_a_view_and_opened_from_its_address(visits, servers):
    page = visits
    asked_for(page, "Adults", "is at least", "20")
    chip = page.get_by_role("button", name=re.compile("Adults is at least 20"))
    expect(chip).to_be_visible()
    head = page.get_by_role("columnheader", name=re.compile("Adults"))
    head.get_by_role("button").press("Enter")
    expect(head).to_have_attribute("aria-sort", "ascending")
    head.get_by_role("button").press("Enter")
    expect(head).to_have_attribute("aria-sort", "descending")
    page.wait_for_timeout(400)
    place = [each.strip() for each in page.get_by_role("columnheader").all_text_contents()].index("1.2Adults↓") + 1
    adults = numbers_in(page, place)
    assert adults == sorted(adults, reverse=True)
    assert min(adults) >= 20
    page.get_by_role("separator", name="Width of Adults").press("ArrowRight")
    page.get_by_role("button", name=re.compile("^View:")).click()
    # A second try finds what the first has saved.
    name = f"Large groups {page.evaluate('Date.now()')}"
    page.get_by_label("Name of this view").fill(name)
    page.get_by_role("button", name="Save as a new view").click()
    # It is looked at now, and the menu is closed.
    expect(page.get_by_role("button", name=f"View: {name} ▾")).to_be_visible()
    expect_usable(page)
    page.reload()
    expect(page.get_by_role("button", name=f"View: {name} ▾")).to_be_visible()
    rows = page.get_by_role("row", name=re.compile("^Response "))
    rows.first.focus()
    page.keyboard.press("ArrowDown")
    expect(rows.nth(1)).to_be_focused()
    page.keyboard.press("Enter")
    sheet = page.get_by_role("complementary", name=re.compile("^Response "))
    title = sheet.get_by_role("heading", level=2)
    expect(title).to_be_focused()
    second = title.text_content()
    expect(sheet.get_by_role("button", name="Response before it")).to_be_enabled()
    page.keyboard.press("[")
    expect(title).not_to_have_text(second)
    expect(sheet.get_by_role("button", name="Response after it")).to_be_enabled()
    page.keyboard.press("]")
    expect(title).to_have_text(second)
    sheet.get_by_label("A note for the team").fill("They come in two cars.")
    sheet.get_by_role("button", name="Keep the note").click()
    expect(sheet.get_by_text("They come in two cars.")).to_be_visible()
    expect_usable(page)


def test_charts_say_what_they_come_to_and_are_saved_as_files(visits, tmp_path):
    page = visits
    page.get_by_role("tab", name="Charts").click()
    card = page.get_by_role("region", name="1.2 Adults", exact=True)
    expect(card.get_by_text("on average")).to_be_visible()
    expect_usable(page)
    card.get_by_role("button", name="More for 1.2 Adults").click()
    page.get_by_role("menuitem", name="1.1 What would you like to see?").click()
    card = page.get_by_role("region", name="1.2 Adults, by 1.1 What would you like to see?")
    expect(card.get_by_text(re.compile("most, “.*” least"))).to_be_visible()
    for item, ending in {"Save as PNG": ".png", "Save as SVG": ".svg", "Save its numbers as CSV": ".csv"}.items():
        card.get_by_role("button", name=re.compile("^More for")).click()
        with page.expect_download() as download:
            page.get_by_role("menuitem", name=item).click()
        download.value.save_as(tmp_path / f"chart{ending}")
        assert download.value.suggested_filename.endswith(ending)
    assert (tmp_path / "chart.png").read_bytes().startswith(b"\x89PNG")
    assert "<svg" in (tmp_path / "chart.svg").read_text()
    rows = list(csv.reader((tmp_path / "chart.csv").read_text(encoding="utf-8-sig").splitlines()))
    assert rows[0] == ["Value", "Average", "Answers", "Share in %"]
    card.get_by_role("button", name=re.compile("^More for")).click()
    page.get_by_role("menuitem", name="As a table").click()
    expect(card.get_by_role("table").get_by_role("rowheader").first).to_have_text(rows[1][0])
    expect_usable(page)


def test_a_card_moves_by_keyboard_and_others_see_it(visits, servers, browser):
    page = visits
    page.get_by_role("tab", name="Board").click()
    fresh, next_lane = page.get_by_role("region", name="No status"), page.get_by_role("region", name="To answer")
    card = fresh.get_by_role("button").first
    name = re.compile(f"^{card.text_content().split()[0][:3]} ")
    expect_usable(page)
    other = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
    sign_in(other, servers)
    other.goto(page.url)
    expect(other.get_by_role("region", name="No status").get_by_role("button", name=name)).to_be_visible()
    card.focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(next_lane.get_by_role("button", name=name)).to_be_visible()
    seen = other.get_by_role("region", name="To answer").get_by_role("button", name=name)
    expect(seen).to_be_visible(timeout=15_000)
    seen.drag_to(other.get_by_role("region", name="Confirmed"))
    expect(page.get_by_role("region", name="Confirmed").get_by_role("button", name=name)).to_be_visible(timeout=15_000)


def test_marked_responses_are_tagged_removed_and_brought_back(visits):
    page = visits
    rows = page.get_by_role("row", name=re.compile("^Response "))
    names = [rows.nth(at).get_attribute("aria-label") for at in (1, 3)]
    for name in names:
        page.get_by_role("checkbox", name=f"Mark {name.lower()}", exact=True).check()
    bar = page.get_by_role("group", name="Marked responses")
    expect(bar.get_by_text("2 responses marked")).to_be_visible()
    bar.get_by_role("button", name="Tag …", exact=True).click()
    page.get_by_label("Add a tag").fill("two cars")
    page.keyboard.press("Enter")
    expect(bar).to_be_hidden()
    page.get_by_role("button", name=re.compile(r"^\+ ")).click()
    page.get_by_role("combobox", name="Find a field").fill("Tags")
    page.keyboard.press("Enter")
    page.get_by_role("checkbox", name="two cars").check()
    page.get_by_role("button", name="Apply").click()
    expect(rows).to_have_count(2)
    page.get_by_role("checkbox", name="Mark all of this page").check()
    bar.get_by_role("button", name="Remove …").click()
    bar.get_by_role("alert").get_by_role("button", name="Remove …").click()
    notice = page.get_by_role("alert").filter(has_text="2 responses removed.")
    expect(notice).to_be_visible()
    expect(page.get_by_role("heading", name="No response is so")).to_be_visible()
    notice.get_by_role("button", name="Undo").click()
    expect(rows).to_have_count(2)
    assert sorted(rows.nth(at).get_attribute("aria-label") for at in (0, 1)) == sorted(names)


def said(reply):
    """What a browser told of a visit, where the reply is to that."""
    told = reply.request.post_data_json if reply.url.endswith("/visit") else {}
    return {"started": False, "sent": False, "wrong": []} | told


def test_visits_are_counted_and_told_as_a_funnel(desk, servers):
    form = Published(desk, servers, visit_document() | {"name": "Counted", "presentation": "paged"})
    sender, leaver = form.visit(), form.visit(width=320)
    for visitor in (sender, leaver):
        visitor.get_by_label("People").fill("900" if visitor is leaver else "3")
        wrong = ["people"] if visitor is leaver else []
        with visitor.expect_response(lambda reply: said(reply)["started"] and said(reply)["wrong"] == wrong):  # noqa: B023
            visitor.keyboard.press("Tab")
    leaver.close()
    with sender.expect_response(lambda reply: said(reply)["sent"]):
        sender.get_by_role("button", name="Send").click()
    desk.goto(f"{form.workbench}/responses?shown=funnel")
    steps = desk.get_by_role("list", name="Steps").get_by_role("listitem")
    told = ("Saw the form2", "something2", "1Visit2", "Sent it1 50 %")
    expect(steps).to_have_text([re.compile(each) for each in told])
    wrong = desk.get_by_role("region", name="Where something was wrong")
    expect(wrong.get_by_role("row", name=re.compile("People 1 50 %"))).to_be_visible()
    desk.get_by_role("button", name=re.compile("(narrow|medium|wide)")).first.press("Enter")
    expect(desk).to_have_url(re.compile("window="))
    expect_usable(desk)


def test_an_answer_is_corrected_in_the_form_it_was_given_to(visits):
    page = visits
    page.get_by_role("row", name=re.compile("^Response ")).nth(2).get_by_role("gridcell").nth(2).click()
    sheet = page.get_by_role("complementary", name=re.compile("^Response "))
    sheet.get_by_role("button", name="Correct an answer …").press("Enter")
    dialog = page.get_by_role("dialog", name=re.compile("^Correct response "))
    form = dialog.frame_locator("iframe")
    expect(dialog.get_by_text("Nothing is changed yet.")).to_be_visible()
    expect(dialog.get_by_role("button", name="Save the correction")).to_be_disabled()
    form.get_by_label("Adults").fill("61 people")
    expect(dialog.get_by_role("alert").filter(has_text="Adults:")).to_be_visible()
    form.get_by_label("Adults").fill("43")
    # So many are a group, whatever this response was before.
    form.get_by_label("Name of the group").fill("Harbour School")
    expect(dialog.get_by_role("definition").filter(has_text=re.compile(r"→ 43$"))).to_be_visible()
    expect_usable(page)
    # All pages are there at once, and nothing can be sent from them.
    expect(form.get_by_role("heading", name="Look it over", level=2)).to_be_visible()
    expect(form.get_by_role("button", name="Send my plan")).to_have_count(0)
    dialog.get_by_label("Why (for the team)").fill("They rang up.")
    save = dialog.get_by_role("button", name="Save the correction")
    expect(save).to_be_enabled()
    save.press("Enter")
    expect(dialog).to_have_count(0)
    happened = sheet.get_by_role("region", name="What happened").get_by_role("listitem").last
    expect(happened).to_contain_text("Corrected")
    expect(happened).to_contain_text("They rang up.")
    expect(happened).to_contain_text("→ 43")


def test_all_that_is_filtered_is_tagged_at_once_and_that_is_undone(visits):
    page = visits
    page.get_by_role("checkbox", name="Mark all of this page").check()
    bar = page.get_by_role("group", name="Marked responses")
    bar.get_by_role("button", name=re.compile("^Mark all [0-9]+$")).press("Enter")
    expect(bar.get_by_text(re.compile("^All [0-9]+ responses marked$"))).to_be_visible()
    bar.get_by_role("button", name="More …").click()
    page.get_by_role("button", name="Anonymise …").press("Enter")
    expect(page.get_by_role("alert").filter(has_text="Nobody can undo this.")).to_be_visible()
    expect_usable(page)
    page.get_by_role("button", name="Leave it").press("Enter")
    expect(page.get_by_role("button", name="Anonymise …")).to_be_focused()
    page.keyboard.press("Escape")
    bar.get_by_role("button", name="Tag …", exact=True).click()
    page.get_by_label("Add a tag").fill("winter night")
    page.keyboard.press("Enter")
    done = page.get_by_role("status").filter(has_text=re.compile("^[0-9]+ responses tagged “winter night”"))
    expect(done).to_be_visible()
    expect_usable(page)
    page.get_by_role("button", name="Undo").last.click()
    expect(page.get_by_role("status").filter(has_text="lost a tag “winter night”")).to_be_visible()
    expect(done).to_have_count(0)


def test_a_view_is_given_to_a_spreadsheet_and_a_program_gets_a_key(visits, servers):
    page = visits
    page.get_by_role("button", name=re.compile("^View:")).click()
    page.get_by_role("menuitem", name="Large groups to answer").click()
    page.get_by_role("button", name="View: Large groups to answer ▾").click()
    page.get_by_role("button", name="Make a live feed").press("Enter")
    feed = page.get_by_role("region", name="Live feed")
    address = feed.get_by_role("group", name="Feed as CSV").text_content()
    expect(feed.get_by_text("Never fetched yet.")).to_be_visible()
    expect_usable(page)
    given = page.request.get(servers.web + "/" + address.split("/", 3)[3])
    assert given.ok
    assert given.text().splitlines()[0].startswith('"Number","Received","Edition","')
    feed.get_by_role("button", name="End this feed …").press("Enter")
    feed.get_by_role("button", name="End this feed …").press("Enter")
    expect(feed.get_by_role("group", name="Feed as CSV")).to_have_count(0)
    page.keyboard.press("Escape")
    page.get_by_role("button", name=re.compile(": you, ")).click()
    page.get_by_role("menuitem", name="Keys for programs").press("Enter")
    page.get_by_label("What the key is for").fill("The yearly report")
    page.get_by_label("Read forms and their schemas").check()
    page.get_by_role("button", name="Make the key").press("Enter")
    expect(page.get_by_text("This key is shown once.")).to_be_visible()
    page.get_by_role("button", name=re.compile("List the forms that the key may read")).press("Enter")
    page.get_by_role("button", name="Ask", exact=True).first.press("Enter")
    expect(page.get_by_label("The answer")).to_contain_text('"name": "Plan a visit"')
    expect_usable(page)
    row = page.get_by_role("row", name=re.compile("^The yearly report"))
    row.get_by_role("button", name="End …").press("Enter")
    row.get_by_role("button", name="End …").press("Enter")
    expect(row).to_have_count(0)


def test_a_table_is_brought_in_and_its_wrong_lines_are_told(desk, servers, tmp_path):
    form = Published(desk, servers, visit_document())
    desk.goto(f"{form.workbench}/responses")
    table = tmp_path / "by telephone.csv"
    table.write_text("Show;Guests;E-mail\nstars;3;ada@example.org\ndeep;99;\n")
    desk.get_by_role("button", name="Export all …").click()
    desk.get_by_role("button", name="Bring in responses from a table …").press("Enter")
    dialog = desk.get_by_role("dialog", name="Bring in responses from a table")
    dialog.get_by_label("Table of responses").set_input_files(table)
    expect(dialog.get_by_text("by telephone.csv: 2 lines.")).to_be_visible()
    expect(dialog.get_by_role("alert")).to_contain_text("line 2: People – Please answer this.")
    dialog.get_by_role("combobox", name="Guests").press("Enter")
    desk.get_by_role("option", name="People").press("Enter")
    expect(dialog.get_by_role("alert")).to_contain_text("line 3: People – Enter 60 or less.")
    expect_usable(desk)
    dialog.get_by_role("button", name="Bring in 1 response").press("Enter")
    expect(dialog.get_by_role("status")).to_contain_text("1 response brought in, 1 line did not fit.")
    expect_usable(desk)
    desk.keyboard.press("Escape")
    expect(desk.get_by_role("row", name="Response 1")).to_contain_text("ada@example.org")
