"""Forms on the practice website, which is another origin: in every way, under a strict policy, beside rough styles."""

import re

import pytest
from playwright.sync_api import expect

from browser.conftest import AXE

# The sum of layout shifts that no press or key has caused (Layout Instability, Cumulative Layout Shift).
SHIFTS = """new Promise(done => {
  let sum = 0;
  const add = each => { if (!each.hadRecentInput) sum += each.value; };
  new PerformanceObserver(list => list.getEntries().forEach(add)).observe({ type: "layout-shift", buffered: true });
  setTimeout(() => done(sum), 300);
})"""
STRANGE = (
    "{codexa: 'height', height: 9999}",
    "{codexa: 'redirect', address: 'https://stranger.example.org/'}",
    "null",
)
HEARD = """window.heard = [];
for (const name of ["ready", "page", "answered", "submitted", "opened", "closed", "unavailable", "height"])
  document.addEventListener(`codexa:${name}`, event => window.heard.push([name, event.detail]));
"""


@pytest.fixture
def site(page, servers):
    page.add_init_script(HEARD)

    def go(address):
        page.goto(f"{servers.website}/{address}")
        return page

    return go


def heard(page):
    return [name for name, _ in page.evaluate("window.heard") if name != "height"]


def fill_in(frame):
    """Fill in the visit's first page and go on."""
    frame.get_by_label("First stars").check()
    frame.get_by_label("Adults").fill("2")
    frame.get_by_role("button", name=re.compile("Next")).click()


@pytest.mark.parametrize("address", ["visit", "strict", "rough", "everything"])
def test_a_form_in_the_page_is_whole_moves_nothing_and_tells_what_happens(site, address):
    page = site(address)
    host = page.locator("[data-codexa='alderlight/plan-a-visit']")
    frame = host.frame_locator("iframe")
    expect(frame.get_by_label("Adults")).to_be_visible()
    page.wait_for_function("window.heard.some(([name]) => name === 'ready')")
    assert page.evaluate(SHIFTS) == 0
    inside = host.locator("iframe").evaluate("frame => frame.getBoundingClientRect().height")
    tall = frame.locator("#root").evaluate("root => root.offsetHeight")
    assert inside >= tall
    fill_in(frame)
    expect(frame.get_by_label("Your name")).to_be_visible()
    assert [name for name in heard(page) if name != "ready"][:3] == ["page", "answered", "page"]
    assert "2" not in str([detail for name, detail in page.evaluate("window.heard") if name == "answered"])


def test_a_pop_up_holds_the_focus_keeps_the_answers_and_gives_the_focus_back(site):
    page = site("shop")
    opener = page.get_by_role("button", name="I know what I want")
    opener.click()
    window = page.get_by_role("dialog", name="Order from the star shop")
    frame = page.frame_locator("[data-codexa] iframe")
    expect(frame.get_by_role("main")).to_be_visible()
    box = frame.get_by_role("textbox").first
    box.fill("Ana")
    for _ in range(60):
        page.keyboard.press("Tab")
        assert page.evaluate("document.activeElement === document.body || !!document.activeElement.shadowRoot")
    box.focus()
    page.keyboard.press("Escape")
    expect(window).to_be_hidden()
    expect(opener).to_be_focused()
    opener.click()
    expect(box).to_have_value("Ana")
    page.get_by_role("button", name="Close").click()
    page.wait_for_function("window.heard.filter(([name]) => name !== 'height').at(-1)[0] === 'closed'")
    assert {"opened", "ready", "answered", "closed"} <= set(heard(page))
    told = page.evaluate("window.happened.map(each => each.event)")
    assert {"codexa:opened", "codexa:closed"} <= set(told)


