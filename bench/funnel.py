"""The funnel of a form with a year behind it: visits of each day, way, page and width, with times and fields."""

import statistics
import time
import urllib.parse

import psycopg

from bench.client import Client
from bench.measuring import report
from bench.responses import form_of_forty
from bench.running import running_with
from codexa.services import visits
from codexa.store.database import Database

_DAYS, _ROUNDS = 365, 30
_SLICES = """
INSERT INTO visit_slice (form_id, day, edition, presentation, way, page, link, width, seen, started, sent)
SELECT %(form)s, current_date - day, 1, 'whole', way, page, '', width, 40, 30, 20
FROM generate_series(1, %(days)s) AS day, unnest(ARRAY['link', 'script']) AS way,
    unnest(ARRAY['', 'https://www.example.org/visit']) AS page, unnest(ARRAY['narrow', 'medium', 'wide']) AS width
"""
_COUNTS = """
INSERT INTO visit_count (slice_id, what, part, bucket, number)
SELECT id, 'reached', 'page1', bucket, 4 FROM visit_slice, generate_series(20, 29) AS bucket
UNION ALL SELECT id, 'left_at', 'f' || at, 0, 1 FROM visit_slice, generate_series(0, 9) AS at
UNION ALL SELECT id, 'wrong', 'f' || at, 0, 1 FROM visit_slice, generate_series(0, 9) AS at
UNION ALL SELECT id, 'took', '', bucket, 2 FROM visit_slice, generate_series(30, 39) AS bucket
"""
_TODAY = """
INSERT INTO visit (id, form_id, day, edition, presentation, way, page, link, width, seen_at, told_at, turn, started,
    sent, place, field, steps, wrong)
SELECT gen_random_uuid(), %(form)s, current_date, 1, 'whole', 'link', '', '', 'narrow', now(),
    now() - interval '1 hour', 1, true, false, 'page1', 'f' || at %% 40, '{"page1": 12}', ARRAY['f1', 'f2']
FROM generate_series(1, 5000) AS at
"""


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    met = True
    with running_with(form_of_forty()) as running:
        with psycopg.connect(running.database, autocommit=True) as connection:
            for statement in (_SLICES, _COUNTS, _TODAY):
                connection.execute(statement, {"form": running.form, "days": _DAYS})
            began = time.perf_counter()
            visits.count_over(Database(running.database, 2).connection)
            report("funnel_by_month", time.perf_counter() - began, "s for all", None)
            connection.execute("VACUUM ANALYZE visit_slice, visit_count, visit")
            rows = connection.execute("SELECT count(*) FROM visit_count").fetchone()
            assert rows is not None
        report("funnel_counts", rows[0], "rows", None)
        client = Client(running.port)
        for name, asked in {
            "funnel": {},
            "funnel_by_page": {"by": "page"},
            "funnel_of_30_days": {"where": '[["response.received","last_days","30"]]'},
        }.items():
            path = f"/api/forms/{running.form}/responses/funnel?{urllib.parse.urlencode(asked)}"
            times = []
            for _ in range(_ROUNDS):
                began = time.perf_counter()
                client.ask("GET", path)
                times.append(1000 * (time.perf_counter() - began))
            met &= report(name, statistics.quantiles(times, n=20)[-1], "ms, p95", 300, at_least=False)
    return met


if __name__ == "__main__":
    run()
