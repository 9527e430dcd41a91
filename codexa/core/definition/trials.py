"""Trials: saved fill-ins with what must come out."""

import datetime
from typing import Annotated, Any

from annotated_types import Len
from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.definition.parts import GroupCode, Identifier, Part

Address = Annotated[str, StringConstraints(min_length=1, max_length=120)]  # "block", or "repeat/row/block"
FigureName = Annotated[str, StringConstraints(pattern=r"^([a-z0-9]{1,32}|whole-order|whole-payment)$")]
MAX_TRIALS = 200


class Expected(Part):
    """What must come out; what is left out is not looked at.

    `figures` are texts as people read them, by the id of a figure or calculated field, the order's total as
    "whole-order"; `exact` the numbers of those that are compared to the last digit, which people may read rounded, as
    plain text. `wrong` are the addresses of all blocks with an error, `path` the pages in order, `confirmation` an id,
    or "" for the form's usual words; `follow_ups` say by id what each that is done does, in one line.
    """

    shown: tuple[Identifier, ...] = ()
    hidden: tuple[Identifier, ...] = ()
    figures: dict[FigureName, str] = Setting(default_factory=dict)
    exact: dict[FigureName, str] = Setting(default_factory=dict)
    wrong: tuple[Address, ...] | None = None
    path: tuple[Identifier, ...] | None = None
    confirmation: str | None = None
    follow_ups: dict[Identifier, str] | None = None


class TrialVisitor(Part):
    """Who fills in, as formulas know them: a guest without an e-mail, else with `groups` by code."""

    email: Annotated[str, StringConstraints(max_length=254)] = ""
    name: Annotated[str, StringConstraints(max_length=200)] = ""
    groups: Annotated[tuple[GroupCode, ...], Len(max_length=200)] = ()


class Trial(Part):
    """Answers as a visitor would enter them, on a day, with values that came with the address."""

    id: Identifier
    name: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"\S")]
    answers: Annotated[dict[str, Any], Len(max_length=2_000)] = Setting(default_factory=dict)
    link: dict[str, str] = Setting(default_factory=dict)
    day: datetime.date
    visitor: TrialVisitor = TrialVisitor()
    expected: Expected = Expected()
