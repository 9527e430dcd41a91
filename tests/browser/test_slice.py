"""The whole job: make a small form, publish it, fill it in, work with what came back."""

import csv
import re
import secrets

from conftest import visit_document
from playwright.sync_api import expect

from browser.conftest import area, axe_findings, choose_document, import_form, saved, section, sign_in
from browser.making import press_publish
from codexa.services.demo import PEOPLE


def add(page, kind, label):
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Add a block").click()
    page.get_by_role("combobox", name="Find a kind of block").fill(kind)
    page.keyboard.press("Enter")
    field = page.get_by_role("textbox", name="Label", exact=True)
    expect(field).to_be_focused()
    field.fill(label)


def test_from_a_blank_form_to_a_response(desk, servers, tmp_path):
    page = desk
    page.get_by_role("button", name="New form", exact=True).click()
    page.get_by_role("menuitem", name="Blank form").click()
    page.get_by_role("textbox", name="Name of the form").fill("Dome evening")
    page.keyboard.press("Enter")

    expect(page.get_by_role("textbox", name="Title for visitors")).to_have_value("Dome evening")
    add(page, "number", "Group size")
    page.get_by_role("tab", name="Behaviour").click()
    page.get_by_role("switch", name="Must be answered").check()
    add(page, "short text", "Name of the school")
    page.get_by_role("button", name="always shown; add a rule").click()
    page.get_by_role("button", name="as formula").click()
    formula = page.get_by_role("textbox", name="Formula: shown when")
    formula.press_sequentially("grou")
    option = page.get_by_role("option", name="1.1 Group size")
    expect(option).to_be_visible()
    page.wait_for_timeout(200)  # the editor takes no click on a list that has only just come up
    option.click()
    expect(formula).to_have_text("group_size")
    formula.press_sequentially(" > 12")
    page.get_by_role("button", name="Done").click()
    expect(page.get_by_role("button", name="shown when 1.1 Group size is more than 12")).to_be_visible()

    add(page, "calc", "Price")
    page.get_by_role("button", name="no formula yet; write one").click()
    formula = page.get_by_role("textbox", name="Formula: = is worked out by")
    formula.press_sequentially("group_sise * 4.50")
    expect(
        page.get_by_text("There is no field or figure named group_sise. Did you mean group_size?").first
    ).to_be_visible()
    expect(page.locator(".cm-lintRange-error")).to_have_text("group_sise")
    expect(page.get_by_role("button", name="Publish edition 1")).to_be_disabled()
    formula.press("ControlOrMeta+a")
    formula.press_sequentially("group_size * 4.50")
    page.get_by_role("button", name="Done").click()
    page.get_by_role("tab", name="Answers").click()
    page.get_by_role("combobox", name="Shown as").click()
    page.get_by_role("option", name="Money").click()
    press_publish(page, 1)
    expect(page.get_by_text("Edition 1 is live.")).to_be_visible()
    saved(page)

    with page.expect_popup() as opened:
        page.get_by_role("link", name="Open the live form").click()
    visitor = opened.value
    expect(visitor).to_have_url(re.compile(r"/f/alderlight/dome-evening$"))
    expect(visitor.get_by_label("Name of the school")).to_be_hidden()
    visitor.get_by_label("Group size").fill("20")
    visitor.get_by_label("Name of the school").fill("Harbour School")
    expect(visitor.get_by_label("Price")).to_have_text("€90.00")
    visitor.get_by_role("button", name="Send").click()
    expect(visitor.get_by_role("heading", name="Thank you")).to_be_focused()

    page.get_by_role("link", name="Responses").click()
    page.get_by_role("gridcell", name="Harbour School").click()
    sheet = page.get_by_role("complementary", name="Response 1")
    expect(sheet.get_by_text("€90.00")).to_be_visible()
    page.get_by_role("button", name="Export all …").click()
    page.get_by_label("Options and numbers").click()
    page.get_by_role("option", name="as codes and plain numbers").click()
    page.get_by_label("Mark it as UTF-8").uncheck()
    assert axe_findings(page) == []
    with page.expect_download() as download:
        page.get_by_role("link", name="Download").click()
    download.value.save_as(tmp_path / "responses.csv")
    rows = list(csv.reader((tmp_path / "responses.csv").read_text().splitlines()))
    assert rows[0][3:] == ["Group size", "Name of the school", "Price"]
    assert rows[1][3:] == ["20", "Harbour School", "90.00"]


