"""Follow-ups made by hand: what would follow is seen, a try comes to who asks, a response sets them off once."""

import re

from playwright.sync_api import expect

from browser.conftest import area, expect_usable
from browser.making import choose, paste_form, publish, rows, type_text


def test_a_mail_is_made_tried_and_sent_when_a_response_comes(desk, servers):
    page = desk
    paste_form(page, "Star letters", "# You\nYour name*\nE-mail*\nWhich site?*: Summit Dome, Harbour Deck")
    area(page, "Follow-ups")
    page.get_by_role("button", name="Add a follow-up").click()
    page.get_by_role("menuitem", name="E-mail").click()
    expect(page.get_by_text("The mail goes to nobody.")).to_be_visible()
    page.get_by_role("textbox", name="Name", exact=True).fill("Letter")
    page.get_by_role("button", name="Add the visitor").click()
    page.get_by_role("button", name="Add an address").click()
    second = page.get_by_role("group", name="Recipient 2")
    second.get_by_label("Address").fill("deck@alderlight.example.org")
    second.get_by_role("button", name="always; add a rule").click()
    rows(page, ("Which site?", "is", "Harbour Deck"))
    second.get_by_role("button", name="Done").click()
    type_text(page, page.get_by_role("textbox", name="Subject"), "Stars for ", "<Your name>")
    page.get_by_role("button", name="Add a text").click()
    box = page.get_by_role("textbox", name="Text of paragraph 1", exact=True)
    type_text(page, box, "We look for you at ", "<Which site?: its words>", ".")
    page.get_by_role("switch", name="All answers that visitors saw, as a table").check()
    choose(page, "Answers", "Sample answers")
    would = page.get_by_role("region", name="What would follow")
    expect(would.get_by_role("status")).to_contain_text("This would be done: mail to")
    frame = page.frame_locator("iframe[title='The mail']")
    expect(frame.get_by_text(re.compile("^We look for you at (Summit Dome|Harbour Deck).$"))).to_be_visible()
    expect_usable(page)
    page.get_by_role("button", name="Send it to me").click()
    expect(would.get_by_text("On its way to mira@alderlight.example.org, marked as a try.")).to_be_visible()
    visitor = publish(page)
    visitor.get_by_label("First name").fill("Ingrid")
    visitor.get_by_label("Last name").fill("Haugen")
    visitor.get_by_label("E-mail").fill("ingrid@example.org")
    visitor.get_by_label("Harbour Deck").check()
    visitor.get_by_role("button", name="Send").click()
    expect(visitor.get_by_role("heading", name="Thank you")).to_be_visible()
    visitor.goto(servers.mailbox)
    for _ in range(40):
        if visitor.get_by_role("link", name="Stars for Ingrid Haugen", exact=True).count():
            break
        visitor.wait_for_timeout(500)
        visitor.reload()
    expect(visitor.get_by_role("link", name="Stars for Ingrid Haugen", exact=True)).to_have_count(1)
    expect(visitor.get_by_role("link", name=re.compile("^Try: Stars for"))).to_have_count(1)
    visitor.get_by_role("link", name="Stars for Ingrid Haugen", exact=True).click()
    expect(visitor.frame_locator("iframe").get_by_text("We look for you at Harbour Deck.")).to_be_visible()
    expect(visitor.get_by_text("to ingrid@example.org, deck@alderlight.example.org")).to_be_visible()
    expect_usable(visitor)
    area(page, "Responses")
    page.get_by_role("gridcell", name="1", exact=True).first.click()
    followed = page.get_by_role("region", name="What followed")
    expect(followed.get_by_text("sent to ingrid@example.org, deck@alderlight.example.org")).to_be_visible()
    followed.get_by_role("button", name="Do it again").click()
    expect(followed.get_by_role("alert")).to_contain_text("Done again, it goes out once more.")
    followed.get_by_role("button", name="Leave it").click()
    expect_usable(page)
