"""./run: what to do."""

import subprocess
import sys

from launch import PYTHON, ROOT
from launch.checks import run_tests
from launch.demo import reset, run_demo
from launch.install import install
from launch.steps import StopError, fail

_USAGE = """Usage:
  ./run demo            start Codexa with the demo data
  ./run reset           empty the demo's data
  ./run test [OPTIONS]  run all checks and tests; options go to pytest, and then only tests run
  ./run bench [NAME]    measure; NAME is one of the files in bench/"""


def main(words: list[str]) -> int:
    """Carry out one command; returns the exit code."""
    try:
        match words:
            case ["demo"]:
                return run_demo()
            case ["reset"]:
                return reset()
            case ["test", *options]:
                return run_tests(options)
            case ["bench", *names]:
                install(for_tests=True)
                return subprocess.run([PYTHON, "-m", "bench", *names], cwd=ROOT, check=False).returncode
    except StopError as error:
        return fail(str(error))
    except PermissionError as error:
        return fail(f"You may not write {error.filename}. Own the project's folder, or run this as its owner.")
    except KeyboardInterrupt:
        return fail("Stopped.")
    print(_USAGE)
    return 0 if words in ([], ["help"], ["--help"]) else 2


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
