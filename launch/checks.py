"""The test command: every check, then every test."""

import os
import shutil
import subprocess
import time
from pathlib import Path

from launch import PYTHON, ROOT
from launch.install import install
from launch.steps import say

_BIN = PYTHON.parent
_NPM = [shutil.which("npm") or "npm", "run", "--silent"]


def run_tests(options: list[str]) -> int:
    """Run checks and tests; `options` go to pytest. Returns the exit code."""
    say("Codexa: getting ready to test")
    install(for_tests=True)
    failed = [] if options else [title for title, command, folder in _checks() if not _passes(title, command, folder)]
    say("\nTests")
    tests = subprocess.run([PYTHON, "-m", "pytest", *options], cwd=ROOT, check=False).returncode
    if failed:
        say(f"\nThese checks failed: {', '.join(failed)}.")
    return tests or bool(failed)


def _checks() -> list[tuple[str, list[str | Path], Path]]:
    front = ROOT / "frontend"
    return [
        ("Python lint", [_BIN / "ruff", "check", "--quiet"], ROOT),
        ("Python format", [_BIN / "ruff", "format", "--check", "--quiet"], ROOT),
        ("Python types", [_BIN / "mypy"], ROOT),
        ("Import contracts", [_BIN / "lint-imports"], ROOT),
        ("Generated TypeScript types", [*_NPM, "types:check"], front),
        ("TypeScript lint", [*_NPM, "lint"], front),
        ("TypeScript types", [*_NPM, "typecheck"], front),
        ("TypeScript tests", [*_NPM, "test"], front),
    ]


def _passes(title: str, command: list[str | Path], folder: Path) -> bool:
    began = time.monotonic()
    environment = {**os.environ, "NO_COLOR": "1"}
    done = subprocess.run(command, cwd=folder, env=environment, capture_output=True, text=True, check=False)
    say(f"  {title}: {'passed' if done.returncode == 0 else 'FAILED'} in {time.monotonic() - began:.0f} s")
    if done.returncode:
        say((done.stdout + done.stderr).strip())
    return done.returncode == 0
