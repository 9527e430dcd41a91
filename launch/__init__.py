"""The launcher behind ./run: prepares the machine, then starts, tests or measures. Standard library only."""

from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
VAR = ROOT / "var"
PYTHON = ROOT / ".venv" / "bin" / "python"
