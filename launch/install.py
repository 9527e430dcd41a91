"""What the project needs of its own: the Python environment, the front end's packages and its build."""

import os
import shutil
import sys
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from launch import PYTHON, ROOT
from launch.machine import CHROMIUM, HARFBUZZ_SUBSET, PANGO, POSTGRES_BIN, require_node, require_package, require_room
from launch.steps import call, once

_FRONTEND = ROOT / "frontend"
_BUILT = ROOT / "codexa" / "web" / "static" / "built"
_PACKAGES = (
    "The Python and npm package registries must be reachable the first time; check the connection and try again."
)


def install(*, for_tests: bool) -> None:
    """Install what starting needs, and what tests need on top."""
    require_room()
    require_node()
    require_package("postgresql-15", POSTGRES_BIN / "postgres")
    require_package("libpangoft2-1.0-0", PANGO)
    require_package("libharfbuzz-subset0", HARFBUZZ_SUBSET)
    if for_tests:
        require_package("chromium-headless-shell", CHROMIUM)
    requirements = [ROOT / "requirements.txt", *([ROOT / "requirements-dev.txt"] if for_tests else [])]
    name = "python-for-tests" if for_tests else "python"
    lock = _FRONTEND / "package-lock.json"
    # Both wait for a registry most of their time.
    with ThreadPoolExecutor(max_workers=2) as two_at_once:
        python = two_at_once.submit(
            once, name, "Python packages", requirements, PYTHON, lambda: _install_python(requirements)
        )
        npm = two_at_once.submit(once, "npm", "Front-end packages", [lock], _FRONTEND / "node_modules", _install_npm)
    for packages in (python, npm):
        packages.result()
    once("build", "Front-end build", _front_end_sources(), _BUILT / ".vite" / "manifest.json", _build)


def _install_python(requirements: list[Path]) -> None:
    if not PYTHON.exists():
        # Debian keeps what makes environments in a package of its own.
        require_package("python3-venv", Path(os.__file__).parent / "ensurepip" / "__init__.py")
        call([sys.executable, "-m", "venv", ROOT / ".venv"], remedy="Remove the folder .venv and try again.")
    wanted = [word for path in requirements for word in ("-r", str(path))]
    pip: list[str | Path] = [PYTHON, "-m", "pip", "install", "--quiet", "--disable-pip-version-check"]
    call([*pip, *wanted], remedy=_PACKAGES)


def _install_npm() -> None:
    call([shutil.which("npm") or "npm", "ci", "--no-audit", "--no-fund"], folder=_FRONTEND, remedy=_PACKAGES)


def _build() -> None:
    command = [shutil.which("npm") or "npm", "run", "build"]
    remedy = "Correct what the build says, then try again."
    call(command, folder=_FRONTEND, remedy=remedy, environment=_quiet())
    # Compressed once, for all who ask.
    for folder in (_BUILT / "assets", _BUILT.parent / "embed"):
        call([PYTHON, "-m", "whitenoise.compress", "--quiet", folder], remedy=remedy)


def _quiet() -> dict[str, str]:
    return {**os.environ, "NO_COLOR": "1"}


def _front_end_sources() -> list[Path]:
    files = [path for path in (_FRONTEND / "src").rglob("*") if path.is_file()]
    return [*files, _FRONTEND / "vite.config.ts", *_FRONTEND.glob("scripts/*.mjs"), _FRONTEND / "package-lock.json"]
