"""Charts of figures: the bars of a score or a profile, and where on its line of numbers a figure of bands looks."""

from decimal import ROUND_HALF_UP, Decimal
from typing import Any

from codexa.core.definition.figures import BandsFigure, Figure, Profile, ProfileFigure, ScoreFigure
from codexa.core.form.paragraphs import ChartLook
from codexa.core.formula import convert
from codexa.core.formula.functions.numbers import rounder
from codexa.core.formula.values import Failed, FormulaFailure
from codexa.core.program.evaluate import State
from codexa.core.program.faces import BarFace
from codexa.core.program.figures import Ranking, Score
from codexa.core.program.scope import Presenter, presenter

CHARTED = (ScoreFigure, ProfileFigure)
_USUAL = ChartLook()
_half_up = rounder(ROUND_HALF_UP)


def bars_of(state: State, figure_id: str, look: ChartLook = _USUAL) -> list[BarFace]:
    """Return the bars of a figure that visitors may see: a score's one, or a profile's, as the chart's look says.

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
        return [_score_bar(place.figure, value, look, show)]
    if isinstance(value, Ranking):
        assert isinstance(place.figure, ProfileFigure)
        profiles = value.order if look.order == "largest" else place.figure.profiles
        return [_profile_bar(profile, value, look, show) for profile in profiles[: look.first]]
    return []


def _score_bar(figure: Figure, score: Score, look: ChartLook, show: Presenter) -> BarFace:
    share = _share(score.points, score.greatest)
    if look.says == "percent":
        decimals = figure.decimals if look.decimals is None else look.decimals
        text = f"{show(_rounded(score.percent, decimals))} %" if score.greatest else "0 %"
    else:
        text = f"{show(_rounded(score.points, look.decimals))} / {show(_rounded(score.greatest, look.decimals))}"
    return BarFace(label=figure.name, text=text, share=share)


def _profile_bar(profile: Profile, ranking: Ranking, look: ChartLook, show: Presenter) -> BarFace:
    points, share = ranking.points[profile.code], ranking.shares[profile.code]
    if look.says == "points":
        most = max(ranking.points.values())
        text, length = show(_rounded(points, look.decimals)), _share(points, most)
    else:
        text, length = f"{show(_rounded(share, look.decimals))} %", _share(share, Decimal(100))
    return BarFace(label=profile.label, text=text, share=length)


def _rounded(value: Decimal, decimals: int | None) -> Decimal:
    return value if decimals is None else _half_up(value, Decimal(decimals))


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
