"""A booking from the first press to the last: taken by a visitor, decided by a keeper, told by mail, given back."""

import datetime
import os
import re

from playwright.sync_api import expect

from browser.conftest import Published, area, axe_findings, expect_usable, open_mail, saved, sign_in

# Five each time; more by hand.
_RACES = int(os.environ.get("CODEXA_RACES", "5"))


def book(page, servers, name):
    page.goto(f"{servers.web}/f/alderlight/dome-night-booking")
    expect(page.get_by_text("First answer: Where")).to_be_visible()
    page.get_by_label("Summit Dome").check()
    times = page.get_by_role("radiogroup", name="When")
    expect(times.get_by_role("radio").first).to_be_visible()
    first = times.get_by_role("group").first.get_attribute("aria-labelledby")
    # Further days come by a press, and earlier ones come back.
    page.get_by_role("button", name="Later days").press("Enter")
    expect(times.get_by_role("group").first).not_to_have_attribute("aria-labelledby", first)
    page.get_by_role("button", name="Earlier days").press("Enter")
    expect(times.get_by_role("group").first).to_have_attribute("aria-labelledby", first)
    times.get_by_role("radio").first.focus()
    page.keyboard.press("Space")
    expect(times.get_by_role("radio").first).to_be_checked()
    page.get_by_label("First name").fill(name)
    page.get_by_label("Last name").fill("Haugen")
    page.get_by_label("Your e-mail").fill(f"{name.lower()}@example.org")


def test_a_night_is_booked_approved_by_keyboard_and_cancelled_by_its_mail(page, servers):
    book(page, servers, "Ottilie")
    assert axe_findings(page) == []
    page.set_viewport_size({"width": 320, "height": 700})
    assert page.evaluate("document.documentElement.scrollWidth") == 320
    page.set_viewport_size({"width": 1280, "height": 800})
    page.get_by_role("button", name="Send").click()
    expect(page.get_by_role("heading", name="We have your wish")).to_be_visible()
    sign_in(page, servers)
    page.get_by_role("navigation", name="Places").get_by_role("link", name="Decisions").press("Enter")
    page.get_by_role("link", name=re.compile("^Ottilie Haugen")).press("Enter")
    expect(page.get_by_role("heading", name=re.compile("^Ottilie Haugen"))).to_be_visible()
    expect_usable(page)
    page.get_by_label("Remark").fill("Welcome")
    page.get_by_role("heading", name="Decisions").click()
    page.keyboard.press("a")
    # The next one follows by itself.
    expect(page.get_by_role("link", name=re.compile("^Ottilie Haugen"))).to_have_count(0)
    expect(page.get_by_role("region", name="Decided by you")).to_contain_text("Welcome")
    # The demo's own guests get such mails, too.
    row = page.get_by_role("row").filter(has_text="ottilie@example.org")
    mail = row.get_by_role("link", name=re.compile("^See you at the dome"))
    open_mail(page, servers, mail)
    told = page.frame_locator("iframe").locator("body")
    expect(told).to_contain_text("Mira Okafor looks forward to you")
    entry = page.get_by_role("article").filter(has_text="with Ottilie Haugen")
    for weeks in (0, 7, 14, 21):
        day = datetime.datetime.now(datetime.UTC).date() + datetime.timedelta(days=weeks)
        page.goto(f"{servers.calendar}/?from={day}")
        if entry.count():
            break
    expect(entry).to_contain_text("Summit Dome")
    page.goto(servers.mailbox)
    mail.first.click()
    own = re.search(r"http\S+/r/[0-9a-f-]{36}/\d+/[0-9a-f]{40}", told.inner_text())[0]
    page.goto(own)
    expect(page.get_by_role("heading", name="Your booking")).to_be_visible()
    assert axe_findings(page) == []
    page.get_by_role("link", name="Choose another time").press("Enter")
    page.get_by_role("radio").nth(2).check()
    assert axe_findings(page) == []
    page.get_by_role("button", name="Take this time").press("Enter")
    page.get_by_role("link", name="Cancel this booking").press("Enter")
    page.get_by_role("button", name="Cancel this booking").press("Enter")
    expect(page.get_by_text("This booking is cancelled.")).to_be_visible()


def test_slots_are_painted_into_the_week_by_keyboard_and_seen_as_booked(desk):
    page = desk
    page.get_by_role("link", name="Dome night booking").first.click()
    area(page, "Slots")
    week = page.get_by_role("grid", name="Slots of the week")
    expect(week.get_by_role("button", name=re.compile("8 places until")).first).to_be_visible()
    free = week.get_by_role("button", name=re.compile("^Monday .* 20:30: no slot"))
    free.focus()
    page.keyboard.press("Enter")
    made = week.get_by_role("button", name=re.compile("^Monday .* 20:30: 8 places until 22:00"))
    expect(made).to_be_visible()
    made.press("3")
    expect(week.get_by_role("button", name=re.compile("^Monday .* 20:30: 3 places"))).to_be_focused()
    page.keyboard.press("Enter")
    expect(free).to_be_visible()
    saved(page)
    expect_usable(page)
    page.get_by_role("button", name="Booked").press("Enter")
    expect(page.get_by_role("link", name="CSV")).to_be_visible()
    assert axe_findings(page) == []


