"""The same form as a page, by pages, and one question at a time: the same response comes of it."""

import json
import re

import pytest
from conftest import visit_document
from playwright.sync_api import expect

from browser.conftest import EXAMPLES, axe_findings, import_form
from browser.making import press_publish
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
LOG = {
    "Observer": ("type", "Ana Bell"),
    "Site": ("choose", "Harbour Deck"),
    "Telescope": ("choose", "20 cm on a pier"),
    "Began": ("type", "2026-02-03T21:00"),
    "Ended": ("type", "2026-02-04T01:00"),
    "4": ("tick", ""),
    "Wind: Some": ("tick", ""),
    "Add an exposure": ("press", ""),
    "Object": ("type", "M 31"),
    "Exposure": ("type", "12.5"),
    "Add Pair of exposures": ("press", ""),
    "Object, in the second row": ("type", "M 33"),
    "First": ("type", "300"),
    "Second": ("type", "20"),
    "Why so different?": ("type", "Clouds came."),
    "3 of 5": ("tick", ""),
}
FORMS = [("plan_a_visit", ANSWERS, 12), ("star_shop_order", SHOP, 8), ("observation_log", LOG, 8)]
WAYS = ("whole", "paged", "single", "chat")
DARK = {"accent": "#8FD3A8", "banner": "#0F2A1C", "ground": "#0A1610", "paper": "#13231A", "ink": "#EAF5EE"}


def published_as(desk, servers, presentation, example="plan_a_visit", **more):
    document = json.loads((EXAMPLES / f"{example}.json").read_text(encoding="utf-8"))
    document |= {"payment": {"on": False}, "follow_ups": [], "confirmations": []}
    document |= more
    name = " ".join([example.replace("_", " "), presentation, *more.values()])
    import_form(desk, document | {"name": name, "presentation": presentation, "progress": ["bar", "count", "left"]})
    press_publish(desk, 1)
    expect(desk.get_by_text("Edition 1 is live.")).to_be_visible()
    visitor = desk.context.new_page()
    visitor.goto(f"{servers.web}/f/alderlight/{name.lower().replace(' ', '-')}")
    return visitor


def fill_in(page, answers=ANSWERS, look=lambda: None):
    """Answer whatever is there, and go on until it is received; `look` is done at each step."""
    done = set()
    for _ in range(80):
        page.wait_for_timeout(400)
        if page.locator(".cx-received").count():
            return
        look()
        waiting = (label for label in answers if label not in done and asked(page, label).is_visible())
        label = next(waiting, None)
        if label is None:
            page.locator(".cx-submit").last.click()
            continue
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


def response_of(page):
    form = page.url.split("/forms/")[1].split("/")[0]
    reply = page.request.get(f"{page.url.split('/forms/')[0]}/api/forms/{form}/responses/1").json()
    return reply["row"]["cells"]


@pytest.mark.parametrize(("example", "answers", "least"), FORMS, ids=[each for each, _, _ in FORMS])
def test_one_response_comes_of_every_way(desk, servers, example, answers, least):
    found = []
    for presentation in WAYS:
        visitor = published_as(desk, servers, presentation, example)
        fill_in(visitor, answers)
        visitor.close()
        found.append(response_of(desk))
        desk.goto(servers.web)
    assert all(each == found[0] for each in found)
    assert len([each for each in found[0].values() if each]) >= least


@pytest.mark.parametrize("width", [320, 1280])
def test_each_question_has_the_view_and_is_usable(desk, servers, width):
    visitor = published_as(desk, servers, "single")
    visitor.set_viewport_size({"width": width, "height": 800})

    def look():
        assert visitor.locator(".cx-page").count() == 1
        assert "\n".join(visitor.evaluate(MISFITS)) == ""

    fill_in(visitor, look=look)


def test_keys_pass_over_choices_enter_goes_on_and_back_keeps_all(desk, servers):
    visitor = published_as(desk, servers, "single")
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
    visitor = published_as(desk, servers, "chat")
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
def test_a_conversation_is_usable_at_each_step(desk, servers, width):
    visitor = published_as(desk, servers, "chat")
    visitor.set_viewport_size({"width": width, "height": 800})

    def look():
        assert "\n".join(visitor.evaluate(MISFITS)) == ""

    fill_in(visitor, look=look)


@pytest.mark.parametrize("width", [320, 1280])
@pytest.mark.parametrize("presentation", ["whole", "single", "chat"])
def test_from_right_to_left_it_is_as_usable(desk, servers, presentation, width):
    visitor = published_as(desk, servers, presentation, locale="ar")
    visitor.set_viewport_size({"width": width, "height": 800})
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
    import_form(desk, visit_document() | {"name": f"Laid out {layout} {width}", "brand": brand})
    press_publish(desk, 1)
    expect(desk.get_by_text("Edition 1 is live.")).to_be_visible()
    visitor = desk.context.new_page()
    visitor.set_viewport_size({"width": width, "height": 800})
    for presentation in ("whole", "single", "chat"):
        visitor.goto(f"{servers.web}/f/alderlight/laid-out-{layout}-{width}?codexa-shown={presentation}")
        visitor.locator("form .cx-submit").last.click()
        assert "\n".join(visitor.evaluate(MISFITS)) == ""
        assert axe_findings(visitor) == []
        # What is pressed to go on is in sight, or scrolled to.
        visitor.locator("form .cx-submit").last.scroll_into_view_if_needed()
        expect(visitor.locator("form .cx-submit").last).to_be_in_viewport()


@pytest.mark.parametrize("brand", [{}, DARK], ids=["light", "dark"])
@pytest.mark.parametrize("locale", ["de", "ar"])
def test_axe_finds_nothing_in_any_way_at_any_width(desk, servers, locale, brand):
    # Its first block is a date, so that the calendar is looked at too.
    day = {"type": "date", "id": "d1", "key": "day", "label": "Which day?", "required": "TRUE"}
    document = json.loads((EXAMPLES / "observation_log.json").read_text(encoding="utf-8"))
    document["pages"][0]["blocks"].insert(0, day)
    name = f"Axe {locale} {'dark' if brand else 'light'}"
    import_form(desk, document | {"name": name, "locale": locale, "brand": brand, "confirmations": []})
    press_publish(desk, 1)
    expect(desk.get_by_text("Edition 1 is live.")).to_be_visible()
    visitor = desk.context.new_page()
    for width in (320, 1280):
        visitor.set_viewport_size({"width": width, "height": 800})
        for way in WAYS:
            visitor.goto(f"{servers.web}/f/alderlight/{name.lower().replace(' ', '-')}?codexa-shown={way}")
            visitor.locator(".cx-moment-open").first.click()
            expect(visitor.get_by_role("grid")).to_be_visible()
            assert axe_findings(visitor) == [], (way, width)
            assert visitor.evaluate("document.documentElement.scrollWidth") <= width
            visitor.keyboard.press("Escape")
            visitor.locator(".cx-submit").first.click()
            assert axe_findings(visitor) == [], (way, width, "with what is wrong")
