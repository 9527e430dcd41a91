"""Typical formulas, and the same written by hand in Python on binary floats.

The floats of `v` are made of the same values; a list there is a list, a date a date.
"""

import bisect
import datetime
import math
import statistics
from collections.abc import Callable
from decimal import Decimal
from typing import Any

from codexa.core.formula.columns import Column
from codexa.core.formula.types import Digits, Kind, Type
from codexa.core.formula.values import Choice

_NUMBER = Type(kind=Kind.NUMBER, may_be_blank=True, digits=Digits(whole=9, decimals=2))
_TEXT = Type(kind=Kind.TEXT, may_be_blank=True)
_DATE = Type(kind=Kind.DATE, may_be_blank=True)
_LIST = Type(kind=Kind.NUMBER, is_list=True, may_be_blank=True)
_WORDS = Type(kind=Kind.TEXT, is_list=True, may_be_blank=True)
_TERMS = [f"n{index}" for index in range(20)]

# Name: its type and its value.
VALUES: dict[str, tuple[Type, Any]] = {
    "adults": (_NUMBER, Decimal(14)),
    "children": (_NUMBER, Decimal(5)),
    "price": (_NUMBER, Decimal("12.50")),
    "distance": (_NUMBER, Decimal("87.5")),
    "rate": (_NUMBER, Decimal("0.35")),
    "name": (_TEXT, "Ingrid Haugen"),
    "town": (_TEXT, "Port Ferrow"),
    "agreed": (Type(kind=Kind.YES_NO, may_be_blank=True), True),
    "start": (_DATE, datetime.date(2026, 11, 23)),
    "until": (_DATE, datetime.date(2026, 12, 4)),
    "show": (Type(kind=Kind.CHOICE, may_be_blank=True), Choice("deep_sky", counts=Decimal(6))),
    "amounts": (_LIST, [Decimal(index) / 4 for index in range(50)]),
    "hours": (_LIST, [Decimal(index % 7) for index in range(50)]),
    "kinds": (
        _WORDS,
        Column(["dome", "deck", "hall"] * 16 + ["x", "y"]),
    ),
    **{name: (_NUMBER, Decimal(index)) for index, name in enumerate(_TERMS)},
}

Floats = dict[str, Any]
Typical = dict[str, tuple[str, Callable[[Floats], Any]]]

# The twelve of the beginning, by which this is compared with other ways to compute formulas.
TWELVE: Typical = {
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


def _working_day(start: datetime.date, days: int) -> datetime.date:
    day = start
    while days:
        day += datetime.timedelta(days=1)
        days -= day.weekday() < 5
    return day


FURTHER: Typical = {
    "plain": ("adults * price + children * 4", lambda v: v["adults"] * v["price"] + v["children"] * 4),
    "share": ("children / (adults + children)", lambda v: v["children"] / (v["adults"] + v["children"])),
    "percent": ("price * (1 + 19%)", lambda v: price_with_tax(v["price"])),
    "difference": ("distance - adults * 2.5", lambda v: v["distance"] - v["adults"] * 2.5),
    "square": ("distance ^ 2 / 4", lambda v: v["distance"] ** 2 / 4),
    "power": ("distance ^ 2.5", lambda v: v["distance"] ** 2.5),
    "growth": ("price * 1.05 ^ adults", lambda v: v["price"] * 1.05 ** v["adults"]),
    "root": ("SQRT(distance)", lambda v: math.sqrt(v["distance"])),
    "logarithm": ("LN(distance)", lambda v: math.log(v["distance"])),
    "decades": ("LOG10(distance)", lambda v: math.log10(v["distance"])),
    "exponential": ("EXP(rate)", lambda v: math.exp(v["rate"])),
    "rounded up": ("ROUNDUP(adults / 4, 0)", lambda v: math.ceil(v["adults"] / 4)),
    "steps": ("CEILING(distance, 5)", lambda v: math.ceil(v["distance"] / 5) * 5),
    "whole": ("INT(distance / 10)", lambda v: math.floor(v["distance"] / 10)),
    "left over": ("MOD(adults, 4)", lambda v: v["adults"] % 4),
    "absolute": ("ABS(adults - distance)", lambda v: abs(v["adults"] - v["distance"])),
    "equal": ("adults + children = 19", lambda v: v["adults"] + v["children"] == 19),
    "cases": (
        'SWITCH(show, "moon", 1, "deep_sky", 2, "comets", 3, 0)',
        lambda v: {"moon": 1, "deep_sky": 2, "comets": 3}.get(v["show"].casefold(), 0),
    ),
    "conditions": (
        "IFS(distance < 20, 0, distance < 50, 5, distance < 100, 9, TRUE, 20)",
        lambda v: 0 if v["distance"] < 20 else 5 if v["distance"] < 50 else 9 if v["distance"] < 100 else 20,
    ),
    "fallback": (
        "IFERROR(price / (adults - 14), 0)",
        lambda v: v["price"] / (v["adults"] - 14) if v["adults"] != 14 else 0,
    ),
    "chosen": ("CHOOSE(children, 1, 2, 3, 4, 50)", lambda v: (1, 2, 3, 4, 50)[int(v["children"]) - 1]),
    "smallest": ("MIN(adults, children, distance)", lambda v: min(v["adults"], v["children"], v["distance"])),
    "count": ("COUNT(amounts)", lambda v: sum(1 for each in v["amounts"] if each is not None)),
    "counted if": ('COUNTIF(amounts, ">5")', lambda v: sum(1 for each in v["amounts"] if each > 5)),
    "counted words": ('COUNTIF(kinds, "deck")', lambda v: sum(1 for each in v["kinds"] if each.casefold() == "deck")),
    "sum if": (
        'SUMIF(kinds, "deck", amounts)',
        lambda v: sum(a for k, a in zip(v["kinds"], v["amounts"], strict=True) if k.casefold() == "deck"),
    ),
    "sum ifs": (
        'SUMIFS(amounts, kinds, "deck", hours, ">3")',
        lambda v: sum(
            a for a, k, h in zip(v["amounts"], v["kinds"], v["hours"], strict=True) if k.casefold() == "deck" and h > 3
        ),
    ),
    "looked up": ("LOOKUP(price, amounts, hours)", lambda v: v["hours"][bisect.bisect(v["amounts"], v["price"]) - 1]),
    "matched": ('MATCH("hall", kinds, 0)', lambda v: v["kinds"].index("hall") + 1),
    "in order": ("MATCH(price, amounts)", lambda v: bisect.bisect(v["amounts"], v["price"])),
    "middle": ("MEDIAN(amounts)", lambda v: statistics.median(v["amounts"])),
    "third": ("LARGE(amounts, 3)", lambda v: sorted(v["amounts"], reverse=True)[2]),
    "written number": ('TEXT(distance, "#,##0.00")', lambda v: f"{v['distance']:,.2f}"),
    "written date": ('TEXT(start, "dd.mm.yyyy")', lambda v: f"{v['start']:%d.%m.%Y}"),
    "working day": ("WORKDAY(start, 20)", lambda v: _working_day(v["start"], 20)),
    "month": ("MONTH(EDATE(start, 3))", lambda v: (v["start"].month + 2) % 12 + 1),
}


def price_with_tax(price: float) -> float:
    """Return a price with 19 % tax."""
    return price * (1 + 0.19)
