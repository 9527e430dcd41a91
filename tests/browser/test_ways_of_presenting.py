"""The same form as a page, by pages, and one question at a time: the same response comes of it."""

import json
import re

import pytest
from conftest import visit_document
from playwright.sync_api import expect

from browser.conftest import EXAMPLES, Published, axe_findings, import_form
from browser.test_walk import MISFITS

ANSWERS = {
    "What would you like to see?": ("pick", "First stars"),
    "Adults": ("type", "12"),
    "Children up to 14": ("type", "2"),
    "Name of the group": ("type", "Harbour school"),
    "How do you come up the hill?": ("pick", "By coach"),
    "Number plate of the coach": ("type", "AL 471"),
    "First name": ("type", "Ana"),
    "Last name": ("type", "Bell"),
    "How shall we answer?": ("pick", "By phone"),
    "Phone": ("type", "+49 30 1234567"),
    "Which day suits you?": ("type", "2027-02-05"),
    "Anything else?": ("type", "No."),
    "House rules": ("tick", ""),
}

# Products and an order; and rows of mixed kinds.
SHOP = {
    "One more of Poster of the northern sky": ("press", ""),
    "And for the evening": ("pick", "A flask · €16.50"),
    "Shall we wrap it?": ("pick", "As a gift, with a card · €3.50"),
    "What shall the card say?": ("type", "From us all"),
    "First name": ("type", "Ana"),
    "Last name": ("type", "Bell"),
    "E-mail": ("type", "ana@example.org"),
    "Street and number": ("type", "Hill Road 4"),
    "Postal code": ("type", "12345"),
    "Town": ("type", "Harbour"),
}
FORMS = [("plan_a_visit", ANSWERS, 12), ("star_shop_order", SHOP, 8)]
WAYS = ("whole", "paged", "single", "chat")
DARK = {"accent": "#8FD3A8", "banner": "#0F2A1C", "ground": "#0A1610", "paper": "#13231A", "ink": "#EAF5EE"}


def published(desk, servers, example="plan_a_visit", **more):
    document = json.loads((EXAMPLES / f"{example}.json").read_text(encoding="utf-8"))
    document |= {"payment": {"on": False}, "follow_ups": [], "confirmations": []}
    return Published(desk, servers, document | {"progress": ["bar", "count", "left"]} | more)


def fill_in(page, answers=ANSWERS):
    """Answer whatever is there, and go on until it is received; at each step nothing is cut off or out of sight."""
    done, quiet = set(), 0
    for _ in range(600):
        page.wait_for_timeout(500 if quiet else 100)
        if page.locator(".cx-received").count():
            return
        waiting = (label for label in answers if label not in done and asked(page, label).is_visible())
        label = next(waiting, None)
        if label is None:
            # What an answer brings up, or the next question, may be on its way.
            quiet += 1
            if quiet > 1:
                assert "\n".join(page.evaluate(MISFITS)) == ""
                page.locator(".cx-submit").last.click()
                quiet = 0
            continue
        quiet = 0
        done.add(label)
        how, answer = answers[label]
        there = asked(page, label)
        if how == "type":
            there.fill(answer)
        elif how == "tick":
            there.check()
        elif how == "press":
            there.click()
        elif there.evaluate("each => each.tagName") == "SELECT":
            there.select_option(label=answer)
        else:
            # It may go on by itself.
            there.get_by_text(answer, exact=True).click()
    raise AssertionError(f"it was not received; answered were {sorted(done)}")


def asked(page, label):
    label, _, row = label.partition(", in the ")
    form = page.locator("form")
    named = re.compile(f"^{re.escape(label)}" + (r"\W*$" if label.isdigit() else ""))
    there = form.get_by_label(named).or_(form.get_by_role("button", name=label, exact=True))
    return there.nth(1) if row else there.first


@pytest.mark.parametrize(("example", "answers", "least"), FORMS, ids=[each for each, _, _ in FORMS])
def test_one_response_comes_of_every_way(desk, servers, example, answers, least):
    form = published(desk, servers, example)
    for presentation in WAYS:
        width = 320 if presentation in ("single", "chat") else 1280
        visitor = form.visit(width=width, **{"codexa-shown": presentation})
        fill_in(visitor, answers)
        visitor.close()
    found = [form.response(number) for number, _ in enumerate(WAYS, 1)]
    for each in found:
        assert each == found[0]
    assert len([each for each in found[0].values() if each]) >= least


