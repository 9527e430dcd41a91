"""Publishing as a specialist does it: replay first, a way back, a closed form, and sealed links of a table."""

import re

from conftest import visit_document
from playwright.sync_api import expect

from browser.conftest import area, axe_findings, import_form, section
from browser.making import press_publish


def published(page, servers, name, **more):
    import_form(page, visit_document() | {"name": name} | more)
    press_publish(page, 1)
    expect(page.get_by_text("Edition 1 is live.")).to_be_visible()
    visitor = page.context.new_page()
    visitor.goto(f"{servers.web}/f/alderlight/{name.lower()}")
    return visitor


def send(visitor, people):
    visitor.get_by_label("People").fill(people)
    visitor.get_by_role("button", name="Send").click()
    expect(visitor.get_by_role("heading", name="Thank you")).to_be_visible()


def test_replay_says_who_would_be_refused_and_an_edition_is_brought_back(desk, servers):
    page = desk
    visitor = published(page, servers, "Replayed")
    send(visitor, "11")
    page.get_by_role("button", name=re.compile("1.2 People")).first.click()
    page.get_by_role("tab", name="Checks").click()
    page.get_by_role("textbox", name="Maximum", exact=True).fill("10")
    expect(page.get_by_text("Edition 1 live · 1 change since")).to_be_visible()
    area(page, "Publish")
    page.get_by_role("button", name="Replay the latest 500").click()
    expect(page.get_by_text("1 of 1 response would come out differently.")).to_be_visible()
    page.get_by_role("button", name="would be refused").click()
    expect(page.get_by_text("Because 1.2 People was changed.")).to_be_visible()
    assert axe_findings(page) == []
    press_publish(page, 2)
    expect(page.get_by_text("Edition 2 is live.")).to_be_visible()
    page.get_by_role("button", name="Go back to it").click()
    page.get_by_role("button", name="Go back to it").click()
    expect(page.get_by_text("Edition 1 live · 1 change since")).to_be_visible()
    visitor.goto(f"{servers.web}/f/alderlight/replayed")
    send(visitor, "12")


def test_taken_off_line_a_form_says_so_at_once(desk, servers):
    page = desk
    visitor = published(page, servers, "Offline")
    area(page, "Publish")
    section(page, "Who and when")
    page.get_by_label("The form can be filled in").click()
    expect(page.get_by_text("Taken off line: nobody can fill it in")).to_be_visible()
    visitor.reload()
    expect(visitor.get_by_role("heading", name="This form can't be filled in just now.")).to_be_visible()
    assert axe_findings(visitor) == []
    picture = page.frame_locator("iframe")
    expect(picture.get_by_role("heading", name="This form can't be filled in just now.")).to_be_visible()


def test_sealed_links_are_made_of_pasted_rows_and_open_the_form_filled_in(desk, servers):
    page = desk
    published(page, servers, "Sealed")
    area(page, "Publish")
    section(page, "Links with values")
    for field in ("1.2 People", "1.3 School"):
        page.get_by_role("combobox", name="Add a field").click()
        page.get_by_role("option", name=field).click()
    page.get_by_role("group", name="For the visitor: 1.2 People").get_by_role("button", name="locked").click()
    expect(page.get_by_role("combobox", name="Seal: 1.2 People")).to_have_text("must be sealed")
    expect(page.get_by_text("Edition 1 live")).to_be_visible()
    press_publish(page, 2)
    expect(page.get_by_text("Edition 2 is live.")).to_be_visible()
    rows = page.get_by_role("textbox", name="Rows from a spreadsheet")
    rows.fill("People\tSchool\n20\tSpäte Sterne\n900\tToo many\n")
    page.get_by_role("button", name="Read the rows").click()
    expect(page.get_by_text("line 3 People “900”")).to_be_visible()
    page.get_by_role("button", name="Make 1 link").click()
    expect(page.get_by_text("1 link made; they stand below.")).to_be_visible()
    page.get_by_role("button", name="Pasted rows").click()
    address = page.get_by_role("link", name=re.compile(r"…\?s=")).get_attribute("href")
    visitor = page.context.new_page()
    visitor.goto(address)
    expect(visitor.get_by_label("People")).to_have_value("20")
    expect(visitor.get_by_label("People")).to_have_attribute("readonly", "")
    expect(visitor.get_by_text("From your link")).to_be_visible()
    expect(visitor.get_by_label("School")).to_have_value("Späte Sterne")
    visitor.get_by_label("School").fill("Other stars")
    visitor.get_by_role("button", name="Send").click()
    expect(visitor.get_by_role("heading", name="Thank you")).to_be_visible()
    visitor.goto(address[:-1] + ("A" if address[-1] != "A" else "B"))
    expect(visitor.get_by_role("heading", name="This link is not whole. Ask for a new one.")).to_be_visible()


def test_a_visitor_goes_on_later_with_a_private_link_on_another_device(desk, servers, browser):
    page = desk
    visitor = published(page, servers, "Later")
    area(page, "Publish")
    section(page, "Who and when")
    page.get_by_label("Answers can be kept here").click()
    page.get_by_role("button", name="Save who, times, limits and words").click()
    expect(page.get_by_role("button", name="Saved")).to_be_visible()
    visitor.goto(f"{servers.web}/f/alderlight/later")
    visitor.get_by_label("People").fill("many")
    visitor.get_by_role("button", name="Go on later").click()
    link = visitor.get_by_role("link", name=re.compile("http.*kept.*"))
    expect(link).to_be_visible()
    assert axe_findings(visitor) == []
    visitor.get_by_label("Send the link to (e-mail)").fill("ana@example.org")
    visitor.get_by_role("button", name="Send the link").click()
    expect(visitor.get_by_text("The link is on its way to ana@example.org.")).to_be_visible()
    elsewhere = browser.new_context().new_page()
    elsewhere.goto(servers.web + re.search("/kept/.*", link.inner_text())[0])
    expect(elsewhere.get_by_label("People")).to_have_value("many")
    expect(elsewhere.get_by_text("You kept these answers on")).to_be_visible()
    send(elsewhere, "7")
    # Here it was only half an answer, and it says that the other was handed in.
    visitor.get_by_label("People").fill("8")
    visitor.get_by_role("button", name="Send", exact=True).click()
    expect(visitor.get_by_text("These answers have been handed in already.")).to_be_visible()
    elsewhere.context.close()
