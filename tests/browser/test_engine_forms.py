"""The examples as visitors fill them in: pages, rows, files, every type of field."""

import json
import re
from urllib.parse import urlsplit

import psycopg
import pytest
from playwright.sync_api import expect

from browser.conftest import axe_findings
from codexa.core.fields import BLOCK_TYPES

PNG = bytes.fromhex(
    "89504e470d0a1a0a0000000d4948445200000001000000010802000000907753de0000000c49444154789c63f8cfc0000003010100c9fe92ef0000000049454e44ae426082"
)


@pytest.fixture
def visit(page, servers):
    page.goto(f"{servers.web}/f/alderlight/plan-a-visit")
    page.get_by_text("Deep sky").click()
    page.get_by_label("Adults").fill("2")
    return page


def on(page, segment):
    expect(page).to_have_url(re.compile(rf"/f/alderlight/[a-z-]+/{segment}$"))


def requests_to(page, ending):
    seen = []

    def see(request):
        if urlsplit(request.url).path.endswith(ending):
            seen.append(json.loads(request.post_data))

    page.on("request", see)
    return seen


def latest(servers, name):
    with psycopg.connect(servers.database) as connection:
        query = """SELECT answers, computed, path, confirmation FROM response JOIN form ON form.id = form_id
            WHERE name = %s ORDER BY received_at DESC, number DESC LIMIT 1"""
        return connection.execute(query, (name,)).fetchone()


def test_pages_have_addresses_and_the_browsers_back_works(visit):
    on(visit, "your-visit")
    visit.get_by_role("button", name="Next: how we reach you").click()
    on(visit, "how-we-reach-you")
    expect(visit.get_by_role("region", name="How we reach you")).to_be_focused()
    expect(visit.get_by_label("By e-mail")).to_be_checked()
    visit.go_back()
    on(visit, "your-visit")
    expect(visit.get_by_label("Adults")).to_have_value("2")
    visit.go_forward()
    on(visit, "how-we-reach-you")
    visit.get_by_role("button", name="Back").click()
    on(visit, "your-visit")


def test_a_page_can_not_be_left_with_errors_nor_reached_by_its_address(visit, servers):
    with visit.expect_response(lambda reply: "/state" in reply.url):
        visit.get_by_label("Adults").fill("61")
    # What is wrong is known by now: leaving the field moves the button that is being pressed.
    expect(visit.get_by_label("Name of the group")).to_be_visible()
    visit.get_by_role("button", name="Next: how we reach you").click()
    summary = visit.get_by_role("group", name="Some answers need another look.")
    expect(visit.get_by_label("Adults")).to_be_focused()
    expect(summary).to_contain_text("Adults: Enter 60 or less.")
    on(visit, "your-visit")
    visit.goto(f"{servers.web}/f/alderlight/plan-a-visit/look-it-over")
    on(visit, "your-visit")
    expect(visit.get_by_label("Adults")).to_be_visible()


def test_unfinished_answers_survive_a_reload_and_can_be_thrown_away(visit):
    visit.get_by_role("button", name="Next: how we reach you").click()
    visit.get_by_label("First name").fill("Ingrid")
    visit.wait_for_timeout(500)
    visit.reload()
    on(visit, "how-we-reach-you")
    expect(visit.get_by_label("First name")).to_have_value("Ingrid")
    visit.get_by_role("button", name="Start again").click()
    expect(visit.get_by_label("Adults")).to_have_value("")
    visit.reload()
    expect(visit.get_by_text("We kept what you had filled in")).to_have_count(0)


def test_only_what_changed_is_sent_back_and_a_quiet_field_asks_nothing(visit):
    asked = requests_to(visit, "/state")

    def about(block):
        # What was answered before the last reply came is asked about together.
        return lambda reply: "/state" in reply.url and block in (reply.request.post_data_json["changed"] or [])

    with visit.expect_response(about("b2adults")):
        visit.get_by_label("Adults").fill("3")
    with visit.expect_response(about("b3child")) as replied:
        visit.get_by_label("Children").fill("1")
        visit.get_by_label("Children").blur()
    blocks = replied.value.json()["state"]["blocks"]
    assert "b3child" in blocks
    assert "c5day" not in blocks
    visit.get_by_label("Children").fill("12")
    visit.get_by_label("On foot").check()
    visit.get_by_label("Name of the group").fill("Harbour School")
    visit.wait_for_timeout(600)
    count = len(asked)
    visit.get_by_label("Name of the group").fill("Harbour School, class 5b")
    visit.wait_for_timeout(600)
    assert len(asked) <= count + 1


