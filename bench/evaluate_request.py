"""The evaluate request of the large form, one answer changed, against a no-op JSON route, same server, same run."""

import http.client
import json
import statistics
import time

from bench.engine_form import answers_for, large_form
from bench.measuring import report
from bench.running import running_with

_REQUESTS, _ROUNDS = 300, 9


def _rates(port: int, path: str, body: bytes) -> list[float]:
    """Return the seconds that each of some requests took over one connection."""
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=10)
    times = []
    for _ in range(_REQUESTS):
        began = time.perf_counter()
        connection.request("POST", path, body, {"Content-Type": "application/json"})
        reply = connection.getresponse()
        reply.read()
        if reply.status != 200:
            raise RuntimeError(f"{path} answered {reply.status}")
        times.append(time.perf_counter() - began)
    connection.close()
    return times


def _p99(times: list[float]) -> float:
    return statistics.quantiles(times, n=100)[98]


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    with running_with(large_form()) as running:
        return _compare(running.port, f"/api/public/{running.form}/1/state")


def _compare(port: int, evaluate: str) -> bool:
    body = json.dumps({"answers": answers_for(), "changed": ["f0"]}).encode()
    times: dict[str, list[float]] = {evaluate: [], "/bench/no-op": []}
    _rates(port, evaluate, body)
    for _ in range(_ROUNDS):
        for path, each in times.items():
            each.extend(_rates(port, path, body))
    rate = statistics.median(times["/bench/no-op"]) / statistics.median(times[evaluate])
    tail = _p99(times[evaluate]) / _p99(times["/bench/no-op"])
    fast = report("evaluate_request_rate", rate, "of a no-op route's rate", 0.35)
    return report("evaluate_request_p99", tail, "times a no-op route's p99", 3.0, at_least=False) and fast
