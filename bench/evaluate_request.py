"""The evaluate request of the large form, one answer changed, against a no-op JSON route, same server, same run."""

import http.client
import json
import os
import statistics
import subprocess
import tempfile
import time
import urllib.request
from pathlib import Path
from uuid import UUID

from bench.engine_form import answers_for, large_form
from bench.measuring import report
from codexa.services import desk, publishing, signing_in
from codexa.store import people, sessions
from codexa.store.database import open_pool
from launch import PYTHON, ROOT
from launch.machine import free_port
from launch.postgres import Cluster

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
    with tempfile.TemporaryDirectory(prefix="codexa-bench-") as folder:
        Path(folder).chmod(0o755)
        cluster = Cluster(Path(folder) / "postgres", free_port())
        cluster.initialise()
        with subprocess.Popen(cluster.command(), cwd="/", stderr=subprocess.DEVNULL) as postgres:
            try:
                cluster.wait()
                cluster.create_database("codexa")
                return _measure(cluster.address("codexa"))
            finally:
                postgres.terminate()
                postgres.wait()
                cluster.remove()


def _measure(database: str) -> bool:
    port = free_port()
    environment = {**os.environ, "CODEXA_DATABASE": database, "CODEXA_PUBLIC_RATE": "100000 per second"}
    subprocess.run([PYTHON, "-m", "codexa.cli", "migrate"], cwd=ROOT, env=environment, check=True)
    form = _publish_large_form(database)
    command = [str(PYTHON), "-m", "gunicorn", "bench.server:application()", "--bind", f"127.0.0.1:{port}"]
    options = ["--worker-class", "gthread", "--threads", "8", "--no-control-socket", "--log-level", "error"]
    with subprocess.Popen([*command, *options], cwd=ROOT, env=environment, stdout=subprocess.DEVNULL) as server:
        try:
            _wait_for(f"http://127.0.0.1:{port}/health")
            return _compare(port, f"/api/public/{form}/1/state")
        finally:
            server.terminate()
            server.wait()


def _publish_large_form(database: str) -> UUID:
    with open_pool(database, 1) as pool, pool.connection() as connection:
        team = people.insert_team(connection, slug="bench", name="Bench")
        hashed = signing_in.hash_password("for the bench")
        email = "bench@example.org"
        people.insert_person(connection, team=team, role="owner", email=email, name="Bench", password_hash=hashed)
        session = signing_in.sign_in(connection, email=email, password="for the bench")  # noqa: S106 - thrown away
        who = sessions.find_session(connection, digest=signing_in.digest_of(session.token))
        assert who is not None
        form = desk.import_form(connection, who=who, document=large_form().model_dump(mode="json"))
        publishing.publish(connection, who=who, form=form, revision=1)
        return form


def _wait_for(address: str) -> None:
    for _ in range(100):
        try:
            urllib.request.urlopen(address, timeout=2).close()  # noqa: S310 - our own loopback address
        except OSError:
            time.sleep(0.1)
        else:
            return
    raise RuntimeError("the server does not answer")


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