@pytest.mark.parametrize(
    ("address", "button", "window"),
    [
        ("dome", "Ask for a quote", "What does the Travelling Dome cost?"),
        ("sky", "Quiz of the month", "Northern sky quiz"),
        ("shop", "I know what I want", "Order from the star shop"),
    ],
)
def test_a_window_opens_by_a_press_closes_by_escape_and_is_free_of_what_axe_finds(site, address, button, window):
    page = site(address)
    page.get_by_role("button", name=button).press("Enter")
    dialog = page.get_by_role("dialog", name=window)
    expect(page.frame_locator("[data-codexa] iframe").get_by_role("main")).to_be_visible()
    assert page.evaluate(SHIFTS) == 0
    page.evaluate(AXE)
    found = page.evaluate(
        "axe.run(document, { iframes: false }).then(({ violations }) => violations.map(({ id }) => id))"
    )
    assert found == []
    page.keyboard.press("Escape")
    expect(dialog).to_be_hidden()
    expect(page.get_by_role("button", name=button)).to_be_focused()


def test_a_window_that_was_closed_opens_by_itself_no_more(site):
    page = site("shop")
    leave = "document.dispatchEvent(new MouseEvent('mouseout', { clientY: -1, relatedTarget: null }))"
    page.evaluate(leave)
    dialog = page.get_by_role("dialog", name="Order from the star shop")
    expect(dialog).to_be_visible()
    page.get_by_role("button", name="Close").click()
    page.evaluate(leave)
    expect(dialog).to_be_hidden()


def test_taken_off_the_page_and_put_back_a_form_goes_on_with_its_answers(site):
    page = site("visit")
    frame = page.frame_locator("[data-codexa] iframe")
    frame.get_by_label("Adults").fill("7")
    page.wait_for_timeout(600)
    page.evaluate("window.place = document.querySelector('[data-codexa]'); place.remove()")
    page.evaluate("document.querySelector('main').append(place)")
    expect(frame.get_by_label("Adults")).to_have_value("7")
    page.evaluate("place.style.display = 'none'")
    page.evaluate("place.style.removeProperty('display'), place.style.setProperty('display', 'block', 'important')")
    expect(frame.get_by_label("Adults")).to_be_visible()


def test_a_stranger_says_nothing_here(site):
    page = site("visit")
    expect(page.frame_locator("[data-codexa] iframe").get_by_label("Adults")).to_be_visible()
    before = page.evaluate("[document.querySelector('[data-codexa]').offsetHeight, location.href]")
    for message in STRANGE:
        page.evaluate(f"window.postMessage({message}, '*')")
        page.evaluate(
            """message => {
              const frame = document.createElement("iframe");
              frame.srcdoc = `<script>parent.postMessage(${message}, "*")<` + "/script>";
              document.body.append(frame);
            }""",
            message,
        )
    page.wait_for_timeout(400)
    assert page.evaluate("[document.querySelector('[data-codexa]').offsetHeight, location.href]") == before


def test_without_the_script_a_link_is_seen_and_a_form_that_is_gone_says_so(site, page, servers):
    page.route("**/embed/1.js", lambda route: route.abort())
    site("visit")
    expect(page.locator("[data-codexa]").get_by_role("link", name="Plan your visit")).to_be_visible()
    page.unroute("**/embed/1.js")
    page.goto(f"{servers.website}/stand?form=alderlight/never-was&title=Nothing")
    told = page.frame_locator("[data-codexa] iframe")
    expect(told.get_by_text("There is no form at this address")).to_be_visible()
    page.wait_for_function("window.heard.some(([name]) => name === 'unavailable')")
    expect(page.get_by_role("heading", name="And below it")).to_be_visible()


def test_a_plain_frame_needs_no_script(site):
    page = site("watchers")
    frame = page.frame_locator("iframe[title='Which night-watcher are you?']")
    expect(frame.get_by_label("At dusk")).to_be_visible()


def test_three_forms_on_a_page_stand_each_in_its_own_way_and_load_when_wanted(site):
    page = site("everything")
    page.wait_for_function("window.heard.some(([name]) => name === 'ready')")
    expect(page.get_by_role("button", name="Quiz of the month")).to_be_visible()
    expect(page.get_by_role("button", name="I know what I want")).to_have_count(0)
    expect(page.locator("[data-codexa]")).to_have_count(3)
    assert heard(page).count("ready") == 1
