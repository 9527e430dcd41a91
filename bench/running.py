"""A server of its own for a benchmark: a new cluster, one person, one form, gunicorn; all of it gone afterwards."""

import os
import signal
import subprocess
import tempfile
import time
import urllib.request
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from uuid import UUID

from codexa.core.form.form import Form
from codexa.services import desk, people, publishing
from codexa.store.database import Database
from launch import PYTHON, ROOT
from launch.machine import free_port
from launch.postgres import Cluster

EMAIL, PASSWORD = "bench@example.org", "for the bench"


@dataclass(frozen=True, kw_only=True, slots=True)
class Running:
    """Where the server answers, the form that it has, published once; its process, its settings, and its database."""

    port: int
    form: UUID
    server: int
    database: str
    environment: dict[str, str]
    stop_database: Callable[[signal.Signals], None]
    start_database: Callable[[], None]


class _Postgres:
    """The cluster's server, which may be stopped and started in between."""

    def __init__(self, cluster: Cluster) -> None:
        self._cluster = cluster
        self._process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        # After SIGKILL the first starts may fail: what the old server had in memory goes with its last child.
        for _ in range(100):
            self._process = subprocess.Popen(self._cluster.command(), cwd="/", stderr=subprocess.DEVNULL)
            try:
                self._process.wait(0.3)
            except subprocess.TimeoutExpired:
                break
        self._cluster.wait()

    def stop(self, how: signal.Signals) -> None:
        """End it by SIGINT ("fast": connections are closed, nothing committed is lost) or SIGKILL (a crash)."""
        if self._process is not None:
            self._process.send_signal(how)
            self._process.wait()


@contextmanager
def running_with(form: Form, workers: int = 1, settings: Mapping[str, str] | None = None) -> Iterator[Running]:
    """Run a server that has this form, until the block is left. EMAIL and PASSWORD sign in there.

    `settings` are further ones, by variable.
    """
    with tempfile.TemporaryDirectory(prefix="codexa-bench-") as folder:
        Path(folder).chmod(0o755)
        cluster = Cluster(Path(folder) / "postgres", free_port())
        cluster.initialise()
        postgres = _Postgres(cluster)
        postgres.start()
        try:
            cluster.create_database("codexa")
            known = {"CODEXA_DATABASE": cluster.address("codexa"), **(settings or {})}
            with _serving(form, folder, workers, postgres, known) as running:
                yield running
        finally:
            postgres.stop(signal.SIGINT)
            cluster.remove()


@contextmanager
def _serving(
    form: Form, folder: str, workers: int, postgres: _Postgres, settings: Mapping[str, str]
) -> Iterator[Running]:
    port, database = free_port(), settings["CODEXA_DATABASE"]
    environment = {
        **os.environ,
        "CODEXA_PUBLIC_RATE": "100000 per second",
        "CODEXA_TEAM_RATE": "100000 per second",
        "CODEXA_HOLD_SUSPECTED": "no",
        "CODEXA_WORK_RATE": "1000000 per minute",
        "CODEXA_PUBLIC_ADDRESS": f"http://127.0.0.1:{port}",
        "CODEXA_FILES": f"{folder}/files",
        "CODEXA_LEAST_FREE_DISK": "0",
        **settings,
    }
    subprocess.run([PYTHON, "-m", "codexa.cli", "migrate"], cwd=ROOT, env=environment, check=True)
    published = _publish(database, form)
    command = [str(PYTHON), "-m", "gunicorn", "bench.server:application()", "--bind", f"127.0.0.1:{port}"]
    options = ["--worker-class", "gthread", "--threads", "8", "--no-control-socket", "--log-level", "critical"]
    options += ["--workers", str(workers)]
    with subprocess.Popen([*command, *options], cwd=ROOT, env=environment, stdout=subprocess.DEVNULL) as server:
        try:
            _wait_for(f"http://127.0.0.1:{port}/health")
            yield Running(
                port=port,
                form=published,
                server=server.pid,
                database=database,
                environment=environment,
                stop_database=postgres.stop,
                start_database=postgres.start,
            )
        finally:
            server.terminate()
            server.wait()


def _publish(database: str, form: Form) -> UUID:
    known = Database(database, 2)
    with known.connection() as connection:
        who = people.create_owner(connection, team="Bench", email=EMAIL, name="Bench", password=PASSWORD)
    made = desk.import_form(known.connection, who=who, document=form.model_dump(mode="json"))
    publishing.publish(known.connection, who=who, form=made, revision=1)
    known.close()
    return made


def _wait_for(address: str) -> None:
    for _ in range(100):
        try:
            urllib.request.urlopen(address, timeout=2).close()  # noqa: S310 - our own loopback address
        except OSError:
            time.sleep(0.1)
        else:
            return
    raise RuntimeError("the server does not answer")
