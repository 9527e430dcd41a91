"""A part that a group fills in: made on the bench, found among decisions, handed on and sent back by keyboard."""

import re

from playwright.sync_api import expect

from browser.conftest import axe_findings, expect_usable, import_form, open_mail, saved


def opened_part(page, number):
    """Open a response at its part, as the decisions lead there."""
    page.get_by_role("navigation", name="Places").get_by_role("link", name="Decisions").press("Enter")
    part = page.get_by_role("region", name="To fill in").get_by_role("link", name=f"no. {number}", exact=False).first
    with page.expect_popup() as popup:
        part.press("Enter")
    found = popup.value
    expect(found.get_by_text("Yours to fill in: Reading")).to_be_visible()
    expect(found.get_by_role("button", name="Hand on")).to_be_visible()
    return found


def test_a_reader_fills_in_a_part_and_another_goes_back_to_who_applied(desk, servers):
    reader = opened_part(desk, 15)
    assert axe_findings(reader) == []
    expect(reader.get_by_label("Your e-mail")).not_to_be_editable()
    reader.get_by_role("button", name="Hand on").press("Enter")
    expect(reader.get_by_role("link", name="How well it is thought out")).to_be_visible()
    reader.get_by_role("radio", name="4").first.focus()
    reader.keyboard.press("Space")
    reader.get_by_label("What it should get").fill("100")
    reader.get_by_role("button", name="Hand on").press("Enter")
    expect(reader.get_by_role("heading", name="Thank you. It is with Treasury now.")).to_be_visible()
    reader.close()
    reader = opened_part(desk, 17)
    reader.set_viewport_size({"width": 320, "height": 700})
    reader.get_by_text("Send it back").first.press("Enter")
    reader.get_by_label("What is to be changed?").fill("Which lens do you need?")
    assert axe_findings(reader) == []
    assert reader.evaluate("document.documentElement.scrollWidth") == 320
    reader.get_by_role("button", name="Send it back").press("Enter")
    expect(reader.get_by_role("heading", name="It was sent back.")).to_be_visible()
    open_mail(reader, servers, reader.get_by_role("link", name=re.compile("^Please look at")))
    told = reader.frame_locator("iframe").locator("body")
    expect(told).to_contain_text("Which lens do you need?")
    reader.goto(re.search(r"http://\S+/r/[\w/-]+", told.inner_text())[0])
    expect(reader.get_by_text("Which lens do you need?")).to_be_visible()
    reader.get_by_role("link", name="Change").press("Enter")
    expect(reader.get_by_role("heading", name="What it costs")).to_be_visible()
    # What readers say is not for who applied.
    expect(reader.get_by_text("What our readers say")).to_have_count(0)
    reader.get_by_role("button", name="Hand in").press("Enter")
    expect(reader.get_by_role("heading", name="Your application is here")).to_be_visible()
    reader.close()
    desk.reload()
    opened_part(desk, 17)


def test_a_part_is_made_where_a_field_is_given_to_a_group(desk):
    page = desk
    asked = {"type": "number", "id": "asked", "key": "asked", "label": "Asked for"}
    verdict = {"type": "short_text", "id": "verdict", "key": "verdict", "label": "Verdict"}
    pages = [{"id": "p", "title": "All", "blocks": [asked, verdict]}]
    import_form(page, {"format": 2, "name": "Parts tried", "title": "Parts tried", "pages": pages})
    page.get_by_role("button", name="1.2 Verdict", exact=True).press("Enter")
    inspector = page.get_by_role("complementary", name="Inspector")
    inspector.get_by_role("tab", name="Behaviour").press("Enter")
    inspector.get_by_role("combobox", name="Filled in by").press("Enter")
    page.get_by_role("option", name="a new part for a group …").press("Enter")
    inspector.get_by_role("combobox", name="Filled in by").press("Enter")
    page.get_by_role("option", name="Readers").press("Enter")
    page.keyboard.press("Escape")
    expect(inspector.get_by_role("button", name="1.2 Verdict")).to_be_visible()
    expect(page.get_by_text("filled in by Review")).to_be_visible()
    saved(page)
    expect_usable(page)
