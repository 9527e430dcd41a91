"""A walk over every area of the workbench: read by axe, and never without the focus after something was pressed."""

import json
import os
import re

import pytest
from conftest import EXAMPLES
from playwright.sync_api import expect

from browser.conftest import area, expect_usable, import_form, section

AREAS = ("Compose", "Rules", "Figures", "Brand", "Payment", "Follow-ups", "Trials", "Publish", "Responses", "History")


def opened(page, form="Plan a visit"):
    page.get_by_role("link", name=form, exact=True).first.click()
    expect(page.get_by_role("navigation", name="Areas")).to_be_visible()


@pytest.mark.parametrize("name", AREAS)
def test_every_area_is_usable(desk, name):
    page = desk
    opened(page)
    # What is out of sight is not laid out, and lies over one another for who asks where it is.
    page.set_viewport_size({"width": 1280, "height": 2600})
    area(page, name)
    # Until it has come, an area has no heading yet; the form that it shows beside itself has one of its own.
    expect(page.get_by_role("heading", level=1).first).to_be_visible()
    page.wait_for_load_state("networkidle")
    expect_usable(page)


@pytest.mark.parametrize("name", ["Link", "On a website", "Who and when", "Links with values"])
def test_every_section_of_publish_is_usable(desk, name):
    page = desk
    opened(page, "Talk feedback")
    page.set_viewport_size({"width": 1280, "height": 2600})
    area(page, "Publish")
    section(page, name)
    expect(page.get_by_role("heading", name=name, level=2)).to_be_visible()
    if name == "Links with values":
        page.get_by_role("button", name="talks.csv").click()
        expect(page.get_by_role("link", name="XLSX")).to_be_visible()
    page.wait_for_load_state("networkidle")
    expect_usable(page)


def has_focus(page):
    """Whether something has the focus once all that a press brings is there."""
    found = []
    for _ in range(20):
        page.wait_for_timeout(150)
        found.append(page.evaluate("document.activeElement !== document.body"))
        if found[-2:] == [True, True]:
            return True
    return False


def press(page, button):
    button.focus()
    page.keyboard.press("Enter")


def test_the_focus_stays_where_the_work_goes_on(desk):
    page = desk
    press(page, page.get_by_role("button", name="New form", exact=True))
    page.keyboard.press("Enter")
    page.get_by_role("textbox", name="Name of the form").fill("Walked")
    page.keyboard.press("Enter")
    expect(page.get_by_role("textbox", name="Title for visitors")).to_be_visible()
    lost = [] if has_focus(page) else ["a new form"]

    def then(what, act):
        act()
        if not has_focus(page):
            lost.append(what)

    def add(kind):
        page.keyboard.press("Escape")
        press(page, page.get_by_role("button", name="Add a block"))
        page.get_by_role("combobox", name="Find a kind of block").fill(kind)
        page.keyboard.press("Enter")
        expect(page.get_by_role("textbox", name="Label", exact=True)).to_be_focused()

    for kind in ("Single choice", "Rows", "Short text"):
        add(kind)
    then("Escape", lambda: page.keyboard.press("Escape"))
    then("Duplicate", lambda: press(page, page.get_by_role("button", name="Duplicate")))
    then("Remove", lambda: press(page, page.get_by_role("button", name="Remove", exact=True)))
    then("Remove again", lambda: press(page, page.get_by_role("button", name="Remove", exact=True)))
    then("Move up", lambda: press(page, page.get_by_role("button", name="Move up")))
    then("Undo", lambda: press(page, page.get_by_role("button", name="Undo")))
    page.get_by_role("button", name=re.compile("Single choice")).first.click()
    then("a rule", lambda: press(page, page.get_by_role("button", name=re.compile("always shown; add a rule")).first))
    then("as formula", lambda: press(page, page.get_by_role("button", name="as formula")))
    then("Done", lambda: press(page, page.get_by_role("button", name="Done")))
    page.keyboard.press("Control+k")
    then("Ctrl+K and Escape", lambda: page.keyboard.press("Escape"))
    page.keyboard.press("Control+k")
    page.get_by_role("combobox").last.fill("Brand")
    then("Ctrl+K to an area", lambda: page.keyboard.press("Enter"))
    then("?", lambda: page.keyboard.press("?"))
    then("? closed", lambda: page.keyboard.press("Escape"))
    area(page, "Compose")
    then("+ Page", lambda: press(page, page.get_by_role("button", name="Add a page")))
    then("+ Confirmation", lambda: press(page, page.get_by_role("button", name="Add a confirmation")))
    then("Remove a confirmation", lambda: press(page, page.get_by_role("button", name="Remove", exact=True)))
    assert "\n".join(lost) == ""


# Of each area; CODEXA_PRESSES=30 presses all that there is.
MOST_PRESSED = int(os.environ.get("CODEXA_PRESSES", "3"))
# What asks the system for something, or leads to another page.
LEADS_AWAY = re.compile("Print|Save as|Download|Open in preview|Rehears|as text|compared")
NAMES = "all => all.map(each => (each.ariaLabel || each.textContent || each.title).trim())"


def test_the_focus_is_on_something_whatever_is_pressed_in_any_area(desk):
    page = desk
    quote = json.loads((EXAMPLES / "travelling_dome_quote.json").read_text(encoding="utf-8"))
    import_form(page, quote | {"name": "Pressed"})
    lost, pressed = [], 0
    for name in ("Compose", "Rules", "Figures", "Brand", "Follow-ups", "Trials", "Publish", "History"):
        seen = set()
        area(page, name)
        page.wait_for_load_state("networkidle")
        while len(seen) < MOST_PRESSED:
            buttons = page.get_by_role("main").locator("button:enabled:visible")
            named = [re.sub(r"\d+", "#", each) for each in buttons.evaluate_all(NAMES)]
            at = next((at for at, each in enumerate(named) if each not in seen and not LEADS_AWAY.search(each)), None)
            if at is None:
                break
            seen.add(named[at])
            press(page, buttons.nth(at))
            if not has_focus(page):
                lost.append(f"{name}: {named[at]}")
            for _ in range(2):
                page.keyboard.press("Escape")
            area(page, name)
        pressed += len(seen)
    assert pressed >= 16
    assert "\n".join(lost) == ""
