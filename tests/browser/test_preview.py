"""Preview: the draft tried at the width of a device, and why anything in it is as it is."""

from playwright.sync_api import expect

from browser.conftest import axe_findings


def test_a_draft_is_tried_filled_in_and_explained(desk):
    page = desk
    page.get_by_role("link", name="Travelling dome quote", exact=True).first.click()
    page.get_by_role("link", name="Preview").click()
    form = page.frame_locator("iframe[title=Preview]")
    form.get_by_text("A club or village").click()
    block = page.get_by_role("combobox", name="Block, page or figure")
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
    page.get_by_role("button", name="Phone · 375").click()
    expect(page.locator("iframe[title=Preview]")).to_have_css("width", "375px")
    assert axe_findings(page) == []
    form.get_by_role("button", name="Next").click()
    expect(form.get_by_role("heading", name="The evening")).to_be_visible()
