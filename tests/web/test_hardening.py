"""What must hold when things go wrong: floods, expired sessions, a database that dies, a worker that is killed."""

import datetime
import json
import os
import signal
import subprocess
import threading
import time
import urllib.request
from contextlib import suppress
from http.client import HTTPException

import psycopg
import pytest
from conftest import Browser, receive, visit_document, within
from jsonschema import Draft202012Validator

from codexa.core.form.form import read_form
from codexa.core.program.compiling import compile_form
from codexa.core.responses.conditions import Filter
from codexa.services.editions import Editions
from codexa.services.response_csv import CsvFashion
from codexa.services.response_set import filling
from codexa.services.response_set.exporting import Export
from codexa.services.response_set.looking import Look
from codexa.settings import Settings
from codexa.web.app import create_app
from codexa.web.openapi import form_schema, openapi
from launch import PYTHON, ROOT
from launch.machine import free_port

ANSWERS = {"people": "3", "show": "o1"}


@pytest.fixture
def made(database):
    """Make applications with other settings; they are closed at the end."""
    apps = []

    def make(**settings):
        app = create_app(Settings(database=database, pool_size="2", **settings))
        apps.append(app)
        return app

    yield make
    for app in apps:
        app.extensions["codexa"].close()


class TestSettingsTakeEffect:
    def test_a_flood_from_one_address_is_slowed_in_a_sentence(self, made, published):
        client = made(public_rate="3 per minute").test_client()
        address = f"/api/public/{published}/1/state"
        replies = [client.post(address, json={"answers": {}}) for _ in range(5)]
        assert [reply.status_code for reply in replies] == [200, 200, 200, 429, 429]
        assert "Wait a minute" in replies[-1].json["message"]

    def test_https_makes_cookies_secure_and_pins_it(self, made, mira, connection):
        connection.commit()
        reply = Browser(made(public_address="https://forms.example.org")).sign_in("mira@example.org")
        assert "Secure" in reply.headers["Set-Cookie"]
        assert reply.headers["Strict-Transport-Security"].startswith("max-age=")

    def test_the_visitor_behind_a_trusted_proxy_is_who_is_counted(self, made, published):
        client = made(public_rate="1 per minute", proxies="1").test_client()
        address = f"/api/public/{published}/1/state"

        def ask(visitor):
            return client.post(address, json={"answers": {}}, headers={"X-Forwarded-For": visitor}).status_code

        assert [ask("192.0.2.1"), ask("192.0.2.2"), ask("192.0.2.1")] == [200, 200, 429]

    def test_without_a_proxy_nobody_can_say_to_be_somebody_else(self, made, published):
        client = made(public_rate="1 per minute").test_client()
        statuses = [
            client.post(
                f"/api/public/{published}/1/state", json={"answers": {}}, headers={"X-Forwarded-For": f"192.0.2.{n}"}
            ).status_code
            for n in range(2)
        ]
        assert statuses == [200, 429]


class TestSessions:
    def test_an_expired_session_is_none(self, as_mira, connection):
        assert as_mira.get("/api/forms").status_code == 200
        connection.execute("UPDATE session SET expires_at = now() - interval '1 second'")
        connection.commit()
        reply = as_mira.get("/api/forms")
        assert (reply.status_code, reply.json["code"]) == (401, "not_signed_in")

    def test_who_leaves_the_team_is_out_at_once(self, as_mira, connection, mira):
        connection.execute("DELETE FROM membership WHERE person_id = %s", (mira.person_id,))
        connection.commit()
        assert as_mira.get("/api/forms").status_code == 401

    def test_the_cookie_itself_is_not_kept(self, as_mira, connection):
        cookie = as_mira.client.get_cookie("codexa_session").value
        kept = connection.execute("SELECT token_digest FROM session").fetchall()
        assert cookie.encode() not in [bytes(row["token_digest"]) for row in kept]

    def test_an_invented_cookie_is_nobody(self, app):
        client = app.test_client()
        client.set_cookie("codexa_session", "x" * 43)
        assert client.get("/api/forms").status_code == 401