def test_keys_pass_over_choices_enter_goes_on_and_back_keeps_all(desk, servers):
    visitor = published(desk, servers, presentation="single").visit()
    first = visitor.get_by_label("First stars")
    first.focus()
    visitor.keyboard.press("ArrowDown")
    visitor.keyboard.press("ArrowDown")
    visitor.wait_for_timeout(600)
    expect(visitor.get_by_label("Night of planets")).to_be_checked()
    visitor.keyboard.press("Enter")
    expect(visitor.get_by_label("Adults")).to_be_focused()
    assert axe_findings(visitor) == []
    visitor.keyboard.press("Enter")
    expect(visitor.get_by_text("Please answer this.").first).to_be_visible()
    visitor.keyboard.type("3")
    visitor.keyboard.press("Enter")
    expect(visitor.get_by_label("Children up to 14")).to_be_focused()
    visitor.get_by_role("button", name="Back").click()
    expect(visitor.get_by_label("Adults")).to_have_value("3")
    visitor.go_back()
    expect(visitor.get_by_label("Children up to 14")).to_be_visible()
    visitor.get_by_role("button", name="Back").click()
    visitor.get_by_role("button", name="Back").click()
    expect(visitor.get_by_label("Night of planets")).to_be_visible()
    visitor.reload()
    expect(visitor.get_by_label("Night of planets")).to_be_checked()
    # A press goes on by itself, also on what was chosen before.
    visitor.get_by_text("Night of planets").click()
    expect(visitor.get_by_label("Adults")).to_have_value("3")


def test_preview_shows_a_draft_in_each_way_without_changing_it(desk):
    import_form(desk, visit_document() | {"name": "Tried in each way"})
    desk.get_by_role("link", name="Preview", exact=True).click()
    frame = desk.frame_locator("iframe[title=Preview]")
    expect(frame.get_by_label("People")).to_be_visible()
    desk.get_by_role("combobox", name="Shown").click()
    desk.get_by_role("option", name="One question at a time").click()
    frame.get_by_text("First stars").click()
    frame.get_by_label("People").fill("3")
    frame.get_by_label("People").press("Enter")
    expect(frame.get_by_label("E-mail")).to_be_focused()
    expect(frame.get_by_text("€13.50")).to_be_visible()
    assert axe_findings(desk) == []
    desk.reload()
    expect(desk.get_by_role("combobox", name="Shown")).to_have_text("All pages at once")
    expect(frame.get_by_label("People")).to_be_visible()


def said(page):
    return page.locator(".cx-log")


def test_a_conversation_asks_again_what_was_wrong_and_anew_what_hung_on_a_change(desk, servers):
    visitor = published(desk, servers, presentation="chat").visit()
    box = visitor.get_by_label("Or write it here")
    visitor.get_by_role("button", name="Night of planets").focus()
    visitor.keyboard.press("Enter")
    expect(visitor.get_by_label("Adults")).to_be_focused()
    visitor.keyboard.type("seventy")
    visitor.keyboard.press("Enter")
    expect(said(visitor).get_by_text("Enter a number such as 12.")).to_be_visible()
    expect(visitor.get_by_label("Adults")).to_have_value("seventy")
    visitor.keyboard.press("Control+A")
    visitor.keyboard.type("14")
    visitor.keyboard.press("Enter")
    expect(visitor.get_by_label("Children up to 14")).to_be_focused()
    visitor.keyboard.press("Enter")
    visitor.get_by_label("Name of the group").fill("Harbour school")
    visitor.keyboard.press("Enter")
    # What has choices can be said in words, too.
    box.fill("by balloon")
    box.press("Enter")
    expect(said(visitor).get_by_text("Choose one of the options.")).to_be_visible()
    box.fill("by c")
    box.press("Enter")
    visitor.get_by_label("Number plate of the coach").fill("AL 471")
    visitor.keyboard.press("Enter")
    expect(said(visitor).get_by_text("AL 471")).to_be_visible()
    assert axe_findings(visitor) == []
    # Fewer people are no group: what was asked of one goes, and comes back with more of them.
    visitor.get_by_role("button", name="Change: Adults").click()
    expect(visitor.get_by_label(re.compile("^Adults"))).to_have_value("14")
    visitor.get_by_label(re.compile("^Adults")).fill("2")
    visitor.keyboard.press("Enter")
    expect(said(visitor).get_by_text("Harbour school")).to_have_count(0)
    visitor.get_by_role("button", name="Change: Adults").click()
    visitor.get_by_label(re.compile("^Adults")).fill("15")
    visitor.keyboard.press("Enter")
    expect(said(visitor).get_by_text("Harbour school")).to_be_visible()
    # What was said is there again after a reload, and the question that was open.
    visitor.get_by_label("First name").fill("Ana")
    visitor.wait_for_timeout(500)
    visitor.reload()
    expect(said(visitor).get_by_text("AL 471")).to_be_visible()
    expect(visitor.get_by_label("First name")).to_have_value("Ana")


