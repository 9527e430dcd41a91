"""Charts of figures: the bars of a score or a profile, and where on its line of numbers a figure of bands looks."""

from decimal import Decimal
from typing import Any

from codexa.core.definition.figures import BandsFigure, ProfileFigure, ScoreFigure
from codexa.core.formula import convert
from codexa.core.formula.values import Failed, FormulaFailure
from codexa.core.program.evaluate import State
from codexa.core.program.faces import BarFace
from codexa.core.program.figures import Ranking, Score
from codexa.core.program.scope import presenter

CHARTED = (ScoreFigure, ProfileFigure)


def bars_of(state: State, figure_id: str) -> list[BarFace]:
    """Return the bars of a figure that visitors may see: a score's one, or a profile's in the order of their shares.

    Nothing for any other figure, or where nothing was answered.
    """
    place = state.program.figures.get(figure_id)
    if place is None or not place.figure.shown_to_visitors:
        return []
    value: Any = state.at(place.value)
    show = presenter(state.program.region)
    if value is None or isinstance(value, Failed):
        return []
    if isinstance(value, Score):
        text = f"{show(value.points)} / {show(value.greatest)}"
        return [BarFace(label=place.figure.name, text=text, share=_share(value.points, value.greatest))]
    if isinstance(value, Ranking):
        return [
            BarFace(
                label=profile.label,
                text=f"{show(value.shares[profile.code])} %",
                share=_share(value.shares[profile.code], Decimal(100)),
            )
            for profile in value.order
        ]
    return []


def looked_at(state: State) -> dict[str, str]:
    """Return, by the id of each figure of bands, the number that it looks at, as plain text; none where it has none."""
    found = {}
    for figure_id, place in state.program.figures.items():
        formula = state.program.formula(figure_id, "formula")
        if formula is None or not isinstance(place.figure, BandsFigure):
            continue
        number = _number(formula.compiled.run(state.values, state.context))
        if number is not None:
            found[figure_id] = convert.text(number)
    return found


def _number(value: Any) -> Decimal | None:
    try:
        return None if value is None or isinstance(value, Failed) else convert.number(value)
    except FormulaFailure:
        return None


def _share(part: Decimal, whole: Decimal) -> float:
    # A length on a screen, not a value: here alone a binary number will do.
    return round(float(max(Decimal(0), min(part / whole, Decimal(1)))), 4) if whole else 0.0
