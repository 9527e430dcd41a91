"""What is scarce is held only while it is used: connections, threads; and a database that is away is told at once."""

import io
import json
import os
import signal
import socket
import subprocess
import threading
import time
import urllib.request
from contextlib import suppress

import pytest
from conftest import Browser, make_person, receive, visit_document, within

from codexa.core.form.form import read_form
from codexa.core.program.compiling import compile_form
from codexa.services import desk, publishing
from codexa.services.editions import Editions
from codexa.settings import Settings
from codexa.store.database import AwayError, BusyError, Database, migrate
from codexa.web import files
from codexa.web.app import create_app
from codexa.web.limits import CommonCounts
from codexa.web.slow_bodies import SlowBodies
from launch import PYTHON, ROOT
from launch.machine import free_port
from launch.postgres import Cluster

ANSWERS = {"people": "3", "show": "o1"}
UPLOAD = {
    "name": "Photos",
    "title": "Photos",
    "pages": [{"id": "p", "blocks": [{"id": "any", "type": "file_upload", "key": "any", "label": "Any"}]}],
}


@pytest.fixture
def app(database, tmp_path):
    """An application with one connection: whoever holds it keeps everybody else waiting."""
    app = create_app(Settings(database=database, files=str(tmp_path), pool_size="1", export_pool_size="1"))
    yield app
    app.extensions["codexa"].close()


@pytest.fixture
def photos(connection, mira):
    form = desk.import_form(within(connection), who=mira, document=UPLOAD)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form