def test_the_confirmation_follows_the_answers(visit, servers):
    visit.get_by_label("Children").fill("12")
    visit.get_by_label("Name of the group").fill("Harbour School")
    visit.get_by_role("button", name="Next: how we reach you").click()
    visit.get_by_label("First name").fill("Ingrid")
    visit.get_by_label("Last name").fill("Haugen")
    visit.get_by_role("textbox", name="E-mail").fill("ingrid@example.org")
    visit.get_by_label("Which day suits you?").fill(visit.evaluate(THURSDAY))
    visit.get_by_role("button", name="Next").click()
    on(visit, "look-it-over")
    expect(visit.get_by_text("Ingrid Haugen, you would like to see")).to_contain_text("12 children more")
    visit.get_by_role("checkbox", name="House rules").check()
    visit.get_by_role("button", name="Send my plan").click()
    expect(visit.get_by_role("heading", name="Your group visit is planned")).to_be_focused()
    expect(visit.get_by_text(re.compile(r"Your number is \d+"))).to_be_visible()
    answers, _, path, confirmation = latest(servers, "Plan a visit")
    assert answers["c1name"] == {"first": "Ingrid", "last": "Haugen"}
    assert (path, confirmation) == (["visit", "you", "look"], "k1group")


THURSDAY = """() => { const day = new Date(); day.setDate(day.getDate() + 7 + ((11 - day.getDay()) % 7));
    return day.toISOString().slice(0, 10) }"""


def test_the_second_part_opens_from_a_score_on(page, servers):
    page.goto(f"{servers.web}/f/alderlight/northern-sky-quiz")
    page.get_by_role("button", name="Begin").click()
    for answer in ("Polaris", "The Swan", "Spring", "Neptune"):
        page.get_by_label(answer, exact=True).check()
    page.get_by_label("How many moons").fill("4")
    page.get_by_role("button", name="Done with these").click()
    expect(page.get_by_text("That is partly right.")).to_have_count(2)
    page.get_by_role("button", name="Done with these").click()
    on(page, "your-name")
    page.get_by_role("button", name="Start again").or_(page.get_by_role("button", name="Back")).first.click()
    expect(page.get_by_label("Late summer")).to_be_disabled()


def test_the_second_part_opens_with_enough_points(page, servers):
    page.goto(f"{servers.web}/f/alderlight/northern-sky-quiz")
    page.get_by_role("button", name="Begin").click()
    for answer in ("Polaris", "The Swan", "Late summer", "Venus"):
        page.get_by_label(answer, exact=True).check()
    page.get_by_label("How many moons").fill("4")
    for _ in range(2):
        page.get_by_role("button", name="Done with these").click()
        page.wait_for_timeout(300)
    on(page, "second-part")
    expect(page.get_by_text("4.5 of 7 points")).to_be_visible()


def test_a_quiz_tells_what_was_right_when_a_page_is_left_and_not_before(page, servers):
    told = []
    page.on("response", lambda reply: told.append(reply.text()) if "/state" in reply.url else None)
    page.goto(f"{servers.web}/f/alderlight/northern-sky-quiz")
    assert "binoculars" not in page.content()
    page.get_by_role("button", name="Begin").click()
    for answer in ("Polaris", "The Swan", "Late summer", "Neptune", "Venus"):
        page.get_by_label(answer, exact=True).check()
    page.get_by_label("How many moons").fill("4")
    expect(page.get_by_text("That is right.")).to_have_count(0)
    assert not any("feedback" in each for each in told)
    page.get_by_role("button", name="Done with these").click()
    expect(page.get_by_text("Polaris it is, less than a degree from the pole.")).to_be_visible()
    # It stands beside its answer, has the focus, and the answer stays as it is.
    assert page.evaluate("document.activeElement.dataset.outcome") == "right"
    expect(page.get_by_text("That is partly right.")).to_have_count(1)
    expect(page.get_by_text("Right: The Great Bear")).to_be_visible()
    expect(page.get_by_text("Neptune needs at least good binoculars.")).to_be_visible()
    expect(page.get_by_label("Vega")).to_be_disabled()
    page.reload()
    expect(page.get_by_text("Right: The Great Bear")).to_be_visible()
    page.get_by_role("button", name="Done with these").click()
    on(page, "your-name")


