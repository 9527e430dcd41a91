"""The submit request, against a route that inserts one row with all that the submit keeps, same run."""

import http.client
import json
import statistics
import time
import uuid

import psycopg

from bench.mails import form_with_follow_ups
from bench.measuring import report
from bench.running import running_with

_REQUESTS, _ROUNDS = 100, 9
_BODY = json.dumps({"answers": {}}).encode()


def _times(port: int, path: str) -> list[float]:
    """Return the seconds that each of some requests took over one connection."""
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=10)
    times: list[float] = []
    while len(times) < _REQUESTS:
        headers = {"Content-Type": "application/json", "Idempotency-Key": uuid.uuid4().hex}
        began = time.perf_counter()
        try:
            connection.request("POST", path, _BODY, headers)
            reply = connection.getresponse()
        except (BrokenPipeError, http.client.RemoteDisconnected):
            # A machine that stands still for two seconds lets the server take the connection for idle.
            connection.close()
            continue
        reply.read()
        if reply.status not in (200, 201):
            raise RuntimeError(f"{path} answered {reply.status}")
        times.append(time.perf_counter() - began)
    connection.close()
    return times


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    with running_with(form_with_follow_ups(hook=9)) as running:
        with psycopg.connect(running.database) as connection:
            connection.execute("CREATE TABLE bench_row (key text PRIMARY KEY, content jsonb NOT NULL)")
        submit = f"/api/public/{running.form}/1/responses"
        times: dict[str, list[float]] = {submit: [], "/bench/insert": []}
        _times(running.port, submit)
        for _ in range(_ROUNDS):
            for path, each in times.items():
                each.extend(_times(running.port, path))
    rate = statistics.median(times["/bench/insert"]) / statistics.median(times[submit])
    return report("submit_rate", rate, "of the rate of a route that inserts one row", 0.5)
