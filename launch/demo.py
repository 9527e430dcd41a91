"""The demo: everything started, filled and watched over until Ctrl-C."""

import os
import shlex
import shutil
import signal
import subprocess
import tempfile
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

from launch import PYTHON, ROOT, VAR
from launch.install import install
from launch.machine import require_free_port
from launch.postgres import Cluster
from launch.steps import StopError, call, say

_SEE_LOG = "Its log is in var/log."


@dataclass(frozen=True, kw_only=True)
class Ports:
    """Where the demo listens, all on 127.0.0.1."""

    web: int
    website: int
    mailbox: int
    bank: int
    calendar: int
    smtp: int
    database: int


def _ports() -> Ports:
    def port(name: str, default: int) -> int:
        text = os.environ.get(name, str(default))
        if not text.isdigit() or not 1024 <= int(text) <= 65535:
            raise StopError(f'{name} is "{text}"; set it to a port from 1024 to 65535, or leave it out.')
        return int(text)

    return Ports(
        web=port("CODEXA_WEB_PORT", 8780),
        website=port("CODEXA_WEBSITE_PORT", 8790),
        mailbox=port("CODEXA_MAILBOX_PORT", 8791),
        bank=port("CODEXA_BANK_PORT", 8792),
        calendar=port("CODEXA_CALENDAR_PORT", 8793),
        smtp=port("CODEXA_SMTP_PORT", 8725),
        database=port("CODEXA_DATABASE_PORT", 5480),
    )


def run_demo() -> int:
    """Start the demo, wait for Ctrl-C, stop everything; returns the exit code."""
    ports = _ports()
    _refuse_second()
    say("Codexa: getting ready")
    install(for_tests=False)
    require_free_port(ports.web, "CODEXA_WEB_PORT", "workbench and public forms")
    require_free_port(ports.website, "CODEXA_WEBSITE_PORT", "practice website")
    require_free_port(ports.mailbox, "CODEXA_MAILBOX_PORT", "practice mailbox")
    require_free_port(ports.bank, "CODEXA_BANK_PORT", "practice bank")
    require_free_port(ports.calendar, "CODEXA_CALENDAR_PORT", "practice calendar")
    require_free_port(ports.smtp, "CODEXA_SMTP_PORT", "practice mailbox's mail server")
    require_free_port(ports.database, "CODEXA_DATABASE_PORT", "database")
    cluster = Cluster(VAR / "postgres", ports.database)
    cluster.initialise()
    with _stopped_by_signals(), _supervised(ports, cluster) as (supervisor, environment, control):
        cluster.wait()
        cluster.create_database("codexa")
        _codexa(["migrate"], environment)
        _codexa(["load-demo", "--site", f"http://127.0.0.1:{ports.website}"], environment)
        programs = ["mailbox-smtp", "mailbox", "bank", "calendar", "worker", "web", "website"]
        call([*control, "start", *programs], remedy=_SEE_LOG, environment=environment)
        _wait_for(f"http://127.0.0.1:{ports.web}/ready")
        _wait_for(f"http://127.0.0.1:{ports.website}/")
        _wait_for(f"http://127.0.0.1:{ports.mailbox}/")
        _wait_for(f"http://127.0.0.1:{ports.bank}/")
        _wait_for(f"http://127.0.0.1:{ports.calendar}/")
        _greet(ports)
        try:
            supervisor.wait()
            raise StopError(f"The process manager ended by itself. {_SEE_LOG}")
        except KeyboardInterrupt:
            say("\nStopping …")
    say("Stopped. The data stays; ./run reset empties it.")
    return 0


def reset() -> int:
    """Delete the demo's data; returns the exit code."""
    _refuse_second()
    Cluster(VAR / "postgres", _ports().database).remove()
    for folder in ("files", "mailbox", "bank", "calendar"):
        shutil.rmtree(VAR / folder, ignore_errors=True)
    say("The demo's data is gone. ./run demo makes it anew.")
    return 0


@contextmanager
def _stopped_by_signals() -> Iterator[None]:
    def interrupt(*_ignored: object) -> None:
        raise KeyboardInterrupt

    previous = {each: signal.signal(each, interrupt) for each in (signal.SIGTERM, signal.SIGHUP)}
    try:
        yield
    finally:
        for each, handler in previous.items():
            signal.signal(each, handler)


