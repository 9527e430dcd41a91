"""Somebody is invited, joins with a name and a password, sees where they are signed in, and is taken out."""

import re

from playwright.sync_api import expect

from browser.conftest import expect_usable, mailed_link


def menu(page, item):
    page.get_by_role("button", name=re.compile(": you, ")).press("Enter")
    page.get_by_role("menuitem", name=item).press("Enter")


def test_a_colleague_is_invited_joins_and_is_taken_out(desk, servers, browser):
    desk.get_by_role("link", name="Team", exact=True).press("Enter")
    email = f"kemi-{desk.evaluate('Date.now()')}@example.org"
    desk.get_by_label("E-mail of somebody to invite").fill(email)
    desk.keyboard.press("Enter")
    expect(desk.get_by_text("A mail is on its way.")).to_be_visible()
    expect(desk.get_by_role("table", name="Invited")).to_contain_text(email)
    expect_usable(desk)
    colleague = browser.new_page()
    subject = "Mira Okafor invites you into Alderlight Observatory"
    colleague.goto(mailed_link(colleague, servers, subject, "Look at the invitation"))
    expect(colleague.get_by_role("heading", name="Join Alderlight Observatory")).to_be_visible()
    colleague.get_by_label("Your name").fill("Kemi Oyelaran")
    colleague.get_by_label("Choose a password").fill("clear skies tonight")
    expect_usable(colleague)
    colleague.keyboard.press("Enter")
    expect(colleague.get_by_role("link", name="Plan a visit", exact=True).first).to_be_visible()
    menu(colleague, "Your account")
    expect(colleague.get_by_role("region", name="Where you are signed in")).to_contain_text(", here")
    expect_usable(colleague)
    desk.reload()
    person = desk.get_by_role("row", name=re.compile("Kemi Oyelaran"))
    person.get_by_role("combobox").press("Enter")
    desk.get_by_role("option", name="viewer", exact=True).press("Enter")
    expect(person.get_by_role("combobox")).to_have_text("viewer")
    person.get_by_role("button", name="Take out …").press("Enter")
    dialog = desk.get_by_role("dialog")
    expect(dialog).to_contain_text("loses every right here at once")
    expect_usable(desk)
    dialog.get_by_role("button", name="Take out").press("Enter")
    expect(person).not_to_be_visible()
    colleague.reload()
    expect(colleague.get_by_label("Password")).to_be_visible()
    colleague.close()
