"""Typical formulas, compiled, against the same written by hand in Python on binary floats."""

import datetime
import math
from collections.abc import Callable, Sequence
from decimal import Decimal
from functools import partial
from typing import Any

from bench.measuring import interleaved, report
from bench.typical_formulas import FURTHER, TWELVE, VALUES, Floats, Typical
from codexa.core.context import Context
from codexa.core.formula import metering
from codexa.core.formula.columns import Column
from codexa.core.formula.compile import compile_formula
from codexa.core.formula.scope import Reference
from codexa.core.formula.values import use_exact_arithmetic

_UNBOUNDED = 10**15  # steps: the same formula runs many thousand times
_SLOWEST = 60  # times as long as floats
_CONTEXT = Context(now=datetime.datetime(2026, 11, 23, 12, tzinfo=datetime.UTC))


class _Names:
    def __init__(self) -> None:
        self.values = [value for _, value in VALUES.values()]
        self._slots: dict[tuple[str, ...], int] = {(name,): slot for slot, name in enumerate(VALUES)}

    def find(self, parts: tuple[str, ...]) -> Reference | None:
        slot = self._slots.get(parts)
        if slot is None:
            return None
        return Reference(slot=slot, type=VALUES[parts[0]][0], can_fail=False)

    def nearest(self, parts: tuple[str, ...]) -> str | None:
        return None


def _as_floats() -> Floats:
    def plain(value: Any) -> Any:
        if isinstance(value, list):
            return [plain(each) for each in value]
        return float(value) if isinstance(value, Decimal) else value

    return {name: plain(value) for name, (_, value) in VALUES.items()}


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    use_exact_arithmetic()
    twelve, further = _ratios(TWELVE), _ratios(FURTHER)
    slower = [1 / ratio for ratio in [*twelve, *further]]
    met = [
        report("formulas_mean", sum(twelve) / len(twelve), "of the speed of Python on floats", 0.60),
        report("formulas_geometric_mean", _geometric(twelve), "of the speed of Python on floats", 0.70),
        report("48_formulas_geometric_mean", _geometric(slower), "times Python on floats", 3, at_least=False),
        report("48_formulas_slowest", max(slower), "times Python on floats", _SLOWEST, at_least=False),
        _long_list(),
    ]
    return all(met)


def _geometric(ratios: list[float]) -> float:
    return math.exp(sum(map(math.log, ratios)) / len(ratios))


def _ratios(formulas: Typical) -> list[float]:
    """Return how fast each is, as a share of the speed of floats."""
    names, floats = _Names(), _as_floats()
    compiled = {name: compile_formula(text, names).run for name, (text, _) in formulas.items()}
    _agree(formulas, compiled, names.values, floats)
    works: dict[str, Callable[[], object]] = {}
    for name, run_compiled in compiled.items():
        works[f"{name}, compiled"] = partial(run_compiled, names.values, _CONTEXT)
        works[f"{name}, by hand"] = partial(formulas[name][1], floats)
    metering.begin(_UNBOUNDED)
    times = interleaved(works, calls=400)
    ratios = [times[f"{name}, by hand"] / times[f"{name}, compiled"] for name in formulas]
    for name, ratio in zip(formulas, ratios, strict=True):
        report(f"formula: {name}", ratio, "of the speed of Python on floats", None)
    return ratios


def _long_list() -> bool:
    """Count twenty words in a list of 2,000, as a form with a long repeat does."""
    column = Column([f"word{at % 40}" for at in range(2_000)])
    names = _Names()
    formula = compile_formula(" + ".join(f'COUNTIF(kinds, "word{at}")' for at in range(20)), names).run
    slot = list(VALUES).index("kinds")

    def count() -> object:
        metering.begin()
        values = list(names.values)
        values[slot] = Column(column)
        return formula(values, _CONTEXT)

    if count() != 1_000:
        raise RuntimeError(f"20 of 40 words in 2,000 are 1,000, not {count()}.")
    seconds = interleaved({"count": count}, calls=5)["count"]
    return report("countif_20_times_over_2000", seconds * 1000, "ms", 20, at_least=False)


def _agree(formulas: Typical, compiled: dict[str, Any], values: Sequence[Any], floats: Floats) -> None:
    """Stop where the two do not work out the same: then their speed would say nothing."""
    for name, run_compiled in compiled.items():
        metering.begin()
        exact, rough = run_compiled(values, _CONTEXT), formulas[name][1](floats)
        same = abs(float(exact) - rough) < 1e-4 if isinstance(exact, Decimal) else exact == rough
        if not same:
            raise RuntimeError(f"{name}: {exact} is not {rough}")
