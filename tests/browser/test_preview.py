"""Preview: the draft tried at the width of a device, and why anything in it is as it is."""

import re

from playwright.sync_api import expect

from browser.conftest import area, axe_findings, import_form


def test_a_draft_is_tried_filled_in_and_explained(desk):
    page = desk
    page.get_by_role("link", name="Travelling dome quote", exact=True).first.click()
    page.get_by_role("link", name="Preview").click()
    form = page.frame_locator("iframe[title=Preview]")
    form.get_by_text("A club or village").click()
    block = page.get_by_role("combobox", name="Block, page or figure")
    expect(block).to_have_value("1.1 Who invites us?")
    block.fill("Name of the school")
    page.get_by_role("option", name="1.2 Name of the school").click()
    why = page.get_by_role("complementary", name="Why")
    expect(
        why.get_by_text("1.2 Name of the school is hidden, because 1.1 Who invites us? is A club or village")
    ).to_be_visible()
    form.get_by_text("A school or nursery").click()
    expect(why.get_by_text("1.2 Name of the school is shown")).to_be_visible()
    page.get_by_role("button", name="Fill with sample answers").click()
    expect(form.get_by_label("How far is it")).not_to_have_value("")
    block.fill("Points")
    page.get_by_role("option", name="Points", exact=True).click()
    expect(why.get_by_text("Points is").first).to_be_visible()
    expect(why.get_by_text("host + shows * 2").first).to_be_visible()
    block.fill("The form")
    page.get_by_role("option", name="The form: how it ends").click()
    expect(why.get_by_role("region", name="Confirmation")).to_contain_text("the form ends with")
    page.get_by_role("button", name="Phone · 375").click()
    expect(page.locator("iframe[title=Preview]")).to_have_css("width", "375px")
    assert axe_findings(page) == []
    form.get_by_role("button", name="Next").click()
    expect(form.get_by_role("heading", name="The evening")).to_be_visible()


def test_a_block_in_a_row_is_asked_about_by_clicking_it_and_a_link_brings_values(desk):
    page = desk
    amount = {"id": "amount", "type": "number", "key": "amount", "label": "Amount", "required": 'link.kind = "grant"'}
    kind = {"id": "line", "key": "line", "label": "Line", "blocks": [amount]}
    lines = {"id": "lines", "type": "repeat", "key": "lines", "label": "Lines", "kinds": [kind]}
    pages = [{"id": "p", "title": "Lines", "blocks": [lines]}]
    import_form(page, {"name": "Budget", "title": "Budget", "pages": pages})
    page.get_by_role("link", name="Preview").click()
    form = page.frame_locator("iframe[title=Preview]")
    form.get_by_role("button", name="Add Line").click()
    form.get_by_role("button", name="Add Line").click()
    form.get_by_role("listitem", name="2: Line").get_by_label("Amount").fill("12")
    why = page.get_by_role("complementary", name="Why")
    expect(why.get_by_role("combobox")).to_have_value("1.1.1.1 Amount, row 2")
    expect(why.get_by_role("region", name="Value")).to_contain_text("1.1.1.1 Amount is 12.")
    expect(why.get_by_role("region", name="Must be answered")).to_contain_text("may be left blank")
    page.get_by_role("textbox", name="Link brings").fill("?kind=grant")
    page.keyboard.press("Enter")
    expect(why.get_by_role("region", name="Must be answered")).to_contain_text("must be answered, because")
    expect(form.get_by_role("listitem", name="2: Line").get_by_label("Amount")).to_have_value("12")
    page.get_by_role("button", name="Keep as trial").click()
    area(page, "Trials")
    expect(page.get_by_text("The only trial passes")).to_be_visible()
    expect(page.get_by_role("cell", name="link.kind")).to_be_visible()
    page.get_by_role("button", name="Open in preview").click()
    form.get_by_role("listitem", name="2: Line").get_by_role("button", name="Remove Line").click()
    expect(form.get_by_role("listitem")).to_have_count(1)
    page.get_by_role("button", name="Keep in this trial").click()
    expect(page.get_by_text("“Trial 1” has these answers now")).to_be_visible()
    area(page, "Trials")
    expect(page.get_by_role("heading", name="Something else came out")).to_be_hidden()
    expect(page.get_by_role("cell", name="1 row")).to_be_visible()


def test_samples_asked_for_before_the_form_is_drawn_are_filled_in_once_it_is(desk):
    page = desk
    page.get_by_role("link", name="Travelling dome quote", exact=True).first.click()
    held = []

    def hold(route):
        held.append(route)

    page.route(re.compile(r"/preview/[0-9a-f-]{36}$"), hold)
    page.get_by_role("link", name="Preview").click()
    with page.expect_response(lambda reply: reply.url.endswith("/preview/sample")):
        page.get_by_role("button", name="Fill with sample answers").click()
    expect(page.get_by_role("button", name="Keep as trial")).to_be_enabled()
    assert held
    for route in held:
        route.continue_()
    expect(page.frame_locator("iframe[title=Preview]").get_by_label("How far is it")).not_to_have_value("")
