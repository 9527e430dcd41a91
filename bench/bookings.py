"""Bookings: of 200 takers of one place one gets it, twenty times; and a form of 10,000 slots, beside one of ten."""

import http.client
import json
import statistics
import threading
import time
import uuid
from collections import Counter
from datetime import UTC, datetime, timedelta
from typing import Any

import psycopg

from bench.measuring import interleaved, report
from bench.running import Running, running_with
from codexa.core.context import Context
from codexa.core.form.form import Form, read_form
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.public import form_state

_TAKERS, _ROUNDS = 200, 20
_FIRST = datetime.now(UTC).date() + timedelta(days=2)
_MINUTES = 10
_DAYS = 69  # of 144 slots each: nearly 10,000


def _form(last_day: int, places: int = 1) -> Form:
    series = {
        "id": "s1",
        "weekdays": [0, 1, 2, 3, 4, 5, 6],
        "first": _FIRST.isoformat(),
        "last": (_FIRST + timedelta(days=last_day)).isoformat(),
        "begins": "00:00",
        "ends": "00:00",
        "minutes": _MINUTES,
        "places": places,
    }
    block: dict[str, Any] = {"id": "visit", "type": "slot", "key": "visit", "label": "When", "series": [series]}
    page = {"id": "p", "title": "Nights", "blocks": [block]}
    return read_form({"name": "Nights", "title": "Nights", "time_zone": "UTC", "pages": [page]})


def _take(running: Running, code: str, together: threading.Barrier, said: list[tuple[int, str, float]]) -> None:
    connection = http.client.HTTPConnection("127.0.0.1", running.port, timeout=60)
    connection.connect()
    body = json.dumps({"answers": {"visit": code}}).encode()
    headers = {"Content-Type": "application/json", "Idempotency-Key": uuid.uuid4().hex}
    together.wait()
    began = time.perf_counter()
    connection.request("POST", f"/api/public/{running.form}/1/responses", body, headers)
    reply = connection.getresponse()
    told = json.loads(reply.read())
    wrong: list[dict[str, str]] = list((told.get("errors") or {}).values())
    why = wrong[0]["code"] if wrong else told.get("code", "")
    said.append((reply.status, why, time.perf_counter() - began))
    connection.close()


def _rounds() -> bool:
    form = _form(_DAYS - 1)
    settings = {"CODEXA_PUBLIC_RATE": "1000000 per minute", "CODEXA_WORK_RATE": "1000000 per minute"}
    times: list[float] = []
    outcomes: Counter[tuple[int, str]] = Counter()
    fair = True
    with running_with(form, workers=2, settings=settings) as running:
        for round_ in range(_ROUNDS):
            code = f"{_FIRST + timedelta(days=round_)}T12:00"
            together, said = threading.Barrier(_TAKERS), list[tuple[int, str, float]]()
            takers = [threading.Thread(target=_take, args=(running, code, together, said)) for _ in range(_TAKERS)]
            for each in takers:
                each.start()
            for each in takers:
                each.join()
            fair &= sum(status == 201 for status, _, _ in said) == 1
            outcomes.update((status, why) for status, why, _ in said)
            times += [seconds for _, _, seconds in said]
        with psycopg.connect(running.database) as connection:
            row = connection.execute("SELECT count(*), max(taken) FROM claimable WHERE taken > 0").fetchone()
    fair &= row == (_ROUNDS, 1)
    others = {told: count for told, count in outcomes.items() if told not in ((201, ""), (422, "slot_gone"))}
    ok = report("bookings_fair", float(fair), f"1 where each of {_ROUNDS} places went to one of {_TAKERS} takers", 1)
    ok &= report("bookings_errors", sum(others.values()), f"other answers than taken or just gone: {others}", 0,
                 at_least=False)  # fmt: skip
    p99 = statistics.quantiles(times, n=100)[98] * 1_000
    return ok & report("bookings_p99", p99, f"ms for each of {_TAKERS} who come at once", None)


def _sizes() -> bool:
    now = Context(now=datetime.now(UTC))
    many, few = compile_form(_form(_DAYS - 1)), compile_form(_form(0))
    count = len(next(iter(many.form.blocks())).times("UTC").all)  # type: ignore[attr-defined]
    taken = {
        f"slot:visit:{_FIRST + timedelta(days=day)}T{hour:02}:00:": 1 for day in range(_DAYS) for hour in range(24)
    }
    full = Context(now=now.now, taken=taken)
    works = {
        "many": lambda: evaluate(many, {"visit": f"{_FIRST}T12:10"}, full),
        "few": lambda: evaluate(few, {"visit": f"{_FIRST}T12:10"}, now),
        "first page of many": lambda: form_state(evaluate(many, {}, full)),
        "first page of few": lambda: form_state(evaluate(few, {}, now)),
    }
    found = interleaved(works, 50)
    ok = report("bookings_evaluate", found["many"] / found["few"], f"of a form of 144 slots, with {count:,}", 1.5,
                at_least=False)  # fmt: skip
    rate = found["first page of many"] / found["first page of few"]
    return ok & report("bookings_first_page", rate, "of the same for what is shown first", 2, at_least=False)


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    sizes = _sizes()
    return _rounds() and sizes
