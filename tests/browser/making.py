"""What a specialist does in the workbench, in words of the job: no JSON, and no key typed from memory."""

import re

from playwright.sync_api import expect

from browser.conftest import area, saved


def paste_form(page, name, outline):
    """Make a form of pasted lines; leaves the page in its workbench."""
    page.get_by_role("button", name="New form", exact=True).click()
    page.get_by_role("menuitem", name="From pasted text").click()
    page.get_by_role("textbox", name="Name of the form").fill(name)
    page.get_by_role("textbox", name="Outline of the form").fill(outline)
    status = page.get_by_role("region", name="What it will make").get_by_role("status")
    expect(status).to_have_text(re.compile(r"^\d+ lines understood$"))
    page.get_by_role("button", name="Make the form").click()
    page.wait_for_url("**/compose")
    page.get_by_role("textbox", name="Title for visitors").fill(name)


def select(page, part):
    """Select a part in the outline by what it is called there."""
    named = re.compile(rf"^[C\d.]+ .*{re.escape(part)}")
    page.get_by_role("navigation", name="Outline").get_by_role("button", name=named).first.click()


def note(page, words):
    """Open a note of what is selected."""
    page.get_by_role("button", name=words).first.click()


def done(page):
    page.get_by_role("button", name="Done", exact=True).click()


def rows(page, *conditions):
    """Write an open condition as rows: (field, what is said of it, value), without a value where none is wanted."""
    values = 0
    for at, (field, said, *value) in enumerate(conditions):
        if at:
            page.get_by_role("button", name="+ row", exact=True).click()
        name = page.get_by_role("combobox", name="Field or figure").nth(at)
        name.fill(field)
        page.get_by_role("option", name=re.compile(re.escape(field))).first.click()
        page.get_by_role("combobox", name="What is said of it").nth(at).click()
        page.get_by_role("option", name=said, exact=True).click()
        for each in value:
            box = page.get_by_label(re.compile(r"^Value")).nth(values)
            if box.get_attribute("role") == "combobox":
                box.click()
                page.get_by_role("option", name=each, exact=True).click()
            else:
                box.fill(each)
            values += 1


def any_of(page):
    """Let any of the open rows be enough."""
    page.get_by_role("combobox", name="How many of the rows must hold").click()
    page.get_by_role("option", name="any of these holds").click()


def show_when(page, part, *conditions):
    """Show a part only when all these hold."""
    select(page, part)
    note(page, "always shown; add a rule")
    rows(page, *conditions)
    done(page)


def formula(page, setting, *pieces):
    """Write an open formula; a piece in angle brackets is what a field is called, picked from the list it brings up."""
    editor = page.get_by_role("textbox", name=f"Formula: {setting}")
    editor.press("ControlOrMeta+a")
    editor.press("Delete")
    for piece in pieces:
        if not piece.startswith("<"):
            editor.press_sequentially(piece)
            continue
        called = piece.strip("<>")
        editor.press_sequentially(called.rstrip("?"))
        option = page.locator(".cm-tooltip-autocomplete li").filter(has_text=called).first
        expect(option).to_be_visible()
        page.wait_for_timeout(200)  # the editor takes no click on a list that has only just come up
        option.click()


def figure(page, kind, name, *, shown_as=None, visitors=True):
    """Add a figure of that kind."""
    page.get_by_role("button", name="Add a figure").click()
    page.get_by_role("menuitem", name=kind).click()
    field = page.get_by_role("textbox", name="Name", exact=True)
    expect(field).to_be_focused()
    field.fill(name)
    if shown_as:
        choose(page, "Shown as", shown_as)
    if visitors:
        page.get_by_role("switch", name="Visitors may see it").check()


def bands(page, *table):
    """Make bands: where each begins, its name, its value."""
    for at, (start, name, value) in enumerate(table):
        page.get_by_role("button", name="Add a band").click()
        page.get_by_role("textbox", name=f"Band {at + 1} begins at; empty for everything below the next").fill(start)
        page.get_by_role("textbox", name=f"Name of band {at + 1}").fill(name)
        page.get_by_role("textbox", name=f"Value of band {at + 1}").fill(value)


def question(page, field):
    """Let a field give points to the figure that is open; returns its part of the screen."""
    page.get_by_role("combobox", name="Add a field that counts").click()
    page.get_by_role("option", name=re.compile(re.escape(field))).click()
    return page.get_by_role("group", name=re.compile(re.escape(field)))


def choose(page, name, option):
    page.get_by_role("combobox", name=name, exact=True).first.click()
    page.get_by_role("option", name=option, exact=True).click()


def type_text(page, box, *pieces):
    """Type into a box that takes values; a piece in angle brackets is picked from the list that { opens."""
    box.click()
    box.press("ControlOrMeta+End")
    for piece in pieces:
        if not piece.startswith("<"):
            page.keyboard.type(piece)
            continue
        page.keyboard.type("{")
        search = page.get_by_role("combobox", name="Value to insert")
        expect(search).to_be_focused()
        search.fill(piece.strip("<>"))
        search.press("Enter")
        expect(search).to_be_hidden()


def paragraph(page, at, *pieces):
    """Add a text to the open confirmation."""
    page.get_by_role("button", name="Add a text").click()
    type_text(page, page.get_by_role("textbox", name=f"Text of paragraph {at}", exact=True), *pieces)


def press_publish(page, edition):
    """Publish as people do who have read what it changes."""
    page.get_by_role("button", name=f"Publish edition {edition}").click()
    asked = page.get_by_role("dialog", name=f"Publish edition {edition}?")
    asked.get_by_role("button", name="Publish", exact=True).click()


def publish(page, doubts="no doubts"):
    """Publish, with nothing that the proof finds but these doubts; returns the public form."""
    saved(page)
    expect(page.get_by_role("button", name=re.compile("^Proof: "))).to_have_text(re.compile(f"no errors, {doubts}"))
    press_publish(page, 1)
    expect(page.get_by_text("Edition 1 is live.")).to_be_visible()
    with page.expect_popup() as opened:
        page.get_by_role("link", name="Open the live form").click()
    return opened.value


def fill_in(visitor, answers):
    """Fill in fields by their labels: a choice by its words, several as a list, anything else as it is typed."""
    for label, value in answers.items():
        labelled = visitor.get_by_label(re.compile(f"^{re.escape(label)}")).first
        expect(labelled).to_be_visible()
        group = visitor.get_by_role("radiogroup", name=label)
        if isinstance(value, list):
            for each in value:
                visitor.get_by_role("group", name=label).get_by_role("checkbox", name=each, exact=True).check()
        elif group.count():
            group.get_by_role("radio", name=value, exact=True).check()
        else:
            labelled.fill(value)


def press(visitor, button):
    visitor.get_by_role("button", name=button, exact=True).click()


def go_to(page, name):
    area(page, name)
