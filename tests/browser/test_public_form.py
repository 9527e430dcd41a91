"""What visitors meet: on a page, in a website's frame, by keyboard, on a bad connection."""

import json
import re

import psycopg
import pytest
from conftest import visit_document
from playwright.sync_api import expect

from browser.conftest import axe_findings, import_form, section
from browser.making import press_publish

FORM = "/f/alderlight/short-visit"


@pytest.fixture
def form(page, servers):
    page.goto(servers.web + FORM)
    # Keys pressed before there is anything to focus would be lost.
    expect(page.get_by_label("Adults")).to_be_visible()
    return page


def count_responses(servers):
    with psycopg.connect(servers.database) as connection:
        return connection.execute("SELECT count(*) FROM response").fetchone()[0]


def fill_in(page):
    page.get_by_text("Deep sky").click()
    page.get_by_label("Adults").fill("2")
    page.get_by_label("Your name").fill("Ingrid Haugen")
    page.get_by_label("E-mail").fill("ingrid@example.org")


def test_the_keyboard_is_enough(form, servers):
    before = count_responses(servers)
    form.keyboard.press("Tab")
    form.keyboard.press("Space")
    form.keyboard.press("ArrowDown")
    form.keyboard.press("Tab")
    form.keyboard.type("20")
    form.keyboard.press("Tab")
    expect(form.get_by_label("Name of the group")).to_be_visible()
    form.keyboard.press("Tab")
    form.keyboard.type("Harbour School")
    form.keyboard.press("Tab")
    form.keyboard.press("Tab")
    form.keyboard.type("Ingrid Haugen")
    form.keyboard.press("Tab")
    form.keyboard.type("ingrid@example.org")
    form.keyboard.press("Enter")
    expect(form.get_by_role("button", name="Send")).to_be_focused()
    form.keyboard.press("Enter")
    expect(form.get_by_role("heading", name="Your visit is planned")).to_be_focused()
    assert count_responses(servers) == before + 1


def test_errors_are_told_beside_fields_and_in_a_summary_and_the_first_takes_the_focus(form):
    form.get_by_label("Adults").fill("many")
    form.get_by_label("Children").focus()
    expect(form.get_by_text("Enter a number such as 12.")).to_be_visible()
    expect(form.get_by_text("Please answer this.")).to_have_count(0)
    form.get_by_role("button", name="Send my plan").click()
    summary = form.get_by_role("group", name="Some answers need another look.")
    first = summary.get_by_role("link").first.get_attribute("href")
    expect(form.locator(f"{first}:focus, {first} :focus")).to_have_count(1)
    expect(summary.get_by_role("listitem")).to_have_count(4)
    assert axe_findings(form) == []
    summary.get_by_role("link", name="E-mail").click()
    field = form.get_by_role("textbox", name="E-mail")
    expect(field).to_be_focused()
    expect(field).to_have_accessible_description("We write only about this visit. Please answer this.")
    field.fill("ingrid@example.org")
    expect(field).not_to_have_attribute("aria-invalid", "true")


def test_a_double_click_sends_once(form, servers):
    before = count_responses(servers)
    fill_in(form)
    form.get_by_role("button", name="Send my plan").dblclick()
    expect(form.get_by_role("heading", name="Your visit is planned")).to_be_visible()
    assert count_responses(servers) == before + 1


def test_a_lost_reply_is_asked_for_again_and_kept_once(form, servers):
    before = count_responses(servers)
    fill_in(form)
    lost = []

    def lose_the_first(route):
        if lost:
            return route.continue_()
        lost.append(route.fetch())
        return route.abort()

    form.route("**/responses", lose_the_first)
    form.get_by_role("button", name="Send my plan").click()
    expect(form.get_by_text("Your answers are kept here")).to_be_visible()
    expect(form.get_by_role("heading", name="Your visit is planned")).to_be_visible()
    assert lost[0].status == 201
    assert count_responses(servers) == before + 1


def test_what_was_typed_stays_while_the_server_is_away(form):
    form.route("**/state", lambda route: route.abort())
    form.get_by_label("Adults").fill("15")
    expect(form.get_by_text("What you typed stays here")).to_be_visible()
    expect(form.get_by_label("Adults")).to_have_value("15")
    form.unroute("**/state")
    expect(form.get_by_label("Name of the group")).to_be_visible()
    expect(form.get_by_text("What you typed stays here")).to_be_hidden()


