"""The core's command line: what it says of a form, as JSON.

    python -m codexa.core evaluate|accept|proof FORM.json [ANSWERS.json]
    python -m codexa.core explain FORM.json [ANSWERS.json] --fact OWNER.FACT

Answers are an object of keys (or block ids) and what a visitor would enter. Without --fact everything that is shown,
hidden or computed is explained.
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
from codexa.core.errors import CoreError
from codexa.core.form.form import read_form
from codexa.core.formula.values import Failed
from codexa.core.program.accept import Accepted, accept
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import State, evaluate
from codexa.core.program.explain import explain_in
from codexa.core.program.figure_kinds import kind_of
from codexa.core.program.program import Program
from codexa.core.program.proof import proof
from codexa.core.program.public import form_state


def main() -> int:
    """Run one command; returns the exit code: 0, or 1 where the form or the answers are refused."""
    parser = argparse.ArgumentParser(prog="python -m codexa.core", description=__doc__.split("\n")[0])
    parser.add_argument("command", choices=("evaluate", "accept", "explain", "proof"))
    parser.add_argument("form", type=Path)
    parser.add_argument("answers", type=Path, nargs="?")
    parser.add_argument("--fact", help="explain: a block, page or figure, then a dot and a fact, such as total.value")
    options = parser.parse_args()
    try:
        program = compile_form(read_form(_read(options.form)))
        answers = _by_id(program, _read(options.answers) if options.answers else {})
    except (CoreError, OSError, ValueError) as error:
        print(error, file=sys.stderr)
        return 1
    now = datetime.datetime.now(ZoneInfo(program.form.time_zone))
    context = Context(now=now, locale=program.form.locale)
    match options.command:
        case "proof":
            return _print([dataclasses.asdict(finding) for finding in proof(program)])
        case "evaluate":
            return _print(_facts(program, evaluate(program, answers, context)))
        case "explain":
            return _explained(program, answers, context, options.fact)
    result = accept(program, answers, context)
    if isinstance(result, Accepted):
        kept = {name: getattr(result, name) for name in ("answers", "computed", "path", "confirmation")}
        return _print(kept)
    _print(dataclasses.asdict(result))
    return 1


def _facts(program: Program, state: State) -> dict[str, Any]:
    public = form_state(state)
    blocks = {program.places[block_id].block.key: facts for block_id, facts in public["blocks"].items()}
    figures = {
        place.figure.key: None
        if isinstance(value, Failed) or value is None
        else kind_of(place.figure).dump(place.figure, value)
        for place in program.figures.values()
        for value in [state.at(place.value)]
    }
    return {**public, "blocks": blocks, "figures": figures}


def _explained(program: Program, answers: dict[str, Any], context: Context, fact: str | None) -> int:
    state = evaluate(program, answers, context)
    try:
        paths = [fact] if fact else [*program.questions, *program.figures]
        return _print([dataclasses.asdict(explain_in(state, path)) for path in paths])
    except CoreError as error:
        print(error, file=sys.stderr)
        return 1


def _read(path: Path) -> Any:
    return json.loads(path.read_text(encoding="utf-8"), parse_float=Decimal)


def _by_id(program: Program, answers: dict[str, Any]) -> dict[str, Any]:
    ids = {place.block.key: place.block.id for place in reversed(program.top_places)}
    return {ids.get(name, name): answer for name, answer in answers.items()}


def _print(result: Any) -> int:
    json.dump(result, sys.stdout, ensure_ascii=False, indent=2, default=str)
    print()
    return 0


if __name__ == "__main__":
    sys.exit(main())
