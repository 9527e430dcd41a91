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

WAYS = ("whole", "paged", "single", "chat")


def published_as(desk, servers, presentation):
    document = json.loads((EXAMPLES / "plan_a_visit.json").read_text(encoding="utf-8"))
    name = f"Shown {presentation}"
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
        if how == "type":
            asked(page, label).fill(answer)
        elif how == "tick":
            asked(page, label).check()
        else:
            # It may go on by itself.
            asked(page, label).get_by_text(answer, exact=True).click()
    raise AssertionError(f"it was not received; answered were {sorted(done)}")


def asked(page, label):
    return page.locator("form").get_by_label(re.compile(f"^{re.escape(label)}")).first


def response_of(page):
    form = page.url.split("/forms/")[1].split("/")[0]
    reply = page.request.get(f"{page.url.split('/forms/')[0]}/api/forms/{form}/responses/1").json()
    return reply["row"]["cells"]


def test_one_response_comes_of_every_way(desk, servers):
    found = []
    for presentation in WAYS:
        visitor = published_as(desk, servers, presentation)
        fill_in(visitor)
        visitor.close()
        found.append(response_of(desk))
        desk.goto(servers.web)
    assert all(each == found[0] for each in found)
    assert len(found[0]) > 12


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