def test_a_late_answer_never_overwrites_a_newer_one(form):
    form.get_by_text("Deep sky").click()
    held = []

    def hold_the_first(route):
        if json.loads(route.request.post_data)["answers"].get("b2adults") == "20":
            held.append(route)
        else:
            route.continue_()

    form.route("**/state", hold_the_first)
    with form.expect_request(lambda request: '"20"' in (request.post_data or "")):
        form.get_by_label("Adults").fill("20")
    form.get_by_label("Adults").fill("3")
    expect(form.get_by_label("Admission")).to_have_text("€18.00")
    held[0].continue_()
    form.wait_for_timeout(400)
    expect(form.get_by_label("Admission")).to_have_text("€18.00")
    expect(form.get_by_label("Name of the group")).to_be_hidden()


def test_a_field_that_nothing_depends_on_costs_no_request(form):
    asked = []
    form.on("request", lambda request: asked.append(request.url))
    form.get_by_label("Your name").fill("Ingrid Haugen")
    form.wait_for_timeout(500)
    # How far a visitor has come is told by itself, whenever the browser is idle.
    assert [address for address in asked if "/api/" in address and not address.endswith("/visit")] == []


def test_hidden_answers_come_back_when_their_field_does(form):
    form.get_by_label("Adults").fill("20")
    form.get_by_label("Name of the group").fill("Harbour School")
    form.get_by_label("Adults").fill("2")
    expect(form.get_by_label("Name of the group")).to_be_hidden()
    form.get_by_label("Adults").fill("20")
    expect(form.get_by_label("Name of the group")).to_have_value("Harbour School")


def test_a_reload_after_sending_shows_the_confirmation_again(form):
    fill_in(form)
    address = form.url
    form.get_by_label("Adults").press("Enter")
    expect(form.get_by_role("heading", name="Your visit is planned")).to_have_count(
        0
    )  # Enter goes on, it does not send
    form.get_by_role("button", name="Send").click()
    expect(form.get_by_role("heading", name="Your visit is planned")).to_be_visible()
    form.reload()
    form.wait_for_url("**/received/**")
    expect(form.get_by_role("heading", name="Your visit is planned")).to_be_visible()
    form.goto(address)
    expect(form.get_by_label("Adults")).to_have_value("")


def test_a_website_shows_it_in_a_frame_that_grows(page, servers):
    page.goto(f"{servers.website}/visit")
    frame = page.frame_locator("iframe")
    expect(frame.get_by_role("heading", name="Plan your visit")).to_be_visible()
    tall = "least => document.querySelector('[data-codexa]').shadowRoot.querySelector('iframe').offsetHeight > least"
    page.wait_for_function(tall, arg=550)
    before = page.locator("iframe").bounding_box()["height"]
    frame.get_by_label("Adults").fill("20")
    expect(frame.get_by_label("Name of the group")).to_be_visible()
    page.wait_for_function(tall, arg=before + 150)
    assert page.locator("iframe").bounding_box()["height"] >= frame.locator("#root").evaluate("it => it.offsetHeight")


def test_a_website_that_is_not_listed_shows_our_words_and_a_link(desk, servers):
    import_form(desk, visit_document() | {"name": "Unlisted"})
    press_publish(desk, 1)
    expect(desk.get_by_text("Edition 1 is live.")).to_be_visible()
    desk.get_by_role("link", name="Publish", exact=True).click()
    section(desk, "On a website")
    desk.get_by_role("textbox", name="Websites").fill("https://www.example.org")
    desk.get_by_role("button", name="Save the websites").click()
    expect(desk.get_by_role("button", name="Saved", exact=True)).to_be_visible()
    stranger = desk.context.new_page()
    stranger.goto(servers.website)
    put = "address => document.body.insertAdjacentHTML('beforeend', `<iframe src=${address}></iframe>`)"
    stranger.evaluate(put, f"{servers.web}/embed/alderlight/unlisted")
    told = stranger.frame_locator("iframe")
    expect(told.get_by_text("This form may not be shown on this website.")).to_be_visible()
    expect(told.get_by_role("link", name="Open the form")).to_have_attribute("href", "/f/alderlight/unlisted")
    # Without a word of where it stands, the browser keeps the website out.
    with stranger.expect_console_message(lambda message: "frame-ancestors" in message.text):
        stranger.evaluate(
            put.replace("<iframe", "<iframe referrerpolicy=no-referrer"), f"{servers.web}/embed/alderlight/unlisted"
        )


@pytest.mark.parametrize("width", [320, 375, 1280])
def test_it_fits_narrow_and_wide(form, width):
    form.set_viewport_size({"width": width, "height": 800})
    form.get_by_label("Adults").fill("20")
    expect(form.get_by_label("Name of the group")).to_be_visible()
    assert form.evaluate("document.documentElement.scrollWidth") <= width


def test_an_unknown_address_answers_in_a_sentence(page, servers):
    page.goto(f"{servers.web}/f/alderlight/no-such-form")
    expect(page.get_by_role("heading", name=re.compile("There is no form at this address"))).to_be_visible()