@pytest.mark.parametrize("width", [320, 1280])
@pytest.mark.parametrize("presentation", ["whole", "single", "chat"])
def test_from_right_to_left_it_is_as_usable(desk, servers, presentation, width):
    visitor = published(desk, servers, presentation=presentation, locale="ar").visit(width=width)
    expect(visitor.locator("html")).to_have_attribute("dir", "rtl")
    expect(visitor.get_by_label("Adults" if presentation == "whole" else "What would you like to see?")).to_be_visible()
    visitor.locator(".cx-submit").last.click()
    assert "\n".join(visitor.evaluate(MISFITS)) == ""
    assert axe_findings(visitor) == []


@pytest.mark.parametrize("width", [320, 1280])
@pytest.mark.parametrize("layout", ["bare", "beside", "behind", "wide"])
def test_every_layout_is_usable_in_light_and_dark_with_all_else_set_to_its_ends(desk, servers, layout, width):
    picture = json.loads((EXAMPLES / "patron_programme.json").read_text(encoding="utf-8"))["brand"]["header_picture"]
    ends = {"text_size": "large", "density": "airy", "choices": "tiles", "labels": "beside", "width": "wide", **DARK}
    others = {"text_size": "small", "density": "tight", "choices": "compact", "width": "narrow"}
    brand = {"layout": layout, "header_picture": picture} | (ends if layout in ("beside", "wide") else others)
    form = Published(desk, servers, visit_document() | {"brand": brand})
    for presentation in ("whole", "single", "chat"):
        visitor = form.visit(width=width, **{"codexa-shown": presentation})
        visitor.locator("form .cx-submit").last.click()
        assert "\n".join(visitor.evaluate(MISFITS)) == ""
        assert axe_findings(visitor) == []
        # What is pressed to go on is in sight, or scrolled to.
        visitor.locator("form .cx-submit").last.scroll_into_view_if_needed()
        expect(visitor.locator("form .cx-submit").last).to_be_in_viewport()


@pytest.mark.parametrize(("locale", "brand"), [("de", {}), ("ar", DARK)], ids=["light", "dark"])
def test_axe_finds_nothing_in_any_way_at_any_width(desk, servers, locale, brand):
    # Its first block is a date, so that the calendar is looked at too.
    day = {"type": "date", "id": "d1", "key": "day", "label": "Which day?", "required": "TRUE"}
    document = json.loads((EXAMPLES / "observation_log.json").read_text(encoding="utf-8"))
    document["pages"][0]["blocks"].insert(0, day)
    form = Published(desk, servers, document | {"locale": locale, "brand": brand, "confirmations": []})
    for width in (320, 1280):
        for way in WAYS:
            visitor = form.visit(width=width, **{"codexa-shown": way})
            visitor.locator(".cx-moment-open").first.click()
            expect(visitor.get_by_role("grid")).to_be_visible()
            assert axe_findings(visitor) == [], (way, width)
            assert visitor.evaluate("document.documentElement.scrollWidth") <= width
            visitor.keyboard.press("Escape")
            visitor.locator(".cx-submit").first.click()
            assert axe_findings(visitor) == [], (way, width, "with what is wrong")
            visitor.close()
