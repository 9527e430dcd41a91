"""Members: they sign in where a form wants to know them, lose nothing by it, and find their answers again."""

import re

from playwright.sync_api import expect

from browser.conftest import axe_findings, expect_usable, mailed_link, sign_in

PASSWORD = "alderlight"


def test_a_member_borrows_and_finds_the_loan_again(page, servers):
    page.goto(f"{servers.web}/f/alderlight/instrument-loan")
    expect(page.get_by_role("heading", name="This form is for members of Alderlight Observatory.")).to_be_visible()
    assert axe_findings(page) == []
    page.get_by_label("E-mail").fill("liv.aasen@example.org")
    page.get_by_label("Password").fill("not the one")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="E-mail and password don’t belong together.")).to_be_visible()
    page.get_by_label("Password").fill(PASSWORD)
    page.keyboard.press("Enter")
    expect(page.get_by_text("Signed in as Liv Aasen")).to_be_visible()
    page.wait_for_load_state("networkidle")
    assert axe_findings(page) == []
    page.goto(f"{servers.web}/m/alderlight")
    expect(page.get_by_role("heading", name="Your answers")).to_be_visible()
    assert axe_findings(page) == []
    page.get_by_role("link", name=re.compile("^Look at it: Borrow an instrument")).first.press("Enter")
    expect(page.get_by_text("Harbour Deck").or_(page.get_by_text("Summit Dome")).first).to_be_visible()
    assert axe_findings(page) == []
    page.go_back()
    page.get_by_label("Name", exact=True).fill("Liv M. Aasen")
    page.get_by_role("button", name="Save the name").press("Enter")
    expect(page.get_by_role("status")).to_have_text("Saved.")
    page.get_by_role("button", name="Sign out").press("Enter")
    expect(page.get_by_label("Password")).to_be_visible()
    for width in (320, 1280):
        page.set_viewport_size({"width": width, "height": 800})
        assert page.evaluate("document.scrollingElement.scrollWidth <= innerWidth")


def share(page, servers, email):
    page.goto(f"{servers.web}/f/alderlight/join-and-share-a-sighting")
    page.get_by_label("What did you see?").fill("A green flash")
    page.get_by_label("Night of").fill("2026-11-20")
    page.get_by_label("Seen with").select_option("naked eye")
    page.get_by_label("How it was").fill("It lasted a second, over the sea.")
    page.get_by_label("Your name").fill("Ines Figueira")
    page.get_by_label("E-mail").fill(email)


def send(page):
    page.locator(".cx-submit").last.press("Enter")


def test_a_guest_with_a_members_address_signs_in_and_loses_nothing(page, servers):
    share(page, servers, " Ines.Figueira@EXAMPLE.org")
    send(page)
    code = page.get_by_role("button", name="Send me a code instead")
    expect(code).to_be_visible()
    assert axe_findings(page) == []
    code.press("Enter")
    expect(page.get_by_label("Code from the mail")).to_be_focused()
    mailbox = page.context.new_page()
    address = mailed_link(mailbox, servers, "Sign in to Alderlight Observatory", "Sign in")
    assert "/m/alderlight/link/" in address
    words = mailbox.frame_locator("iframe").get_by_text("Or type this code").inner_text()
    page.get_by_label("Code from the mail").fill(re.search(r"\d{3} \d{3}", words)[0])
    page.keyboard.press("Enter")
    expect(page.get_by_text("Signed in as Ines Figueira")).to_be_visible()
    expect(page.get_by_label("How it was")).to_have_value("It lasted a second, over the sea.")
    send(page)
    expect(page.get_by_role("heading", name="Thank you")).to_be_visible()
    mailbox.goto(f"{servers.web}/m/alderlight")
    expect(mailbox.get_by_role("listitem").filter(has_text="What did you see?")).to_have_count(1)
    mailbox.close()


def test_who_shares_a_sighting_gets_an_account_by_it_once(page, servers):
    email = f"kemi-{page.evaluate('Date.now()')}@example.org"
    share(page, servers, email)
    send(page)
    expect(page.get_by_role("heading", name="Thank you")).to_be_visible()
    page.goto(mailed_link(page, servers, "You have an account at Alderlight Observatory", "Sign in"))
    # Looking at the link is not using it.
    page.reload()
    assert axe_findings(page) == []
    page.get_by_role("button", name="Go on").press("Enter")
    expect(page.get_by_text("Signed in as Ines Figueira")).to_be_visible()
    expect(page.get_by_role("listitem").filter(has_text="What did you see?")).to_have_count(1)


def test_groups_members_and_what_was_done_are_kept_by_keyboard(page, servers):
    sign_in(page, servers)
    page.get_by_role("link", name="Team", exact=True).press("Enter")
    page.get_by_role("link", name="Groups", exact=True).press("Enter")
    expect(page.get_by_role("row", name=re.compile("dome_keepers"))).to_contain_text("Jonas Lindqvist")
    page.get_by_label("Name of another group").fill("Lantern crew")
    page.keyboard.press("Enter")
    people = page.get_by_role("combobox", name="People in Lantern crew")
    people.fill("Aylin")
    people.press("ArrowDown")
    people.press("Enter")
    expect(page.get_by_role("row", name=re.compile("lantern_crew"))).to_contain_text("Aylin Demir")
    expect_usable(page)
    page.get_by_role("button", name="Take away: Lantern crew").press("Enter")
    # Which forms ask for it is looked up first.
    take_away = page.get_by_role("button", name="Take it away")
    expect(take_away).to_be_enabled()
    take_away.press("Enter")
    expect(page.get_by_role("row", name=re.compile("lantern_crew"))).to_have_count(0)
    page.get_by_role("link", name="Members", exact=True).press("Enter")
    expect(page.get_by_role("link", name="Open the table")).to_be_visible()
    expect_usable(page)
    page.get_by_role("link", name="Audit log").press("Enter")
    expect(page.get_by_role("row", name=re.compile("took away the group Lantern crew"))).to_be_visible()
    expect_usable(page)
    page.get_by_label("About").press("Enter")
    page.get_by_role("option", name="publishing", exact=True).press("Enter")
    expect(page.get_by_role("row", name=re.compile("took away the group Lantern crew"))).to_have_count(0)
    expect(page.get_by_role("row", name=re.compile("published edition 1 of Instrument loan"))).to_be_visible()


def test_a_draft_is_looked_at_as_a_guest_and_as_a_member(page, servers):
    sign_in(page, servers)
    page.get_by_role("link", name="Instrument loan", exact=True).first.press("Enter")
    expect(page.get_by_role("navigation", name="Areas")).to_be_visible()
    page.goto(page.url.replace("/compose", "/preview").replace("/responses", "/preview"))
    seen_by = page.get_by_role("combobox", name="Seen by")
    expect(seen_by).to_have_value("A guest")
    form = page.frame_locator("iframe[title=Preview]")
    expect(form.get_by_text("Signed in as")).to_have_count(0)
    seen_by.fill("Tomas")
    page.get_by_role("option", name="Tomas Brand").click()
    expect(form.get_by_text("Signed in as Tomas Brand")).to_be_visible()
    expect_usable(page)
