"""A form made, ruled, moved and published with the keyboard alone: nothing here points or clicks."""

import re

import pytest
from playwright.sync_api import expect

from browser.conftest import saved


def tab_to(page, role, name, *, most=90):
    """Press Tab until what is named has the focus."""
    wanted = page.get_by_role(role, name=name).first
    for _ in range(most):
        if wanted.count() and wanted.evaluate("each => each === document.activeElement"):
            return
        page.keyboard.press("Tab")
    pytest.fail(f"{role} {name} is not reached by {most} times Tab")


def command(page, words):
    """Run what the command list finds first."""
    page.keyboard.press("Control+k")
    expect(page.get_by_role("dialog", name="Command list")).to_be_visible()
    page.keyboard.type(words)
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)


def add(page, kind, label):
    page.keyboard.press("a")
    expect(page.get_by_role("combobox", name="Find a kind of block")).to_be_focused()
    page.keyboard.type(kind)
    page.keyboard.press("Enter")
    expect(page.get_by_role("textbox", name="Label", exact=True)).to_be_focused()
    page.keyboard.press("ControlOrMeta+a")
    page.keyboard.type(label)


def test_a_form_is_made_and_published_without_a_mouse(desk):
    page = desk
    tab_to(page, "button", "New form")
    page.keyboard.press("Enter")
    expect(page.get_by_role("menuitem", name="Blank form")).to_be_focused()
    page.keyboard.press("Enter")
    tab_to(page, "textbox", "Name of the form")
    page.keyboard.type("Keyboard walk")
    page.keyboard.press("Enter")
    expect(page.get_by_role("textbox", name="Name of the form")).not_to_be_focused()
    # A key that is pressed before the form has come is nobody's.
    expect(page.get_by_role("combobox", name="Answers on the sheet")).to_be_visible()
    add(page, "number", "Group size")
    page.keyboard.press("Escape")
    add(page, "short text", "Name of the school")

    tab_to(page, "tab", "Content")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")
    tab_to(page, "button", re.compile("^Shown when"))
    page.keyboard.press("Enter")
    expect(page.get_by_role("combobox", name="Field or figure")).to_be_focused()
    page.keyboard.type("group")
    expect(page.get_by_role("option", name="1.1 Group size")).to_be_visible()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    tab_to(page, "textbox", "Value")
    page.keyboard.type("12")
    tab_to(page, "button", "Done")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Ruleshown when 1.1 Group size is 12")).to_be_visible()

    page.keyboard.press("Alt+ArrowUp")
    expect(page.get_by_role("button", name="1.1 Name of the school, Short text")).to_be_visible()
    page.keyboard.press("Control+z")
    expect(page.get_by_role("button", name="1.2 Name of the school, Short text")).to_be_visible()
    page.keyboard.press("Shift+ArrowUp")
    page.keyboard.press("Control+g")
    expect(page.get_by_role("button", name="1.1.2 Name of the school, Short text")).to_be_visible()
    saved(page)

    for area in ("Rules", "Figures", "Brand", "Trials", "History", "Compose"):
        command(page, area)
        expect(page).to_have_url(re.compile(f"/{area.lower()}$"))
    command(page, "1.1.1 group size")
    expect(page.get_by_role("textbox", name="Label", exact=True)).to_have_value("Group size")
    tab_to(page, "button", "Publish edition 1", most=160)
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Publish", exact=True)).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Edition 1 is live.")).to_be_visible()
