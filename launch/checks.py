"""The test command: every check, then every test."""

import os
import shutil
import subprocess
import tempfile
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from pathlib import Path

from launch import PYTHON, ROOT
from launch.install import install
from launch.steps import say

_BIN = PYTHON.parent
# Half of a test's time is waiting for a browser or a server: on two processors three at once leave none idle.
_AT_ONCE = ["--numprocesses=3", "--dist=worksteal"]
_MEMORY, _ROOM = Path("/dev/shm"), 6_000_000_000  # noqa: S108 - what is in it is ours alone; bytes
_NPM = [shutil.which("npm") or "npm", "run", "--silent"]


def run_tests(options: list[str]) -> int:
    """Run checks and tests; `options` go to pytest. Returns the exit code."""
    say("Codexa: getting ready to test")
    install(for_tests=True)
    failed = [] if options else _failed_checks()
    say("\nTests")
    with _passing_files() as environment:
        command: list[str | Path] = [PYTHON, "-m", "pytest", *(options or _AT_ONCE)]
        tests = subprocess.run(command, cwd=ROOT, env=environment, check=False).returncode
    if failed:
        say(f"\nThese checks failed: {', '.join(failed)}.")
    return tests or bool(failed)


@contextmanager
def _passing_files() -> Iterator[dict[str, str]]:
    """Give the environment in which databases and files of tests are in memory where that has room for them.

    Each test has a database of its own: on a slow disk they wait longer for it than for anything else.
    """
    there = _MEMORY.is_dir() and shutil.disk_usage(_MEMORY).free > _ROOM
    with tempfile.TemporaryDirectory(prefix="codexa-tests-", dir=_MEMORY if there else None) as folder:
        Path(folder).chmod(0o755)  # PostgreSQL has a user of its own
        yield {**os.environ, "TMPDIR": folder}


def _failed_checks() -> list[str]:
    checks = _checks()
    with ThreadPoolExecutor(max_workers=2) as two_at_once:
        passed = list(two_at_once.map(lambda check: _passes(*check), checks))
    return [title for (title, _, _), fine in zip(checks, passed, strict=True) if not fine]


def _checks() -> list[tuple[str, list[str | Path], Path]]:
    front = ROOT / "frontend"
    # The longest first, so that none is left over at the end.
    return [
        ("TypeScript types", [*_NPM, "typecheck"], front),
        ("TypeScript lint", [*_NPM, "lint"], front),
        ("TypeScript tests", [*_NPM, "test"], front),
        ("Python types", [_BIN / "mypy"], ROOT),
        ("Python lint", [_BIN / "ruff", "check", "--quiet"], ROOT),
        ("Python format", [_BIN / "ruff", "format", "--check", "--quiet"], ROOT),
        ("Import contracts", [_BIN / "lint-imports"], ROOT),
        ("Generated TypeScript types", [*_NPM, "types:check"], front),
    ]


def _passes(title: str, command: list[str | Path], folder: Path) -> bool:
    began = time.monotonic()
    environment = {**os.environ, "NO_COLOR": "1"}
    done = subprocess.run(command, cwd=folder, env=environment, capture_output=True, text=True, check=False)
    say(f"  {title}: {'passed' if done.returncode == 0 else 'FAILED'} in {time.monotonic() - began:.0f} s")
    if done.returncode:
        say((done.stdout + done.stderr).strip())
    return done.returncode == 0
