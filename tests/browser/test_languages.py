"""A form in several languages: translated in the workbench, and switched by whoever fills it in."""

import csv
import io
import re

from playwright.sync_api import expect

from browser.conftest import AXE, area, saved
from browser.making import paste_form

VISIT = "/f/alderlight/plan-a-visit"


def found_by_axe(page):
    page.evaluate(AXE)
    return page.evaluate("axe.run().then(({ violations }) => violations.map(({ id }) => id))")


def test_a_visitor_switches_and_keeps_what_was_typed(page, servers):
    page.goto(servers.web + VISIT)
    page.get_by_label("First stars").check()
    page.get_by_label("Adults").fill("12")
    page.get_by_role("navigation", name="Languages").get_by_role("link", name="Deutsch").click()
    expect(page.get_by_label("Erwachsene")).to_have_value("12")
    expect(page.get_by_label("Erste Sterne")).to_be_checked()
    assert page.evaluate("document.documentElement.lang") == "de"
    assert found_by_axe(page) == []
    page.get_by_role("button", name=re.compile("Weiter")).click()
    expect(page.get_by_text("Bitte beantworten Sie das.").first).to_be_visible()
    page.get_by_role("navigation", name="Sprachen").get_by_role("link", name="English").press("Enter")
    expect(page.get_by_label("Adults")).to_have_value("12")
    expect(page.get_by_role("link", name="English")).to_have_attribute("aria-current", "true")


def test_a_browser_s_language_is_taken_by_itself(browser, servers):
    context = browser.new_context(locale="de-DE", viewport={"width": 320, "height": 700})
    page = context.new_page()
    page.goto(servers.web + VISIT)
    expect(page.get_by_role("heading", name="Planen Sie Ihren Besuch")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 320
    context.close()


def test_a_specialist_translates_by_hand_and_by_a_file_and_sees_it_in_preview(desk):
    page = desk
    paste_form(page, "Dome hire", "Days* number 1..30\nPlace text\nHall yes/no")
    area(page, "Languages")
    page.get_by_label("Add a language").click()
    page.get_by_role("option", name="Deutsch").click()
    texts = page.get_by_role("region", name="Texts")
    texts.get_by_label("title, translated").first.fill("Kuppel mieten")
    saved(page)
    expect(page.get_by_text(re.compile(r"^1 of \d+ texts$"))).to_be_visible()
    with page.expect_download() as downloaded:
        page.get_by_role("link", name="CSV").click()
    lines = list(csv.DictReader(io.StringIO(downloaded.value.path().read_text(encoding="utf-8-sig"))))
    german = {"Days": "Tage", "Place": "Ort", "Hall": "Saal"}
    for line in lines:
        line["Translation"] = german.get(line["Text"], line["Translation"])
    lines.append({**lines[0], "Where": "gone.label"})
    table = io.StringIO()
    writer = csv.DictWriter(table, lines[0].keys())
    writer.writeheader()
    writer.writerows(lines)
    page.get_by_label("A file with translations").set_input_files(
        {"name": "de.csv", "mimeType": "text/csv", "buffer": table.getvalue().encode()}
    )
    expect(page.get_by_role("alert")).to_contain_text("4 translations taken from the file.")
    expect(page.get_by_role("alert")).to_contain_text("gone.label: The form has no such text any more.")
    expect(texts.get_by_label("label, translated").first).to_have_value("Tage")
    assert found_by_axe(page) == []
    saved(page)
    page.get_by_role("link", name="Preview").click()
    frame = page.frame_locator("iframe")
    frame.get_by_role("link", name="Deutsch").click()
    expect(frame.get_by_label("Tage")).to_be_visible()
    expect(frame.get_by_role("heading", name="Kuppel mieten")).to_be_visible()
