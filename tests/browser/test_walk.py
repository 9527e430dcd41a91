"""A walk over every type of field: nothing is cut off, out of reach, too small, or without the focus it needs."""

import io
import re

import pytest
from PIL import Image, ImageChops
from playwright.sync_api import expect

from browser.conftest import axe_findings

FORMS = ("every-type", "long-words", "long-words-in-the-dark")
# 640 is a screen of 1280 at twice its size.
WIDTHS = (320, 640, 1280)

MISFITS = """() => {
  const found = new Set();
  const words = each => (each.ariaLabel || each.textContent).slice(0, 40);
  const of = each => each.closest("[data-block]")?.dataset.block;
  const name = each => `${each.localName}.${each.className} of ${of(each)}: ${words(each)}`;
  if (document.scrollingElement.scrollWidth > innerWidth + 1) found.add("the page scrolls sideways");
  for (const each of document.querySelectorAll("main *")) {
    const style = getComputedStyle(each), box = each.getBoundingClientRect();
    if (!box.width || style.visibility === "hidden" || style.clipPath !== "none") continue;
    if (box.right > innerWidth + 1 || box.left < -1) found.add(`sticks out: ${name(each)}`);
    // What is held to some lines is shortened on purpose.
    const held = style.webkitLineClamp !== "none";
    const hides = !held && ["hidden", "clip"].includes(style.overflowX) && each.clientWidth > 1;
    if (hides && each.scrollWidth > each.clientWidth + 1) found.add(`cut off: ${name(each)}`);
    if (!each.matches("button, a[href], input, select, textarea") || each.closest("[aria-hidden=true]")) continue;
    const boxes = [box, ...[each.closest("label, td")].filter(Boolean).map(around => around.getBoundingClientRect())];
    const least = Math.min(...["width", "height"].map(side => Math.max(...boxes.map(one => one[side]))));
    if (least < 24) found.add(`${least.toFixed()} px: ${name(each)}`);
  }
  return [...found];
}"""

FOCUSED = """() => {
  const each = document.activeElement, box = each.getBoundingClientRect();
  const words = (each.ariaLabel || each.labels?.[0]?.textContent || each.textContent).slice(0, 40);
  return {
    name: `${each.localName}#${each.id} ${words}`, nothing: each === document.body,
    top: box.top + scrollY, bottom: box.bottom + scrollY, left: box.left,
    // Of a set of radio buttons one alone is met; where it stands among the others is the visitor's choice.
    inForm: each.closest("main") !== null,
  };
}"""


def opened(page, servers, form, width, **media):
    page.set_viewport_size({"width": width, "height": 800})
    page.emulate_media(reduced_motion="reduce", **media)
    page.goto(f"{servers.web}/f/alderlight/{form}")
    expect(page.locator(".cx-submit").last).to_be_visible()
    for adder in page.locator(".cx-add").all():
        adder.click()
    page.wait_for_load_state("networkidle")


@pytest.mark.parametrize("width", WIDTHS)
@pytest.mark.parametrize("form", FORMS)
def test_nothing_is_cut_off_out_of_sight_or_too_small_to_press(page, servers, form, width):
    opened(page, servers, form, width)
    assert "\n".join(page.evaluate(MISFITS)) == ""
    assert axe_findings(page) == []
    page.locator(".cx-submit").last.click()
    expect(page.locator(".cx-error").first).to_be_visible()
    assert "\n".join(page.evaluate(MISFITS)) == ""
    assert axe_findings(page) == []


@pytest.mark.parametrize("width", [320, 1280])
@pytest.mark.parametrize("form", FORMS)
def test_tab_goes_as_the_eye_does_and_is_seen_where_it_is(page, servers, form, width):
    opened(page, servers, form, width)
    page.mouse.move(2, 2)
    page.evaluate("scrollTo(0, 0)")
    page.locator("body").press("Tab")
    before, seen = None, 0
    wrong = []
    for _ in range(400):
        now = page.evaluate(FOCUSED)
        if now["nothing"] or not now["inForm"]:
            break
        seen += 1
        if before and now["bottom"] <= before["top"] + 1:
            wrong.append(f"{now['name']} stands above {before['name']}")
        if ring_contrast(page) < 3:
            wrong.append(f"{now['name']} has the focus, and is not seen to: {ring_contrast(page):.2f}")
        before = now
        page.keyboard.press("Tab")
    assert seen > 20
    assert "\n".join(wrong) == ""


def test_the_focus_is_never_lost_whatever_is_pressed(page, servers):
    opened(page, servers, "every-type", 1280)
    for choice in page.locator("main input:is([type=radio], [type=checkbox]):enabled").all():
        choice.check(force=True)
    page.wait_for_load_state("networkidle")
    lost = []
    for at in range(300):
        buttons = page.locator("main :is(button, a):enabled:visible:not(.cx-submit)")
        if at >= buttons.count():
            break
        name = buttons.nth(at).evaluate("each => each.ariaLabel || each.textContent")
        buttons.nth(at).focus()
        page.keyboard.press("Enter")
        page.wait_for_timeout(60)
        if page.evaluate("document.activeElement === document.body"):
            lost.append(name)
    assert "\n".join(lost) == ""


RING = """() => {
  const rings = [];
  for (let each = document.activeElement; each && rings.length < 4; each = each.parentElement) {
    const style = getComputedStyle(each);
    if (style.outlineStyle !== "none" && parseFloat(style.outlineWidth) >= 2) rings.push(style.outlineColor);
  }
  let ground = "rgba(0, 0, 0, 0)";
  for (let each = document.activeElement; each && /, 0\\)$/.test(ground); each = each.parentElement)
    if (each !== document.activeElement) ground = getComputedStyle(each).backgroundColor;
  return [ground, ...rings];
}"""


def ring_contrast(page):
    """The contrast of the ring around what has the focus with the ground that it stands on; 0 where there is none."""
    ground, *rings = page.evaluate(RING)
    return max((contrast(ring, ground) for ring in rings), default=0)


def contrast(one, other):
    """WCAG 2.2, "contrast ratio"."""

    def luminance(colour):
        red, green, blue = [
            value / 12.92 if value <= 0.04045 else ((value + 0.055) / 1.055) ** 2.4
            for value in (int(float(each)) / 255 for each in re.findall(r"[\d.]+", colour)[:3])
        ]
        return 0.2126 * red + 0.7152 * green + 0.0722 * blue

    lighter, darker = sorted((luminance(one), luminance(other)), reverse=True)
    return (lighter + 0.05) / (darker + 0.05)


CHOICES = ("single_choice", "several_choices", "yes_no", "consent", "rating", "scale", "grid")


@pytest.mark.parametrize("kind", CHOICES)
def test_in_forced_colours_what_is_chosen_looks_otherwise(page, servers, kind):
    opened(page, servers, "every-type", 1280, forced_colors="active")
    block = page.locator(f'[data-block="{kind.replace("_", "")}"]')
    control = block.locator("input[type=radio]:enabled, input[type=checkbox]:enabled").first
    control.focus()
    before = Image.open(io.BytesIO(block.screenshot()))
    page.keyboard.press("Space")
    expect(control).to_be_checked()
    page.mouse.move(2, 2)
    after = Image.open(io.BytesIO(block.screenshot()))
    size = (min(before.width, after.width), min(before.height, after.height))
    pixels = [each.convert("L").crop((0, 0, *size)) for each in (before, after)]
    changed = ImageChops.difference(*pixels).point(lambda value: 255 if value > 60 else 0)
    assert changed.histogram()[255] > 30
