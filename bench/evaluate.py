"""Evaluating and compiling a large form: 200 fields, 100 rules, 60 figures, a repeat of 50 rows."""

import datetime
from collections.abc import Mapping
from decimal import Decimal
from functools import partial
from typing import Any

from bench.engine_form import answers_for, large_form
from bench.measuring import interleaved, report
from codexa.core.context import Context
from codexa.core.formula.parse import forget_trees
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.proof import proof

_CONTEXT = Context(now=datetime.datetime(2026, 11, 23, 12, tzinfo=datetime.UTC))
_SIZES = (50, 100, 200, 400, 800)
_COUNTS = {"o0": Decimal(0), "o1": Decimal(5), "o2": Decimal(10)}
_CENT = Decimal("0.01")


def _by_hand(answers: Mapping[str, Any]) -> dict[str, Any]:
    """Work out what the form works out, as somebody would write it for this very form."""
    values: dict[str, Any] = {}
    for index in range(200):
        raw = answers.get(f"f{index}")
        kind = index % 4
        values[f"f{index}"] = _COUNTS[raw] if kind == 1 and raw else Decimal(raw) if kind in (0, 2) and raw else raw
    for index in range(3, 200, 2):
        start = (index - 1) // 20 * 20
        shown = values[f"f{start}"] > 2 and (index % 4 == 3 or values[f"f{start + 2}"] < 50)
        if not shown:
            values[f"f{index}"] = None
    figures: list[Decimal] = []
    for index in range(60):
        first, second, third = index * 4 % 200, index % 50 * 4 + 1, index * 8 % 200
        one, three = values[f"f{first}"], values[f"f{third}"]
        match index % 4:
            case 0:
                made = one * 12 + three * (Decimal("0.9") if three >= 10 else 1)
            case 1:
                made = (values[f"f{second}"] or Decimal(0)) * one + 5
            case 2:
                made = Decimal(10) if one + three < 5 else Decimal(8) if one + three < 20 else Decimal("6.5")
            case _:
                made = (figures[-1] * one + figures[-2]).quantize(_CENT) - figures[-3] / 4
        figures.append(made.quantize(_CENT) if index % 4 != 2 else made)
    costs = [(Decimal(r["values"]["lhours"]) * Decimal(r["values"]["lrate"])).quantize(_CENT) for r in answers["lines"]]
    return {"values": values, "figures": figures, "nights": sum(costs)}


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    form, answers = large_form(), answers_for()
    program = compile_form(form)
    state, by_hand = evaluate(program, answers, _CONTEXT), _by_hand(answers)
    if state.at(program.figures["gnights"].value) != by_hand["nights"]:
        raise RuntimeError("what was written by hand works out something else")

    def compile_anew() -> None:
        forget_trees()
        proof(compile_form(form))

    times = interleaved(
        {"evaluate": lambda: evaluate(program, answers, _CONTEXT), "by hand": lambda: _by_hand(answers)}, calls=40
    )
    compiling = interleaved({"compile": compile_anew}, calls=1)
    quick = report("evaluate_large_form", times["evaluate"] * 1000, "ms", 1.5, at_least=False)
    report("evaluate_to_plain_python", times["evaluate"] / times["by hand"], "times as long", None)
    quick = report("compile_and_proof", compiling["compile"] * 1000, "ms", 150, at_least=False) and quick
    return _growth() and quick


def _growth() -> bool:
    programs = {size: compile_form(large_form(size, rows=False)) for size in _SIZES}
    given = {size: answers_for(size, 0) for size in _SIZES}
    works = {str(size): partial(evaluate, programs[size], given[size], _CONTEXT) for size in _SIZES}
    times = interleaved(works, calls=20)
    for size in _SIZES:
        report(f"evaluate_{size}_fields", times[str(size)] * 1000, "ms", None)
    # Linear: sixteen times the fields take at most sixteen times as long, with a little for noise.
    return report("evaluate_growth", times["800"] / times["50"] / 16, "times as long per field", 1.25, at_least=False)
