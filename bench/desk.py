"""The desk of a team with a thousand forms in Debian's Chromium: opened, searched, sorted, and found from anywhere."""

import statistics
from collections.abc import Callable

import psycopg
from playwright.sync_api import Page, sync_playwright

from bench.engine_form import large_form
from bench.measuring import report
from bench.running import Running, running_with
from bench.workbench import ASKED, FLAGS, WATCH, opening, pressed, sign_in
from launch.machine import CHROMIUM

_FORMS, _TIMES = 1_000, 5
_FIELDS = 20
# Each a copy of the one form with a name of its own, saved once, some of them live.
_MADE = """
    WITH made AS (
        INSERT INTO form (team_id, name, slug, draft, revision, live_edition, changed_by, owner_id, changed_at)
        SELECT team_id, 'Evening ' || at, 'evening-' || at, jsonb_set(draft, '{name}', to_jsonb('Evening ' || at)), 1,
            CASE WHEN mod(at, 3) = 0 THEN 1 END, changed_by, owner_id, now() - at * interval '1 hour'
        FROM form, generate_series(1, %(forms)s) AS at WHERE form.id = %(form)s
        RETURNING id, draft, live_edition
    ), counted AS (
        INSERT INTO response_counter (form_id) SELECT id FROM made
    )
    INSERT INTO edition (form_id, number, definition, revision)
    SELECT id, 1, draft, 1 FROM made WHERE live_edition = 1
"""


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    with running_with(large_form(_FIELDS)) as running, sync_playwright() as playwright:
        with psycopg.connect(running.database) as connection:
            connection.execute(_MADE, {"forms": _FORMS, "form": running.form})
        browser = playwright.chromium.launch(executable_path=str(CHROMIUM), args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
        sign_in(page, running)
        found = _measured(page, running)
        browser.close()
    unit = "ms until nothing changes"
    results = [
        report(f"desk_of_{_FORMS}_{name}", statistics.median(times), unit, most, at_least=False)
        for name, (most, times) in found.items()
    ]
    return all(results)


def _measured(page: Page, running: Running) -> dict[str, tuple[float, list[float]]]:
    found: dict[str, tuple[float, list[float]]] = {}

    def measure(name: str, act: Callable[[], object]) -> None:
        page.wait_for_timeout(500)
        found.setdefault(name, (300, []))[1].append(pressed(page, act, ASKED)[0])

    for _ in range(_TIMES):
        opened = opening(page, f"http://127.0.0.1:{running.port}/", "tbody a")
        found.setdefault("open", (1_000, []))[1].append(opened)
        page.evaluate(WATCH)
        search = page.get_by_label("Find a form")
        measure("search", lambda: search.fill("evening 77"))  # noqa: B023
        measure("search_undone", lambda: search.fill(""))  # noqa: B023
        measure("sort", lambda: page.get_by_role("columnheader", name="Form", exact=True).get_by_role("button").click())
        measure("find_dialog", lambda: page.keyboard.press("Control+k"))
        measure("find_field", lambda: page.keyboard.type("Field 7"))
        page.keyboard.press("Escape")
    return found