def test_later_edits_stay_a_draft_until_published_again(desk, servers):
    page = desk
    import_form(page, visit_document() | {"name": "Lecture"})
    press_publish(page, 1)
    expect(page.get_by_text("Edition 1 is live.")).to_be_visible()
    page.get_by_role("textbox", name="Title for visitors").fill("Another title")
    expect(page.get_by_text("Edition 1 live · 1 change since")).to_be_visible()
    visitor = page.context.new_page()
    visitor.goto(f"{servers.web}/f/alderlight/lecture")
    expect(visitor.get_by_role("heading", name="Your visit")).to_be_visible()
    page.get_by_role("button", name="Publish edition 2").click()
    asked = page.get_by_role("dialog", name="Publish edition 2?")
    expect(asked.get_by_text("title was Your visit, is Another title")).to_be_visible()
    assert axe_findings(page) == []
    asked.get_by_role("button", name="Not now").click()
    press_publish(page, 2)
    expect(page.get_by_text("Edition 2 is live.")).to_be_visible()
    expect(page.get_by_role("button", name="Edition 2 published")).to_be_focused()
    visitor.reload()
    expect(visitor.get_by_role("heading", name="Another title")).to_be_visible()

    area(page, "Publish")
    section(page, "Link")
    page.get_by_role("textbox", name="Address").fill("Evenings at the dome")
    page.get_by_role("button", name="Choose", exact=True).click()
    expect(page.get_by_role("group", name="the link")).to_have_text(re.compile("/evenings-at-the-dome$"))
    visitor.goto(f"{servers.web}/f/alderlight/lecture?who=ana")
    expect(visitor).to_have_url(f"{servers.web}/f/alderlight/evenings-at-the-dome?who=ana")


def outline(page):
    return [
        text.strip()
        for text in page.get_by_role("navigation", name="Outline")
        .locator("button[aria-current], li button")
        .all_inner_texts()
    ]


def labels(page):
    found = page.get_by_role("region", name="Sheet and margin").get_by_role("button", name=re.compile(r"^1\.\d+ "))
    names = [each.get_attribute("aria-label") for each in found.all()]
    return [re.sub(r"^1\.\d+ |, .*", "", name) for name in names if name]


def test_blocks_are_moved_duplicated_removed_and_all_is_undone(desk):
    page = desk
    import_form(page, visit_document() | {"name": "Moves"})
    start = ["Show", "People", "School", "E-mail", "Price"]
    expect(page.get_by_role("button", name="1.5 Price, Calculated")).to_be_visible()
    assert labels(page) == start

    page.get_by_role("button", name="1.1 Show, Single choice").click()
    page.keyboard.press("Alt+ArrowDown")
    assert labels(page) == ["People", "Show", "School", "E-mail", "Price"]
    page.keyboard.press("Control+d")
    assert labels(page) == ["People", "Show", "Show (copy)", "School", "E-mail", "Price"]
    page.keyboard.press("Delete")
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    assert labels(page) == start
    page.keyboard.press("Control+Shift+z")
    assert labels(page) == ["People", "Show", "School", "E-mail", "Price"]
    page.keyboard.press("Control+z")

    rows = page.get_by_role("navigation", name="Outline").get_by_role("listitem")
    source, target = rows.filter(has_text="E-mail").bounding_box(), rows.filter(has_text="Show").bounding_box()
    page.mouse.move(source["x"] + 80, source["y"] + 10)
    page.mouse.down()
    page.mouse.move(source["x"] + 80, source["y"] - 20, steps=4)
    page.mouse.move(target["x"] + 80, target["y"] + 8, steps=8)
    page.mouse.up()
    expect(page.get_by_role("button", name="1.1 E-mail, E-mail")).to_be_visible()
    saved(page)
    page.reload()
    expect(page.get_by_role("button", name="1.1 E-mail, E-mail")).to_be_visible()


