"""Twelve typical formulas, compiled, against the same written by hand in Python on binary floats."""

import datetime
import math
from collections.abc import Callable, Sequence
from decimal import Decimal
from functools import partial
from typing import Any

from bench.measuring import interleaved, report
from codexa.core.context import Context
from codexa.core.formula.compile import compile_formula
from codexa.core.formula.scope import Reference
from codexa.core.formula.types import Digits, Kind, Type
from codexa.core.formula.values import Choice, use_exact_arithmetic

_NUMBER = Type(kind=Kind.NUMBER, may_be_blank=True, digits=Digits(whole=9, decimals=2))
_TEXT = Type(kind=Kind.TEXT, may_be_blank=True)
_DATE = Type(kind=Kind.DATE, may_be_blank=True)
_LIST = Type(kind=Kind.NUMBER, is_list=True, may_be_blank=True)
_TERMS = [f"n{index}" for index in range(20)]

# Name: its type and its value; the floats of the hand-written ones are made of the same.
_VALUES: dict[str, tuple[Type, Any]] = {
    "adults": (_NUMBER, Decimal(14)),
    "children": (_NUMBER, Decimal(5)),
    "price": (_NUMBER, Decimal("12.50")),
    "distance": (_NUMBER, Decimal("87.5")),
    "rate": (_NUMBER, Decimal("0.35")),
    "name": (_TEXT, "Ingrid Haugen"),
    "town": (_TEXT, "Port Ferrow"),
    "start": (_DATE, datetime.date(2026, 11, 23)),
    "until": (_DATE, datetime.date(2026, 12, 4)),
    "show": (Type(kind=Kind.CHOICE, may_be_blank=True), Choice("deep_sky", counts=Decimal(6))),
    "amounts": (_LIST, [Decimal(index) / 4 for index in range(50)]),
    "hours": (_LIST, [Decimal(index % 7) for index in range(50)]),
    **{name: (_NUMBER, Decimal(index)) for index, name in enumerate(_TERMS)},
}

Floats = dict[str, Any]
_FORMULAS: dict[str, tuple[str, Callable[[Floats], Any]]] = {
    "tiers": (
        "IF(adults > 60, 4.5, IF(adults > 30, 6, IF(adults > 12, 7.5, IF(adults > 5, 9, 11))))",
        lambda v: (
            4.5
            if v["adults"] > 60
            else 6.0
            if v["adults"] > 30
            else 7.5
            if v["adults"] > 12
            else 9.0
            if v["adults"] > 5
            else 11.0
        ),
    ),
    "sum of 20": (f"SUM({', '.join(_TERMS)})", lambda v: sum(v[name] for name in _TERMS)),
    "sum over 50 rows": ("SUM(amounts)", lambda v: sum(v["amounts"])),
    "rows multiplied": (
        "SUMPRODUCT(amounts, hours)",
        lambda v: sum(a * h for a, h in zip(v["amounts"], v["hours"], strict=True)),
    ),
    "text": (
        'name & ", " & UPPER(town) & " (" & LEN(name) & ")"',
        lambda v: v["name"] + ", " + v["town"].upper() + " (" + str(len(v["name"])) + ")",
    ),
    "days": ("until - start + 1", lambda v: (v["until"] - v["start"]).days + 1),
    "money": (
        "ROUND(adults * price * (1 - 10%) + children * price / 2, 2)",
        lambda v: round(v["adults"] * v["price"] * (1 - 0.1) + v["children"] * v["price"] / 2, 2),
    ),
    "surcharge": ("MAX(0, distance - 40) * rate", lambda v: max(0, v["distance"] - 40) * v["rate"]),
    "condition": (
        "AND(adults + children >= 12, OR(distance > 50, children > 3), NOT(ISBLANK(name)))",
        lambda v: (
            v["adults"] + v["children"] >= 12 and (v["distance"] > 50 or v["children"] > 3) and v["name"] is not None
        ),
    ),
    "choice": (
        'IF(show = "deep_sky", price * 1.2, price)',
        lambda v: v["price"] * 1.2 if v["show"].casefold() == "deep_sky" else v["price"],
    ),
    "loan": (
        "PMT(rate / 12, 24, 0 - price)",
        lambda v: v["price"] * (r := v["rate"] / 12) * math.pow(1 + r, 24) / (math.pow(1 + r, 24) - 1),
    ),
    "mean over rows": (
        "AVERAGE(amounts) + MAX(hours)",
        lambda v: sum(v["amounts"]) / len(v["amounts"]) + max(v["hours"]),
    ),
}


class _Names:
    def __init__(self) -> None:
        self.values = [value for _, value in _VALUES.values()]
        self._slots: dict[tuple[str, ...], int] = {(name,): slot for slot, name in enumerate(_VALUES)}

    def find(self, parts: tuple[str, ...]) -> Reference | None:
        slot = self._slots.get(parts)
        if slot is None:
            return None
        return Reference(slot=slot, type=_VALUES[parts[0]][0], can_fail=False)

    def nearest(self, parts: tuple[str, ...]) -> str | None:
        return None


def _as_floats() -> Floats:
    def plain(value: Any) -> Any:
        if isinstance(value, list):
            return [float(each) for each in value]
        return float(value) if isinstance(value, Decimal) else value

    return {name: plain(value) for name, (_, value) in _VALUES.items()}


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    use_exact_arithmetic()
    names, floats = _Names(), _as_floats()
    context = Context(now=datetime.datetime(2026, 11, 23, 12, tzinfo=datetime.UTC))
    compiled = {name: compile_formula(text, names).run for name, (text, _) in _FORMULAS.items()}
    _agree(compiled, names.values, context, floats)
    works: dict[str, Callable[[], object]] = {}
    for name, run_compiled in compiled.items():
        by_hand = _FORMULAS[name][1]
        works[f"{name}, compiled"] = partial(run_compiled, names.values, context)
        works[f"{name}, by hand"] = partial(by_hand, floats)
    times = interleaved(works, calls=400)
    ratios = [times[f"{name}, by hand"] / times[f"{name}, compiled"] for name in _FORMULAS]
    for name, ratio in zip(_FORMULAS, ratios, strict=True):
        report(f"formula: {name}", ratio, "of the speed of Python on floats", None)
    geometric = math.exp(sum(map(math.log, ratios)) / len(ratios))
    report("formulas_geometric_mean", geometric, "of the speed of Python on floats", None)
    return report("formulas_mean", sum(ratios) / len(ratios), "of the speed of Python on floats", 0.60)


def _agree(compiled: dict[str, Any], values: Sequence[Any], context: Context, floats: Floats) -> None:
    """Stop where the two do not work out the same: then their speed would say nothing."""
    for name, run_compiled in compiled.items():
        exact, rough = run_compiled(values, context), _FORMULAS[name][1](floats)
        same = abs(float(exact) - rough) < 1e-6 if isinstance(exact, Decimal) else exact == rough
        if not same:
            raise RuntimeError(f"{name}: {exact} is not {rough}")
