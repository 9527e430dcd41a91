"""A mail server for a test, the practice mailbox behind it, and a worker that does what waits."""

import asyncio
import threading
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager

import pytest
from aiosmtpd.smtp import SMTP

from codexa.jobs import make_app
from codexa.practice.mailbox import smtp as practice
from codexa.practice.mailbox import store as mailbox
from codexa.settings import Settings


@contextmanager
def mail_server(handler):
    """A mail server on loopback; yields its port."""
    ready, ports, stop = threading.Event(), [], []

    async def serve():
        loop = asyncio.get_running_loop()
        server = await loop.create_server(lambda: SMTP(handler, hostname="test"), "127.0.0.1", 0)
        ports.append(server.sockets[0].getsockname()[1])
        end = asyncio.Event()
        stop.append(lambda: loop.call_soon_threadsafe(end.set))
        ready.set()
        async with server:
            await end.wait()

    thread = threading.Thread(target=asyncio.run, args=(serve(),), daemon=True)
    thread.start()
    ready.wait(10)
    yield ports[0]
    stop[0]()
    thread.join(10)


@pytest.fixture
def box(tmp_path, monkeypatch):
    monkeypatch.setattr(mailbox, "FOLDER", tmp_path / "mailbox")
    with mail_server(practice.Handler()) as port:
        yield Settings(smtp_port=str(port), files=str(tmp_path))


def work(settings):
    """Do all jobs that wait."""
    app = make_app(settings)
    # What comes round by the clock would turn up in tests that run at a quarter past three and in no others.
    app.periodic_registry.periodic_tasks.clear()

    async def until_done():
        async with app.open_async():
            await app.run_worker_async(wait=False, install_signal_handlers=False)

    # In a thread of its own: a browser that was driven in this process has left a loop of its own running.
    with ThreadPoolExecutor(max_workers=1) as one:
        one.submit(lambda: asyncio.run(until_done())).result()


@pytest.fixture
def worker(database, box):
    """The settings of a worker on this test's database that sends to its mailbox."""
    return Settings(database=database, smtp_port=box.smtp_port, files=box.files)
