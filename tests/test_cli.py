"""Codexa's own commands, on a database of their own: what operators run, and what they are told when it can't be."""

import io
import json
import shutil
import sys
import uuid
from pathlib import Path

import psycopg
import pytest
from conftest import Browser, copied_database, visit_document
from psycopg.types.json import Jsonb
from yoyo import get_backend, read_migrations
from yoyo.migrations import MigrationList

from codexa import cli
from codexa.core.context import Context
from codexa.services import demo
from codexa.settings import Settings
from codexa.store.database import _MIGRATIONS as MIGRATIONS
from codexa.store.database import migrate
from codexa.web.app import create_app


@pytest.fixture
def run(database, tmp_path, monkeypatch, capsys):
    """Run a command as the launcher does, and return its exit code and what it said."""

    def command(*words, **environment):
        known = {"CODEXA_DATABASE": database, "CODEXA_FILES": str(tmp_path), **environment}
        for name, value in known.items():
            monkeypatch.setenv(name, value)
        monkeypatch.setattr(sys, "argv", ["codexa.cli", *words])
        code = cli.main()
        said = capsys.readouterr()
        return code, said.out + said.err

    return command


def counted(database, what):
    with psycopg.connect(database) as connection:
        return connection.execute(f"SELECT count(*) FROM {what}").fetchone()[0]


@pytest.fixture
def on_demo(cluster, demo_template, tmp_path):
    """The environment of a command on a copy of the demo's database and files."""
    template, files = demo_template
    shutil.copytree(files, tmp_path / "demo-files")
    with copied_database(cluster, template) as address:
        yield {"CODEXA_DATABASE": address, "CODEXA_FILES": str(tmp_path / "demo-files")}


def test_the_demo_is_loaded_once_with_responses_that_were_received(run, database, monkeypatch):
    few = {file: min(count, 20) for file, count in demo.FORMS.items()}
    monkeypatch.setattr(demo, "FORMS", few)
    assert run("migrate") == (0, "")
    assert run("load-demo", "--site", "http://127.0.0.1:8790")[0] == 0
    made = [counted(database, what) for what in ("form", "edition", "response")]
    # The form that stands on somebody's own desk, besides.
    assert made == [len(few) + 1, len(few) + 1, sum(few.values())]
    assert run("load-demo")[0] == 0
    assert [counted(database, what) for what in ("form", "edition", "response")] == made


def test_what_is_cleared_away_is_counted(run):
    assert run("tidy") == (0, "Deleted: 0 uploads, 0 saved states, 0 pictures.\n")


@pytest.mark.parametrize(
    ("setting", "value"),
    [("CODEXA_POOL_SIZE", "many"), ("CODEXA_MODE", "night")],
)
def test_a_setting_that_can_not_be_is_named_in_a_sentence(run, setting, value):
    code, said = run("migrate", **{setting: value})
    assert code == 1
    assert setting in said
    assert value in said
    assert "Traceback" not in said


def test_generated_documents_are_written_where_they_are_looked_for(run, tmp_path, monkeypatch):
    monkeypatch.setattr(cli, "_ROOT", tmp_path)
    assert run("write-schemas")[0] == 0
    for name in cli.GENERATED:
        text = (tmp_path / name).read_text(encoding="utf-8")
        assert text.endswith("\n")
        if name.endswith(".json"):
            assert json.loads(text)


def test_migrations_go_forward_from_nothing(cluster):
    with psycopg.connect(cluster.admin_address(), autocommit=True) as connection:
        connection.execute("CREATE DATABASE from_nothing OWNER codexa")
    address = cluster.address("from_nothing")
    migrate(address)
    assert counted(address, "form") == 0
    with psycopg.connect(cluster.admin_address(), autocommit=True) as connection:
        connection.execute("DROP DATABASE from_nothing WITH (FORCE)")


class TestOperators:
    def test_make_owners_and_give_passwords_with_words_for_what_is_wrong(self, run, database, monkeypatch):
        def with_password(text, *words):
            monkeypatch.setattr(sys, "stdin", io.StringIO(f"{text}\n"))
            return run(*words)

        mira = ("create-owner", "--team", "Alderlight", "--email", "mira@example.org", "--name", "Mira Okafor")
        assert with_password("short", *mira) == (1, "This password has 5 characters; take at least 12.\n")
        assert with_password("long enough for her", *mira)[0] == 0
        assert "already" in with_password("long enough for her", *mira)[1]
        set_password = ("set-password", "--email", "MIRA@example.org")
        assert with_password("another long enough", *set_password)[0] == 0
        assert with_password("another long enough", "set-password", "--email", "no@example.org")[0] == 1
        assert counted(database, "membership") == 1

    def test_keep_the_demo_out_of_production(self, run, database):
        production = {
            "CODEXA_MODE": "production",
            "CODEXA_SECRET_KEY": "x" * 40,
            "CODEXA_PUBLIC_ADDRESS": "https://forms.example.org",
        }
        code, said = run("load-demo", **production)
        assert (code, counted(database, "person")) == (1, 0)
        assert "known passwords" in said

    def test_are_told_when_the_database_is_away(self, run):
        code, said = run("tidy", CODEXA_DATABASE="postgresql://nobody@127.0.0.1:1/none")
        assert (code, said) == (1, "The database does not answer. Is it running, and is CODEXA_DATABASE its address?\n")

    def test_bring_back_what_they_backed_up_database_and_files_together(self, run, cluster, on_demo, tmp_path):
        database, files, folder = on_demo["CODEXA_DATABASE"], Path(on_demo["CODEXA_FILES"]), tmp_path / "backup"
        upload, missing = uuid.uuid4(), uuid.uuid4()
        (files / str(upload)).write_bytes(b"%PDF-1.4")
        with psycopg.connect(database) as connection:
            form = connection.execute("SELECT id FROM form LIMIT 1").fetchone()[0]
            known = "INSERT INTO upload VALUES (%s, %s, 'b', 'dome.pdf', 'application/pdf', 8, false)"
            connection.execute(known, (upload, form))
        assert run("backup", str(folder), **on_demo)[0] == 0
        assert run("backup", str(folder), **on_demo)[0] == 1
        with psycopg.connect(cluster.admin_address(), autocommit=True) as connection:
            connection.execute("CREATE DATABASE restored OWNER codexa")
        back = {"CODEXA_DATABASE": cluster.address("restored"), "CODEXA_FILES": str(tmp_path / "again")}
        assert run("restore", str(folder), **back) == (0, "Restored, with 21 files.\n")
        assert (tmp_path / "again" / str(upload)).read_bytes() == b"%PDF-1.4"
        for table in ("form", "edition", "response", "event", "person", "saved_state"):
            assert counted(back["CODEXA_DATABASE"], table) == counted(database, table)
        assert run("migrate", **back) == (0, "")
        # Neither over what is there, nor of what is not whole.
        assert "not empty" in run("restore", str(folder), **back)[1]
        (folder / "backup.json").write_text(json.dumps({"files": [str(missing)]}))
        assert "not whole" in run("restore", str(folder), **{**back, "CODEXA_FILES": str(tmp_path / "new")})[1]
        with psycopg.connect(cluster.admin_address(), autocommit=True) as connection:
            connection.execute("DROP DATABASE restored WITH (FORCE)")


