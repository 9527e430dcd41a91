"""The public form on a bad line: nothing typed is lost, nothing is sent twice, and it says what it does."""

import re
import time

import pytest
from playwright.sync_api import expect

from browser.test_public_form import FORM, count_responses, fill_in

AWAY = "We can't reach the server just now."


@pytest.fixture
def form(page, servers):
    page.goto(servers.web + FORM)
    expect(page.get_by_label("Adults")).to_be_visible()
    return page


def slowly(page, path, seconds):
    """Make the server's replies to a path late."""

    def late(route):
        reply = route.fetch()
        time.sleep(seconds)
        route.fulfill(response=reply)

    page.route(f"**/api/public/**/{path}", late)


def test_what_a_page_itself_can_show_stands_in_it_before_any_script_has_come(page, servers):
    page.route("**/static/built/assets/*.js", lambda route: route.abort())
    page.goto(f"{servers.web}/f/alderlight/plan-a-visit")
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    expect(page.get_by_role("status")).to_have_text("The form is being loaded …")
    first = page.locator("main.cx-first")
    expect(first).to_have_attribute("aria-busy", "true")
    assert first.evaluate("each => getComputedStyle(each).getPropertyValue('--cx-accent')").strip()


def test_next_goes_on_once_the_line_is_back(page, servers):
    page.goto(f"{servers.web}/f/alderlight/northern-sky-quiz")
    onwards = page.locator("button.cx-submit")
    onwards.click()
    page.get_by_role("radio").first.check()
    page.context.set_offline(True)
    page.get_by_role("radio").nth(1).check()
    onwards.click()
    expect(page.get_by_text(AWAY)).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_text(AWAY)).to_be_hidden()
    expect(onwards).not_to_have_attribute("aria-disabled", "true")
    onwards.click()
    expect(page.get_by_role("group", name="Some answers need another look.")).to_be_visible()


def test_what_was_sent_is_known_after_a_reload_though_the_reply_was_lost(form, servers):
    before = count_responses(servers)
    fill_in(form)

    def lose(route):
        route.fetch()
        route.abort()

    form.route("**/api/public/**/responses", lose)
    form.get_by_role("button", name="Send").click()
    expect(form.get_by_text(AWAY)).to_be_visible()
    form.unroute("**/api/public/**/responses")
    form.reload()
    expect(form.get_by_role("heading", name="Your visit is planned")).to_be_visible()
    assert count_responses(servers) == before + 1


@pytest.mark.parametrize("status", [403, 413])
def test_what_refuses_on_the_way_is_told_and_lets_people_go_on(form, servers, status):
    before = count_responses(servers)
    fill_in(form)
    refuse = lambda route: route.fulfill(status=status, body="<h1>No</h1>", content_type="text/html")  # noqa: E731
    form.route("**/api/public/**/responses", refuse)
    form.get_by_role("button", name="Send").click()
    expect(form.get_by_text(f"Something on the way to the server refused this ({status}).")).to_be_visible()
    form.unroute("**/api/public/**/responses")
    form.get_by_role("button", name="Send").click()
    expect(form.get_by_role("heading", name="Your visit is planned")).to_be_visible()
    assert count_responses(servers) == before + 1


def test_two_windows_tell_of_each_other_and_keep_answers_of_their_own(form, context):
    form.get_by_label("Your name").fill("Ingrid")
    other = context.new_page()
    other.goto(form.url)
    expect(other.get_by_text("You have this form open in another window too.")).to_be_visible()
    expect(other.get_by_label("Your name")).to_have_value("")
    other.get_by_label("Your name").fill("Kofi")
    form.reload()
    other.reload()
    expect(form.get_by_label("Your name")).to_have_value("Ingrid")
    expect(other.get_by_label("Your name")).to_have_value("Kofi")


def test_a_press_holds_though_a_field_left_with_an_error_and_a_slow_reply_move_the_page(form):
    slowly(form, "state", 0.3)
    form.get_by_label("Adults").fill("many")
    box = form.get_by_text("Deep sky").bounding_box()
    # Pressed while the reply is on its way, let go after it has come.
    form.mouse.move(box["x"] + 5, box["y"] + 5)
    form.mouse.down()
    form.wait_for_timeout(700)
    assert form.get_by_text("Deep sky").bounding_box() == box
    form.mouse.up()
    expect(form.get_by_label("Deep sky")).to_be_checked()
    expect(form.get_by_text("Enter a number such as 12.")).to_be_visible()


def test_a_piece_that_did_not_come_is_asked_for_again_and_the_page_is_never_empty(page, servers):
    blocked = re.compile(r".*/assets/(SignatureBox|FileList)-.*\.js")
    page.route(blocked, lambda route: route.abort())
    page.goto(f"{servers.web}/f/alderlight/every-type")
    expect(page.get_by_text("This part has not come through.").first).to_be_visible()
    expect(page.get_by_text("One moment …")).to_have_count(0)
    expect(page.get_by_label("Short text", exact=True).first).to_be_visible()
    page.unroute(blocked)
    page.get_by_role("button", name="Try again").first.click()
    expect(page.get_by_role("img", name="Draw your signature here").first).to_be_visible()
    expect(page.get_by_role("button", name="Try again")).to_have_count(0)