def test_the_whole_way_is_rehearsed_by_oneself_and_taken_away(desk, servers):
    page = desk
    page.get_by_role("link", name="Dome night booking").first.press("Enter")
    area(page, "Trials")
    page.get_by_role("link", name="Rehearse the whole way …").press("Enter")
    page.get_by_role("button", name="Begin a rehearsal").press("Enter")
    with page.expect_popup() as popup:
        page.get_by_role("link", name="Fill it in").press("Enter")
    visitor = popup.value
    visitor.get_by_label("Summit Dome").check()
    visitor.get_by_role("radiogroup", name="When").get_by_role("radio").first.check()
    visitor.get_by_label("First name").fill("Runa")
    visitor.get_by_label("Last name").fill("Dahl")
    visitor.get_by_label("Your e-mail").fill("runa@example.org")
    visitor.get_by_role("button", name="Send").press("Enter")
    expect(visitor.get_by_role("heading", name="We have your wish")).to_be_visible()
    visitor.close()
    response = page.get_by_role("region", name="Response 1")
    expect(response.get_by_text("Runa Dahl", exact=True)).to_be_visible()
    expect_usable(page)
    response.get_by_label("Remark").fill("Come")
    response.get_by_role("button", name="Approve").press("Enter")
    mail = response.get_by_role("button", name="Show it: Approved")
    mail.press("Enter")
    expect(response.frame_locator("iframe").locator("body")).to_contain_text("Come")
    page.get_by_role("button", name="Let 7 days pass").press("Enter")
    expect(page.get_by_text("7 days later by its clock")).to_be_visible()
    page.get_by_role("button", name="Take it all away").press("Enter")
    expect(page.get_by_role("button", name="Begin a rehearsal")).to_be_visible()
    page.goto(servers.mailbox)
    expect(page.get_by_role("row").filter(has_text="runa@example.org")).to_have_count(0)


def test_of_two_browsers_one_has_the_place_and_the_other_keeps_what_was_typed(desk, servers, browser):
    first = datetime.date(2099, 1, 1)
    days = [f"{first + datetime.timedelta(days=at)}T18:00" for at in range(_RACES)]
    slot = {"id": "night", "type": "slot", "key": "night", "label": "Night", "required": "TRUE"}
    slot |= {"singles": [{"starts": each, "places": 1} for each in days]}
    name = {"id": "who", "type": "short_text", "key": "who", "label": "Who"}
    pages = [{"id": "p", "title": "Nights", "blocks": [name, slot]}]
    form = Published(desk, servers, {"format": 2, "name": "One place", "title": "One place", "pages": pages})
    for at in range(len(days)):
        takers = [browser.new_page(), browser.new_page()]
        for taker, who in zip(takers, ("Ana", "Ben"), strict=True):
            taker.goto(form.address)
            taker.get_by_label("Who").fill(f"{who} {at}")
            taker.get_by_role("radiogroup", name="Night").get_by_role("radio").first.check()
            expect(taker.get_by_role("button", name="Send")).to_be_enabled()
        for taker in takers:
            # Pressed without waiting for what comes of it.
            taker.evaluate("setTimeout(() => document.querySelector('.cx-submit').click())")
        thanks = [taker.get_by_role("heading", name="Thank you") for taker in takers]
        gone = [taker.get_by_text(re.compile("just been taken")).first for taker in takers]
        for taker, done, lost in zip(takers, thanks, gone, strict=True):
            expect(done.or_(lost).first).to_be_visible()
            if lost.is_visible():
                expect(taker.get_by_label("Who")).to_have_value(re.compile(rf" {at}$"))
        assert sorted(each.is_visible() for each in thanks) == [False, True]
        for taker in takers:
            taker.close()


def test_calendars_are_tried_where_they_are_and_chosen_in_a_follow_up(desk):
    page = desk
    page.get_by_role("navigation", name="Places").get_by_role("link", name="Team").press("Enter")
    page.get_by_role("link", name="Calendars").press("Enter")
    page.get_by_role("button", name="Try it: Summit Dome").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("It answers.")
    page.get_by_label("Name", exact=True).fill("Pier")
    page.get_by_label("Address (CalDAV)").fill("http://127.0.0.1:9/pier/")
    page.get_by_role("button", name="Add it").press("Enter")
    expect(page.get_by_text("did not answer")).to_be_visible()
    expect_usable(page)
    page.get_by_role("navigation", name="Places").get_by_role("link", name="Forms").press("Enter")
    page.get_by_role("link", name="Dome night booking").first.press("Enter")
    area(page, "Follow-ups")
    page.get_by_role("button", name=re.compile("^In the dome's calendar")).press("Enter")
    expect(page.get_by_role("combobox", name="In the calendar", exact=True)).to_have_text("Summit Dome")
    expect(page.get_by_text("goes there when")).to_be_visible()
    expect_usable(page)