def test_a_form_that_this_version_cannot_read_shows_as_such_and_harms_no_list(run, on_demo):
    database = on_demo["CODEXA_DATABASE"]
    with psycopg.connect(database) as connection:
        connection.execute("UPDATE form SET draft = draft || '{\"format\": 99}' WHERE slug = 'plan-a-visit'")
    assert run("migrate", **on_demo) == (0, "1 forms can't be read by this version; the desk shows which.\n")
    app = create_app(Settings(database=database))
    agent = Browser(app)
    agent.sign_in("mira@alderlight.example.org", "alderlight")
    told = {form["slug"]: form["unreadable"] for form in agent.get("/api/forms").json["forms"]}
    assert "later version" in told.pop("plan-a-visit")
    assert set(told.values()) == {None}
    broken = next(form["id"] for form in agent.get("/api/forms").json["forms"] if form["slug"] == "plan-a-visit")
    assert agent.get(f"/api/forms/{broken}").status_code == 422
    assert agent.get(f"/api/forms/{broken}/responses").json["count"] == demo.FORMS["plan_a_visit.json"]
    app.extensions["codexa"].close()


@pytest.mark.parametrize(
    ("setting", "value"),
    [("CODEXA_PUBLIC_RATE", "often"), ("CODEXA_POOL_SIZE", "0"), ("CODEXA_SIDE", "left"), ("CODEXA_SESSION_IDLE", "")],
)
def test_a_setting_that_is_nonsense_refuses_to_start(run, setting, value):
    code, said = run("tidy", **{setting: value})
    assert code == 1
    assert said.startswith(f'{setting} is "{value}"')


def test_older_responses_can_be_worked_out_again_after_the_migration(cluster):
    """A database of the version before, with a response in it, comes to the present one."""
    with psycopg.connect(cluster.admin_address(), autocommit=True) as connection:
        connection.execute("CREATE DATABASE older OWNER codexa")
    address = cluster.address("older")
    backend = get_backend(address.replace("postgresql://", "postgresql+psycopg://"))
    older = [each for each in read_migrations(str(MIGRATIONS)) if each.id < "0006"]
    with backend.lock():
        backend.apply_migrations(backend.to_apply(MigrationList(older)))
    backend.connection.close()
    with psycopg.connect(address) as connection:
        connection.execute("INSERT INTO team (slug, name) VALUES ('t', 'T')")
        connection.execute("INSERT INTO person (email, name, password_hash) VALUES ('Mira@Example.org', 'M', 'x')")
        columns = "team_id, name, slug, draft, last_response"
        made = f"INSERT INTO form ({columns}) SELECT id, 'F', 'f', %s, 1 FROM team RETURNING id"
        form = connection.execute(made, (Jsonb(visit_document()),)).fetchone()[0]
        connection.execute("INSERT INTO edition VALUES (%s, 1, %s, 1)", (form, Jsonb(visit_document())))
        old = "INSERT INTO response VALUES (%s, 1, 1, '2026-02-28 23:30Z', %s, '{}', 'key', 'd', '{p1}', NULL)"
        connection.execute(old, (form, Jsonb({"people": "3"})))
    migrate(address)
    with psycopg.connect(address) as connection:
        told, stage = connection.execute("SELECT told, stage FROM response").fetchone()
        assert Context.from_json(told).now.isoformat() == "2026-03-01T00:30:00+01:00"
        assert stage == "complete"
        kinds = connection.execute("SELECT kind FROM event ORDER BY id").fetchall()
        assert [kind for (kind,) in kinds] == ["handed in", "complete"]
        assert connection.execute("SELECT last_number FROM response_counter").fetchone() == (1,)
        assert connection.execute("SELECT email_folded FROM person").fetchone() == ("mira@example.org",)
    with psycopg.connect(cluster.admin_address(), autocommit=True) as connection:
        connection.execute("DROP DATABASE older WITH (FORCE)")
