"""Codexa's own commands, on a database of their own: what operators run, and what they are told when it can't be."""

import json
import sys

import psycopg
import pytest

from codexa import cli
from codexa.services.demo import FORMS
from codexa.store.database import migrate


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


def test_the_demo_is_loaded_once_with_responses_that_were_received(run, database):
    assert run("migrate") == (0, "")
    assert run("load-demo", "--site", "http://127.0.0.1:8790")[0] == 0
    made = [counted(database, what) for what in ("form", "edition", "response")]
    assert made == [len(FORMS), len(FORMS), sum(FORMS.values())]
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