def test_rows_of_mixed_kinds_are_added_moved_and_kept_in_their_order(page, servers):
    page.goto(f"{servers.web}/f/alderlight/observation-log")
    page.get_by_label("Observer").fill("Jonas Lindqvist")
    page.get_by_label("Site").select_option("Harbour Deck")
    expect(page.get_by_label("Telescope").get_by_role("option", name="20 cm on a pier")).to_be_attached()
    page.get_by_label("Telescope").select_option("20 cm on a pier")
    page.get_by_label("Began").fill("2026-11-20T19:00")
    page.get_by_label("Ended").fill("2026-11-20T23:00")
    page.get_by_role("radiogroup", name="Seeing").get_by_role("radio", name="5, still").check()
    page.get_by_role("button", name="Add an exposure").click()
    first = page.get_by_role("listitem", name="1: Single exposure")
    first.get_by_label("Object").fill("M 31")
    first.get_by_role("textbox", name="Exposure").fill("90.5")
    page.get_by_role("button", name="Add Pair of exposures").click()
    pair = page.get_by_role("listitem", name="2: Pair of exposures")
    pair.get_by_label("Object").fill("M 45")
    pair.get_by_label("First").fill("30")
    pair.get_by_label("Second").fill("300")
    expect(pair.get_by_label("Together")).to_have_text("330")
    pair.get_by_label("Why so different?").fill("Clouds")
    expect(page.get_by_label("Exposed in all")).to_have_text("7 min 1 s")
    first.get_by_label("Photo").set_input_files({"name": "m31.png", "mimeType": "image/png", "buffer": PNG})
    expect(first.get_by_role("button", name="Remove m31.png")).to_be_visible()
    first.get_by_label("Photo").set_input_files({"name": "lie.png", "mimeType": "image/png", "buffer": b"<html>"})
    expect(first.get_by_role("alert")).to_contain_text(
        "lie.png is of another kind than is wanted here. Send one of these: JPEG"
    )
    page.get_by_role("button", name="Hand in the log").click()
    expect(page.get_by_text("A file could not be taken. Remove it, or choose another.")).to_be_visible()
    first.get_by_role("button", name="Remove lie.png").click()
    pair.get_by_role("button", name="Move up").click()
    expect(page.get_by_role("listitem", name="1: Pair of exposures")).to_be_focused()
    page.get_by_role("button", name="Insert Sketch before this row").nth(1).click()
    sketch = page.get_by_role("listitem", name="2: Sketch")
    sketch.get_by_label("Object").fill("Moon")
    assert axe_findings(page) == []
    page.get_by_role("button", name="Hand in the log").click()
    expect(page.get_by_role("heading", name="The log is in")).to_be_visible()
    expect(page.get_by_text("3 entries with the 20 cm on a pier, 7 min 1 s exposed")).to_be_visible()
    answers, computed, _, _ = latest(servers, "Observation log")
    assert [row["kind"] for row in answers["entries"]] == ["kpair", "ksketch", "kone"]
    assert answers["entries"][2]["values"]["e1p"][0]["type"] == "image/png"
    assert computed["fexp"] == "420.5"


def test_a_choice_that_no_longer_fits_is_dropped_in_sight(page, servers):
    page.goto(f"{servers.web}/f/alderlight/observation-log")
    page.get_by_label("Site").select_option("Harbour Deck")
    page.get_by_label("Telescope").select_option("20 cm on a pier")
    page.get_by_label("Site").select_option("Summit Dome")
    expect(page.get_by_text("Your earlier choice is no longer offered here.")).to_be_visible()
    expect(page.get_by_label("Telescope")).to_have_value("")