def test_logs_carry_a_number_and_no_answers(agent, published, capsys):
    answers = {"people": "20", "show": "o1", "school": "Secret School", "mail": "ingrid@example.org"}
    address = f"/api/public/{published}/1/responses"
    reply = agent.client.post(address, json={"answers": answers}, headers={"Idempotency-Key": "logged-once"})
    lines = [json.loads(line) for line in capsys.readouterr().out.splitlines() if line.startswith("{")]
    assert lines[-1]["request_id"] == reply.headers["X-Request-Id"]
    assert lines[-1]["status"] == 201
    assert not [line for line in lines if "Secret" in json.dumps(line) or "ingrid" in json.dumps(line)]


def test_a_logged_error_quotes_nothing(agent, published, connection, capsys, monkeypatch):
    def fails(*_ignored, **_known):
        try:
            connection.execute("SELECT %s::jsonb", ('{"school": "Secret School"',))
        except psycopg.Error as error:
            raise ValueError("Secret School could not be kept") from error

    monkeypatch.setattr("codexa.web.public.receive", fails)
    address = f"/api/public/{published}/1/responses"
    reply = agent.client.post(address, json={"answers": ANSWERS}, headers={"Idempotency-Key": "goes-wrong-1"})
    said = capsys.readouterr()
    logged = next(json.loads(line) for line in said.out.splitlines() if '"unexpected"' in line)
    assert reply.status_code == 500
    assert "Secret" not in said.out + said.err + reply.text
    assert logged["cause"][0] == "builtins.ValueError"
    assert "psycopg.errors.InvalidTextRepresentation (22P02)" in logged["cause"]


def test_a_database_that_is_away_is_told_and_forgiven(agent, published, app, connection, cluster):
    address = f"/api/public/{published}/1/responses"

    def submit():
        return agent.client.post(address, json={"answers": ANSWERS}, headers={"Idempotency-Key": "after-the-fall"})

    assert agent.get("/ready").status_code == 200
    name = connection.info.dbname
    with psycopg.connect(cluster.admin_address(), autocommit=True) as admin:
        admin.execute(
            "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = %s AND pid <> %s",
            (name, connection.info.backend_pid),
        )
    # Every pooled connection is dead now; the pool notices and opens new ones.
    assert submit().status_code == 201


def test_an_export_is_read_while_it_is_written(connection, mira, published):
    program = compile_form(read_form(visit_document()))
    for index in range(1200):
        receive(connection, program, published, f"many-{index:05}", ANSWERS)
    filling.of_form(within(connection), Editions(within(connection)), published).fill()
    look = Look(filter=Filter())
    export = Export(within(connection), Editions(within(connection)), who=mira, form=published, look=look, tries=False)
    lines = export.as_csv(CsvFashion())
    assert next(lines).startswith('"Number","Received"')
    assert next(lines).startswith('"1200",')
    assert sum(1 for _ in lines) == 1199


def test_numbers_on_the_desk_are_of_the_last_days(connection, mira, published, as_mira):
    program = compile_form(read_form(visit_document()))
    now = datetime.datetime.now(datetime.UTC)
    for index, age in enumerate((0, 0, 1, 13, 20)):
        received = now - datetime.timedelta(days=age)
        receive(connection, program, published, f"aged-{index}", ANSWERS, at=received)
    connection.commit()
    row = as_mira.get("/api/forms").json["forms"][0]
    assert (row["responses"], sum(row["days"]), row["days"][-1], row["days"][0]) == (5, 4, 2, 1)