def test_the_proof_leads_to_what_it_found(desk):
    page = desk
    document = visit_document() | {"name": "Broken"}
    document["pages"][0]["blocks"][0]["shown"] = 'school = "x"'
    document["pages"][0]["blocks"][2]["shown"] = 'show = "deep"'
    document["pages"][0]["blocks"][3]["shown"] = "nobody > 3"
    import_form(page, document)
    page.get_by_role("button", name="Proof: 2 errors, no doubts").click()
    expect(page.get_by_role("menuitem", name=re.compile("circle: 1.1 Show → 1.3 School"))).to_be_visible()
    page.get_by_role("menuitem", name=re.compile("named nobody")).click()
    editor = page.get_by_role("textbox", name="Formula: shown when")
    expect(editor).to_be_focused()
    expect(editor).to_have_text("nobody > 3")


def test_a_renamed_key_is_renamed_in_formulas(desk):
    page = desk
    import_form(page, visit_document() | {"name": "Keys"})
    page.get_by_role("button", name="1.2 People, Number").click()
    page.get_by_role("textbox", name="Key").fill("guests")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="= show * guests")).to_be_visible()
    page.get_by_role("textbox", name="Key").fill("show")
    page.keyboard.press("Enter")
    expect(page.get_by_text("another one has the key show")).to_be_visible()


def test_options_are_pasted_from_a_spreadsheet(desk):
    page = desk
    import_form(page, visit_document() | {"name": "Options"})
    page.get_by_role("button", name="1.1 Show, Single choice").click()
    page.get_by_role("tab", name="Answers").click()
    page.evaluate(
        """() => {
        const data = new DataTransfer();
        data.setData("text/plain", "Comets\\t3,50\\nMeteors\\t4");
        const field = document.querySelector('[aria-label="New option"]');
        field.dispatchEvent(new ClipboardEvent("paste", {clipboardData: data, bubbles: true, cancelable: true}));
    }"""
    )
    expect(page.get_by_role("textbox", name="Label of option 4")).to_have_value("Meteors")
    expect(page.get_by_role("textbox", name="Option 3 counts as")).to_have_value("3.50")
    expect(page.get_by_role("textbox", name="Code of option 3")).to_have_value("comets")


def test_two_people_on_one_draft_lose_nothing(desk, servers, browser):
    page = desk
    import_form(page, visit_document() | {"name": "Together"})
    expect(page.get_by_role("button", name="1.2 People, Number")).to_be_visible()
    other = browser.new_context().new_page()
    sign_in(other, servers, PEOPLE[1])
    other.goto(page.url)

    def relabel(who, old, new):
        who.get_by_role("button", name=re.compile(rf"^1\.\d {old},")).click()
        who.get_by_role("textbox", name="Label", exact=True).fill(new)

    # Neither hears of the other before saving.
    page.route("**/presence", lambda route: route.abort())
    relabel(other, "People", "Guests")
    saved(other)
    relabel(page, "School", "Name of the school")
    expect(page.get_by_text("theirs and yours are both kept")).to_be_visible()
    saved(page)
    expect(page.get_by_role("button", name="1.2 Guests, Number")).to_be_visible()

    relabel(other, "Guests", "Visitors")
    saved(other)
    relabel(page, "Guests", "Humans")
    asked = page.get_by_role("alert").filter(has_text="Jonas Lindqvist and you both changed 1 thing")
    whose = asked.get_by_role("group", name="Whose label of 1.2 Humans stays")
    expect(whose.get_by_role("button")).to_have_text(["Yours: “Humans”", "Jonas Lindqvist: “Visitors”"])
    # Away from the field that has values to insert.
    asked.get_by_role("button", name="Go on like this").focus()
    assert axe_findings(page) == []
    page.keyboard.press("Enter")
    saved(page)
    other.reload()
    expect(other.get_by_role("button", name="1.2 Humans, Number")).to_be_visible()
    expect(other.get_by_role("button", name="1.3 Name of the school, Short text")).to_be_visible()
    other.context.close()


