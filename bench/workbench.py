"""The workbench with a form of 300 blocks in Debian's Chromium: opening it, typing a label, moving a block."""

import statistics
from collections.abc import Callable

from playwright.sync_api import CDPSession, Page, sync_playwright

from bench.engine_form import large_form
from bench.measuring import report
from bench.running import EMAIL, PASSWORD, Running, running_with
from launch.machine import CHROMIUM

_BLOCKS, _OPENINGS, _STEPS = 300, 5, 20
_FLAGS = ["--no-sandbox", "--disable-gpu", "--no-first-run", "--disable-background-networking"]
# A frame is drawn, and what was put off until after it has run.
_DRAWN = "() => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done))))"
# How far the first note of a block stands from the top of its row, for all rows on the screen; in pixels.
_OFF_LEVEL = """() => {
    const top = (row, what) => row.querySelector(what)?.getBoundingClientRect().top;
    const rows = [...document.querySelectorAll(".sh-row")];
    const drawn = rows.filter(row => row.checkVisibility({contentVisibilityAuto: true}));
    const off = drawn.map(row => Math.abs(top(row, ".sh-block") - top(row, ".nt-note"))).filter(Number.isFinite);
    return off.length ? Math.max(...off) : Infinity;
}"""


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    with running_with(large_form(_BLOCKS, rows=False)) as running, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=str(CHROMIUM), args=_FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        _sign_in(page, running)
        results = [_opening(page, running), *_working(page)]
        browser.close()
    return all(results)


def _sign_in(page: Page, running: Running) -> None:
    page.goto(f"http://127.0.0.1:{running.port}")
    page.get_by_label("E-mail").fill(EMAIL)
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("button", name="New form").wait_for()


def _opening(page: Page, running: Running) -> bool:
    """From the address to the first blocks and the inspector, as somebody opens it who was here before."""
    times = []
    for _ in range(_OPENINGS):
        page.goto(f"http://127.0.0.1:{running.port}/forms/{running.form}/compose")
        page.locator(".sh-block").first.wait_for()
        page.evaluate(_DRAWN)
        times.append(page.evaluate("performance.now()") / 1000)
    return report("workbench_first_sheet", statistics.median(times), "seconds", 1.5, at_least=False)


def _working(page: Page) -> list[bool]:
    outline = page.get_by_role("navigation", name="Outline")
    outline.get_by_role("button", name="8.10 ").first.click()
    label = page.get_by_role("textbox", name="Label", exact=True)
    label.click()
    # What the core says of the draft comes in now and then, as it does for whoever works in it.
    chrome = page.context.new_cdp_session(page)
    chrome.send("Performance.enable")
    typing = _main_thread(page, chrome, lambda: page.keyboard.press("e"))
    if not label.input_value().endswith("e" * _STEPS):
        raise RuntimeError("what was typed is not in the label")
    page.locator("body").click(position={"x": 600, "y": 60})
    outline.get_by_role("button", name="8.10 ").first.click()
    outline.get_by_role("button", name="8.10 ").first.blur()
    moving = _main_thread(page, chrome, lambda: page.keyboard.press("Alt+ArrowDown"))
    if not outline.get_by_role("button", name=f"9.10 {label.input_value()}").is_visible():
        raise RuntimeError(f"after {_STEPS} moves the block is not {_STEPS} places further down")
    level = page.evaluate(_OFF_LEVEL)
    return [
        report("workbench_keystroke", typing, "ms of main-thread work", 50, at_least=False),
        report("workbench_move", moving, "ms of main-thread work", 50, at_least=False),
        report("workbench_margin_off_level", level, "px", 12, at_least=False),
    ]


def _main_thread(page: Page, chrome: CDPSession, act: Callable[[], object]) -> float:
    """Return the median milliseconds of main-thread work from an act until its frame is drawn."""

    def worked() -> float:
        metrics = chrome.send("Performance.getMetrics")["metrics"]
        return 1000 * next(float(each["value"]) for each in metrics if each["name"] == "TaskDuration")

    times = []
    for _ in range(_STEPS):
        page.wait_for_timeout(100)
        before = worked()
        act()
        page.evaluate(_DRAWN)
        times.append(worked() - before)
    return statistics.median(times)