class TestKilledWorkers:
    """Gunicorn's workers are killed again and again while responses come in."""

    @pytest.fixture
    def server(self, database):
        port = free_port()
        command = [PYTHON, "-m", "gunicorn", "codexa.web.server:application()", "--bind", f"127.0.0.1:{port}"]
        options = ["--worker-class", "gthread", "--workers", "2", "--threads", "4", "--no-control-socket"]
        rates = {"CODEXA_PUBLIC_RATE": "100000 per minute", "CODEXA_WORK_RATE": "100000 per minute"}
        environment = {**os.environ, "CODEXA_DATABASE": database, **rates}
        quiet = subprocess.DEVNULL
        with subprocess.Popen([*command, *options], cwd=ROOT, env=environment, stdout=quiet, stderr=quiet) as process:
            yield f"http://127.0.0.1:{port}", process
            process.terminate()
            process.wait()

    @staticmethod
    def send(address, form, key):
        """Send until it is acknowledged, as the public form does; returns the number."""
        body = json.dumps({"answers": ANSWERS}).encode()
        headers = {"Content-Type": "application/json", "Idempotency-Key": key}
        ends = time.monotonic() + 60  # no matter how slow the machine: a worker needs only seconds to come up
        while time.monotonic() < ends:
            request = urllib.request.Request(f"{address}/api/public/{form}/1/responses", body, headers)
            try:
                with urllib.request.urlopen(request, timeout=5) as reply:
                    return json.load(reply)["number"]
            # A worker may be killed in the middle of its reply.
            except (HTTPException, OSError, ValueError):
                time.sleep(0.05)
        pytest.fail("never acknowledged")

    def test_lose_nothing_acknowledged_and_keep_nothing_twice(self, server, published, connection):
        address, process = server
        self.send(address, published, "warm-up-1")
        acknowledged, killed, done = {}, [], threading.Event()

        def visitor(name):
            for index in range(15):
                key = f"{name}-{index:04}"
                acknowledged[key] = self.send(address, published, key)

        def killer():
            answered = 0
            while not done.wait(0.02):
                # Not before somebody was answered again: the point is what is lost, not whether anything is left.
                if killed and len(acknowledged) < answered + 12:
                    continue
                answered = len(acknowledged)
                children = subprocess.run(
                    ["pgrep", "-P", str(process.pid)], capture_output=True, text=True, check=False
                )
                for pid in children.stdout.split()[:1]:
                    with suppress(ProcessLookupError):  # it may have ended by itself
                        os.kill(int(pid), signal.SIGKILL)
                        killed.append(pid)

        visitors = [threading.Thread(target=visitor, args=(f"visitor{each}",)) for each in range(4)]
        killing = threading.Thread(target=killer)
        for thread in [*visitors, killing]:
            thread.start()
        for thread in visitors:
            thread.join()
        done.set()
        killing.join()
        connection.rollback()
        kept = connection.execute("SELECT idempotency_key, number FROM response").fetchall()
        by_key = {row["idempotency_key"]: row["number"] for row in kept}
        assert killed
        assert len(kept) == 61
        assert len(set(by_key.values())) == 61
        assert {key: by_key[key] for key in acknowledged} == acknowledged


class TestPublishedDocuments:
    @pytest.mark.parametrize(
        "change",
        [{"colour": "red"}, {"pages": [{"id": "UPPER"}]}, {"brand": {"accent": "blue"}}, {"format": 3}, {"pages": {}}],
    )
    def test_the_schema_refuses_what_the_server_refuses(self, change):
        document = visit_document() | change
        assert list(Draft202012Validator(form_schema()).iter_errors(document))
        with pytest.raises(Exception, match=r".+"):
            read_form(document)

    def test_the_schema_is_a_schema(self):
        Draft202012Validator.check_schema(form_schema())

    def test_every_operation_points_to_shapes_that_exist(self):
        document = openapi()
        text = json.dumps(document["paths"])
        shapes = {part.split('"')[0] for part in text.split("#/components/schemas/")[1:]}
        assert shapes <= set(document["components"]["schemas"])
        operations = [operation for path in document["paths"].values() for operation in path.values()]
        assert all(operation["summary"].endswith(".") for operation in operations)
        assert len(operations) >= 18