def test_the_draft_survives_a_server_that_is_away(desk):
    page = desk
    import_form(page, visit_document() | {"name": "Away"})
    expect(page.get_by_role("button", name="1.2 People, Number")).to_be_visible()
    page.route("**/draft", lambda route: route.abort())
    page.get_by_role("textbox", name="Title for visitors").fill("Typed while away")
    expect(page.get_by_text("Not saved yet; trying again")).to_be_visible()
    page.unroute("**/draft")
    saved(page)
    page.reload()
    expect(page.get_by_role("textbox", name="Title for visitors")).to_have_value("Typed while away")


def test_websites_that_may_show_a_form_are_named_and_stay(desk):
    page = desk
    import_form(page, visit_document() | {"name": "Framed"})
    publish = page.get_by_role("navigation", name="Areas").get_by_role("link", name="Publish")
    publish.click()
    section(page, "On a website")
    sites = page.get_by_role("textbox", name="Websites, one a line")
    sites.fill("ftp://alderlight.example.org")
    page.get_by_role("button", name="Save the websites").click()
    expect(page.get_by_text('"ftp://alderlight.example.org" is no website address;')).to_be_visible()
    sites.fill("alderlight.example.org/visit\n http://harbour.example.org:8080")
    page.get_by_role("button", name="Save the websites").click()
    expect(page.get_by_role("button", name="Saved")).to_be_disabled()
    page.get_by_role("link", name="Compose").click()
    publish.click()
    section(page, "On a website")
    expect(sites).to_have_value("https://alderlight.example.org\nhttp://harbour.example.org:8080")
    page.reload()
    expect(sites).to_have_value("https://alderlight.example.org\nhttp://harbour.example.org:8080")


def test_deleting_on_the_desk_is_undone(desk):
    page = desk
    import_form(page, visit_document() | {"name": "Short-lived"})
    page.get_by_role("link", name="Codexa: to the desk").click()
    row = page.get_by_role("row").filter(has_text="Short-lived")
    row.get_by_role("button", name="What to do with Short-lived").click()
    page.get_by_role("menuitem", name="Delete").click()
    expect(row).to_have_count(0)
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(row).to_have_count(1)
    row.get_by_role("button", name="What to do with Short-lived").click()
    page.get_by_role("menuitem", name="Duplicate").click()
    expect(page.get_by_role("row").filter(has_text="Short-lived (copy)")).to_be_visible()


