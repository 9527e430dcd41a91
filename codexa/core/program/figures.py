"""What figures compute beyond formulas: bands, scores, profiles."""

from bisect import bisect_right
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from decimal import ROUND_FLOOR, Decimal
from typing import Any, Literal

from codexa.core.definition.figures import Band, BandsFigure, Profile, ProfileFigure, ScoredQuestion, ScoreFigure
from codexa.core.formula import convert
from codexa.core.formula.values import ONE, ZERO, Choice, Choices, compared

_HUNDRED = Decimal(100)


@dataclass(frozen=True, slots=True)
class BandValue:
    """The band that a number lies in: its value, settled by the figure's format, its name, and which it is."""

    value: Any
    label: str
    index: int


def band_finder(figure: BandsFigure) -> Callable[[Any], int | None]:
    """Return what finds the band of a number, as its index: the last whose start is not more; None outside them."""
    numbered: list[tuple[int, Band]] = sorted(
        enumerate(figure.bands), key=lambda each: (each[1].start is not None, each[1].start or ZERO)
    )
    indices = [index for index, _ in numbered]
    starts = [compared(band.start) for _, band in numbered if band.start is not None]
    below = len(numbered) - len(starts)
    end = None if figure.end is None else compared(figure.end)

    def find(value: Any) -> int | None:
        if value is None:
            return None
        number = compared(convert.number(value))
        if end is not None and number >= end:
            return None
        place = bisect_right(starts, number) - 1 + below
        return indices[place] if place >= 0 else None

    return find


@dataclass(frozen=True, slots=True)
class Score:
    """Points of the answers that count, the greatest that could be had, and how many were right and answered."""

    points: Decimal
    greatest: Decimal
    right: Decimal
    answered: Decimal
    questions: Decimal

    @property
    def share(self) -> Decimal:
        """The part of the greatest score, from 0 to 1."""
        return self.points / self.greatest

    @property
    def percent(self) -> Decimal:
        """The same in percent, from 0 to 100."""
        return self.share * 100


def scorer(figure: ScoreFigure, most_picks: Mapping[str, int | None]) -> Callable[[Sequence[Any]], Score]:
    """Return what scores the answers of the figure's questions, given in their order."""
    questions = figure.questions
    greatest = sum((_greatest(question, most_picks.get(question.field, 1)) for question in questions), ZERO)
    points_of = [_points_of(question) for question in questions]
    asked = Decimal(len(questions))
    best = [_greatest(question, most_picks.get(question.field, 1)) for question in questions]

    def score(answers: Sequence[Any]) -> Score:
        points, right, answered = ZERO, 0, 0
        for answer, worth, most in zip(answers, points_of, best, strict=True):
            if answer is None:
                continue
            given = worth(answer)
            points += given
            answered += 1
            right += given >= most > 0
        return Score(points, greatest, Decimal(right), Decimal(answered), asked)

    return score


@dataclass(frozen=True, slots=True)
class Marked:
    """What an answer to one question is worth, and the most that any is."""

    points: Decimal
    greatest: Decimal

    @property
    def outcome(self) -> Literal["right", "partly", "wrong"]:
        """Whether it is worth the most, a part of it, or nothing."""
        if self.points >= self.greatest:
            return "right"
        return "partly" if self.points > 0 else "wrong"


def marker(question: ScoredQuestion, most: int | None) -> Callable[[Any], Marked]:
    """Return what marks one answer, of which at most so many options can be chosen; a blank one is worth nothing."""
    greatest, worth = _greatest(question, most), _points_of(question)
    return lambda answer: Marked(ZERO if answer is None else worth(answer), greatest)


def best_codes(question: ScoredQuestion, most: int | None) -> list[str]:
    """Return the codes, or texts, of the answer that is worth the most."""
    if question.right:
        return list(question.right)
    gains = sorted((code for code, points in question.points.items() if points > 0), key=lambda c: -question.points[c])
    return gains[:most]


def _greatest(question: ScoredQuestion, most: int | None) -> Decimal:
    if question.right:
        return question.worth
    gains = sorted((points for points in question.points.values() if points > 0), reverse=True)
    return sum(gains[:most], ZERO)


def _points_of(question: ScoredQuestion) -> Callable[[Any], Decimal]:
    if question.right:
        right = {text.casefold() for text in question.right}
        numbers = {number for text in question.right if (number := convert.plain_number(text.strip())) is not None}
        return lambda answer: question.worth if _is_right(answer, right, numbers) else ZERO
    points = {code.casefold(): each for code, each in question.points.items()}
    return lambda answer: sum((points.get(code.casefold(), ZERO) for code in codes_of(answer)), ZERO)


def _is_right(answer: Any, right: set[str], numbers: set[Decimal]) -> bool:
    if isinstance(answer, Choices):
        return {code.casefold() for code in answer} == right
    if isinstance(answer, Decimal):
        return answer in numbers  # 4 and 4.0 are the same answer
    return convert.text(answer).casefold() in right


def codes_of(answer: Any) -> Sequence[str]:
    """Return the codes of an answer, or its text where it has no options."""
    if isinstance(answer, Choices):
        return answer
    return (answer,) if isinstance(answer, Choice) else (convert.text(answer),)


@dataclass(frozen=True, slots=True)
class Ranking:
    """The profiles in the order of their points; `winner` is None where nothing was answered or a tie stands."""

    winner: Profile | None
    order: tuple[Profile, ...]
    points: Mapping[str, Decimal]
    shares: Mapping[str, Decimal]


def ranker(figure: ProfileFigure) -> Callable[[Sequence[Any]], Ranking]:
    """Return what ranks the profiles by the answers of the figure's questions, given in their order."""
    tables = [{code.casefold(): points for code, points in question.points.items()} for question in figure.questions]
    step = ONE.scaleb(-figure.decimals)
    profiles = figure.profiles if figure.tie != "last" else tuple(reversed(figure.profiles))

    def rank(answers: Sequence[Any]) -> Ranking:
        points = {profile.code: ZERO for profile in figure.profiles}
        for answer, table in zip(answers, tables, strict=True):
            for code in () if answer is None else codes_of(answer):
                for profile, given in table.get(code.casefold(), {}).items():
                    points[profile] = points.get(profile, ZERO) + given
        order = tuple(sorted(profiles, key=lambda profile: -points[profile.code]))
        return Ranking(_winner(order, points, figure.tie), order, points, shares(points, step))

    return rank


def _winner(order: Sequence[Profile], points: Mapping[str, Decimal], tie: str) -> Profile | None:
    if not order or points[order[0].code] <= 0:
        return None
    tied = len(order) > 1 and points[order[0].code] == points[order[1].code]
    return None if tied and tie == "none" else order[0]


def shares(points: Mapping[str, Decimal], step: Decimal) -> dict[str, Decimal]:
    """Return each part of the sum in percent, in multiples of `step` that add up to exactly 100 (or to 0).

    What rounding down leaves over goes to the greatest remainders, the first of equals first.
    """
    total = sum((each for each in points.values() if each > 0), ZERO)
    if not total:
        return dict.fromkeys(points, ZERO)
    exact = {code: max(each, ZERO) * _HUNDRED / total for code, each in points.items()}
    whole = {code: (each / step).to_integral_value(rounding=ROUND_FLOOR) * step for code, each in exact.items()}
    left = int(((_HUNDRED - sum(whole.values(), ZERO)) / step).to_integral_value())
    by_remainder = sorted(exact, key=lambda code: whole[code] - exact[code])
    return {code: each + (step if by_remainder.index(code) < left else ZERO) for code, each in whole.items()}
