"""What the machine must have: Node, Debian's packages, room on the disk, free ports."""

import os
import shutil
import socket
import subprocess
from pathlib import Path

from launch import ROOT
from launch.steps import StopError, call, say

POSTGRES_BIN = Path("/usr/lib/postgresql/15/bin")
CHROMIUM = Path("/usr/bin/chromium-headless-shell")


def _library(name: str) -> Path:
    return next(Path("/usr/lib").glob(f"*/{name}"), Path("/usr/lib") / name)


# What lays text out for PDF, and what puts into it only the letters of a typeface that stand there.
PANGO, HARFBUZZ_SUBSET = _library("libpangoft2-1.0.so.0"), _library("libharfbuzz-subset.so.0")
_LEAST_ROOM = 1_500_000_000  # bytes: the environments, the build and a young database


def require_room() -> None:
    """Stop where the disk is nearly full."""
    free = shutil.disk_usage(ROOT).free
    if free < _LEAST_ROOM:
        raise StopError(
            f"Only {free // 1_000_000} MB are free on the disk of {ROOT}. Free 1.5 GB, then run this again."
        )


def require_node() -> None:
    """Stop where Node is missing or too old."""
    node = shutil.which("node")
    version = call([node, "--version"], remedy="").strip() if node else ""
    if not node or int(version.lstrip("v").split(".")[0]) < 20:
        found = f"this machine has {version}" if version else "this machine has none"
        raise StopError(f"Codexa needs Node 20 or newer with npm; {found}. Install it, then run this again.")


def require_package(package: str, product: Path) -> None:
    """Install one of Debian's packages unless what it brings is there."""
    if product.exists():
        return
    prefix = [] if os.geteuid() == 0 else ["sudo", "-n"]
    remedy = f"Ask somebody with the right to install packages to run: sudo apt-get install {package}"
    if not shutil.which("apt-get"):
        raise StopError(f"{product} is missing, and this is no Debian. Install {package} by your system's means.")
    if prefix and subprocess.run(["sudo", "-n", "true"], capture_output=True, check=False).returncode:
        raise StopError(f"{package} is missing, and you may not install packages. {remedy}")
    say(f"  Installing {package} from Debian's packages …")
    environment = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
    apt = [*prefix, "apt-get", "-o", "DPkg::Lock::Timeout=300", "-qq"]
    call([*apt, "update"], remedy=remedy, environment=environment)
    call([*apt, "install", "-y", "--no-install-recommends", package], remedy=remedy, environment=environment)


def require_free_port(port: int, variable: str, what: str) -> None:
    """Stop where something else listens on a port."""
    with socket.socket() as listener:
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            listener.bind(("127.0.0.1", port))
        except OSError:
            raise StopError(
                f"Port {port}, meant for the {what}, is taken by another program. "
                f"Stop that program, or choose another port: {variable}={port + 20} ./run demo"
            ) from None


def free_port() -> int:
    """Return a port that nothing listens on."""
    with socket.socket() as listener:
        listener.bind(("127.0.0.1", 0))
        port: int = listener.getsockname()[1]
        return port
