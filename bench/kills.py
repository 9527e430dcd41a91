"""Responses while web workers are killed at random moments: acknowledged = stored = once. And a database that goes."""

import http.client
import json
import os
import random
import signal
import threading
import time
import urllib.error
import urllib.request
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field

import psycopg

from bench.engine_form import large_form
from bench.hostile import workers_of
from bench.measuring import report
from bench.running import Running, running_with

_KILLS, _VISITORS = 100, 4
_BETWEEN = (0.2, 0.9)  # seconds


@dataclass
class Told:
    """What visitors were told: a response's number, by key."""

    numbers: dict[str, int] = field(default_factory=dict)
    over: threading.Event = field(default_factory=threading.Event)


@contextmanager
def visitors_handing_in(running: Running, told: Told) -> Iterator[None]:
    """Have visitors hand in, one response after the other, until the block is left."""
    visitors = [threading.Thread(target=_hand_in, args=(running, told)) for _ in range(_VISITORS)]
    for visitor in visitors:
        visitor.start()
    try:
        yield
    finally:
        told.over.set()
        for visitor in visitors:
            visitor.join()


def _hand_in(running: Running, told: Told) -> None:
    while not told.over.is_set():
        key = uuid.uuid4().hex
        number = _until_acknowledged(running, key)
        if number is not None:
            told.numbers[key] = number


def _until_acknowledged(running: Running, key: str) -> int | None:
    body = json.dumps({"answers": {}}).encode()
    headers = {"Content-Type": "application/json", "Idempotency-Key": key}
    address = f"http://127.0.0.1:{running.port}/api/public/{running.form}/1/responses"
    for _ in range(400):
        request = urllib.request.Request(address, body, headers)
        try:
            with urllib.request.urlopen(request, timeout=5) as reply:  # noqa: S310 - the same
                return int(json.load(reply)["number"])
        except urllib.error.HTTPError as error:
            if error.code < 500:
                raise
            time.sleep(0.05)
        except (OSError, ValueError, http.client.HTTPException):
            time.sleep(0.05)  # the worker was killed in the middle of its reply, or another is not there yet
    return None


def _kill_workers(running: Running) -> int:
    chance, killed = random.Random(7), 0
    while killed < _KILLS:
        time.sleep(chance.uniform(*_BETWEEN))
        workers = workers_of(running.server)
        if workers:
            os.kill(chance.choice(workers), signal.SIGKILL)
            killed += 1
    return killed


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    with running_with(large_form(8, rows=False), workers=2) as running:
        return _kills(running) and _recovery(running)


def _kills(running: Running) -> bool:
    told = Told()
    with visitors_handing_in(running, told):
        killed = _kill_workers(running)
    with psycopg.connect(running.database) as connection:
        kept = connection.execute("SELECT idempotency_key, number FROM response").fetchall()
    stored: dict[str, int] = dict(kept)
    lost = [key for key, number in told.numbers.items() if stored.get(key) != number]
    report("kills", killed, "workers killed", None)
    report("kills_acknowledged", len(told.numbers), "responses", None)
    report("kills_stored", len(kept), "responses", None)
    twice = len(kept) - len(set(stored.values()))
    fine = report("kills_lost", len(lost), "acknowledged and not stored", 0, at_least=False)
    return report("kills_twice", twice, "stored twice", 0, at_least=False) and fine


def _recovery(running: Running) -> bool:
    """Stop the database, start it, and see how long the server needs to answer again."""
    running.stop_database(signal.SIGINT)
    began = time.monotonic()
    status = _ready(running)
    told = time.monotonic() - began
    running.start_database()
    began = time.monotonic()
    while _ready(running) != 200 and time.monotonic() - began < 30:
        time.sleep(0.05)
    back = time.monotonic() - began
    met = report("database_away_status", status, "HTTP status", 503)
    met = report("database_away_told", told, "seconds", 3, at_least=False) and met
    return report("database_back_after", back, "seconds", 3, at_least=False) and met


def _ready(running: Running) -> int:
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{running.port}/ready", timeout=20) as reply:
            return int(reply.status)
    except urllib.error.HTTPError as error:
        return error.code
