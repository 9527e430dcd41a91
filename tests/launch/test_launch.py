"""The launcher's sentences, and the settings."""

import dataclasses
import os
import socket
import subprocess
from pathlib import Path

import pytest

from codexa.settings import DEFAULT_SECRET, Settings, SettingsError, read_settings
from launch.machine import require_free_port
from launch.steps import StopError, call, once

ROOT = Path(__file__).parent.parent.parent
SAFE = {
    "CODEXA_MODE": "production",
    "CODEXA_SECRET_KEY": "x" * 40,
    "CODEXA_PUBLIC_ADDRESS": "https://forms.example.org",
}


def test_production_refuses_unsafe_defaults():
    assert read_settings(SAFE).secure
    for name, value in (
        ("CODEXA_SECRET_KEY", DEFAULT_SECRET),
        ("CODEXA_SECRET_KEY", "short"),
        ("CODEXA_PUBLIC_ADDRESS", "http://x"),
    ):
        with pytest.raises(SettingsError, match=name):
            read_settings({**SAFE, name: value})


@pytest.mark.parametrize(
    ("name", "value"), [("CODEXA_MODE", "prod"), ("CODEXA_PROXIES", "one"), ("CODEXA_POOL_SIZE", "-1")]
)
def test_a_wrong_setting_is_named(name, value):
    with pytest.raises(SettingsError, match=name):
        read_settings({name: value})


def test_every_setting_is_documented():
    text = (ROOT / "docs" / "settings.md").read_text(encoding="utf-8")
    missing = [each.name for each in dataclasses.fields(Settings) if f"`CODEXA_{each.name.upper()}`" not in text]
    assert missing == []


def test_a_taken_port_says_what_to_do():
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        with pytest.raises(StopError, match="CODEXA_WEB_PORT="):
            require_free_port(taken.getsockname()[1], "CODEXA_WEB_PORT", "workbench")


def test_a_failing_command_tells_its_last_words_and_the_remedy():
    with pytest.raises(StopError, match=r"(?s)no luck.*Try something else."):
        call(["sh", "-c", "echo no luck; exit 3"], remedy="Try something else.")
    with pytest.raises(StopError, match="Install it"):
        call(["no-such-program"], remedy="Install it.")


def test_a_step_is_done_once_until_its_source_changes(monkeypatch, tmp_path):
    monkeypatch.setattr("launch.steps.VAR", tmp_path)
    monkeypatch.setattr("launch.steps.ROOT", tmp_path)
    source, done = tmp_path / "source", []
    source.write_text("1")
    for _ in range(2):
        once("step", "Step", [source], source, lambda: done.append(1))
    source.write_text("2")
    once("step", "Step", [source], source, lambda: done.append(2))
    assert done == [1, 2]


def test_an_unknown_command_shows_the_usage():
    done = subprocess.run([ROOT / "run", "dance"], capture_output=True, text=True, check=False)
    assert done.returncode == 2
    assert "./run demo" in done.stdout


def test_a_wrong_port_setting_is_named():
    done = subprocess.run(
        [ROOT / "run", "demo"], env={**os.environ, "CODEXA_WEB_PORT": "80"}, capture_output=True, text=True, check=False
    )
    assert done.returncode == 1
    assert 'CODEXA_WEB_PORT is "80"' in done.stderr
