"""Every way of presenting with what is hard: three hundred fields, three thousand options, long texts, many rows."""

import pytest
from playwright.sync_api import expect

from browser.conftest import Published
from browser.test_ways_of_presenting import WAYS

LONG = "Tell us in as many words as it takes. " * 52  # about 2,000 signs
OPTIONS = [{"id": f"o{at}", "code": f"c{at}", "label": f"Star {at}"} for at in range(3_000)]
MANY = {
    "name": "Many",
    "title": "Many",
    "pages": [
        {
            "id": "p1",
            "title": "One",
            "blocks": [
                {
                    "type": "dropdown",
                    "id": "star",
                    "key": "star",
                    "label": "Which star?",
                    "help": LONG,
                    "options": OPTIONS,
                },
                {"type": "text", "id": "words", "key": "words", "text": f"<p>{LONG}</p>"},
            ],
        },
        {
            "id": "p2",
            "title": "Two",
            "blocks": [
                {"type": "short_text", "id": f"f{at}", "key": f"f{at}", "label": f"Field {at}"} for at in range(299)
            ],
        },
    ],
}
ROWS = {
    "type": "repeat",
    "id": "rows",
    "key": "rows",
    "label": "Exposures",
    "kinds": [
        {
            "id": "k",
            "key": "exposure",
            "label": "Exposure",
            "add_label": "One more",
            "blocks": [{"type": "short_text", "id": "object", "key": "object", "label": "Object"}],
        }
    ],
}


@pytest.mark.parametrize("way", WAYS)
def test_a_long_form_goes_on_after_a_reload_and_by_back_and_forward(desk, servers, way):
    page = Published(desk, servers, MANY | {"presentation": way}).visit(width=320)
    # A plain list stands there until the one that is searched by typing has come.
    star = page.locator(".cx-searched").get_by_role("combobox", name="Which star?")
    star.fill("Star 2999")
    page.get_by_role("option", name="Star 2999").click()
    assert page.evaluate("document.documentElement.scrollWidth") <= 320
    page.wait_for_timeout(500)
    page.reload()
    expect(star).to_have_value("Star 2999")
    # One question at a time the long text is a step of its own, with what was answered above it.
    before = page.get_by_role("button", name="Change: Which star?") if way == "single" else star
    if way == "single":
        page.locator(".cx-submit").click()
    expect(before).to_be_visible()
    if way in ("paged", "single"):
        page.locator(".cx-submit").click()
        expect(page.get_by_label("Field 0", exact=True)).to_be_visible()
        page.get_by_label("Field 0", exact=True).fill("First")
        page.go_back()
        expect(before).to_be_visible()
        page.go_forward()
        expect(page.get_by_label("Field 0", exact=True)).to_have_value("First")
    if way == "whole":
        expect(page.get_by_label("Field 298")).to_be_visible()
    if way == "chat":
        page.locator(".cx-submit").click()
        expect(page.get_by_role("log")).to_contain_text("Star 2999")


@pytest.mark.parametrize("way", WAYS)
def test_a_form_of_one_question_is_handed_in(desk, servers, way):
    question = {"type": "yes_no", "id": "b1", "key": "clear", "label": "Was it clear?", "required": "TRUE"}
    one = {"name": "One", "title": "One", "pages": [{"id": "p1", "blocks": [question]}]}
    page = Published(desk, servers, one | {"presentation": way, "look_over": False}).visit(width=320)
    page.get_by_role("button", name="Yes").or_(page.get_by_label("Yes")).first.click()
    if page.locator(".cx-submit").count():
        page.locator(".cx-submit").click()
    expect(page.locator(".cx-received")).to_be_visible()


def test_thirty_rows_are_added_in_a_conversation(desk, servers):
    form = {"name": "Thirty", "title": "Thirty", "presentation": "chat", "pages": [{"id": "p1", "blocks": [ROWS]}]}
    published = Published(desk, servers, form)
    page = published.visit(width=320)
    for at in range(30):
        page.get_by_role("button", name="One more", exact=True).last.click()
        page.get_by_label("Object").nth(at).fill(f"M {at}")
    page.locator(".cx-submit").click()
    expect(page.get_by_role("log")).to_contain_text("M 29")
    page.get_by_role("button", name="Send").click()
    expect(page.locator(".cx-received")).to_be_visible()
    assert "M 29" in published.response()["rows"]
