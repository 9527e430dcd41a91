"""The core's command line: what it says of a form, as JSON.

    python -m codexa.core evaluate|accept|proof FORM.json [ANSWERS.json]

Answers are an object of keys (or block ids) and what a visitor would enter.
"""

import argparse
import dataclasses
import datetime
import json
import sys
from decimal import Decimal
from pathlib import Path
from typing import Any
from zoneinfo import ZoneInfo

from codexa.core.context import Context
from codexa.core.definition.form import read_form
from codexa.core.errors import CoreError
from codexa.core.program.accept import Accepted, accept
from codexa.core.program.evaluate import evaluate
from codexa.core.program.program import Program, compile_form
from codexa.core.program.proof import proof
from codexa.core.program.public import form_state


def main() -> int:
    """Run one command; returns the exit code: 0, or 1 where the form or the answers are refused."""
    parser = argparse.ArgumentParser(prog="python -m codexa.core", description=__doc__.split("\n")[0])
    parser.add_argument("command", choices=("evaluate", "accept", "proof"))
    parser.add_argument("form", type=Path)
    parser.add_argument("answers", type=Path, nargs="?")
    options = parser.parse_args()
    try:
        program = compile_form(read_form(_read(options.form)))
        answers = _by_id(program, _read(options.answers) if options.answers else {})
    except (CoreError, OSError, ValueError) as error:
        print(error, file=sys.stderr)
        return 1
    context = Context(now=datetime.datetime.now(ZoneInfo(program.form.time_zone)))
    if options.command == "proof":
        return _print([dataclasses.asdict(finding) for finding in proof(program)])
    if options.command == "evaluate":
        state = form_state(evaluate(program, answers, context)).model_dump()["blocks"]
        return _print({program.places[block_id].block.key: facts for block_id, facts in state.items()})
    result = accept(program, answers, context)
    _print(dataclasses.asdict(result))
    return 0 if isinstance(result, Accepted) else 1


def _read(path: Path) -> Any:
    return json.loads(path.read_text(encoding="utf-8"), parse_float=Decimal)


def _by_id(program: Program, answers: dict[str, Any]) -> dict[str, Any]:
    ids = {place.block.key: block_id for block_id, place in program.places.items()}
    return {ids.get(name, name): answer for name, answer in answers.items()}


def _print(result: Any) -> int:
    json.dump(result, sys.stdout, ensure_ascii=False, indent=2, default=str)
    print()
    return 0


if __name__ == "__main__":
    sys.exit(main())
