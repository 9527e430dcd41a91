"""Steps that say what they do, and are passed over when they are done already."""

import hashlib
import subprocess
import sys
import time
from collections.abc import Callable, Mapping, Sequence
from pathlib import Path

from launch import ROOT, VAR


class StopError(Exception):
    """The launcher can't go on; the message says what to do."""


def say(text: str) -> None:
    """Tell the person at the terminal."""
    print(text, flush=True)


def once(name: str, title: str, sources: Sequence[Path], product: Path, make: Callable[[], None]) -> None:
    """Make something unless it is there and was made from exactly these sources."""
    digest = hashlib.sha256()
    for path in sorted(sources):
        digest.update(str(path.relative_to(ROOT)).encode() + b"\0" + path.read_bytes())
    stamp = VAR / "stamps" / name
    if product.exists() and stamp.exists() and stamp.read_text() == digest.hexdigest():
        return
    say(f"  {title} …")
    began = time.monotonic()
    make()
    stamp.parent.mkdir(parents=True, exist_ok=True)
    stamp.write_text(digest.hexdigest())
    say(f"  {title}: done in {time.monotonic() - began:.0f} s")


def call(
    command: Sequence[str | Path], *, remedy: str, folder: Path = ROOT, environment: Mapping[str, str] | None = None
) -> str:
    """Run a command quietly and return what it printed. Raises StopError with its last lines and the remedy."""
    try:
        done = subprocess.run(command, cwd=folder, env=environment, capture_output=True, text=True, check=False)
    except FileNotFoundError:
        raise StopError(f"{command[0]} is not on this machine. {remedy}") from None
    if done.returncode:
        last = "\n".join((done.stdout + done.stderr).strip().splitlines()[-30:])
        raise StopError(f"This did not work: {' '.join(map(str, command))}\n{last}\n{remedy}")
    return done.stdout


def fail(message: str) -> int:
    """Print why the launcher stops, and return its exit code."""
    print(f"\n{message}", file=sys.stderr, flush=True)
    return 1
