"""How the benchmarks measure and report."""

import gc
import json
import statistics
import time
from collections.abc import Callable, Mapping

ROUNDS = 15


def seconds_per_call(work: Callable[[], object], calls: int) -> float:
    """Return how long one call takes, over that many calls; without pauses for collecting garbage, as timeit does."""
    gc.collect()
    gc.disable()
    began = time.perf_counter()
    for _ in range(calls):
        work()
    passed = time.perf_counter() - began
    gc.enable()
    return passed / calls


def interleaved(works: Mapping[str, Callable[[], object]], calls: int, rounds: int = ROUNDS) -> dict[str, float]:
    """Return the median seconds per call of each; rounds alternate, so that a noisy moment hits all alike."""
    for work in works.values():
        work()
    times: dict[str, list[float]] = {name: [] for name in works}
    for _ in range(rounds):
        for name, work in works.items():
            times[name].append(seconds_per_call(work, calls))
    return {name: statistics.median(each) for name, each in times.items()}


def report(name: str, value: float, unit: str, target: float | None, *, at_least: bool = True) -> bool:
    """Print a result as one JSON line and return whether the target is met; without a target it always is."""
    met = target is None or (value >= target if at_least else value <= target)
    print(json.dumps({"name": name, "value": float(f"{value:.4g}"), "unit": unit, "target": target, "met": met}))
    return met
