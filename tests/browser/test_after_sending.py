"""After "Send": what a confirmation offers, what comes by mail and is acted on, and what an owner sees of it."""

import re

from playwright.sync_api import expect

from browser.conftest import FORGETFUL, WCAG, axe_findings, expect_usable, import_form, sign_in
from browser.making import publish

# A mail is no page: it has no landmarks.
OF_MAIL = {"type": "tag", "values": [each for each in WCAG["values"] if each != "best-practice"]}
OFFER = {
    "name": "Offer",
    "title": "Offer",
    "pages": [
        {
            "id": "p",
            "title": "You",
            "blocks": [
                {"id": "n", "type": "short_text", "key": "guest", "label": "Your name", "required": "TRUE"},
                {"id": "m", "type": "email", "key": "mail", "label": "E-mail", "required": "TRUE"},
            ],
        }
    ],
    "confirmations": [
        {
            "id": "c",
            "title": "Thank you, {guest}",
            "paragraphs": [{"text": "<p>No. {response.number}</p>"}],
            **dict.fromkeys(("own_page", "again", "printing", "sharing"), True),
        }
    ],
    "follow_ups": [
        {
            "id": "f",
            "name": "Offer",
            "kind": "email",
            "recipients": [{"field": "m"}],
            "subject": "Our offer for {guest}",
            "paragraphs": [{"text": '<p>See <a href="https://www.example.org/offer">all of it</a>.</p>'}],
            "all_answers": True,
            "pdf": True,
        }
    ],
}


def mail_named(page, servers, subject):
    """Open the newest mail of that subject in the practice mailbox, once it is there."""
    for _ in range(40):
        page.goto(servers.mailbox)
        if page.get_by_role("link", name=subject, exact=True).count():
            break
        page.wait_for_timeout(500)
    page.get_by_role("link", name=subject, exact=True).first.click()


def test_a_confirmation_is_opened_again_kept_handed_on_and_begun_anew(desk, servers):
    import_form(desk, OFFER)
    visitor = publish(desk)
    visitor.get_by_label("Your name").fill("Ingrid")
    visitor.get_by_label("E-mail").fill("ingrid.haugen@example.org")
    visitor.get_by_role("button", name="Send", exact=True).click()
    visitor.wait_for_url("**/received/**")
    heading = visitor.get_by_role("heading", name="Thank you, Ingrid")
    expect(heading).to_be_focused()
    visitor.reload()
    expect(heading).to_be_visible()
    assert axe_findings(visitor) == []
    with visitor.expect_download() as download:
        visitor.get_by_role("link", name="Keep as PDF").click()
    assert download.value.suggested_filename == "Offer 1.pdf"
    share = visitor.get_by_role("group", name="Tell others of this form")
    expect(share.get_by_role("link", name=re.compile("alderlight.offer$"))).to_be_visible()
    visitor.set_viewport_size({"width": 320, "height": 700})
    assert visitor.evaluate("document.documentElement.scrollWidth") == 320
    visitor.get_by_role("button", name="Send another").click()
    expect(visitor.get_by_label("Your name")).to_have_value("")
    visitor.set_viewport_size({"width": 1280, "height": 800})
    mail_named(visitor, servers, "Our offer for Ingrid")
    assert axe_findings(visitor) == []
    expect(visitor.get_by_role("link", name="Offer 1.pdf")).to_be_visible()
    frame = visitor.frame_locator("iframe")
    expect(frame.get_by_role("link", name="all of it")).to_have_attribute("href", "https://www.example.org/offer")
    visitor.goto(visitor.locator("iframe").evaluate("each => each.src"))
    assert axe_findings(visitor, OF_MAIL) == []
    visitor.emulate_media(color_scheme="dark")
    assert axe_findings(visitor, OF_MAIL) == []


def test_who_has_forgotten_the_password_sets_another_by_the_link_that_comes(page, servers):
    page.goto(f"{servers.web}/sign-in")
    page.get_by_role("button", name="I have forgotten my password").click()
    page.get_by_label("E-mail").fill(FORGETFUL)
    assert axe_findings(page) == []
    page.get_by_label("E-mail").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text(f"If somebody signs in as {FORGETFUL}")
    mail_named(page, servers, "Your password for Codexa")
    link = page.frame_locator("iframe").get_by_role("link", name="Choose a new password").get_attribute("href")
    page.goto(link)
    page.get_by_label("New password").fill("short")
    page.get_by_role("button", name="Set the password").click()
    expect(page.get_by_role("alert")).to_contain_text("take at least 12")
    page.get_by_label("New password").fill("a much longer password")
    assert axe_findings(page) == []
    page.get_by_role("button", name="Set the password").click()
    expect(page.get_by_role("alert")).to_contain_text("Your password was changed")
    page.get_by_role("link", name="To signing in").click()
    page.get_by_label("E-mail").fill(FORGETFUL)
    page.get_by_label("Password").fill("a much longer password")
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("button", name="you, Editor").click()
    page.get_by_role("menuitem", name="Your account").click()
    expect(page.get_by_text(f"You sign in as {FORGETFUL}")).to_be_visible()
    expect_usable(page)
    form = page.get_by_role("form", name="Another address")
    form.get_by_label("New address").fill("sofia.lund@alderlight.example.org")
    form.get_by_label("Your password").fill("a much longer password")
    form.get_by_role("button", name="Send the links").click()
    expect(page.get_by_text("waits to be confirmed at your address now and the new one")).to_be_visible()


def test_an_owner_sees_that_mail_works_and_what_was_done(page, servers):
    sign_in(page, servers)
    page.get_by_role("button", name="you, Mira Okafor").click()
    page.get_by_role("menuitem", name="Jobs and mail").click()
    expect(page.get_by_text("1 worker at work")).to_be_visible()
    page.get_by_role("button", name="Send a test mail to mira@alderlight.example.org").click()
    expect(page.get_by_text("It works: sent to mira@alderlight.example.org")).to_be_visible()
    expect(page.get_by_role("cell", name="test mail").first).to_be_visible()
    expect_usable(page)