def _refuse_second() -> None:
    pid = VAR / "supervisord.pid"
    number = pid.read_text().strip() if pid.exists() else ""
    command = Path(f"/proc/{number}/cmdline")
    if number.isdigit() and command.exists() and b"supervisord" in command.read_bytes():
        raise StopError(f"The demo is running already. Stop it with Ctrl-C where it runs, or with: kill {number}")


@contextmanager
def _supervised(ports: Ports, cluster: Cluster) -> Iterator[tuple[subprocess.Popen[bytes], dict[str, str], list[str]]]:
    (VAR / "log").mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(prefix="codexa-") as folder:
        environment = {
            **os.environ,
            "LAUNCH_ROOT": str(ROOT),
            "LAUNCH_VAR": str(VAR),
            "LAUNCH_PYTHON": str(PYTHON),
            # A path of its own: the project's may be too long for a socket.
            "LAUNCH_SOCKET": f"{folder}/supervisor",
            "LAUNCH_POSTGRES": shlex.join(cluster.command()),
            "LAUNCH_WEB_PORT": str(ports.web),
            "LAUNCH_WEBSITE_PORT": str(ports.website),
            "CODEXA_DATABASE": cluster.address("codexa"),
            "CODEXA_PUBLIC_ADDRESS": f"http://127.0.0.1:{ports.web}",
            "CODEXA_FILES": str(VAR / "files"),
            "CODEXA_SMTP_PORT": str(ports.smtp),
            "LAUNCH_MAILBOX_PORT": str(ports.mailbox),
            "PRACTICE_SMTP_PORT": str(ports.smtp),
            "PRACTICE_MAILBOX": str(VAR / "mailbox"),
            "LAUNCH_BANK_PORT": str(ports.bank),
            "CODEXA_PRACTICE_BANK": f"http://127.0.0.1:{ports.bank}",
            "PRACTICE_BANK": str(VAR / "bank"),
            "LAUNCH_CALENDAR_PORT": str(ports.calendar),
            "CODEXA_PRACTICE_CALENDAR": f"http://127.0.0.1:{ports.calendar}",
            "PRACTICE_CALENDAR": str(VAR / "calendar"),
        }
        configuration = str(ROOT / "launch" / "supervisord.conf")
        # A session of its own: Ctrl-C reaches only us, and we stop the rest in order.
        # What is written, logs and uploads, is read by its owner and group alone.
        supervisor = subprocess.Popen(
            [PYTHON, "-m", "supervisor.supervisord", "-c", configuration],
            env=environment,
            start_new_session=True,
            umask=0o027,
        )
        try:
            yield supervisor, environment, [str(PYTHON), "-m", "supervisor.supervisorctl", "-c", configuration]
        finally:
            supervisor.terminate()
            supervisor.wait()


def _codexa(words: list[str], environment: dict[str, str]) -> None:
    say({"migrate": "  Database", "load-demo": "  Demo data"}[words[0]])
    call([PYTHON, "-m", "codexa.cli", *words], remedy="Run ./run reset and try again.", environment=environment)


def _wait_for(address: str, seconds: float = 30) -> None:
    ends = time.monotonic() + seconds
    while True:
        try:
            with urllib.request.urlopen(address, timeout=2):  # noqa: S310 - our own loopback address
                return
        except (urllib.error.URLError, OSError):
            if time.monotonic() > ends:
                raise StopError(f"{address} does not answer. {_SEE_LOG}") from None
            time.sleep(0.1)


def _greet(ports: Ports) -> None:
    say(f"""
Codexa is ready.

  Workbench          http://127.0.0.1:{ports.web}/
                     sign in as mira@alderlight.example.org with the password alderlight
  A public form      http://127.0.0.1:{ports.web}/f/alderlight/plan-a-visit
  Practice website   http://127.0.0.1:{ports.website}/
  Practice mailbox   http://127.0.0.1:{ports.mailbox}/
  Practice bank      http://127.0.0.1:{ports.bank}/
  Practice calendar  http://127.0.0.1:{ports.calendar}/

Ctrl-C stops everything; the data stays.""")
