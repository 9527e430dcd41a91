"""How many evaluations of the demo form one core does in a second, and how that compares to plain Python."""

import datetime
import json
from decimal import Decimal
from pathlib import Path

from bench.measuring import interleaved, report
from codexa.core.context import Context
from codexa.core.definition.form import read_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.program import compile_form

_EXAMPLE = Path(__file__).parent.parent / "examples" / "plan_a_visit.json"
_ANSWERS = {"b1kind": "o2deep", "b2adults": "10", "b3child": "4", "b5name": "Harbour School", "b6bring": "o2bus"}
_PRICES = {"o1stars": Decimal("4.50"), "o2deep": Decimal(6), "o3plan": Decimal("7.50")}


def _by_hand(answers: dict[str, str]) -> dict[str, object]:
    """Work out what the form works out, as somebody would write it for this form alone."""
    adults, children = int(answers.get("b2adults") or 0), int(answers.get("b3child") or 0)
    group = adults + children >= 12
    price = _PRICES[answers["b1kind"]] if answers.get("b1kind") else Decimal(0)
    total = price * (adults + Decimal(children) / 2) * (Decimal("0.9") if group else 1)
    coach = group and answers.get("b6bring") == "o2bus"
    errors = [each for each in ("b1kind", "b2adults", "c1name", "c2mail") if not answers.get(each)]
    if group and not answers.get("b5name"):
        errors.append("b5name")
    return {"group": group, "coach": coach, "total": total.quantize(Decimal("0.01")), "errors": errors}


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    program = compile_form(read_form(json.loads(_EXAMPLE.read_text(encoding="utf-8"))))
    context = Context(now=datetime.datetime(2026, 11, 23, 12, tzinfo=datetime.UTC))
    times = interleaved(
        {
            "evaluate": lambda: evaluate(program, _ANSWERS, context).errors(),
            "by hand": lambda: _by_hand(_ANSWERS),
        },
        calls=2_000,
    )
    report("evaluate_demo_form", 1 / times["evaluate"], "evaluations per second", None)
    return report("evaluate_demo_form_to_plain_python", times["evaluate"] / times["by hand"], "times as long", None)
