"""Follow-ups while web, worker, mailbox and database are killed at random: each exactly once. And their rate."""

import tempfile
import threading
import time
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import Any

import psycopg

from bench.engine_form import large_form
from bench.helpers import Helpers, kill_in_turn
from bench.kills import Told, visitors_handing_in
from bench.measuring import report
from bench.running import Running, running_with
from codexa.core.form.form import Form
from codexa.practice.mailbox import store
from codexa.services.follow_ups.mailing import message_id
from codexa.settings import Settings
from launch.machine import free_port

_KILLS, _SHORT_KILLS, _MAILS = 200, 10, 10_000
_MODULES = {"mailbox": ("codexa.practice.mailbox.smtp",), "worker": ("codexa.jobs",)}
_LONGEST = 600  # seconds that may pass till all has been carried out
_MAILS_OF_EACH, _FOLLOW_UPS = ("team", "visitor"), ("team", "visitor", "hook")


class _Receiver:
    """The other system: counts how often each key came."""

    def __init__(self) -> None:
        self.came: Counter[str] = Counter()
        came = self.came

        class Takes(BaseHTTPRequestHandler):
            def do_POST(self) -> None:
                self.rfile.read(int(self.headers["Content-Length"]))
                came[self.headers["Idempotency-Key"]] += 1
                self.send_response(204)
                self.end_headers()

            def log_message(self, *_parts: Any) -> None:
                """Say nothing."""

        self._server = ThreadingHTTPServer(("127.0.0.1", 0), Takes)
        self.port = self._server.server_address[1]
        threading.Thread(target=self._server.serve_forever, daemon=True).start()

    def close(self) -> None:
        self._server.shutdown()
        self._server.server_close()


def form_with_follow_ups(hook: int) -> Form:
    """Return a form that sets off two mails and a webhook to this port of loopback."""
    mails = [
        {
            "id": name,
            "kind": "email",
            "recipients": [{"address": f"{name}@alderlight.example.org"}],
            "subject": "Your visit",
            "paragraphs": [{"text": "Thank you."}],
            "all_answers": True,
        }
        for name in _MAILS_OF_EACH
    ]
    hooks = [{"id": "hook", "kind": "webhook", "address": f"http://127.0.0.1:{hook}/visits"}]
    return Form.model_validate(large_form(8, rows=False).model_dump(mode="json") | {"follow_ups": [*mails, *hooks]})


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    with _everything() as (running, helpers, receiver, folder):
        exactly = _exactly_once(running, helpers, receiver, folder, _KILLS)
        return _rate(running, helpers) and exactly


def short_run() -> bool:
    """Kill a few times only, and measure no rate."""
    with _everything() as (running, helpers, receiver, folder):
        return _exactly_once(running, helpers, receiver, folder, _SHORT_KILLS)


@contextmanager
def _everything() -> Iterator[tuple[Running, Helpers, _Receiver, Path]]:
    receiver = _Receiver()
    smtp = str(free_port())
    with tempfile.TemporaryDirectory(prefix="codexa-mails-") as folder:
        settings = {"CODEXA_SMTP_PORT": smtp, "CODEXA_MAILS_PER_HOUR": "1000000"}
        with running_with(form_with_follow_ups(receiver.port), workers=2, settings=settings) as running:
            places = {"PRACTICE_SMTP_PORT": smtp, "PRACTICE_MAILBOX": folder}
            helpers = Helpers({**running.environment, **places}, _MODULES)
            helpers.start("mailbox")
            helpers.start("worker")
            try:
                yield running, helpers, receiver, Path(folder)
            finally:
                helpers.kill_all()
                receiver.close()


def _exactly_once(running: Running, helpers: Helpers, receiver: _Receiver, folder: Path, kills: int) -> bool:
    told = Told()
    with visitors_handing_in(running, told):
        killed = kill_in_turn(running, helpers, ("worker", "mailbox"), kills, seed=13)
    carried_out = _wait_for_all(running, helpers, hurried=True)
    numbers = _numbers(running)
    expected = {
        name: [f"{running.form}.{number}.{name}.complete.0" for number in numbers.values()] for name in _FOLLOW_UPS
    }
    ids = {message_id(key, Settings()) for name in _MAILS_OF_EACH for key in expected[name]}
    mails = _mails(folder)
    report("mails_killed", sum(killed.values()), f"processes killed: {dict(killed)}", None)
    report("mails_responses", len(numbers), "responses", None)
    report("mails_repeats", sum((mails + receiver.came).values()) - len(mails + receiver.came), "known by key", None)
    met = report("mails_waiting", 0 if carried_out else 1, "not carried out in time", 0, at_least=False)
    lost = [key for key, number in told.numbers.items() if numbers.get(key) != number]
    met = report("mails_lost_responses", len(lost), "acknowledged, not stored", 0, at_least=False) and met
    met = report("mails_missing", len(ids - mails.keys()), "mails that never came", 0, at_least=False) and met
    met = report("mails_extra", len(mails.keys() - ids), "mails that nobody expects", 0, at_least=False) and met
    hooks = set(expected["hook"])
    met = (
        report("hooks_missing", len(hooks - receiver.came.keys()), "webhooks that never came", 0, at_least=False)
        and met
    )
    return report("hooks_extra", len(receiver.came.keys() - hooks), "that nobody expects", 0, at_least=False) and met


def _wait_for_all(running: Running, helpers: Helpers, *, hurried: bool) -> bool:
    """Wait until nothing waits; `hurried` does without the pauses before further tries."""
    ends = time.monotonic() + _LONGEST
    while time.monotonic() < ends:
        helpers.revive()
        with psycopg.connect(running.database) as connection:
            if hurried:
                connection.execute(
                    "UPDATE procrastinate_jobs SET scheduled_at = NULL WHERE status = 'todo' AND scheduled_at > now()"
                )
            waiting = connection.execute("SELECT count(*) FROM run WHERE state <> 'done'").fetchone()
        if waiting == (0,):
            return True
        time.sleep(1)
    return False


def _numbers(running: Running) -> dict[str, int]:
    with psycopg.connect(running.database) as connection:
        return dict(connection.execute("SELECT idempotency_key, number FROM response").fetchall())


def _mails(folder: Path) -> Counter[str]:
    """Return how often each mail was brought, by Message-ID."""
    store.FOLDER = folder
    return Counter({str(each.message["Message-ID"]): each.times for each in store.all_mail()})


def _rate(running: Running, helpers: Helpers) -> bool:
    """Hand in while the worker rests; then see how quickly it catches up."""
    helpers.kill("worker")
    told = Told()
    with visitors_handing_in(running, told):
        while len(told.numbers) * len(_MAILS_OF_EACH) < _MAILS:
            time.sleep(0.1)
    helpers.start("worker")
    began = time.monotonic()
    if not _wait_for_all(running, helpers, hurried=False):
        return report("mails_rate", 0, "mails a second", 50)
    mails = len(told.numbers) * len(_MAILS_OF_EACH)
    return report("mails_rate", mails / (time.monotonic() - began), "mails a second", 50)
