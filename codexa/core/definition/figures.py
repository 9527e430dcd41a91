"""Figures: named values that are computed from the answers."""

from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Discriminator, StringConstraints
from pydantic import Field as Setting

from codexa.core.definition.parts import (
    ComputedBy,
    FormulaText,
    Identifier,
    Key,
    Label,
    Number,
    Part,
    PlainLabel,
    VisitorWords,
)
from codexa.core.formula.functions.function import Role

Code = Annotated[str, StringConstraints(min_length=1, max_length=100, pattern=r"^\S(.*\S)?$")]
Format = Literal["number", "money", "percent", "text", "date"]
Decimals = Annotated[int, Setting(ge=0, le=10)]


class Formatted(Part):
    """How a computed value is settled and shown.

    Money is rounded to the currency's minor unit (ISO 4217) where it is worked out; a number or percentage is rounded
    to `kept_decimals` there, half away from zero, or kept exactly where that is None, and shown with `decimals`.
    """

    format: Format = "number"
    decimals: Decimals = 0
    kept_decimals: Decimals | None = None


class Figure(Formatted):
    """A figure: `name` is for the team; visitors see its value only where it is `shown_to_visitors`."""

    id: Identifier
    key: Key
    name: Label = ""
    shown_to_visitors: bool = False


class FormulaFigure(Figure):
    """The result of a formula."""

    kind: Literal["formula"] = "formula"
    formula: ComputedBy = ""


class Band(Part):
    """A band: from this number on (included; none for everything below the next band), its value and its name.

    The value is a formula, worked out only where its band is the one: 240, or 12 + distance * 0.85.
    """

    start: Number | None = None
    value: Annotated[str, Setting(coerce_numbers_to_str=True), FormulaText(Role.VALUE, "band")] = "0"
    label: PlainLabel = ""


class BandsFigure(Figure):
    """The value of the band in which the result of `formula` lies; `end` is no longer part of the last band."""

    kind: Literal["bands"] = "bands"
    formula: ComputedBy = ""
    bands: tuple[Band, ...] = ()
    end: Number | None = None


class OptionWords(Part):
    """What is said of an answer once feedback is due for it, by the option's code."""

    code: Code
    text: VisitorWords


class ScoredQuestion(Part):
    """What a field's answer is worth: `points` of each option by code, or `worth` for exactly the `right` answers.

    For a field without options, `right` lists answers that are right, as formulas write them. `when_right`,
    `when_wrong` and `says` are the author's words for feedback (see Feedback).
    """

    field: Identifier
    points: dict[Code, Number] = Setting(default_factory=dict)
    right: tuple[Code, ...] = ()
    worth: Number = Decimal(1)
    when_right: VisitorWords = ""
    when_wrong: VisitorWords = ""
    says: tuple[OptionWords, ...] = ()


class Feedback(Part):
    """Whether visitors are told, question by question, what of a score was right.

    `when` it is due: never, when a page is left, or at once when an answer is checked. `shows_right` tells the right
    answer where another was given; with `again` the answer may be changed afterwards.
    """

    when: Literal["never", "page", "at_once"] = "never"
    shows_right: bool = True
    again: bool = False


class ScoreFigure(Figure):
    """The points of all answers that count."""

    kind: Literal["score"] = "score"
    questions: tuple[ScoredQuestion, ...] = ()


class Profile(Part):
    """A result that answers speak for."""

    code: Code
    label: PlainLabel


class ProfiledQuestion(Part):
    """What each option of a field speaks for: option code → profile code → points."""

    field: Identifier
    points: dict[Code, dict[Code, Number]] = Setting(default_factory=dict)


class ProfileFigure(Figure):
    """The profile with the most points.

    A tie is won by the first or the last of them in this order, or by none. `decimals` are those of the shares, which
    sum to 100 percent.
    """

    kind: Literal["profile"] = "profile"
    profiles: tuple[Profile, ...] = ()
    questions: tuple[ProfiledQuestion, ...] = ()
    tie: Literal["first", "last", "none"] = "first"


class Counted(Part):
    """A condition and how much it adds where it holds."""

    when: Annotated[str, FormulaText(Role.CONDITION, "counted")]
    by: Number = Decimal(1)


class CounterFigure(Figure):
    """How many of the conditions hold, counted from `start`."""

    kind: Literal["counter"] = "counter"
    start: Number = Decimal(0)
    counts: tuple[Counted, ...] = ()


AnyFigure = Annotated[FormulaFigure | BandsFigure | ScoreFigure | ProfileFigure | CounterFigure, Discriminator("kind")]
