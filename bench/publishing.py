"""Publishing: ten thousand sealed links, a replay of 500 responses, and 200 visitors at once for a minute."""

import base64
import http.client
import json
import random
import statistics
import threading
import time
import uuid
from contextlib import nullcontext
from typing import Any
from uuid import UUID

import psycopg
from psycopg.rows import dict_row

from bench.client import Client
from bench.engine_form import answers_for, large_form
from bench.measuring import report
from bench.running import Running, running_with
from codexa.core.form.form import Form, LinkValue
from codexa.services.answering import Given
from codexa.services.editions import Editions
from codexa.services.receiving import Incoming, receive

_LINKS, _REPLAYED = 10_000, 500
_VISITORS, _SECONDS, _PAUSE = 200, 60, 3.0
_MOST_SECONDS_LINKS, _MOST_SECONDS_REPLAY = 10.0, 5.0


def _linked(form: Form) -> Form:
    links = (LinkValue(field="f3", name="note", visitor="locked", sealed=True),)
    return form.model_copy(update={"links": links})


def _make_links(client: Client, form: UUID) -> float:
    rows = "".join(f"Guest {at},guest{at}@example.org\n" for at in range(_LINKS))
    table = base64.b64encode(f"Note,E-mail\n{rows}".encode()).decode()
    began = time.perf_counter()
    made = client.ask("POST", f"/api/forms/{form}/links", {"table": table, "columns": {"note": "Note"}})
    seconds = time.perf_counter() - began
    if made["links"] != _LINKS:
        raise RuntimeError(f"{made['links']} links were made of {_LINKS} lines")
    return seconds


def _keep_responses(running: Running) -> None:
    answers = answers_for()
    with psycopg.connect(running.database, row_factory=dict_row) as connection:
        program = Editions(lambda: nullcontext(connection)).program(running.form, 1)
        for at in range(_REPLAYED):
            given = Given(answers=answers | {"f0": str(3 + at % 40)}, link={})
            receive(connection, program, Incoming(form=running.form, edition=1, key=f"bench-{at:05}", given=given))


def _replay(client: Client, form: UUID) -> float:
    began, looked_at, after = time.perf_counter(), 0, ""
    while after is not None:
        page = client.ask("GET", f"/api/forms/{form}/replay?after={after.replace('+', '%2B')}")
        looked_at, after = looked_at + page["looked_at"], page["next"]
    if looked_at != _REPLAYED:
        raise RuntimeError(f"{looked_at} responses were looked at, not {_REPLAYED}")
    return time.perf_counter() - began


class _Visitor(threading.Thread):
    """Opens the form, changes something, sends it, and again, with the pauses of somebody who is quick."""

    def __init__(self, running: Running, ends: float) -> None:
        super().__init__(daemon=True)
        self._running, self._ends = running, ends
        self._chance = random.Random(id(self))
        self.times: list[float] = []
        self.sent = 0
        self.errors: list[str] = []

    def run(self) -> None:
        time.sleep(self._chance.random() * _PAUSE)
        while time.monotonic() < self._ends:
            try:
                self._fill_in()
            except (OSError, http.client.HTTPException) as error:
                self.errors.append(repr(error))

    def _fill_in(self) -> None:
        base = f"/api/public/{self._running.form}/1"
        answers = {"f0": str(self._chance.randint(3, 40)), "f2": "4"}
        self._timed("GET", "/f/bench/large-form", None, 200)
        for _ in range(2):
            time.sleep(self._chance.random() * _PAUSE)
            self._timed("POST", f"{base}/state", {"answers": answers, "changed": ["f0"]}, 200)
        time.sleep(self._chance.random() * _PAUSE)
        self.sent += self._timed("POST", f"{base}/responses", {"answers": answers}, 201)

    def _timed(self, method: str, path: str, body: Any, wanted: int) -> int:
        # Between two of them a visitor thinks for longer than the server holds a connection that says nothing.
        connection = http.client.HTTPConnection("127.0.0.1", self._running.port, timeout=30)
        headers = {"Content-Type": "application/json", "Idempotency-Key": uuid.uuid4().hex}
        began = time.perf_counter()
        connection.request(method, path, None if body is None else json.dumps(body).encode(), headers)
        reply = connection.getresponse()
        reply.read()
        connection.close()
        self.times.append(time.perf_counter() - began)
        if reply.status != wanted:
            self.errors.append(f"{path} answered {reply.status}")
        return int(reply.status == wanted)


def _visit(running: Running) -> tuple[int, int, float, float]:
    """Return how many responses were told to be received, how many errors there were, the median and p99 in seconds."""
    ends = time.monotonic() + _SECONDS
    visitors = [_Visitor(running, ends) for _ in range(_VISITORS)]
    for each in visitors:
        each.start()
    for each in visitors:
        each.join(_SECONDS + 60)
    times = sorted(time for each in visitors for time in each.times)
    errors = [error for each in visitors for error in each.errors]
    for error in errors[:3]:
        print(f"  {error}")
    return sum(each.sent for each in visitors), len(errors), statistics.median(times), times[len(times) * 99 // 100]


def _count(running: Running) -> int:
    with psycopg.connect(running.database) as connection:
        row = connection.execute("SELECT count(*) FROM response WHERE idempotency_key NOT LIKE 'bench-%'").fetchone()
    assert row is not None
    return int(row[0])


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    with running_with(_linked(large_form()), workers=2) as running:
        client = Client(running.port)
        links = _make_links(client, running.form)
        _keep_responses(running)
        replayed = _replay(client, running.form)
        sent, errors, median, worst = _visit(running)
        lost = sent - _count(running)
    print(f"  visitors: {sent} responses, median {median * 1000:.0f} ms, p99 {worst * 1000:.0f} ms a request")
    met = [
        report("sealed_links_10000", links, "s", _MOST_SECONDS_LINKS, at_least=False),
        report("replay_500", replayed, "s", _MOST_SECONDS_REPLAY, at_least=False),
        report("visitors_errors", errors, "errors", 0, at_least=False),
        report("visitors_lost", abs(lost), "lost", 0, at_least=False),
    ]
    return all(met)
