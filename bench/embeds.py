"""A page of somebody's website with three forms in Debian's Chromium: what the embed script costs its main thread."""

import json
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any

from playwright.sync_api import Browser, sync_playwright

from bench.engine_form import large_form
from bench.measuring import report
from bench.running import Running, running_with
from launch.machine import CHROMIUM

_FLAGS = ["--no-sandbox", "--disable-gpu", "--no-first-run", "--disable-background-networking"]
_WAYS = ("page", "pop-up", "corner")
_QUIET_MS = 1_500  # after which nothing more is done by itself


def run() -> bool:
    """Measure and report; returns whether the target is met."""
    with running_with(large_form(20, rows=False)) as running, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=str(CHROMIUM), args=_FLAGS)
        with _website(running) as website:
            work = max(_opened(browser, website, running) for _ in range(3))
        browser.close()
    return report("embeds_three_on_a_page", work, "ms of main-thread work", 100, at_least=False)


@contextmanager
def _website(running: Running) -> Iterator[str]:
    """Serve the page, on an origin of another name than ours."""
    places = "".join(f'<div data-codexa="bench/large-form" data-codexa-as="{way}">A form</div>' for way in _WAYS)
    script = f"<script async src='http://127.0.0.1:{running.port}/embed/1.js'></script>"
    content = f"<!doctype html><title>Website</title>{places}{script}".encode()

    class Page(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            self.send_response(200)
            self.send_header("Content-Type", "text/html")
            self.end_headers()
            self.wfile.write(content)

        def log_message(self, *_: object) -> None:
            pass

    with ThreadingHTTPServer(("127.0.0.1", 0), Page) as server:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        yield f"http://localhost:{server.server_port}/"
        server.shutdown()


def _opened(browser: Browser, website: str, running: Running) -> float:
    """Open the page, press its two windows open, type in the form, and return the milliseconds that ours took."""
    page = browser.new_page()
    browser.start_tracing(page=page, categories=["devtools.timeline", "v8.compile"])
    page.goto(website)
    form = page.frame_locator("iframe").first
    form.get_by_role("button", name="Send").wait_for()
    form.get_by_role("textbox").first.fill("12")
    for button in page.get_by_role("button", name="A form").all():
        # Behind the window that the first opens no pointer reaches the other.
        button.dispatch_event("click")
        page.wait_for_timeout(_QUIET_MS)
    shown = page.locator("iframe").count()
    traced = json.loads(browser.stop_tracing())["traceEvents"]
    page.close()
    if shown != len(_WAYS):
        raise RuntimeError(f"{shown} of {len(_WAYS)} forms were shown")
    return _milliseconds(traced, f":{running.port}/embed/1.js")


def _milliseconds(traced: list[dict[str, Any]], address: str) -> float:
    """Return how long scripts of an address kept a processor; what runs within another of them counts once."""
    found = [each for each in traced if each.get("ph") == "X" and address in json.dumps(each.get("args", {}))]
    spent, until = 0.0, 0.0
    for each in sorted((each for each in found if "tdur" in each), key=lambda one: float(one["ts"])):
        if each["ts"] >= until:
            spent += each["tdur"]
            until = each["ts"] + each["dur"]
    if not spent:
        raise RuntimeError("nothing of the embed script is in the trace")
    return spent / 1_000