@pytest.mark.parametrize("width", [1280, 375])
def test_every_type_in_every_state_passes_axe(page, servers, width):
    page.set_viewport_size({"width": width, "height": 800})
    page.goto(f"{servers.web}/f/alderlight/every-type")
    page.get_by_role("button", name="Add Row").click()
    expect(page.get_by_label("Row short text")).to_be_visible()
    assert axe_findings(page) == []
    page.get_by_role("button", name="Send").click()
    expect(page.get_by_role("group", name="Some answers need another look.")).to_be_visible()
    page.get_by_role("combobox", name="Dropdown", exact=True).press("ArrowDown")
    assert axe_findings(page) == []


KEYS = {"Space", "Tab", "Enter", "ArrowDown", "ArrowRight"}


def test_every_type_is_filled_in_by_keyboard(page, servers):
    page.goto(f"{servers.web}/f/alderlight/every-type")

    def answer(name, *keys, role="textbox", part=None):
        control = part or page.get_by_role(role, name=name, exact=True)
        control.first.focus()
        for key in keys:
            page.keyboard.press(key) if key in KEYS else page.keyboard.type(key)

    def group(name, role="radiogroup"):
        return page.get_by_role(role, name=name, exact=True)

    answer("Needed short text", "words")
    answer("Needed long text", "words")
    answer("Needed number", "7")
    answer("Needed money", "7.50")
    more = group("Needed product", "group").get_by_role("button", name="One more of Small")
    answer("", "Enter", "Enter", part=more)
    answer("Needed quantity", "3")
    for name in ("needed asked apart", "Needed slot"):
        answer("", "Space", part=group(name).get_by_role("radio"))
    for name, value in (("date", "2026-12-24"), ("time", "21:30"), ("datetime", "2026-12-24T21:30")):
        page.locator(f"#field-needed{name}").fill(value)
    for name in ("Needed yes or no", "Needed single choice", "Needed rating", "Needed scale"):
        answer(name, "Space", part=group(name).get_by_role("radio"))
    answer("Needed dropdown", "star 2", "ArrowDown", "Enter", role="combobox")
    answer("", "ArrowDown", part=page.locator("#field-neededrecordchoice"))
    answer("", "Space", part=group("Needed several choices", "group").get_by_role("checkbox"))
    answer("Needed slider", "ArrowRight", role="slider")
    for row in page.get_by_role("table", name="Needed grid of questions").get_by_role("row").all()[1:]:
        row.get_by_role("radio").first.focus()
        page.keyboard.press("Space")
    name = group("Needed name", "group")
    answer("", "Mira", "Tab", "Okafor", part=name.get_by_role("textbox"))
    answer("Needed e-mail", "mira@example.org")
    answer("Needed phone", "+49 30 1234567")
    answer("Needed web address", "example.org")
    answer(
        "",
        "Summit Road 1",
        "Tab",
        "Tab",
        "Tab",
        "Alderlight",
        part=group("Needed address", "group").get_by_role("textbox"),
    )
    answer("", "Space", part=page.get_by_role("checkbox", name=re.compile("^Needed consent")))
    page.get_by_role("button", name="Type your name instead").nth(2).press("Enter")
    answer("", "Mira Okafor", part=page.get_by_role("textbox", name="Your name as signature"))
    page.locator("#field-neededfileupload").set_input_files(
        {"name": "a.txt", "mimeType": "text/plain", "buffer": b"hello"}
    )
    expect(page.get_by_role("button", name="Remove a.txt")).to_be_visible()
    expect(page.get_by_role("progressbar", name="a.txt")).to_have_count(0)
    page.get_by_role("button", name="Send").press("Enter")
    expect(page.get_by_role("heading", name="Thank you")).to_be_focused()
    answers = latest(servers, "Every type")[0]
    asked = {f"needed{each.name}".replace("_", "") for each in BLOCK_TYPES if "default" in each.block.model_fields}
    assert {each for each in answers if each.startswith("needed")} == asked | {"neededapart"}
    assert answers["neededproduct"] == {"small": "2"}
    assert answers["neededdropdown"].startswith("c2")


def test_a_host_page_hears_of_pages_and_keeps_them_in_its_address(page, servers):
    page.goto(f"{servers.website}/visit")
    form = page.frame_locator("iframe")
    form.get_by_text("Deep sky").click()
    form.get_by_label("Adults").fill("2")
    form.get_by_role("button", name="Next: how we reach you").click()
    expect(page).to_have_url(re.compile("/visit#how-we-reach-you$"))