def many(work, count):
    """Do something in so many threads at once and return what each came to."""
    results = []
    threads = [threading.Thread(target=lambda at=at: results.append(work(at))) for at in range(count)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return results


class TestOneConnection:
    def test_serves_cold_requests_that_come_all_at_once(self, app, published):
        app.extensions["codexa"].editions._programs._kept.clear()
        pages = ["/f/alderlight/visit", f"/api/public/{published}/1/state"]

        def ask(at):
            client = app.test_client()
            return (client.get(pages[0]) if at % 2 else client.post(pages[1], json={"answers": {}})).status_code

        assert many(ask, 8) == [200] * 8

    def test_is_free_while_a_file_arrives(self, app, photos, monkeypatch):
        asked = []

        def arrives(content, *_ignored):
            asked.append(app.test_client().get("/ready").status_code)
            return content.read(1)

        monkeypatch.setattr("codexa.services.uploads._write", arrives)
        app.test_client().post(f"/api/public/{photos}/1/files/any", query_string={"name": "a.pdf"}, data=b"%PDF-1.4")
        assert asked == [200]

    def test_is_free_while_an_export_is_read(self, app, connection, mira, published, monkeypatch):
        agent = Browser(app)
        agent.sign_in("mira@example.org")
        program = compile_form(read_form(visit_document()))
        for index in range(3):
            receive(connection, program, published, f"many-{index:05}", ANSWERS)
        connection.commit()
        monkeypatch.setattr(files, "_PIECE", 1)  # each line leaves by itself
        export = agent.client.get(f"/api/forms/{published}/responses.csv", buffered=False)
        lines = iter(export.response)
        next(lines)
        assert agent.get("/api/forms").status_code == 200
        # However slowly it is read: it holds no connection in between.
        assert len(agent.get(f"/api/forms/{published}/responses.csv").get_data(as_text=True).splitlines()) == 4
        assert sum(1 for _ in lines) == 3
        export.close()


def test_an_edition_is_compiled_once_however_many_ask(connection, published, monkeypatch):
    compiled = []

    def slowly(form):
        compiled.append(form.name)
        time.sleep(0.05)
        return compile_form(form)

    monkeypatch.setattr("codexa.services.editions.compile_form", slowly)
    editions = Editions(within(connection))
    assert len({id(each) for each in many(lambda _: editions.program(published, 1), 6)}) == 1
    assert compiled == ["Visit"]


class TestSides:
    @pytest.mark.parametrize(("side", "statuses"), [("public", [200, 404]), ("workbench", [404, 401])])
    def test_a_process_answers_one_or_both(self, database, published, side, statuses):
        app = create_app(Settings(database=database, side=side))
        client = app.test_client()
        assert [client.get(path).status_code for path in ("/f/alderlight/visit", "/api/forms")] == statuses
        assert client.get("/health").status_code == 200
        app.extensions["codexa"].close()


class TestRates:
    def test_are_those_of_all_processes_together(self, database):
        own = Database(database, 2)
        processes = [CommonCounts("codexa://", database=own) for _ in range(2)]
        key = "LIMITER/192.0.2.1/public.state/100/1/minute"
        counts = [processes[at % 2].incr(key, 60) for at in range(120)]
        # Each tells the others after a twentieth of what is allowed: the count is behind by no more than that each.
        assert max(counts) >= 110
        assert counts[-1] > 100
        assert processes[0].incr("LIMITER/192.0.2.2/public.state/100/1/minute", 60) == 1
        own.close()

    def test_end_with_their_window_and_go_on_alone_without_a_database(self, database):
        own = Database(database, 2)
        counted = CommonCounts("codexa://", database=own)
        key = "LIMITER/192.0.2.1/public.state/1/1/second"
        assert [counted.incr(key, 0.2), counted.incr(key, 0.2)] == [1, 2]
        time.sleep(0.25)
        assert counted.incr(key, 0.2) == 1
        own.close()
        lost = Database("postgresql://nobody@127.0.0.1:1/none", 1)
        alone = CommonCounts("codexa://", database=lost)
        assert [alone.incr(key, 60), alone.incr(key, 60)] == [1, 2]
        lost.close()


@pytest.fixture
def own_cluster(tmp_path_factory):
    """A cluster of this test's own, that may be stopped and frozen, with one migrated database."""
    folder = tmp_path_factory.mktemp("cluster")
    for each in (folder, *folder.parents[:2]):
        each.chmod(0o755)
    cluster = Cluster(folder / "postgres", free_port())
    cluster.initialise()
    processes = []

    def start():
        command = [*cluster.command(), "-c", "fsync=off"]
        processes.append(subprocess.Popen(command, cwd="/", stderr=subprocess.DEVNULL))
        cluster.wait()

    start()
    cluster.create_database("codexa")
    migrate(cluster.address("codexa"))
    yield cluster, start, processes
    if processes[-1].poll() is None:
        signal_all(processes, signal.SIGCONT)
        processes[-1].send_signal(signal.SIGINT)
        processes[-1].wait(20)
    cluster.remove()


def seconds(work):
    began = time.monotonic()
    work()
    return time.monotonic() - began


def signal_all(processes, sign):
    """Send a signal to a server and to all that serve its connections."""
    children = subprocess.run(["pgrep", "-P", str(processes[-1].pid)], capture_output=True, text=True, check=False)
    for pid in (*children.stdout.split(), processes[-1].pid):
        # One that serves a connection may have ended since it was listed.
        with suppress(ProcessLookupError):
            os.kill(int(pid), sign)


def test_a_database_that_freezes_or_goes_is_told_at_once_and_back_within_three_seconds(own_cluster):
    cluster, start, processes = own_cluster
    app = create_app(Settings(database=cluster.address("codexa"), pool_size="2"))
    client = app.test_client()
    assert client.get("/ready").status_code == 200

    def status():
        return client.get("/ready").status_code

    def recovers():
        ends = time.monotonic() + 3
        while time.monotonic() < ends:
            if status() == 200:
                return True
            time.sleep(0.1)
        return False

    signal_all(processes, signal.SIGSTOP)
    assert seconds(lambda: status() == 503) < 8  # the first finds out
    assert [status() for _ in range(5)] == [503] * 5
    assert seconds(status) < 0.5
    assert seconds(lambda: client.get("/health")) < 0.1
    signal_all(processes, signal.SIGCONT)
    assert recovers()
    processes[-1].send_signal(signal.SIGINT)
    processes[-1].wait()
    assert status() == 503
    assert sum(seconds(status) for _ in range(5)) < 4
    start()
    assert recovers()
    app.extensions["codexa"].close()


def test_who_waits_for_a_connection_is_told_that_all_are_in_use(database):
    own = Database(database, 1)
    with own.connection(), pytest.raises(BusyError), own.connection():
        pass
    lost = Database("postgresql://nobody@127.0.0.1:1/none", 1)
    for _ in range(2):
        with pytest.raises(AwayError), lost.connection():
            pass
    with pytest.raises(AwayError):
        assert seconds(lost.connection().__enter__) < 0.1
    own.close()
    lost.close()


class TestSlowBodies:
    @pytest.fixture
    def server(self, database):
        port = free_port()
        command = [PYTHON, "-m", "gunicorn", "codexa.web.server:application()", "--bind", f"127.0.0.1:{port}"]
        options = ["--worker-class", "gthread", "--threads", "8", "--no-control-socket"]
        rates = {"CODEXA_PUBLIC_RATE": "100000 per minute", "CODEXA_WORK_RATE": "100000 per minute"}
        environment = {**os.environ, "CODEXA_DATABASE": database, **rates}
        quiet = subprocess.DEVNULL
        with subprocess.Popen([*command, *options], cwd=ROOT, env=environment, stdout=quiet, stderr=quiet) as process:
            for _ in range(100):
                try:
                    urllib.request.urlopen(f"http://127.0.0.1:{port}/ready", timeout=2).close()
                    break
                except OSError:
                    time.sleep(0.1)
            yield port
            process.terminate()
            process.wait()

    def test_fourteen_files_that_arrive_half_leave_room_for_those_who_fill_in(self, server, photos, published):
        halves = []
        for _ in range(14):
            line = socket.create_connection(("127.0.0.1", server), timeout=5)
            head = f"POST /api/public/{photos}/1/files/any?name=a.pdf HTTP/1.1\r\nHost: x\r\nContent-Length: 4000000"
            line.sendall(f"{head}\r\n\r\n".encode() + b"%PDF-1.4" * 100)
            halves.append(line)
        time.sleep(0.5)
        body = json.dumps({"answers": ANSWERS}).encode()
        headers = {"Content-Type": "application/json", "Idempotency-Key": "through-all-that"}
        request = urllib.request.Request(f"http://127.0.0.1:{server}/api/public/{published}/1/responses", body, headers)
        with urllib.request.urlopen(request, timeout=5) as reply:
            assert reply.status == 201
        for line in halves:
            line.close()

    def test_a_body_that_comes_too_slowly_is_ended_and_one_that_comes_is_not(self):
        ours, theirs = socket.socketpair()
        read = []

        def application(environ, start_response):
            while piece := environ["wsgi.input"].read(4):
                read.append(piece)
            return []

        with ours, theirs, theirs.makefile("rb") as slowly:
            environ = {"gunicorn.socket": theirs, "CONTENT_LENGTH": "8", "wsgi.input": slowly}
            ours.sendall(b"half")
            taken = seconds(lambda: SlowBodies(application, seconds=0.3)(environ, lambda *_: None))
            assert (read, 0.2 < taken < 3) == ([b"half"], True)
            environ = {"gunicorn.socket": ours, "CONTENT_LENGTH": "4", "wsgi.input": io.BytesIO(b"full")}
            SlowBodies(application, seconds=0.1)(environ, lambda *_: None)
            time.sleep(0.2)
            theirs.sendall(b"still open")
            assert ours.recv(10) == b"still open"


def test_the_presence_of_many_reads_no_draft_and_the_desk_no_document(as_mira, connection, published):
    make_person(connection)
    connection.execute("UPDATE form SET draft = jsonb_set(draft, '{title}', '\"New\"')")
    connection.commit()
    assert as_mira.get("/api/forms").json["forms"][0]["changed"] is True
    connection.execute("UPDATE form SET draft = jsonb_set(draft, '{title}', '\"Your visit\"')")
    connection.commit()
    assert as_mira.get("/api/forms").json["forms"][0]["changed"] is False


def test_errors_that_people_see_have_no_trace(app, monkeypatch):
    monkeypatch.setattr("codexa.web.pages.entry", lambda _name: 1 / 0)
    reply = app.test_client().get("/")
    assert reply.status_code == 500
    assert "Traceback" not in reply.text
    assert "ZeroDivision" not in reply.text