def test_many_forms_are_ticked_labelled_found_deleted_and_brought_back(desk):
    page = desk
    moon = f"Moon {secrets.token_hex(4)}"
    for name in (f"{moon} walk", f"{moon} talk"):
        import_form(page, visit_document() | {"name": name})
        page.get_by_role("link", name="Codexa: to the desk").click()
        page.get_by_label(f"Tick {name}").wait_for()
    page.get_by_label("Find a form").fill(moon.lower())
    expect(page.get_by_role("row")).to_have_count(3)
    page.get_by_label("Tick all of these forms").check()
    chosen = page.get_by_role("group", name="With the forms that are ticked")
    expect(chosen.get_by_role("status")).to_have_text("2 forms ticked")
    chosen.get_by_role("button", name="Label").press("Enter")
    page.get_by_role("combobox", name="Label", exact=True).fill(f"{moon} lit")
    page.get_by_role("button", name="Put it on").press("Enter")
    expect(page.get_by_role("row").filter(has_text=f"{moon} lit")).to_have_count(2)
    assert axe_findings(page) == []
    page.get_by_role("button", name="Keep this filter").press("Enter")
    page.get_by_label("Called").fill(moon)
    page.keyboard.press("Enter")
    expect(page.get_by_role("group", name="Filters you keep")).to_contain_text(moon)
    # Nothing hangs on them: they go at once, and lie in the bin.
    chosen.get_by_role("button", name="Delete").press("Enter")
    expect(page.get_by_text("2 forms lie in the bin now.")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Bin")).press("Enter")
    page.get_by_role("button", name=f"Bring back {moon} talk").press("Enter")
    expect(page.get_by_role("button", name=f"Bring back {moon} talk")).to_have_count(0)
    page.get_by_role("button", name=moon, exact=True).press("Enter")
    expect(page.get_by_role("row").filter(has_text=f"{moon} talk")).to_be_visible()
    page.get_by_role("button", name="Show all").click()
    # What visitors find is not deleted with one press.
    row = page.get_by_role("row", name=re.compile("^Tick Plan a visit "))
    row.get_by_role("button", name="What to do with Plan a visit").click()
    page.get_by_role("menuitem", name="Delete").click()
    asked = page.get_by_role("dialog", name="Delete “Plan a visit”?")
    expect(asked).to_contain_text("edition 1 is live")
    assert axe_findings(page) == []
    asked.get_by_role("button", name="Leave it").press("Enter")
    expect(row).to_be_visible()


def test_anything_is_found_from_anywhere_and_leads_to_its_place(desk):
    page = desk
    expect(page.get_by_role("row", name=re.compile("^Tick Plan a visit "))).to_be_visible()
    page.keyboard.press("Control+k")
    page.keyboard.type("coach plate")
    page.get_by_role("option", name="Number plate of the coach").first.wait_for()
    page.keyboard.press("Enter")
    expect(page.get_by_role("textbox", name="Label", exact=True)).to_have_value("Number plate of the coach")
    page.keyboard.press("Control+k")
    page.keyboard.type("small grant")
    page.get_by_role("option", name="Small grant").first.wait_for()
    page.keyboard.press("Enter")
    expect(page.get_by_role("textbox", name="Name of the form")).to_have_value(re.compile("^Small grant"))


def test_an_import_that_is_no_form_says_why(desk):
    choose_document(desk, {"name": "x", "colour": "red"})
    expect(desk.get_by_text("colour: this key is unknown here")).to_be_visible()
    document = visit_document()
    document["pages"][0]["blocks"][1]["minimum"] = "many"
    document["pages"][0]["blocks"][0]["options"][1]["counts_as"] = "dear"
    choose_document(desk, document)
    told = desk.get_by_role("alert").filter(has_text="1.2 People, minimum")
    expect(told).to_contain_text("1.1 Show, options 2 counts as")


def test_a_viewer_sees_the_form_and_can_change_nothing(page, servers):
    sign_in(page, servers, PEOPLE[2])
    expect(page.get_by_role("button", name="New form", exact=True)).to_be_hidden()
    page.get_by_role("link", name="Plan a visit", exact=True).first.click()
    expect(page.get_by_text("Only to look at")).to_be_visible()
    page.get_by_role("button", name="1.2 Adults, Number").click()
    expect(page.get_by_role("textbox", name="Label", exact=True)).to_be_disabled()
    expect(page.get_by_role("link", name="Responses")).to_be_hidden()


def test_signing_in_and_out(page, servers):
    page.goto(servers.web)
    page.get_by_label("E-mail").fill(PEOPLE[0][1])
    page.get_by_label("Password").fill("wrong")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_text("E-mail and password don't belong together")).to_be_visible()
    sign_in(page, servers)
    page.get_by_role("button", name="MO: you, Mira Okafor").click()
    page.get_by_role("menuitem", name="Sign out").click()
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()
